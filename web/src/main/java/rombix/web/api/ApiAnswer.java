package rombix.web.api;

import java.util.concurrent.Callable;

/** What a call is answered with. */
public sealed interface ApiAnswer {
    /** A value, to be sent as JSON. */
    record Found(Object value) implements ApiAnswer {
    }

    /** It was handed to the deck, which does it in its turn. */
    record Accepted() implements ApiAnswer {
    }

    /** @param title what went wrong, the same for all of its kind */
    record Refused(int status, String title, String detail) implements ApiAnswer {
    }

    /** The answer has to be read from a disk, which is not for the server's thread. */
    record Slow(Callable<Object> value) implements ApiAnswer {
    }

    /** Everything that happens from now on is told. */
    record Follow() implements ApiAnswer {
    }
}
