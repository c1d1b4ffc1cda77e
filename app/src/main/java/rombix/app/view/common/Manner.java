package rombix.app.view.common;

import com.sun.jna.Library;
import com.sun.jna.Native;
import com.sun.jna.NativeLong;
import com.sun.jna.Platform;
import com.sun.jna.Pointer;
import com.sun.jna.platform.unix.X11;
import com.sun.jna.platform.win32.User32;
import com.sun.jna.platform.win32.WinDef.HWND;
import com.sun.jna.platform.win32.WinUser;
import com.sun.jna.ptr.IntByReference;
import com.sun.jna.ptr.NativeLongByReference;
import com.sun.jna.ptr.PointerByReference;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import javafx.stage.Stage;

/**
 * Windows that leave the keyboard to whatever program has it: a click in them works, and the program in front stays in
 * front. By the desktop's own means; where it has none, windows are as any other.
 */
public final class Manner {
    private static final int WITHOUT_ACTIVATION = 0x08000000; // WS_EX_NOACTIVATE, winuser.h

    private Manner() {
    }

    /** What the toolkit's own windows are made of under X. */
    interface Gdk extends Library {
        Pointer gdk_screen_get_default();

        Pointer gdk_screen_get_toplevel_windows(Pointer screen);

        void gdk_window_set_accept_focus(Pointer window, int on);

        void gdk_window_set_focus_on_map(Pointer window, int on);

        NativeLong gdk_x11_window_get_xid(Pointer window);

        void gdk_window_set_keep_above(Pointer window, int on);

        void gdk_window_hide(Pointer window);

        void gdk_window_show(Pointer window);
    }

    /**
     * Shows a window that takes no keyboard.
     *
     * @return what lets it take the keyboard from now on, or not; does nothing where the desktop has no such manner
     */
    public static Taking show(Stage stage) {
        if (Platform.isWindows()) {
            stage.show();
            Taking taking = windows(stage);
            taking.keyboard(false);
            return taking;
        }
        if (Platform.isMac() || System.getenv("DISPLAY") == null || !stageIsNative()) {
            stage.show();
            return _ -> {
            };
        }
        try {
            Gdk gdk = Native.load("gdk-3", Gdk.class);
            List<Pointer> before = windows(gdk);
            stage.show();
            List<Pointer> fresh = windows(gdk);
            fresh.removeAll(before);
            fresh.forEach(w -> {
                gdk.gdk_window_set_accept_focus(w, 0);
                gdk.gdk_window_set_focus_on_map(w, 0);
                gdk.gdk_window_hide(w); // What had the keyboard before has it again.
                gdk.gdk_window_show(w);
                gdk.gdk_window_set_keep_above(w, stage.isAlwaysOnTop() ? 1 : 0);
            });
            return on -> fresh.forEach(w -> gdk.gdk_window_set_accept_focus(w, on ? 1 : 0));
        } catch (UnsatisfiedLinkError e) {
            stage.show();
            return _ -> {
            };
        }
    }

    /** What lets a window that is to be seen take the keyboard, or not. */
    public static Taking of(Stage stage) {
        if (Platform.isWindows()) {
            return windows(stage);
        }
        if (Platform.isMac() || System.getenv("DISPLAY") == null || !stageIsNative()) {
            return _ -> {
            };
        }
        try {
            Gdk gdk = Native.load("gdk-3", Gdk.class);
            X11.Display display = X11.INSTANCE.XOpenDisplay(null);
            List<Pointer> own = windows(gdk).stream().filter(w -> stage.getTitle().equals(title(display, gdk
                    .gdk_x11_window_get_xid(w)))).toList();
            X11.INSTANCE.XCloseDisplay(display);
            return on -> own.forEach(w -> gdk.gdk_window_set_accept_focus(w, on ? 1 : 0));
        } catch (UnsatisfiedLinkError e) {
            return _ -> {
            };
        }
    }

    private static String title(X11.Display display, NativeLong window) {
        X11.AtomByReference type = new X11.AtomByReference();
        IntByReference format = new IntByReference();
        NativeLongByReference count = new NativeLongByReference();
        PointerByReference data = new PointerByReference();
        X11.INSTANCE.XGetWindowProperty(display, new X11.Window(window.longValue()), X11.INSTANCE.XInternAtom(display,
                "_NET_WM_NAME", false), new NativeLong(0), new NativeLong(256), false, new X11.Atom(0), type, format,
                count, new NativeLongByReference(), data);
        if (data.getValue() == null) {
            return "";
        }
        String words = new String(data.getValue().getByteArray(0, (int) count.getValue().longValue()),
                StandardCharsets.UTF_8);
        X11.INSTANCE.XFree(data.getValue());
        return words;
    }

    private static Taking windows(Stage stage) {
        HWND window = User32.INSTANCE.FindWindow(null, stage.getTitle());
        return on -> {
            int style = User32.INSTANCE.GetWindowLong(window, WinUser.GWL_EXSTYLE);
            User32.INSTANCE.SetWindowLong(window, WinUser.GWL_EXSTYLE, on
                    ? style & ~WITHOUT_ACTIVATION
                    : style | WITHOUT_ACTIVATION);
        };
    }

    /** Whether a window takes the keyboard. */
    public interface Taking {
        void keyboard(boolean on);
    }

    private static boolean stageIsNative() {
        return !"Headless".equalsIgnoreCase(System.getProperty("glass.platform"));
    }

    private static List<Pointer> windows(Gdk gdk) {
        List<Pointer> all = new ArrayList<>();
        for (Pointer l = gdk.gdk_screen_get_toplevel_windows(gdk.gdk_screen_get_default()); l != null; l = l.getPointer(
                Native.POINTER_SIZE)) {
            all.add(l.getPointer(0));
        }
        return all;
    }
}
