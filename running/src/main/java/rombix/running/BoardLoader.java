package rombix.running;

import java.util.ArrayDeque;
import java.util.Map;
import java.util.Queue;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.RejectedExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import rombix.core.board.Rig;
import rombix.core.engine.Conductor;
import rombix.core.event.Event;
import rombix.core.thread.Idle;
import rombix.core.trust.Permission;
import rombix.links.Links;

/**
 * Brings boards to a deck and their gear with them, one after the other, on a thread of its own: what holds gear that
 * goes ends, the deck takes the board, links that are of no use are closed and new ones are opened. Nothing else reaches
 * the deck meanwhile. Safe to use from any thread.
 */
final class BoardLoader implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(BoardLoader.class);
    /** The deck answers at once, or after what it ends; where it does not, things go on without it. */
    private static final long LONGEST_SECONDS = 5;

    private final Conductor conductor;
    private final Links links;
    private final Map<String, String> addresses;
    private final ExecutorService gear = Idle.executor("gear");
    /** What came while a board was on its way; how many are. Guarded by itself. */
    private final Queue<Event> waiting = new ArrayDeque<>();
    private volatile int coming;
    private volatile @Nullable Played wanted;
    /** The gear thread's. */
    private @Nullable Played played;

    /** A board, and what it may do. */
    private record Played(Rig rig, Permission leave) {
    }

    BoardLoader(Conductor conductor, Links links, Map<String, String> addresses) {
        this.conductor = conductor;
        this.links = links;
        this.addresses = addresses;
    }

    /** The board that is played, or on its way; null where there was none yet. */
    @Nullable
    Rig rig() {
        Played now = wanted;
        return now == null ? null : now.rig();
    }

    void load(Rig rig, Permission leave) {
        Played next = new Played(rig, leave);
        synchronized (waiting) {
            wanted = next;
            coming++;
        }
        behind(() -> {
            try {
                if (next == wanted) { // Or another one has come by now.
                    bring(next);
                }
            } finally {
                load();
            }
        });
    }

    private void bring(Played next) {
        Played before = played;
        played = next;
        if (before != null && ends(before, next)) {
            await(done -> conductor.post(new Event.End(done))); // As long as what is held can be reached.
        }
        conductor.post(new Event.Load(next.rig()));
        settle(); // The deck has released whatever the new board no longer has.
        links.connect(next.rig(), addresses, next.leave());
    }

    private void load() {
        synchronized (waiting) {
            if (coming == 1) {
                waiting.forEach(conductor::post);
                waiting.clear();
            }
            coming--;
        }
    }

    /** Whether gear goes, is reached elsewhere from now on, or no longer. */
    private static boolean ends(Played before, Played next) {
        Predicate<String> was = before.leave().reaches();
        Predicate<String> is = next.leave().reaches();
        return before.rig().board().gear().stream().anyMatch(g -> was.test(g.id()) && !is.test(g.id()) || next.rig()
                .board().gear(g.id()).filter(n -> n.card().equals(g.card()) && n.link().equals(g.link())).isEmpty());
    }

    /** Hands an event to the deck, behind the boards that are on their way. */
    void post(Event event) {
        if (coming > 0) {
            synchronized (waiting) {
                if (coming > 0) {
                    waiting.add(event);
                    return;
                }
            }
        }
        conductor.post(event);
    }

    /** Does something once the boards that are on their way are there, and what their gear says first is taken in. */
    void then(Runnable what) {
        behind(() -> {
            settle();
            what.run();
        });
    }

    private void behind(Runnable what) {
        try {
            gear.execute(what);
        } catch (RejectedExecutionException e) {
            LOG.debug("the deck has ended", e);
        }
    }

    /** Waits until the deck has taken all that was posted by now. */
    private void settle() {
        await(done -> conductor.post(new Event.Run(done)));
    }

    private static void await(Consumer<Runnable> what) {
        CountDownLatch done = new CountDownLatch(1);
        what.accept(done::countDown);
        try {
            if (!done.await(LONGEST_SECONDS, TimeUnit.SECONDS)) {
                LOG.warn("the deck doesn't respond; its gear stays connected");
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /** Brings no more boards. What is on its way is not waited for. */
    @Override
    public void close() {
        gear.shutdownNow();
    }
}
