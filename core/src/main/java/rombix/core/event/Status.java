package rombix.core.event;

import java.util.List;

/**
 * Whether a gear can be commanded, and why not.
 *
 * @param told what is told along with the cause, such as an address, in the order of its places
 * @param ignored how many packets were malformed or not what the card says
 */
public record Status(Phase phase, Cause cause, List<String> told, long ignored) {
    /** Before anything was tried. */
    public static final Status UNTRIED = new Status(Phase.CONNECTING, Cause.CONNECTING);

    /** That of a twin, which always hears. */
    public static final Status TWIN = new Status(Phase.READY, Cause.TWIN);

    public Status {
        told = List.copyOf(told);
    }

    /** With nothing ignored. */
    public Status(Phase phase, Cause cause, String... told) {
        this(phase, cause, List.of(told), 0);
    }

    /** Why it cannot be worked, or not as it should. */
    public Cause.Reason reason() {
        return cause.reason();
    }

    /** One short clause: {@code ready}, {@code no response from 127.0.0.1:9000}. */
    public String words() {
        return cause.words(told);
    }

    /** What to try next; empty when nothing is wrong. */
    public String hint() {
        return cause.hint(told);
    }

    /** The same with another count of what was ignored. */
    public Status withIgnored(long now) {
        return new Status(phase, cause, told, now);
    }

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
