package rombix.core.engine;

/**
 * Whether a gear can be commanded, in words that help.
 *
 * @param words one short clause: {@code ready}, {@code no answer at 127.0.0.1:9000}
 * @param hint what to try next; empty when nothing is wrong
 * @param ignored how many packets were malformed or not what the card says
 */
public record Status(Phase phase, String words, String hint, long ignored) {
    /** Before anything was tried. */
    public static final Status UNTRIED = new Status(Phase.CONNECTING, "connecting", "", 0);

    /** That of a twin, which always hears. */
    public static final Status TWIN = new Status(Phase.READY, "twin", "", 0);

    /** How far a link has come. */
    public enum Phase {
        /** Nothing can be sent. */
        OFF,
        /** Being tried; nothing can be sent yet. */
        CONNECTING,
        /** Can be sent to, but has never answered. */
        SILENT,
        /** Can be sent to, and answers or needs not. */
        READY
    }

    /** Whether a command would go out. */
    public boolean sends() {
        return phase == Phase.READY || phase == Phase.SILENT;
    }

    /** Whether nothing is wrong, or not yet. */
    public boolean well() {
        return phase == Phase.READY || phase == Phase.CONNECTING;
    }
}
