package rombix.links.desktop.machine;

import com.sun.jna.Callback;
import com.sun.jna.Library;
import com.sun.jna.Native;
import com.sun.jna.NativeLong;
import com.sun.jna.Pointer;
import com.sun.jna.platform.unix.X11;
import com.sun.jna.ptr.IntByReference;
import com.sun.jna.ptr.NativeLongByReference;
import com.sun.jna.ptr.PointerByReference;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rombix.core.sight.Pixels;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.thread.OwnedBy;
import rombix.links.desktop.machine.Machine.Box;
import rombix.links.desktop.machine.Machine.Window;

/** A connection to the X server, and what it says of windows (by the conventions of window managers, EWMH). One thread's. */
@OwnedBy(Owner.LINK)
public final class XServer implements AutoCloseable {
    static final int NAMES_UP = 8;
    private static final long FROM_A_PAGER = 2;

    /** Connections come and go one at a time: the library keeps lists of all of them. */
    private static final Object OPENING = new Object();
    /** A window may be gone before it is asked for its name: that is no reason to end the program. Kept, as C calls it. A
     * toolkit that is there passes over errors of connections that are not its own. */
    private static final X11.XErrorHandler NO_MATTER = (_, _) -> 0;

    /** Whether a toolkit is there that handles errors itself. */
    private static volatile boolean toolkitHandlesErrors;

    private static final int END_TRIES = 20;
    private static final long END_MILLIS = 400;
    /** The thread that ends the show when the process ends. */
    private static final String SHOW_ENDS = "the end";

    /** Told that the connection to the X server broke; the process ends when it returns. */
    interface ServerGone extends Callback {
        int gone(X11.Display display);
    }

    /**
     * The X server died: the process ends with it, but in the one way in which it always ends, so that what is held is let
     * go first. Kept, as C calls it.
     */
    private static final ServerGone END = _ -> {
        try {
            Runtime.getRuntime().addShutdownHook(Thread.ofPlatform().name("no X server").unstarted(
                    XServer::endAtLast));
            Runtime.getRuntime().exit(1);
        } catch (IllegalStateException e) { // It is ending already.
            endAtLast();
        }
        return 0;
    };

    /**
     * Ends the process once the show has ended, or after some seconds: the toolkit, which holds locks of the connection
     * that broke, would wait for itself in what it does at the end of a process.
     */
    private static void endAtLast() {
        try {
            for (int i = 0; i < END_TRIES; i++) {
                Thread.sleep(END_MILLIS);
                if (Thread.getAllStackTraces().keySet().stream().noneMatch(t -> t.getName().equals(SHOW_ENDS))) {
                    break;
                }
            }
        } catch (InterruptedException e) {
            // It has waited long enough.
        }
        Native.load("c", EndOfProcess.class)._exit(1);
    }

    /** Ends the process at once, whatever libraries want to do at its end. */
    interface EndOfProcess extends Library {
        void _exit(int code);
    }

    /** A toolkit has come that handles errors itself: no handler of ours takes the place of its own, but for one. */
    public static void toolkit() {
        toolkitHandlesErrors = true;
        try {
            Native.load("X11", More.class).XSetIOErrorHandler(END);
        } catch (UnsatisfiedLinkError e) {
            // Then the process just ends.
        }
    }

    /** What the general bindings lack. */
    interface More extends Library {
        int XGrabServer(X11.Display display);

        int XUngrabServer(X11.Display display);

        int XInitThreads();

        int XGetInputFocus(X11.Display display, X11.WindowByReference window, IntByReference revert);

        int XSetInputFocus(X11.Display display, X11.Window window, int revert, NativeLong time);

        int XRaiseWindow(X11.Display display, X11.Window window);

        Pointer XSetIOErrorHandler(ServerGone handler);

        int XIconifyWindow(X11.Display display, X11.Window window, int screen);

        int XMoveResizeWindow(X11.Display display, X11.Window window, int x, int y, int width, int height);

        Pointer XGetKeyboardMapping(X11.Display display, byte first, int count, IntByReference perKey);
    }

    /** Several screens that make one. */
    interface Screens extends Library {
        /** Held for ever: each display calls it as it closes, and a library that nobody holds is unloaded before. */
        Screens INSTANCE = Native.load("Xinerama", Screens.class);

        Pointer XineramaQueryScreens(X11.Display display, IntByReference count);
    }

    private static final int SCREEN_BYTES = 12; // A number of 32 bits, and four of 16: x, y, width, height.

    final X11 x = X11.INSTANCE;
    final More more = Native.load("X11", More.class);
    final X11.Display display;
    final X11.Window root;
    private boolean tests;

