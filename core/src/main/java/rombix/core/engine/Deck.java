package rombix.core.engine;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import rombix.core.board.Button;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.card.Card.ReadingSpec;
import rombix.core.card.Order;
import rombix.core.card.Twin;
import rombix.core.chain.Condition;
import rombix.core.chain.Gesture;
import rombix.core.value.Value;

/**
 * The engine: a step function over events and time. It owns all running chains, button states and readings, and is
 * called by one thread only, the conductor's. With a simulated clock and twins for gear it is the test bench.
 *
 * <p>
 * Due times are reckoned from the moment an event was posted and from each other, never from when a step happened to
 * be done.
 */
public final class Deck {
    /** How long a reading may take to follow a press. */
    public static final long FOLLOW_NANOS = 2_000_000_000L;

    private static final Op.Seq NOTHING = new Op.Seq(new Op[0], 0);
    private static final Logger LOG = LoggerFactory.getLogger(Deck.class);

    final Agenda agenda = new Agenda();
    private final Clock clock;
    private final Gears gears;
    private final Consumer<Happening> watcher;
    private @Nullable Rig rig;
    private final Map<String, ButtonPlay> buttons = new LinkedHashMap<>();
    private final Map<String, Map<String, Value>> readings = new HashMap<>();
    private final Map<String, Status> statuses = new HashMap<>();
    private final Map<String, Long> listings = new HashMap<>();
    private final Map<Watched, List<ButtonPlay>> followers = new HashMap<>();
    private final Map<Long, Pending> pending = new HashMap<>();
    private final Map<Long, Run> runs = new LinkedHashMap<>();
    private long lastRun;
    private long lastTicket;
    private boolean busy;

    private record Watched(String gear, String reading) {
    }

    private record Pending(@Nullable Run run, String place, Order order, long dueNanos) {
    }

    /**
     * @param watcher told of everything that happens, on the calling thread; it must not call back, and what it throws
     *            is logged
     */
    public Deck(Clock clock, Gears gears, Consumer<Happening> watcher) {
        this.clock = clock;
        this.gears = gears;
        this.watcher = watcher;
    }

    /** Takes an event that was posted at a moment. What goes wrong inside is logged; the deck goes on. */
    public void take(Event event, long postedNanos) {
        try {
            handle(event, postedNanos);
        } catch (RuntimeException e) {
            LOG.error("the deck could not take {}", event, e);
        }
    }

    /** Does all that is due, and says how long until the next thing is; {@link Long#MAX_VALUE} if nothing waits. */
    public long advance() {
        for (Agenda.Entry e = agenda.poll(clock.nanos()); e != null; e = agenda.poll(clock.nanos())) {
            try {
                Agenda.run(e);
            } catch (RuntimeException x) {
                LOG.error("a step could not be run", x);
            }
        }
        if (busy && idle()) {
            busy = false;
            tellWatcher(new Happening.Rested());
        }
        return agenda.untilNext(clock.nanos());
    }

    /** Whether no chain runs and no answer is awaited. */
    public boolean idle() {
        return runs.isEmpty() && pending.isEmpty();
    }

    private void handle(Event event, long at) {
        switch (event) {
            case Event.Load load -> load(load.rig(), at);
            case Event.Worked w -> {
                ButtonPlay b = buttons.get(w.button());
                if (b != null) {
                    switch (w.gesture()) {
                        case PRESS -> press(b, at, w.source());
                        case RELEASE -> release(b, at, w.source());
                    }
                }
            }
            case Event.Perform p -> {
                ButtonPlay b = buttons.get(p.button());
                if (b != null) {
                    performGesture(b, p.gesture(), at, p.source());
                }
            }
            case Event.Told t -> tell(t, at);
            case Event.Came c -> came(c);
            case Event.Linked l -> linked(l);
            case Event.Answered a -> answered(a);
            case Event.LetGo _ -> letGo(at);
            case Event.StopRun s -> {
                Run run = runs.get(s.run());
                if (run != null) {
                    run.stop();
                }
            }
            case Event.StopAll _ -> {
                buttons.values().forEach(b -> b.queued.clear());
                List.copyOf(runs.values()).forEach(Run::stop);
                letGo(at);
            }
        }
    }

    private void letGo(long at) {
        buttons.values().forEach(b -> release(b, at, "let go"));
    }

