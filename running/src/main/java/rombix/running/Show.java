package rombix.running;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Rig;
import rombix.core.card.Order;
import rombix.core.engine.Clock;
import rombix.core.engine.Conductor;
import rombix.core.engine.Event;
import rombix.core.engine.FastClock;
import rombix.core.engine.Gears;
import rombix.core.engine.Happening;
import rombix.core.engine.Known;
import rombix.core.engine.Mode;
import rombix.core.engine.Status;
import rombix.core.engine.TwinGears;
import rombix.core.found.FoundGear;
import rombix.core.sight.Pixels;
import rombix.core.traffic.Traffic;
import rombix.core.traffic.WhyNot;
import rombix.core.trust.Leave;
import rombix.links.Links;
import rombix.links.MachineClock;
import rombix.running.log.LogWriter;
import rombix.running.owner.ThisComputer;
import rombix.running.state.DeckFeed;
import rombix.running.state.DeckState;

/**
 * A board in play with its real gear; in rehearsal a second conductor plays it on twins, and the first one only
 * listens. Safe to use from any thread.
 */
public final class Show implements Player, AutoCloseable {
    /** The machine's own clock. */
    public static final Clock CLOCK = new MachineClock();

    private static final int REACHED_SECONDS = 5;

    private final List<Consumer<Happening>> watchers = new CopyOnWriteArrayList<>();
    private final @Nullable LogWriter log;
    private final Conductor conductor;
    private final Links links;
    private final Map<String, String> addresses;
    private final DeckFeed feed = new DeckFeed();
    /** What the gear is like, whatever plays; the conductor's, and written behind {@link #feed}. */
    private volatile DeckState real = DeckState.NOTHING;
    private volatile @Nullable Rig rig;
    /** What the next board may do. */
    private Leave leave = Leave.TRUSTED;
    /** What the board that is played may do. */
    private Leave given = Leave.TRUSTED;
    private volatile @Nullable Conductor rehearsal;
    /** That of what is shown: it changes behind {@link #feed}. */
    private volatile Clock clock = CLOCK;
    private volatile double pace = 1;
    private final Thread hook;
    private final Object boards = new Object();
    private final AtomicLong byHand = new AtomicLong(Gears.NO_ANSWER);
    /** What comes once a board that goes has ended; null where none goes. Guarded by {@link #boards}. */
    private volatile @Nullable List<Runnable> waiting;
    private boolean closed;

    /**
     * @param addresses addresses that take the place of the board's, by gear
     * @param watcher told of everything that happens, on the conductor's thread
     * @param log keeps what was run; closed with the show; null where nothing is to be kept
     */
    public Show(Map<String, String> addresses, Consumer<Happening> watcher, @Nullable LogWriter log) {
        this.log = log;
        this.addresses = Map.copyOf(addresses);
        watchers.add(watcher);
        CompletableFuture<Links> made = new CompletableFuture<>();
        conductor = new Conductor(CLOCK, new SplittableRandom(), post -> {
            Links wired = new Links(CLOCK, post, new ThisComputer());
            made.complete(wired);
            return wired;
        }, this::happened);
        links = made.join();
        hook = Thread.ofPlatform().name("the end").unstarted(this::close);
        Runtime.getRuntime().addShutdownHook(hook);
    }

    private void happened(Happening happening) {
        long now = CLOCK.nanos();
        boolean shown;
        synchronized (feed) {
            real = real.after(happening, now);
            shown = rehearsal == null;
            if (shown) {
                feed.feed(happening, now);
            }
        }
        if (log != null) {
            log.accept(happening, false, CLOCK);
        }
        if (shown) {
            tell(happening);
        }
    }

    private void tell(Happening happening) {
        watchers.forEach(w -> w.accept(happening));
    }

    /** Has another told of everything that happens from now on, on the conductor's thread, until it is closed. */
    public Watching watch(Consumer<Happening> another) {
        watchers.add(another);
        return () -> watchers.remove(another);
    }

    /** Ends with its closing. */
    public interface Watching extends AutoCloseable {
        @Override
        void close();
    }

    @Override
    public synchronized void load(Rig next) {
        Rig before = rig;
        Predicate<String> reached = given.reaches();
        Leave which = leave;
        rig = next;
        given = which;
        synchronized (boards) {
            if (before != null && waiting == null && (leaves(before, next) || before.twins().keySet().stream().anyMatch(
                    g -> reached.test(g) && !which.reaches().test(g)))) {
                waiting = new ArrayList<>(); // Whatever holds gear that goes ends first, as long as it can be reached.
                conductor.post(new Event.End(this::ended));
            }
        }
        Event load = new Event.Load(next);
        later(() -> {
            conductor.post(load);
            soon(() -> links.connect(next, addresses, which)); // By then the deck has let go of what is there no more.
        });
        Conductor now = rehearsal;
        if (now != null) {
            now.post(load);
            reachable(next, now);
        }
    }

    @Override
    public @Nullable Pixels look(String gear) {
        return links.look(gear);
    }

    @Override
    public WhyNot why(String gear) {
        return links.why(gear);
    }

    @Override
    public void overhear(String gear, boolean all) {
        links.overhear(gear, all);
    }

    @Override
    public void light(String gear, Map<Integer, Map<Integer, Integer>> slots) {
        links.light(gear, slots);
    }

    @Override
    public Searching search(Consumer<FoundGear> found) {
        return links.search(found)::close;
    }

    @Override
    public void say(Order order) {
        // The deck waits for none of these tickets.
        conductor.post(new Event.Run(() -> links.send(byHand.decrementAndGet(), order)));
    }

    @Override
    public Traffic traffic() {
        return links.traffic();
    }

    @Override
    public void guest(boolean on) {
        allow(on ? Leave.GUEST : Leave.TRUSTED);
    }

