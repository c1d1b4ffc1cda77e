package rombix.running;

import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.Executor;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Board;
import rombix.core.board.Rig;
import rombix.core.engine.Conductor;
import rombix.core.event.Event;
import rombix.core.event.Gears;
import rombix.core.event.Happening;
import rombix.core.event.Known;
import rombix.core.event.Mode;
import rombix.core.found.FoundGear;
import rombix.core.sight.Pixels;
import rombix.core.time.Clock;
import rombix.core.touch.DeckPort;
import rombix.core.traffic.Traffic;
import rombix.core.traffic.WhyNot;
import rombix.core.trust.Ask;
import rombix.core.trust.Permission;
import rombix.core.twin.Order;
import rombix.core.value.Value;
import rombix.links.Links;
import rombix.links.MachineClock;
import rombix.running.input.TriggerInputs;
import rombix.running.log.LogStore;
import rombix.running.log.LogWriter;
import rombix.running.owner.ThisComputer;
import rombix.running.owner.Trust;
import rombix.running.state.DeckFeed;
import rombix.running.state.DeckState;

/**
 * A board in play, with its gear, log and inputs; runs with or without a window. In rehearsal a second conductor plays
 * the board on twins and the first only listens. Several can run in one process. Thread-safe.
 */
public final class RunningDeck implements Player, AutoCloseable {
    /** The machine's own clock. */
    public static final Clock CLOCK = new MachineClock();
    private static final Rig NO_BOARD = Rig.of(Board.empty(""), Map.of());
    private final List<Consumer<Happening>> watchers = new CopyOnWriteArrayList<>();
    private final @Nullable LogStore store;
    private final @Nullable LogWriter log;
    private final Conductor conductor;
    private final Links links;
    private final BoardLoader boards;
    private final DeckFeed feed = new DeckFeed();
    /** What the gear is like, whatever plays; the conductor's, and written behind {@link #feed}. */
    private volatile DeckState real = DeckState.NOTHING;
    /** What the next board may do. */
    private Permission leave = Permission.TRUSTED;
    private volatile @Nullable TriggerInputs inputs;
    /** What is shown in place of the gear; it changes behind {@link #feed}. */
    private volatile @Nullable Rehearsal rehearsal;
    private volatile double pace = 1;
    private final Thread hook;
    private final AtomicLong byHand = new AtomicLong(Gears.NO_ANSWER);
    private boolean closed;

    /**
     * @param addresses addresses that take the place of the board's, by gear
     * @param log where is kept what is run; closed with the deck; null where nothing is to be kept
     */
    public RunningDeck(Map<String, String> addresses, @Nullable LogStore log) {
        this.store = log;
        this.log = log == null ? null : new LogWriter(log, CLOCK, System::currentTimeMillis);
        CompletableFuture<Links> made = new CompletableFuture<>();
        conductor = new Conductor(CLOCK, new SplittableRandom(), post -> {
            Links wired = new Links(CLOCK, post, new ThisComputer());
            made.complete(wired);
            return wired;
        }, this::happened);
        links = made.join();
        boards = new BoardLoader(conductor, links, Map.copyOf(addresses));
        hook = Thread.ofPlatform().name("the end").unstarted(this::close);
        Runtime.getRuntime().addShutdownHook(hook);
    }

