package rombix.web.access;

import java.security.SecureRandom;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rombix.core.time.Clock;

/**
 * The code that lets one device in: six letters, good for one device and two minutes. Wrong codes are answered later and
 * later, and after {@value #MOST_WRONG} of them within a minute no code is taken until a minute has passed. Thread-safe.
 */
public final class Invitations {
    static final int MOST_WRONG = 20;
    private static final long GOOD_NANOS = 120_000_000_000L;
    private static final long MINUTE_NANOS = 60_000_000_000L;
    private static final int LENGTH = 6;
    private static final long MILLIS_A_WRONG_ONE = 150;
    /** No letter that is read as another one. */
    private static final String LETTERS = "ABCDEFGHJKLMNPRSTUVWXYZ";
    private static final SecureRandom RANDOM = new SecureRandom();

    /**
     * What the device that comes with the code may do.
     *
     * @param untilNanos the moment on the clock from which on the code is no longer good
     */
    public record Invitation(String code, Set<String> pages, Set<Right> rights, long untilNanos) {
    }

    /** The result of trying a code. */
    public sealed interface Tried {}

    /** It was right, and is used up. */
    public record Welcome(Invitation invitation) implements Tried {
    }

    /** It was wrong, used up or too late; the answer is to be held back for a while. */
    public record Wrong(long waitMillis) implements Tried {
    }

    /**
     * Too many wrong ones came.
     *
     * @param first whether this is the one with which that began
     */
    public record Closed(boolean first) implements Tried {
    }

    private final Clock clock;
    private final Deque<Long> wrong = new ArrayDeque<>();
    private @Nullable Invitation open;
    private boolean closed;

    public Invitations(Clock clock) {
        this.clock = clock;
    }

    /** Makes a code; the one before is no longer good. */
    public synchronized Invitation open(Set<String> pages, Set<Right> rights) {
        StringBuilder code = new StringBuilder();
        for (int i = 0; i < LENGTH; i++) {
            code.append(LETTERS.charAt(RANDOM.nextInt(LETTERS.length())));
        }
        Invitation made = new Invitation(code.toString(), Set.copyOf(pages), Set.copyOf(rights), clock.nanos()
                + GOOD_NANOS);
        open = made;
        return made;
    }

    /** The code that is good now. */
    public synchronized Optional<Invitation> current() {
        Invitation now = open;
        return now == null || now.untilNanos() - clock.nanos() <= 0 ? Optional.empty() : Optional.of(now);
    }

    /** No code is good any more. */
    public synchronized void withdraw() {
        open = null;
    }

    /** Somebody tries a code; upper and lower case, spaces and hyphens don't matter. */
    public synchronized Tried attempt(String code) {
        long now = clock.nanos();
        while (!wrong.isEmpty() && now - wrong.getFirst() > MINUTE_NANOS) {
            wrong.removeFirst();
        }
        if (wrong.size() >= MOST_WRONG) {
            return new Closed(false);
        }
        closed = false;
        Optional<Invitation> good = current();
        if (good.isPresent() && good.get().code().equals(code.toUpperCase(Locale.ROOT).replaceAll("[\\s-]", ""))) {
            open = null;
            wrong.clear();
            return new Welcome(good.get());
        }
        wrong.addLast(now);
        if (wrong.size() >= MOST_WRONG && !closed) {
            closed = true;
            open = null;
            return new Closed(true);
        }
        return new Wrong(wrong.size() * MILLIS_A_WRONG_ONE);
    }
}