    /** What the boards that are loaded from now on may do. */
    public synchronized void allow(Leave which) {
        leave = which; // What is played now stays as it is: it may have holds to end, or be a guest still.
    }

    /** Whether gear goes, or is reached elsewhere from now on. */
    private static boolean leaves(Rig before, Rig next) {
        return before.board().gear().stream().anyMatch(g -> next.board().gear(g.id()).filter(n -> n.card().equals(g
                .card()) && n.link().equals(g.link())).isEmpty());
    }

    private void ended() {
        synchronized (boards) {
            List<Runnable> waited = waiting == null ? List.of() : waiting;
            waiting = null;
            waited.forEach(Runnable::run);
        }
    }

    /** Now, or once what goes has ended. */
    private void later(Runnable what) {
        synchronized (boards) {
            if (waiting == null) {
                what.run();
            } else {
                waiting.add(what);
            }
        }
    }

    @Override
    public void post(Event event) {
        Conductor now = rehearsal;
        if (now != null) {
            now.post(event);
        } else if (waiting == null) {
            conductor.post(event);
        } else {
            later(() -> conductor.post(event));
        }
    }

    @Override
    public synchronized void mode(Mode mode, boolean starts) {
        boolean twins = mode == Mode.REHEARSE;
        if (twins && rehearsal == null) {
            conductor.post(new Event.StopAll());
        }
        twins(twins);
        feed.mode(mode);
        links.inSight(mode != Mode.LIVE); // The rack shows all that there is, except while one is on air.
        if (twins) {
            conductor.post(new Event.Arm(false));
        }
        post(new Event.Arm(mode != Mode.BUILD));
        if (mode != Mode.BUILD && starts) {
            post(new Event.WentLive());
        }
    }

    @Override
    public void pace(double factor) {
        pace = factor;
        Conductor now = rehearsal;
        if (now != null && clock instanceof FastClock fast) {
            fast.factor(factor);
            now.post(new Event.Run(() -> {
                // It reckons anew how long to wait.
            }));
        }
    }

    @Override
    public long nanos() {
        return clock.nanos();
    }

    @Override
    public synchronized void tryOnTwins(Event.@Nullable Try tried) {
        pace = 1;
        twins(tried != null);
        Conductor now = rehearsal;
        if (now != null && tried != null) {
            now.post(tried);
        }
    }

    private void twins(boolean on) {
        Conductor now = rehearsal;
        Rig played = rig;
        if (on == (now != null) || played == null) {
            return;
        }
        if (now != null) {
            synchronized (feed) {
                rehearsal = null;
                clock = CLOCK;
                feed.become(real);
            }
            Thread.ofPlatform().name("rehearsal's end").start(now::close); // It may be busy, and the interface doesn't wait.
            return;
        }
        DeckState before = real;
        FastClock fast = new FastClock(CLOCK);
        fast.factor(pace);
        Conductor twins = new Conductor(fast, new SplittableRandom(), post -> new TwinGears(fast, post), h -> {
            if (log != null) {
                log.accept(h, true, fast);
            }
            boolean shown;
            synchronized (feed) {
                shown = clock == fast;
                if (shown) {
                    feed.feed(h, fast.nanos());
                }
            }
            if (shown) {
                tell(h);
            }
        });
        synchronized (feed) {
            rehearsal = twins;
            clock = fast;
            feed.become(DeckState.NOTHING);
        }
        twins.post(new Event.Load(played));
        reachable(played, twins);
        before.known().readings().forEach((gear, of) -> of
                .forEach((reading, value) -> twins.post(new Event.Came(gear, reading, value))));
        twins.post(before.resume()); // It begins where the deck is, not where the board once began.
    }

    private static void reachable(Rig rig, Conductor twins) {
        rig.twins().keySet().forEach(gear -> twins.post(new Event.Linked(gear, Status.TWIN)));
    }

    @Override
    public void opened() {
        Rig now = rig;
        if (now != null) {
            // Behind the links, and behind what they say first.
            later(() -> soon(() -> soon(() -> whenReached(now, () -> post(new Event.Opened())))));
        }
    }

    private void soon(Runnable what) {
        conductor.post(new Event.Run(what));
    }

    /** Does something once all gear of a board answers or is known not to, or after a while. */
    public void whenReached(Rig of, Runnable what) {
        AtomicBoolean done = new AtomicBoolean();
        Runnable once = () -> {
            if (!done.getAndSet(true)) {
                what.run();
            }
        };
        BooleanSupplier reached = () -> of.twins().keySet().stream()
                .allMatch(g -> real.status(g).phase() != Status.Phase.CONNECTING);
        if (reached.getAsBoolean()) {
            once.run();
            return;
        }
        Watching[] watching = new Watching[1];
        watching[0] = watch(h -> {
            if (h instanceof Happening.Linked && reached.getAsBoolean()) {
                once.run();
            }
        });
        CompletableFuture.delayedExecutor(REACHED_SECONDS, TimeUnit.SECONDS).execute(() -> {
            watching[0].close();
            once.run();
        });
    }

    @Override
    public DeckFeed feed() {
        return feed;
    }

    @Override
    public Known known() {
        return real.known();
    }

    /** The one way in which a show ends: holds end and what they have to say goes out, then links close. Once. */
    @Override
    public synchronized void close() {
        if (closed) {
            return;
        }
        closed = true;
        try {
            Runtime.getRuntime().removeShutdownHook(hook);
        } catch (IllegalStateException e) {
            // It is what runs now.
        }
        Conductor now = rehearsal;
        if (now != null) {
            now.close();
        }
        conductor.end();
        conductor.close();
        links.close();
        if (log != null) {
            log.close();
        }
    }
}
