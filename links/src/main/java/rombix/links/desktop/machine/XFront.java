package rombix.links.desktop.machine;

import com.sun.jna.NativeLong;
import com.sun.jna.Pointer;
import com.sun.jna.platform.unix.X11;
import com.sun.jna.ptr.IntByReference;
import com.sun.jna.ptr.PointerByReference;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.links.desktop.machine.Machine.Window;

/** Which window of an X server gets the keys, and which a click at a point. One thread's. */
@OwnedBy(Owner.LINK)
public final class XFront {
    /** The class of Rombix's windows. */
    public static final String OWN_CLASS = "Rombix";
    private static final int DEEP = 8;
    private static final long POINTER_ROOT = 1; // The window under the pointer gets the keys.
    private static final int VIEWABLE = 2; // IsViewable, X.h

    private final XServer server;

    public XFront(XServer server) {
        this.server = server;
    }

    /** The process that a window is of; -1 where it does not say. */
    private long process(X11.Window window) {
        Pointer pid = server.property(window, "_NET_WM_PID");
        long process = pid == null ? -1 : pid.getNativeLong(0).longValue();
        server.free(pid);
        return process;
    }

    /** Whether a window, or one that it lies in, is one of Rombix: of this process, or of another one. */
    public boolean ownWindow(X11.@Nullable Window window) {
        for (int i = 0; i < DEEP && window != null && window.longValue() > 1; i++) {
            if (process(window) == ProcessHandle.current().pid()
                    || OWN_CLASS.equals(server.text(window, "WM_CLASS",
                            true))) {
                return true;
            }
            window = server.parent(window);
        }
        return false;
    }

    public boolean ownWindow(Window window) {
        return ownWindow(new X11.Window(window.id()));
    }

    /** The window that gets keys now; null where none does. */
    X11.@Nullable Window keyboard() {
        X11.Window focused = server.focused();
        if (focused == null || focused.longValue() != POINTER_ROOT) {
            return focused;
        }
        X11.WindowByReference under = new X11.WindowByReference();
        IntByReference unused = new IntByReference();
        server.x.XQueryPointer(server.display, server.root, new X11.WindowByReference(), under, unused, unused, unused,
                unused, unused);
        return under.getValue();
    }

    /** Whether a window is another one, or lies in it. */
    boolean within(X11.@Nullable Window inner, Window outer) {
        for (int i = 0; i < DEEP && inner != null && inner.longValue() > 1; i++) {
            if (inner.longValue() == outer.id()) {
                return true;
            }
            inner = server.parent(inner);
        }
        return false;
    }

    /** The outermost window at a point, its frame included; null where there is none. */
    private X11.@Nullable Window outermost(int left, int top) {
        X11.WindowByReference child = new X11.WindowByReference();
        server.x.XTranslateCoordinates(server.display, server.root, server.root, left, top, new IntByReference(),
                new IntByReference(), child);
        X11.Window found = child.getValue();
        return found == null || found.longValue() == 0 ? null : found;
    }

    /** The window that lies at a point, above all others. */
    public Optional<Window> at(int left, int top) {
        X11.Window outermost = outermost(left, top);
        return outermost == null
                ? Optional.empty()
                : named(outermost, DEEP).or(() -> Optional.of(new Window(
                        outermost.longValue(), "another window", "", server.box(outermost))));
    }

    /** The first window with a name among a window and those in it. */
    private Optional<Window> named(X11.Window of, int deep) {
        Optional<Window> found = server.window(of);
        List<X11.Window> children = found.isPresent() || deep == 0 ? List.of() : children(of);
        for (int i = 0; i < children.size() && found.isEmpty(); i++) {
            found = named(children.get(i), deep - 1);
        }
        return found;
    }

    private List<X11.Window> children(X11.Window of) {
        PointerByReference list = new PointerByReference();
        IntByReference count = new IntByReference();
        List<X11.Window> all = new ArrayList<>();
        if (server.x.XQueryTree(server.display, of, new X11.WindowByReference(), new X11.WindowByReference(), list,
                count) != 0) {
            for (int i = 0; i < count.getValue(); i++) {
                all.add(new X11.Window(list.getValue().getNativeLong((long) i * NativeLong.SIZE).longValue()));
            }
            server.free(list.getValue());
        }
        return all;
    }

    /** Whether a window, its frame included, lies above all others at a point. */
    boolean topmost(Window window, int left, int top) {
        X11.Window there = outermost(left, top);
        X11.Window now = new X11.Window(window.id());
        for (int i = 0; i < DEEP && there != null && now != null; i++) {
            if (now.longValue() == there.longValue()) {
                return true;
            }
            now = server.parent(now);
        }
        return false;
    }

    /** Whether a window is mapped, and all that it lies in. */
    boolean shown(Window window) {
        X11.XWindowAttributes attributes = new X11.XWindowAttributes();
        return server.x.XGetWindowAttributes(server.display, new X11.Window(window.id()), attributes) != 0
                && attributes.map_state == VIEWABLE;
    }

    /** Gives the keyboard to the foremost window of another program, without raising it. */
    public void passKeyboardOn() {
        server.windows().stream().filter(w -> !ownWindow(new X11.Window(w.id())) && shown(w)).findFirst()
                .ifPresent(w -> {
                    server.more.XSetInputFocus(server.display, new X11.Window(w.id()), 1, new NativeLong(0));
                    server.x.XSync(server.display, false);
                });
    }
}
