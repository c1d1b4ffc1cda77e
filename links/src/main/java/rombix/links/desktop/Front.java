package rombix.links.desktop;

import com.sun.jna.Library;
import com.sun.jna.Native;
import com.sun.jna.NativeLong;
import com.sun.jna.Platform;
import com.sun.jna.Pointer;
import com.sun.jna.platform.unix.X11;
import com.sun.jna.platform.win32.User32;
import com.sun.jna.platform.win32.WinDef.HWND;
import com.sun.jna.ptr.IntByReference;
import com.sun.jna.ptr.NativeLongByReference;
import com.sun.jna.ptr.PointerByReference;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;

/** Asks the desktop which application is in front. One thread's. */
@OwnedBy(Owner.LINK)
interface Front extends AutoCloseable {
    /** A window in front: its application's name and its title. */
    record Window(String application, String title) {
    }

    /** There is no desktop to ask, and why. */
    final class NoDesktop extends Exception {
        private static final long serialVersionUID = 1L;

        NoDesktop(String message) {
            super(message);
        }
    }

    /** The applications that have windows now, as far as the desktop tells. */
    Set<String> applications();

    /** What is in front; empty where nothing is. */
    Optional<Window> now();

    @Override
    void close();

    /** That of this machine. */
    static Front open() throws NoDesktop {
        try {
            if (Platform.isWindows()) {
                return new OfWindows();
            }
            if (Platform.isMac()) {
                throw new NoDesktop("this system does not say which window has the focus");
            }
            return new OfX();
        } catch (UnsatisfiedLinkError | NoClassDefFoundError e) {
            throw new NoDesktop("what is in front cannot be asked: " + e.getMessage());
        }
    }

    /** By the X server: the active window, as window managers tell it, else the one with the keyboard. */
    final class OfX implements Front {
        private static final int NAMES_UP = 8;

        /** What the general bindings lack. */
        interface Keyboard extends Library {
            int XGetInputFocus(X11.Display display, X11.WindowByReference window, IntByReference revert);
        }

        private final X11 x = X11.INSTANCE;
        private final Keyboard keyboard = Native.load("X11", Keyboard.class);
        private final X11.Display display;

        OfX() throws NoDesktop {
            X11.Display opened = System.getenv("DISPLAY") == null ? null : x.XOpenDisplay(null);
            if (opened == null) {
                throw new NoDesktop("there is no desktop here (no X server)");
            }
            display = opened;
            // A window may be gone before it is asked for its name: that is no reason to end the program.
            x.XSetErrorHandler((_, _) -> 0);
        }

        @Override
        public Optional<Window> now() {
            X11.Window root = x.XDefaultRootWindow(display);
            Pointer active = property(root, "_NET_ACTIVE_WINDOW");
            X11.Window window = active == null ? focused() : new X11.Window(active.getNativeLong(0).longValue());
            free(active);
            for (int i = 0; i < NAMES_UP && window != null && window.longValue() > 1; i++) {
                String application = text(window, "WM_CLASS", true);
                if (application != null) {
                    String title = text(window, "_NET_WM_NAME", false);
                    if (title == null) {
                        title = text(window, "WM_NAME", false);
                    }
                    return Optional.of(new Window(application, title == null ? "" : title));
                }
                window = parent(window);
            }
            return Optional.empty();
        }

        @Override
        public Set<String> applications() {
            Set<String> names = new TreeSet<>();
            NativeLongByReference count = new NativeLongByReference();
            Pointer all = property(x.XDefaultRootWindow(display), "_NET_CLIENT_LIST", count);
            if (all != null) {
                for (int i = 0; i < count.getValue().intValue(); i++) {
                    String name = text(new X11.Window(all.getNativeLong((long) i * NativeLong.SIZE).longValue()),
                            "WM_CLASS", true);
                    if (name != null) {
                        names.add(name);
                    }
                }
            }
            free(all);
            return names;
        }

        private X11.@Nullable Window focused() {
            X11.WindowByReference at = new X11.WindowByReference();
            keyboard.XGetInputFocus(display, at, new IntByReference());
            return at.getValue();
        }

        private X11.@Nullable Window parent(X11.Window of) {
            X11.WindowByReference root = new X11.WindowByReference();
            X11.WindowByReference parent = new X11.WindowByReference();
            PointerByReference children = new PointerByReference();
            if (x.XQueryTree(display, of, root, parent, children, new IntByReference()) == 0) {
                return null;
            }
            free(children.getValue());
            return parent.getValue();
        }

        private @Nullable Pointer property(X11.Window of, String name) {
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
        private @Nullable String text(X11.Window of, String name, boolean second) {
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

        private void free(@Nullable Pointer data) {
            if (data != null) {
                x.XFree(data);
            }
        }

        @Override
        public void close() {
            x.XCloseDisplay(display);
        }
    }

    /** By the system's own window functions. */
    final class OfWindows implements Front {
        private static final int LONGEST = 512;

        @Override
        public Optional<Window> now() {
            HWND window = User32.INSTANCE.GetForegroundWindow();
            if (window == null) {
                return Optional.empty();
            }
            char[] title = new char[LONGEST];
            char[] kind = new char[LONGEST];
            User32.INSTANCE.GetWindowText(window, title, LONGEST);
            User32.INSTANCE.GetClassName(window, kind, LONGEST);
            return Optional.of(new Window(Native.toString(kind), Native.toString(title)));
        }

        @Override
        public Set<String> applications() {
            return Set.of();
        }

        @Override
        public void close() {
            // Nothing is open.
        }
    }
}
