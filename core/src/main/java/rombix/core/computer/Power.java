package rombix.core.computer;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;

/** Something of this computer that a board may use only by its owner's leave. */
public enum Power {
    KEYS("presses keys and types"), POINTER("moves the pointer and clicks"), PROGRAMS("runs programs"), FILES(
            "opens files, folders and pages"), WINDOWS("moves and closes windows"), CLIPBOARD(
                    "reads and changes the clipboard"), SCREEN(
                            "sees what is on the screen"), SYSTEM("changes sound, screen and sleep of this computer");

    private final String words;

    Power(String words) {
        this.words = words;
    }

    /** What a board does with it, as a clause that follows a name. */
    public String words() {
        return words;
    }

    /** As it is written on a command line. */
    public String id() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** The power that is written so. */
    public static Optional<Power> of(String id) {
        return Arrays.stream(values()).filter(p -> p.id().equals(id.strip().toLowerCase(Locale.ROOT))).findFirst();
    }
}