    /** @throws Unable where there is none */
    public XServer() throws Unable {
        X11.Display opened;
        synchronized (OPENING) {
            more.XInitThreads();
            opened = System.getenv("DISPLAY") == null ? null : x.XOpenDisplay(null);
            if (opened != null) {
                IntByReference unused = new IntByReference();
                tests = X11.XTest.INSTANCE.XTestQueryExtension(opened, unused, unused, unused, unused);
            }
        }
        if (opened == null) {
            throw new Unable(System.getenv("WAYLAND_DISPLAY") == null
                    ? "there is no desktop here (no X server)"
                    : "this desktop has no X server, so programs can't control each other. Log in with an X session");
        }
        display = opened;
        root = x.XDefaultRootWindow(display);
        if (!toolkitHandlesErrors) {
            x.XSetErrorHandler(NO_MATTER);
        }
        synchronized (OPENING) {
            screens();
        }
    }

    /** Whether it lets programs press keys (the extension XTEST). */
    boolean tests() {
        return tests;
    }

    /** The windows that are to be seen, the foremost first. */
    List<Window> windows() {
        List<Window> all = new ArrayList<>();
        for (String of : new String[]{"_NET_CLIENT_LIST_STACKING", "_NET_CLIENT_LIST"}) {
            NativeLongByReference count = new NativeLongByReference();
            Pointer ids = property(root, of, count);
            for (int i = count.getValue().intValue() - 1; ids != null && i >= 0; i--) {
                window(new X11.Window(ids.getNativeLong((long) i * NativeLong.SIZE).longValue())).ifPresent(all::add);
            }
            free(ids);
            if (!all.isEmpty()) {
                return all;
            }
        }
        return all;
    }

    /** The window that has the keyboard. */
    Optional<Window> front() {
        Pointer active = property(root, "_NET_ACTIVE_WINDOW");
        X11.Window window = active == null ? focused() : new X11.Window(active.getNativeLong(0).longValue());
        free(active);
        for (int i = 0; i < NAMES_UP && window != null && window.longValue() > 1; i++) {
            Optional<Window> named = window(window);
            if (named.isPresent()) {
                return named;
            }
            window = parent(window);
        }
        return Optional.empty();
    }

    Optional<Window> window(X11.Window window) {
        String application = text(window, "WM_CLASS", true);
        String title = text(window, "_NET_WM_NAME", false);
        if (title == null) {
            title = text(window, "WM_NAME", false);
        }
        if (application == null && title == null) {
            return Optional.empty();
        }
        String named = title == null ? "" : title;
        return Optional.of(new Window(window.longValue(), application == null ? named : application, named, box(
                window)));
    }

    Pixels picture(Box part) throws Unable {
        return XPicture.of(display, root, part);
    }

    Box box(X11.Window window) {
        IntByReference width = new IntByReference();
        IntByReference height = new IntByReference();
        IntByReference left = new IntByReference();
        IntByReference top = new IntByReference();
        IntByReference unused = new IntByReference();
        x.XGetGeometry(display, window, new X11.WindowByReference(), unused, unused, width, height, unused, unused);
        x.XTranslateCoordinates(display, window, root, 0, 0, left, top, new X11.WindowByReference());
        return new Box(left.getValue(), top.getValue(), width.getValue(), height.getValue());
    }

    X11.@Nullable Window focused() {
        X11.WindowByReference at = new X11.WindowByReference();
        more.XGetInputFocus(display, at, new IntByReference());
        return at.getValue();
    }

    X11.@Nullable Window parent(X11.Window of) {
        X11.WindowByReference top = new X11.WindowByReference();
        X11.WindowByReference parent = new X11.WindowByReference();
        PointerByReference children = new PointerByReference();
        if (x.XQueryTree(display, of, top, parent, children, new IntByReference()) == 0) {
            return null;
        }
        free(children.getValue());
        return parent.getValue();
    }

    /** The screens, the first one first. */
    List<Box> screens() {
        List<Box> all = new ArrayList<>();
        try {
            IntByReference count = new IntByReference();
            Pointer screens = Screens.INSTANCE.XineramaQueryScreens(display, count);
            for (int i = 0; screens != null && i < count.getValue(); i++) {
                Pointer s = screens.share((long) i * SCREEN_BYTES);
                all.add(new Box(s.getShort(4), s.getShort(6), s.getShort(8), s.getShort(10)));
            }
            free(screens);
        } catch (LinkageError e) {
            // Then there is one.
        }
        if (all.isEmpty()) {
            int screen = x.XDefaultScreen(display);
            all.add(new Box(0, 0, x.XDisplayWidth(display, screen), x.XDisplayHeight(display, screen)));
        }
        return all;
    }