    private void happened(Happening happening) {
        long now = CLOCK.nanos();
        boolean shown;
        synchronized (feed) {
            shown = rehearsal == null;
            real = shown ? feed.feed(happening, now) : real.after(happening, now);
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

    /**
     * Has keys, controllers and OSC press from now on, until the deck is closed.
     *
     * @param touched told of the button that a control would press, while none is pressed
     * @param port where OSC is awaited in place of where the board says; any free one when 0
     * @param hand where all are told that learn, record or are summoned: the interface's thread
     */
    public synchronized TriggerInputs listen(Consumer<String> touched, @Nullable Integer port, Executor hand) {
        TriggerInputs made = new TriggerInputs(this::post, touched, port, hand);
        inputs = made;
        watchers.add(made::accept);
        links.touches(made::called);
        feed.subscribe(Thread::startVirtualThread, made::see);
        return made;
    }

    /** What was run, as it is kept; null where it is not. */
    public @Nullable LogStore log() {
        return store;
    }

    /** Has another told why the log cannot be written, and with an empty text that it can again; each once. */
    public void whenLogTroubled(Consumer<String> told) {
        if (log != null) {
            log.whenTroubled(told);
        }
    }

    /**
     * Plays a board that was opened. Where its owner has not agreed to all that it asks for it is a guest: it reaches,
     * hears and begins nothing.
     *
     * @return what was not agreed to
     */
    public List<Ask> play(Rig next, Trust trust) {
        List<Ask> missing = trust.missing(next);
        guest(!missing.isEmpty());
        load(next);
        if (missing.isEmpty()) {
            opened();
        }
        return missing;
    }

    /** The board that is played; an empty one where there was none yet. */
    public Rig rig() {
        Rig now = boards.rig();
        return now == null ? NO_BOARD : now;
    }

    @Override
    public synchronized void load(Rig next) {
        boards.load(next, leave);
        Rehearsal now = rehearsal;
        if (now != null) {
            now.load(next);
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
        allow(on ? Permission.GUEST : Permission.TRUSTED);
        TriggerInputs heard = inputs;
        if (heard != null) {
            heard.deaf(on);
        }
    }

    /** What the boards that are loaded from now on may do. */
    public synchronized void allow(Permission which) {
        leave = which; // What is played now stays as it is: it may have holds to end, or be a guest still.
    }

    private void post(Event event) {
        Rehearsal now = rehearsal;
        if (now != null) {
            now.post(event);
        } else {
            boards.post(event);
        }
    }

    @Override
    public DeckPort port(String source) {
        return new DeckPort(this::post, source);
    }

    @Override
    public void tell(String gear, String command, Map<String, Value> args) {
        post(new Event.Told(gear, command, args));
    }

    @Override
    public void run(Event.Try chain) {
        post(chain);
    }

    @Override
    public void start() {
        post(new Event.WentLive());
    }

    /** Does something on the deck's thread, behind all that was done to the deck by now; it must not wait there. */
    public void then(Runnable what) {
        post(new Event.Run(what));
    }

    @Override
    public synchronized void mode(Mode mode, boolean starts) {
        boolean twins = mode == Mode.REHEARSE;
        if (twins && rehearsal == null) {
            boards.post(new Event.StopAll());
        }
        twins(twins);
        feed.mode(mode);
        links.inSight(mode != Mode.LIVE); // The rack shows all that there is, except while one is on air.
        if (twins) {
            boards.post(new Event.Arm(false));
        }
        post(new Event.Arm(mode != Mode.BUILD));
        if (mode != Mode.BUILD && starts) {
            post(new Event.WentLive());
        }
    }

    @Override
    public void arm(boolean on) {
        post(new Event.Arm(on));
    }

    @Override
    public void pace(double factor) {
        pace = factor;
        Rehearsal now = rehearsal;
        if (now != null) {
            now.pace(factor);
        }
    }

    @Override
    public Clock clock() {
        Rehearsal now = rehearsal;
        return now == null ? CLOCK : now.clock();
    }

    @Override
    public synchronized void tryOnTwins(Event.@Nullable Try tried) {
        pace = 1;
        twins(tried != null);
        Rehearsal now = rehearsal;
        if (now != null && tried != null) {
            now.post(tried);
        }
    }

    private void twins(boolean on) {
        Rehearsal now = rehearsal;
        Rig played = boards.rig();
        if (on == (now != null) || played == null) {
            return;
        }
        if (now != null) {
            synchronized (feed) {
                rehearsal = null;
                feed.become(real);
            }
            Thread.ofPlatform().name("rehearsal's end").start(now::close); // It may be busy, and the interface doesn't wait.
            return;
        }
        Rehearsal twins = new Rehearsal(CLOCK, pace, this::rehearsed);
        synchronized (feed) {
            rehearsal = twins;
            feed.become(DeckState.NOTHING);
        }
        twins.begin(played, real);
    }

    private void rehearsed(Happening happening, Clock clock) {
        if (log != null) {
            log.accept(happening, true, clock);
        }
        boolean shown;
        synchronized (feed) {
            Rehearsal now = rehearsal;
            shown = now != null && now.clock() == clock; // Not one that is over.
            if (shown) {
                feed.feed(happening, clock.nanos());
            }
        }
        if (shown) {
            tell(happening);
        }
    }

    @Override
    public void opened() {
        Rig now = rig();
        boards.then(() -> whenReached(now, () -> post(new Event.Opened())));
    }

    /** Does something once all gear of a board answers or is known not to, or after a while. */
    public void whenReached(Rig of, Runnable what) {
        GearReady.when(of, () -> real, feed, what);
    }

    @Override
    public DeckFeed feed() {
        return feed;
    }

    @Override
    public Known known() {
        return real.known();
    }

    @Override
    public void showing(String page) {
        feed.page(page);
    }

    /** The one way in which a deck ends: holds end and what they have to say goes out, then links close. Once. */
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
        Rehearsal now = rehearsal;
        if (now != null) {
            now.close();
        }
        boards.close();
        conductor.end();
        conductor.close();
        links.close();
        if (inputs != null) {
            inputs.close(); // Not before: until the deck has ended it tells them what happens.
        }
        if (log != null) {
            log.close();
        }
    }
}
