package rombix.links.link;

import java.io.IOException;
import java.net.ConnectException;
import java.net.UnknownHostException;
import org.jspecify.annotations.Nullable;
import rombix.core.event.Status.Reason;

/** Why there is no connection, where it takes more than gear that is switched on and an address that is right. */
public final class Refused extends IOException {
    private static final long serialVersionUID = 1;

    private final Reason reason;
    private final String hint;

    /**
     * @param why in plain words
     * @param hint what to try next, as a sentence
     */
    public Refused(Reason reason, String why, String hint) {
        super(why);
        this.reason = reason;
        this.hint = hint;
    }

    public String hint() {
        return hint;
    }

    public Reason reason() {
        return reason;
    }

    /** Why a connection could not be made, by what was thrown. */
    public static Reason reason(Throwable thrown) {
        for (@Nullable
        Throwable e = thrown; e != null; e = e.getCause()) {
            if (e instanceof Refused r) {
                return r.reason;
            }
            if (e instanceof UnknownHostException) {
                return Reason.NAME_UNKNOWN;
            }
            if (e instanceof ConnectException) {
                return Reason.NOTHING_LISTENS;
            }
        }
        return Reason.UNREACHABLE;
    }
}