    /** Asks the window manager for something about a window; does it alone where there is none. */
    void bring(Window window) {
        X11.Window to = new X11.Window(window.id());
        if (managed()) {
            ask(to, "_NET_ACTIVE_WINDOW", FROM_A_PAGER);
        } else {
            more.XRaiseWindow(display, to);
            more.XSetInputFocus(display, to, 1, new NativeLong(0));
        }
        x.XSync(display, false);
    }

    /** Asks the window manager to put a window above the others; does it alone where there is none. */
    void raise(Window window) {
        X11.Window to = new X11.Window(window.id());
        if (managed()) {
            ask(to, "_NET_RESTACK_WINDOW", FROM_A_PAGER, 0, 0);
        } else {
            more.XRaiseWindow(display, to);
        }
        x.XSync(display, false);
    }

    void close(Window window) {
        if (managed()) {
            ask(new X11.Window(window.id()), "_NET_CLOSE_WINDOW", 0);
        } else {
            x.XDestroyWindow(display, new X11.Window(window.id()));
        }
        x.XSync(display, false);
    }

    void minimise(Window window) {
        more.XIconifyWindow(display, new X11.Window(window.id()), x.XDefaultScreen(display));
        x.XSync(display, false);
    }

    void place(Window window, Box box) {
        X11.Window to = new X11.Window(window.id());
        if (managed()) { // A window that fills its screen has no place of its own.
            ask(to, "_NET_WM_STATE", 0, atom("_NET_WM_STATE_MAXIMIZED_HORZ"), atom("_NET_WM_STATE_MAXIMIZED_VERT"));
        }
        more.XMoveResizeWindow(display, to, box.x(), box.y(), Math.max(1, box.width()), Math.max(1, box.height()));
        x.XSync(display, false);
    }

    private boolean managed() {
        Pointer check = property(root, "_NET_SUPPORTING_WM_CHECK");
        free(check);
        return check != null;
    }

    private long atom(String name) {
        return x.XInternAtom(display, name, false).longValue();
    }

    private void ask(X11.Window about, String what, long... data) {
        X11.XEvent event = new X11.XEvent();
        event.setType(X11.XClientMessageEvent.class);
        event.type = X11.ClientMessage;
        event.xclient.type = X11.ClientMessage;
        event.xclient.display = display;
        event.xclient.window = about;
        event.xclient.message_type = x.XInternAtom(display, what, false);
        event.xclient.format = 32;
        event.xclient.data.setType(NativeLong[].class);
        for (int i = 0; i < 5; i++) {
            event.xclient.data.l[i] = new NativeLong(i < data.length ? data[i] : 0);
        }
        x.XSendEvent(display, root, 0, new NativeLong(X11.SubstructureNotifyMask | X11.SubstructureRedirectMask),
                event);
    }

    @Nullable
    Pointer property(X11.Window of, String name) {
        return property(of, name, new NativeLongByReference());
    }

    private @Nullable Pointer property(X11.Window of, String name, NativeLongByReference count) {
        X11.AtomByReference type = new X11.AtomByReference();
        IntByReference format = new IntByReference();
        NativeLongByReference left = new NativeLongByReference();
        PointerByReference data = new PointerByReference();
        int failed = x.XGetWindowProperty(display, of, x.XInternAtom(display, name, false), new NativeLong(0),
                new NativeLong(256), false, new X11.Atom(0), type, format, count, left, data);
        Pointer found = data.getValue();
        if (failed != 0 || found == null || count.getValue().longValue() == 0) {
            free(found);
            return null;
        }
        return found;
    }

    /** @param second the second of two texts, as a window's class has them */
    @Nullable
    String text(X11.Window of, String name, boolean second) {
        NativeLongByReference count = new NativeLongByReference();
        Pointer data = property(of, name, count);
        if (data == null) {
            return null;
        }
        byte[] bytes = data.getByteArray(0, (int) count.getValue().longValue());
        free(data);
        String[] texts = new String(bytes, StandardCharsets.UTF_8).split("\0");
        String text = texts.length == 0 ? "" : second && texts.length > 1 ? texts[1] : texts[0];
        return text.isEmpty() ? null : text;
    }

    void free(@Nullable Pointer data) {
        if (data != null) {
            x.XFree(data);
        }
    }

    @Override
    public void close() {
        synchronized (OPENING) {
            x.XCloseDisplay(display);
        }
    }
}
