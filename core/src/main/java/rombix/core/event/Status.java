package rombix.core.event;

/**
 * Whether a gear can be commanded, in words that help.
 *
 * @param reason why it cannot be worked, or not as it should
 * @param words one short clause: {@code ready}, {@code no answer at 127.0.0.1:9000}
 * @param hint what to try next; empty when nothing is wrong
 * @param ignored how many packets were malformed or not what the card says
 */
public record Status(Phase phase, Reason reason, String words, String hint, long ignored) {
    /** Before anything was tried. */
    public static final Status UNTRIED = new Status(Phase.CONNECTING, "connecting", "", 0);

    /** That of a twin, which always hears. */
    public static final Status TWIN = new Status(Phase.READY, "twin", "", 0);

    /** For the usual reason of a phase. */
    public Status(Phase phase, String words, String hint, long ignored) {
        this(phase, Reason.of(phase), words, hint, ignored);
    }

    /** Why gear cannot be worked, or not as it should: what code goes by, as words are for people. */
    public enum Reason {
        /** Nothing is wrong, or not yet. */
        NONE,
        /** Nothing answers there, or there is no way to it. */
        UNREACHABLE,
        /** The computer is there and says that nothing listens. */
        NOTHING_LISTENS,
        /** Nobody here knows a computer of that name. */
        NAME_UNKNOWN,
        /** What is set for it cannot be an address, or asks for what its protocol cannot do. */
        WRONGLY_SET,
        /** It answers, and will not have what is wanted. */
        REFUSED,
        /** Its certificate isn't trusted: unknown authority, other host name, or expired. */
        TLS_UNTRUSTED,
        /** It shows another certificate than the one that was seen first. */
        TLS_CHANGED,
        /** It does not speak TLS there. */
        TLS_NOT_SPOKEN,
        /** It wants a certificate of ours that it knows. */
        CERTIFICATE_WANTED,
        /** It does not take this user or secret. */
        LOGIN_REFUSED,
        /** The secret that it wants is not on this computer. */
        SECRET_MISSING,
        /** The board may not do that here, or the system does not let Rombix. */
        NOT_PERMITTED,
        /** It has never answered, or no longer does. */
        SILENT,
        /** Something went wrong inside Rombix. */
        TROUBLE;

        private static Reason of(Phase phase) {
            return switch (phase) {
                case READY, CONNECTING -> NONE;
                case SILENT -> SILENT;
                case OFF -> UNREACHABLE;
            };
        }

        /** As other programs read it: {@code login-refused}. */
        public String id() {
            return name().toLowerCase(java.util.Locale.ROOT).replace('_', '-');
        }
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
