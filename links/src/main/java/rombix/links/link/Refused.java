package rombix.links.link;

import java.io.IOException;
import java.net.ConnectException;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rombix.core.event.Cause;

/** Why there is no connection, where it takes more than gear that is switched on and an address that is right. */
public final class Refused extends IOException {
    private static final long serialVersionUID = 1;

    private final Cause why;
    private final List<String> told;

    /** @param told what is told along with the cause, in the order of its places */
    public Refused(Cause why, String... told) {
        super(why.words(List.of(told)));
        this.why = why;
        this.told = List.of(told);
    }

    /** As the other; keeps what was thrown. */
    public Refused(Throwable thrown, Cause why, String... told) {
        this(why, told);
        initCause(thrown);
    }

    public Cause why() {
        return why;
    }

    public List<String> reasons() {
        return told;
    }

    /** What to try next, as a sentence. */
    public String hint() {
        return why.hint(told);
    }

    /** That nothing answers at an address, and why, by what was thrown. */
    public static Refused noAnswer(String at, Throwable thrown) {
        for (@Nullable
        Throwable e = thrown; e != null; e = e.getCause()) {
            if (e instanceof Refused r) {
                return r;
            }
            if (e instanceof ConnectException) {
                return new Refused(thrown, Cause.NOTHING_LISTENS, at);
            }
        }
        return new Refused(thrown, Cause.NO_ANSWER, at);
    }

    /** What was thrown, as a cause: what has none is told in its own words. */
    static Refused of(Throwable thrown) {
        for (@Nullable
        Throwable e = thrown; e != null; e = e.getCause()) {
            if (e instanceof Refused r) {
                return r;
            }
        }
        return new Refused(thrown, Cause.OTHER, String.valueOf(thrown.getMessage()));
    }
}