    private void load(Rig next, long at) {
        this.rig = next;
        Compiler compiler = new Compiler(next);
        Map<String, ButtonPlay> kept = new HashMap<>(buttons);
        buttons.clear();
        followers.clear();
        next.board().buttons().forEach(b -> {
            ButtonPlay play = kept.remove(b.id());
            if (play == null) {
                play = new ButtonPlay(b, compiler.chains(b));
            } else if (play.button != b) {
                play.button = b;
                play.chains = compiler.chains(b);
                play.shown = Math.min(play.shown, b.states().size() - 1);
                play.onItsWay = play.onItsWay < b.states().size() ? play.onItsWay : -1;
            }
            buttons.put(b.id(), play);
            index(play);
            play.chains.forEach(c -> c.values().forEach(this::prepare));
        });
        kept.values().forEach(gone -> {
            release(gone, at, "deleted");
            List.copyOf(gone.running).forEach(Run::stop);
        });
        tellWatcher(new Happening.Loaded(next));
        buttons.values().forEach(b -> {
            follow(b);
            shows(b);
        });
    }

    private void index(ButtonPlay play) {
        for (State s : play.button.states()) {
            Condition when = s.when();
            if (when != null) {
                List<ButtonPlay> list = followers.computeIfAbsent(new Watched(when.gear(), when.reading()),
                        _ -> new ArrayList<>());
                if (!list.contains(play)) {
                    list.add(play);
                }
            }
        }
    }

    private void press(ButtonPlay b, long at, String source) {
        if (b.heldIn >= 0) {
            release(b, at, source);
        }
        clearFault(b);
        b.heldIn = b.shown;
        if (b.running.isEmpty()) {
            startPress(b, at, source);
        } else {
            switch (b.button.busy()) {
                case RESTART -> {
                    stopAll(b);
                    startPress(b, at, source);
                }
                case OVERLAP -> startPress(b, at, source);
                case QUEUE -> b.queued.add(source);
                case IGNORE -> {
                }
                case STOP -> stopAll(b);
            }
        }
        shows(b);
    }

    private static void stopAll(ButtonPlay b) {
        List.copyOf(b.running).forEach(Run::stop);
    }

    private void startPress(ButtonPlay b, long at, String source) {
        int state = b.shown;
        Op.Seq chain = b.chain(state, Gesture.PRESS);
        if (b.chain(state, Gesture.RELEASE) == null) {
            advance(b, state);
        }
        Run run = start(b, Gesture.PRESS, chain == null ? NOTHING : chain, at, source);
        if (b.onItsWay >= 0) {
            await(b, run, at);
        }
    }

    private void performGesture(ButtonPlay b, Gesture gesture, long at, String source) {
        clearFault(b);
        switch (gesture) {
            case PRESS -> startPress(b, at, source);
            case RELEASE -> {
                Op.Seq chain = b.chain(b.shown, Gesture.RELEASE);
                start(b, Gesture.RELEASE, chain == null ? NOTHING : chain, at, source);
            }
        }
        shows(b);
    }

    /** A press has happened in a state: its successor is shown, or awaited if the button follows the gear. */
    private void advance(ButtonPlay b, int from) {
        int to = b.after(from);
        if (to == b.shown) {
            return;
        }
        if (b.button.follows()) {
            b.onItsWay = to;
        } else {
            b.shown = to;
        }
    }

    private void await(ButtonPlay b, Run run, long at) {
        if (b.followBy != null) {
            b.followBy.cancel();
            b.followBy = null;
        }
        if (run.over) {
            followBy(b, at);
        } else {
            b.awaited = run;
        }
    }

    private void followBy(ButtonPlay b, long from) {
        b.awaited = null;
        b.followBy = agenda.at(from + FOLLOW_NANOS, _ -> {
            if (b.onItsWay >= 0) {
                fault(b, null, "did not follow within 2 s: " + instead(b));
                giveUp(b);
            }
        });
    }

    private void giveUp(ButtonPlay b) {
        b.onItsWay = -1;
        b.awaited = null;
        if (b.followBy != null) {
            b.followBy.cancel();
            b.followBy = null;
        }
        shows(b);
    }

