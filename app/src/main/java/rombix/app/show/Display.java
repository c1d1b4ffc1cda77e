package rombix.app.show;

import java.util.Locale;

/** Whether windows can be shown: on a screen, or in memory if the toolkit was started headless. Doesn't load the toolkit. */
public final class Display {
    private static volatile boolean inMemory;

    private Display() {
    }

    public static boolean available() {
        return inMemory || !System.getProperty("os.name", "").toLowerCase(Locale.ROOT).contains("linux")
                || System.getenv("DISPLAY") != null || System.getenv("WAYLAND_DISPLAY") != null;
    }

    /** Windows are painted in memory from now on, as for pictures and tests. */
    static void inMemory() {
        inMemory = true;
    }
}
