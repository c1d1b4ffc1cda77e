package rombix.web.access;

/** What a device or a program may do beside watching. */
public enum Right {
    /** Press, turn, move, answer questions, and stop a single chain. */
    PRESS("press"),
    /** Stop everything that runs. */
    STOP_ALL("stop all"),
    /** Read the log. */
    LOG("read the log");

    private final String words;

    Right(String words) {
        this.words = words;
    }

    /** As an interface says it. */
    public String words() {
        return words;
    }
}