    /** What the gear says in place of what a button waits for. */
    private String instead(ButtonPlay b) {
        Condition when = b.button.states().get(b.onItsWay).when();
        Rig here = rig;
        if (when == null || here == null) {
            return "the gear says nothing";
        }
        Twin twin = here.twin(when.gear()).orElse(null);
        Value now = reading(when.gear(), when.reading());
        if (twin == null || now == null) {
            return "no reading has come";
        }
        Twin.Known known = twin.reading(when.reading(), readingsOf(when.gear())).orElse(null);
        return known == null
                ? "no reading has come"
                : "%s still says %s, %s".formatted(twin.title(), known.title(),
                        twin.spoken(known, now, readingsOf(when.gear())));
    }

    /** A release ends a hold once; without a hold it does nothing. The press chain of the hold ends with it. */
    private void release(ButtonPlay b, long at, String source) {
        int state = b.heldIn;
        if (state < 0) {
            return;
        }
        b.heldIn = -1;
        Op.Seq chain = b.chain(state, Gesture.RELEASE);
        if (chain != null) {
            b.queued.clear();
            stopAll(b);
            advance(b, state);
            Run run = start(b, Gesture.RELEASE, chain, at, source);
            if (b.onItsWay >= 0) {
                await(b, run, at);
            }
        }
        shows(b);
    }

    private Run start(ButtonPlay b, Gesture gesture, Op.Seq chain, long at, String source) {
        Run run = new Run(++lastRun, this, b, gesture, chain);
        busy = true;
        runs.put(run.id, run);
        b.running.add(run);
        tellWatcher(new Happening.Started(run.id, b.button.id(), gesture, source, at, chain.expectedNanos()));
        run.root.go(at);
        return run;
    }

    void runEnded(Run run, long due, Happening.End end) {
        runs.remove(run.id);
        ButtonPlay b = run.button;
        if (b == null) {
            return;
        }
        b.running.remove(run);
        tellWatcher(new Happening.Ended(run.id, b.button.id(), end, due));
        if (b.awaited == run) {
            if (end == Happening.End.STOPPED) {
                giveUp(b);
            } else {
                followBy(b, due);
            }
        }
        String next = b.running.isEmpty() && end != Happening.End.STOPPED ? b.queued.poll() : null;
        if (next != null) {
            startPress(b, due, next);
            shows(b);
        }
    }

    private void tell(Event.Told t, long at) {
        Twin twin = rig == null ? null : rig.twin(t.gear()).orElse(null);
        if (twin != null) {
            twin.card().command(t.command()).ifPresent(c -> perform(null, new Op.Do("", twin, c, t.args()), at));
        }
    }

    /** Sends a command, or faults at once if its gear is off or an argument is wrong. */
    void perform(@Nullable Run run, Op.Do op, long due) {
        String gear = op.twin.gear();
        Status status = statuses.getOrDefault(gear, Status.UNTRIED);
        Order order;
        try {
            order = orderOf(op);
        } catch (IllegalArgumentException e) {
            failed(run, op.place, new Order(gear, op.command, op.args, op.command.id(), List.of(), Map.of()), due,
                    clock.nanos(), String.valueOf(e.getMessage()));
            return;
        }
        if (!status.sends()) {
            failed(run, op.place, order, due, clock.nanos(),
                    "%s: %s. %s".formatted(op.twin.title(), status.words(), status.hint()).strip());
            return;
        }
        busy = true;
        long ticket = ++lastTicket;
        pending.put(ticket, new Pending(run, op.place, order, due));
        gears.send(ticket, order);
    }

    /** Makes a button's orders out beforehand, as far as the gear has listed what they name. */
    private void prepare(Op.Seq chain) {
        for (Op op : chain.ops()) {
            switch (op) {
                case Op.Do d -> {
                    try {
                        orderOf(d);
                    } catch (IllegalArgumentException e) {
                        // It is made out, or fails in plain words, when it is run.
                    }
                }
                case Op.Together t -> {
                    for (Op.Seq inner : t.chains()) {
                        prepare(inner);
                    }
                }
                case Op.Wait _ -> {
                }
            }
        }
    }

    private Order orderOf(Op.Do op) {
        long listing = listings.getOrDefault(op.twin.gear(), 0L);
        Order order = op.order;
        if (order == null || op.orderOf != listing) {
            order = op.twin.order(op.command, op.args, readingsOf(op.twin.gear()));
            op.order = order;
            op.orderOf = listing;
        }
        return order;
    }

