package rombix.app.show;

import java.util.Locale;

/** Whether there is a screen to show a window on. */
public final class Display {
    private Display() {
    }

    public static boolean there() {
        return !System.getProperty("os.name", "").toLowerCase(Locale.ROOT).contains("linux")
                || System.getenv("DISPLAY") != null || System.getenv("WAYLAND_DISPLAY") != null;
    }
}