    private void answered(Event.Answered a) {
        Pending p = pending.remove(a.ticket());
        if (p == null) {
            return;
        }
        if (a.fault() != null) {
            failed(p.run(), p.place(), p.order(), p.dueNanos(), a.atNanos(), a.fault());
            return;
        }
        ran(p.run(), p.place(), p.order(), p.dueNanos(), a.atNanos(), AsRun.Outcome.SENT, "");
        Twin twin = rig == null ? null : rig.twin(p.order().gear()).orElse(null);
        if (twin != null) {
            p.order().changes().forEach((reading, value) -> {
                ReadingSpec spec = twin.reading(reading, readingsOf(twin.gear())).map(Twin.Known::spec).orElse(null);
                if (spec != null && !spec.arrives().containsKey(twin.protocol())) {
                    came(new Event.Came(twin.gear(), reading, value));
                }
            });
        }
    }

    private void failed(@Nullable Run run, String place, Order order, long due, long at, String message) {
        ran(run, place, order, due, at, AsRun.Outcome.FAULT, message);
        if (run != null) {
            run.faults++;
            if (run.button != null) {
                fault(run.button, order.gear(), message);
                awaitedGearFailed(run.button, order.gear());
            }
        }
    }

    private void awaitedGearFailed(ButtonPlay b, String gear) {
        if (b.onItsWay >= 0) {
            Condition when = b.button.states().get(b.onItsWay).when();
            if (when != null && when.gear().equals(gear)) {
                giveUp(b);
            }
        }
    }

    private void ran(@Nullable Run run, String place, Order order, long due, long at, AsRun.Outcome outcome,
            String message) {
        String button = run == null || run.button == null ? "" : run.button.button.id();
        tellWatcher(new Happening.Ran(new AsRun(due, at, run == null ? 0 : run.id, button, place, order.gear(),
                order.command().id(), order.args(), order.title(), outcome, message)));
    }

    private void fault(ButtonPlay b, @Nullable String gear, String message) {
        b.faulted = true;
        tellWatcher(new Happening.Faulted(b.button.id(), gear, message));
    }

    private void clearFault(ButtonPlay b) {
        if (b.faulted) {
            b.faulted = false;
            tellWatcher(new Happening.Faulted(b.button.id(), null, null));
        }
    }

    private void came(Event.Came c) {
        Map<String, Value> of = readings.computeIfAbsent(c.gear(), _ -> new HashMap<>());
        Value before = of.put(c.reading(), c.value());
        if (c.value().equals(before)) {
            return;
        }
        if (c.value() instanceof Value.Choices) {
            listings.merge(c.gear(), 1L, Long::sum);
        }
        tellWatcher(new Happening.Came(c.gear(), c.reading(), c.value()));
        for (ButtonPlay b : followers.getOrDefault(new Watched(c.gear(), c.reading()), List.of())) {
            follow(b);
        }
    }

    /** Shows the first state whose condition holds. */
    private void follow(ButtonPlay b) {
        Button button = b.button;
        for (int i = 0; i < button.states().size(); i++) {
            Condition when = button.states().get(i).when();
            if (when != null && when.holds(reading(when.gear(), when.reading()))) {
                boolean arrived = b.onItsWay == i;
                if (b.shown != i || arrived) {
                    b.shown = i;
                    if (arrived) {
                        giveUp(b);
                    } else {
                        shows(b);
                    }
                }
                return;
            }
        }
    }

    private void linked(Event.Linked l) {
        statuses.put(l.gear(), l.status());
        tellWatcher(new Happening.Linked(l.gear(), l.status()));
    }

    private @Nullable Value reading(String gear, String reading) {
        Map<String, Value> of = readings.get(gear);
        return of == null ? null : of.get(reading);
    }

    private Twin.Readings readingsOf(String gear) {
        return id -> reading(gear, id);
    }

    private void shows(ButtonPlay b) {
        tellWatcher(new Happening.Shows(b.button.id(), b.shown, b.onItsWay, b.heldIn >= 0));
    }

    private void tellWatcher(Happening happening) {
        try {
            watcher.accept(happening);
        } catch (RuntimeException e) {
            LOG.error("a watcher failed on {}", happening, e);
        }
    }
}
