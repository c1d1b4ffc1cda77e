package rombix.core.engine;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.random.RandomGenerator;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import rombix.core.board.Board.NamedChain;
import rombix.core.board.Board;
import rombix.core.board.Rig;
import rombix.core.board.Trigger.When;
import rombix.core.card.Order;
import rombix.core.card.Twin;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.value.Formula;
import rombix.core.value.FormulaFault;
import rombix.core.value.Value;

/**
 * The engine: a step function over events and time. It owns all running chains, button states, readings and values, and
 * is called by one thread only, the conductor's. With a simulated clock and twins for gear it is the forecast, the
 * rehearsal and the test bench.
 *
 * <p>
 * Due times are reckoned from the moment an event was posted and from each other, never from when a step happened to
 * be done. An event that is handed in while another is taken waits until that one is done with.
 */
public final class Deck {
    /** How long a reading may take to follow a press. */
    public static final long FOLLOW_NANOS = 2_000_000_000L;

    private static final long ASLEEP_NANOS = 1_000_000_000L;

    private static final Logger LOG = LoggerFactory.getLogger(Deck.class);

    final Agenda agenda = new Agenda();
    final Clock clock;
    final RandomGenerator chance;
    final Trace trace;
    final Situation situation = new Situation();
    final Orders orders;
    final Picker picker;
    final Watches watches = new Watches(this);
    final Levels levels = new Levels(this);
    private final Hands hands = new Hands(this);
    final Follows follows = new Follows(this, hands);
    private final Armed armed = new Armed(this);
    private final Consumer<Happening> watcher;
    private @Nullable Rig rig;
    private final Map<String, ButtonPlay> buttons = new LinkedHashMap<>();
    private final Map<String, Op.Seq> named = new HashMap<>();
    private final Map<Long, Run> runs = new LinkedHashMap<>();
    private final Map<Long, AskFrame> asks = new LinkedHashMap<>();
    private final Map<Long, Happening.Asked> askTold = new LinkedHashMap<>();
    private final Deque<Posted> inbox = new ArrayDeque<>();
    private long lastRun;
    private long lastAsk;
    private long moment;
    private boolean taking;
    private boolean busy;

    private record Posted(Event event, long atNanos) {
    }

    /**
     * @param chance where random times and picks come from
     * @param watcher told of everything that happens, on the calling thread; it must not call back, and what it throws
     *            is logged
     * @param trace watches each step
     */
    public Deck(Clock clock, RandomGenerator chance, Gears gears, Consumer<Happening> watcher, Trace trace) {
        this.clock = clock;
        this.chance = chance;
        this.watcher = watcher;
        this.trace = trace;
        this.orders = new Orders(this, gears);
        this.picker = new Picker(chance, this);
    }

    /** A deck whose gear are twins, on a clock of its own. */
    public static Deck onTwins(Clock clock, RandomGenerator chance, Consumer<Happening> watcher, Trace trace) {
        Deck[] made = new Deck[1];
        made[0] = new Deck(clock, chance, new TwinGears(clock, e -> made[0].take(e, clock.nanos())), watcher, trace);
        return made[0];
    }

    /** Plays a board from what is known of its gear, without a word to the watcher. For forecasts. */
    public void begin(Rig board, Known known) {
        rig = board;
        situation.load(board);
        board.twins().keySet().forEach(gear -> situation.linked(gear, Status.TWIN));
        situation.copy(known);
        Compiler compiler = new Compiler(board);
        board.board().buttons().forEach(b -> {
            ButtonPlay play = new ButtonPlay(b, compiler);
            buttons.put(b.id(), play);
            follows.index(play);
            play.shown = Math.max(0, follows.state(b));
        });
    }

    /** Takes an event that was posted at a moment. What goes wrong inside is logged; the deck goes on. */
    public void take(Event event, long postedNanos) {
        inbox.add(new Posted(event, postedNanos));
        if (!taking) {
            taking = true;
            drain();
            taking = false;
        }
    }

    private void drain() {
        for (Posted p = inbox.poll(); p != null; p = inbox.poll()) {
            moment = p.atNanos();
            try {
                handle(p.event(), p.atNanos());
                watches.settle();
            } catch (RuntimeException e) {
                LOG.error("the deck could not take {}", p.event(), e);
            }
        }
    }

    /** Does all that is due, and says how long until the next thing is; {@link Long#MAX_VALUE} if nothing waits. */
    public long advance() {
        taking = true;
        for (Agenda.Entry e = agenda.poll(clock.nanos()); e != null; e = agenda.poll(clock.nanos())) {
            moment = e.dueNanos();
            try {
                Agenda.run(e);
                watches.settle();
            } catch (RuntimeException x) {
                LOG.error("a step could not be run", x);
            }
            drain();
        }
        taking = false;
        if (busy && idle()) {
            busy = false;
            tell(new Happening.Rested());
        }
        return agenda.untilNext(clock.nanos());
    }

    /** Whether no chain runs and no answer is awaited. */
    public boolean idle() {
        return runs.isEmpty() && orders.idle();
    }

    /** The moment of what is being taken: when it was posted, or when it was due. */
    long now() {
        return moment;
    }

    /**
     * Whole beats of a length that have gone by since a moment, unseen: the machine was asleep, or far too busy. What
     * comes at intervals leaves them out, where it would else come all at once. 0 when all is well.
     */
    long missedBeats(long sinceNanos, long beatNanos) {
        long behind = clock.nanos() - sinceNanos;
        return behind > ASLEEP_NANOS && beatNanos > 0 ? behind / beatNanos : 0;
    }

    /** There is something to do: rest is told of when it is done. */
    void stir() {
        busy = true;
    }

    Board board() {
        return rig == null ? Board.empty("") : rig.board();
    }

    private void handle(Event event, long at) {
        switch (event) {
            case Event.Load load -> load(load.rig(), at);
            case Event.Pressed p -> on(p.button(), b -> hands.press(b, at, p.source()));
            case Event.Released r -> on(r.button(), b -> hands.release(b, at, r.source()));
            case Event.Turned t -> on(t.button(), b -> hands.turn(b, t.detents(), t.fine(), at, t.source()));
            case Event.Moved m -> on(m.button(), b -> levels.move(b, m.axis(), m.value(), at, m.source()));
            case Event.Perform p -> on(p.button(), b -> hands.perform(b, p.gesture(), at, p.source()));
            case Event.Try t -> on(t.button(), b -> start(b, t.name(),
                    new Compiler(java.util.Objects.requireNonNull(rig)).seq(t.chain(), t.name()),
                    Scope.of(b.button.id()), at, t.name()));
            case Event.Opened _ -> armed.happened(When.What.BOARD_OPENED, null, at);
            case Event.Arm a -> {
                armed.arm(a.on());
                tell(new Happening.Armed(a.on()));
            }
            case Event.Latest l -> {
                Event now = l.what().get();
                if (now != null) {
                    handle(now, at);
                }
            }
            case Event.WentLive _ -> {
                buttons.values().forEach(b -> {
                    Op.Seq chain = b.onStart();
                    if (chain != null) {
                        start(b, "on-start", chain, Scope.of(b.button.id()), at, "going live");
                    }
                });
                armed.happened(When.What.WENT_LIVE, null, at);
            }
            case Event.Answer a -> {
                AskFrame ask = asks.get(a.question());
                if (ask != null) {
                    ask.answer(a.answer(), at);
                }
            }
            case Event.Told t -> {
                Twin twin = situation.twin(t.gear());
                if (twin != null) {
                    twin.card().command(t.command()).ifPresent(c -> {
                        Map<String, Op.Input> args = new LinkedHashMap<>();
                        t.args().forEach((k, v) -> args.put(k, new Op.Input(v, null)));
                        orders.tell(twin, new Op.Do(twin, c, args, -1), at);
                    });
                }
            }
            case Event.Came c -> came(c.gear(), c.reading(), c.value());
            case Event.Linked l -> linked(l.gear(), l.status(), at);
            case Event.Answered a -> orders.answered(a);
            case Event.Later l -> agenda.at(at + l.nanos(), due -> handle(l.event(), due));
            case Event.LetGo l -> {
                if (l.button() == null) {
                    buttons.values().forEach(b -> hands.letGo(b, at, l.source()));
                } else {
                    on(l.button(), b -> hands.letGo(b, at, l.source()));
                }
            }
            case Event.StopRun s -> {
                Run run = runs.get(s.run());
                if (run != null) {
                    run.stop(Happening.End.STOPPED);
                }
            }
            case Event.StopAll _ -> stopAll(at);
            case Event.Recite _ -> recite();
        }
    }

    private void linked(String gear, Status status, long at) {
        Status before = situation.status(gear);
        situation.linked(gear, status);
        tell(new Happening.Linked(gear, status));
        armed.linked(gear, before.phase(), status.phase(), at);
    }

    /** Something went wrong with what presses a button. */
    void troubled(String button, String what) {
        on(button, b -> fault(b, null, what));
    }

    private void on(String button, Consumer<ButtonPlay> what) {
        ButtonPlay b = buttons.get(button);
        if (b != null) {
            what.accept(b);
        }
    }

    private void stopAll(long at) {
        buttons.values().forEach(b -> b.queued.clear());
        List.copyOf(runs.values()).forEach(r -> r.stop(Happening.End.STOPPED));
        buttons.values().forEach(b -> hands.letGo(b, at, "stop all"));
    }

    private void load(Rig next, long at) {
        boolean otherGear = rig == null || rig.twins() != next.twins();
        this.rig = next;
        situation.load(next);
        levels.forget();
        named.clear();
        Compiler compiler = new Compiler(next);
        Map<String, ButtonPlay> kept = new HashMap<>(buttons);
        buttons.clear();
        follows.clear();
        next.board().buttons().forEach(b -> {
            ButtonPlay play = kept.remove(b.id());
            if (play == null) {
                play = new ButtonPlay(b, compiler);
            } else if (play.button != b || otherGear) {
                play.become(b, compiler);
            }
            buttons.put(b.id(), play);
            follows.index(play);
            prepare(play);
        });
        armed.load(buttons.values());
        kept.values().forEach(gone -> {
            hands.letGo(gone, at, "deleted");
            stopAll(gone);
        });
        tell(new Happening.Loaded(next));
        situation.values(this::valueTold);
        buttons.values().forEach(b -> {
            follows.follow(b);
            shows(b);
        });
    }

    /** Compiles a button's chains and makes their orders out, so that a press does neither. */
    private void prepare(ButtonPlay play) {
        for (int i = 0; i < play.button.states().size(); i++) {
            for (Gesture g : play.button.states().get(i).on().keySet()) {
                Op.Seq chain = play.chain(i, g);
                if (chain != null) {
                    chain.commands(orders::prepare);
                }
            }
        }
    }

    private void recite() {
        Rig here = rig;
        if (here == null) {
            return;
        }
        tell(new Happening.Anew());
        tell(new Happening.Loaded(here));
        situation.statuses((gear, status) -> tell(new Happening.Linked(gear, status)));
        situation.readings((gear, reading, value) -> tell(new Happening.Came(gear, reading, value)));
        situation.values(this::valueTold);
        buttons.values().forEach(this::shows);
        askTold.values().forEach(this::tell);
    }

    private void valueTold(Situation.Owned name, Value value) {
        tell(new Happening.ValueSet(name.owner().isEmpty() ? null : name.owner(), name.id(), value));
    }

    void stopAll(ButtonPlay b) {
        List.copyOf(b.running).forEach(r -> r.stop(Happening.End.STOPPED));
    }

    /** Stops what runs for a button before it runs a chain anew; gives what runs of the same chain have to put back. */
    Map<Op.ForAWhile, Map<Orders.Key, Value>> stopForAnother(ButtonPlay b, Op.Seq chain) {
        Map<Op.ForAWhile, Map<Orders.Key, Value>> inherited = new HashMap<>();
        for (Run run : List.copyOf(b.running)) {
            if (run.chain == chain) {
                inherited.putAll(run.stopForAnother());
            } else {
                run.stop(Happening.End.STOPPED);
            }
        }
        return inherited;
    }

    Run start(ButtonPlay b, String what, Op.Seq chain, Scope scope, long at, String source) {
        return start(b, what, chain, scope, at, source, Map.of());
    }

    /** @param inherited what the run has to put back for one before it */
    Run start(ButtonPlay b, String what, Op.Seq chain, Scope scope, long at, String source,
            Map<Op.ForAWhile, Map<Orders.Key, Value>> inherited) {
        Run run = new Run(++lastRun, this, b, chain, scope, inherited);
        b.running.add(run);
        begin(run, what, source, at);
        return run;
    }

    private void begin(Run run, String what, String source, long at) {
        stir();
        runs.put(run.id, run);
        tell(new Happening.Started(run.id, run.buttonId(), what, source, at, run.chain.expectedNanos()));
        run.start(at);
    }

    /** Runs the always part of a chain that was stopped. */
    void detached(Run of, Op.Seq chain, Scope scope) {
        begin(new Run(++lastRun, this, of.button, chain, scope, Map.of()), "always", "stopped", moment);
    }

    void runEnded(Run run, long due, Happening.End end) {
        runs.remove(run.id);
        tell(new Happening.Ended(run.id, run.buttonId(), end, due));
        ButtonPlay b = run.button;
        if (b == null) {
            return;
        }
        b.running.remove(run);
        if (b.awaited == run) {
            hands.awaitedEnded(b, end, due);
        }
        if (b.running.isEmpty() && end != Happening.End.STOPPED) {
            hands.rested(b, due);
        }
    }

    /** The chain that a use step names. */
    Op.Seq chainOf(Op.Use use) throws FormulaFault {
        String chain = use.chain();
        Op.Seq found = null;
        if (chain != null) {
            found = named.get(chain);
            NamedChain source = board().chain(chain).orElse(null);
            if (found == null && source != null && rig != null) {
                found = new Compiler(rig).seq(source.chain(), "chain");
                named.put(chain, found);
            }
        } else {
            ButtonPlay b = buttons.get(use.button());
            if (b != null) {
                found = b.chain(use.state() == null ? b.shown : b.state(use.state()), use.gesture());
            }
        }
        if (found == null) {
            throw new FormulaFault(0, chain != null
                    ? "there is no chain “" + chain + "” on this board"
                    : "“" + use.button() + "” has no chain for " + use.gesture().words());
        }
        return found;
    }

    /** Sets a value of the scope's button, or of the board. */
    void set(Scope scope, String value, Value to) throws FormulaFault {
        String owner = situation.set(scope, value, to);
        if (owner == null) {
            throw new FormulaFault(0, "there is no value “" + value + "” on this board");
        }
        valueTold(new Situation.Owned(owner, value), to);
        armed.changed(value);
        watches.changed(value);
    }

    void show(Run run, Step.Show step) throws FormulaFault {
        if (step.way() == Step.Show.Way.WHILE_HELD) {
            if (run.button == null || !run.button.held()) {
                throw new FormulaFault(0, "the page is shown while the button is held, and it is not held");
            }
            run.button.showsPage = step.page();
        }
        if (step.page() != null || step.way() == Step.Show.Way.BACK) {
            tell(new Happening.PageShown(step.page(), step.way()));
        } else if (step.button() != null) {
            on(step.button(), b -> {
                hands.show(b, b.state(step.state()));
                shows(b);
            });
        }
    }

    void say(Run run, String text, Scope scope) {
        tell(new Happening.Said(run.buttonId(), filled(text, scope)));
    }

    String filled(String text, Scope scope) {
        return Formula.fill(text, n -> situation.named(n, scope), n -> situation.spoken(n, scope));
    }

    void stop(Run run, Step.Stop step) {
        switch (step.what()) {
            case THIS -> run.stop(Happening.End.STOPPED);
            case BUTTON -> on(String.valueOf(step.button()), this::stopAll);
            case TAG -> List.copyOf(buttons.values()).stream()
                    .filter(b -> b.button.tag() != null && b.button.tag().equals(step.tag())).forEach(this::stopAll);
            case ALL -> stopAll(moment);
        }
    }

    long asked(AskFrame ask, java.util.function.LongFunction<Happening.Asked> told) {
        long id = ++lastAsk;
        asks.put(id, ask);
        Happening.Asked happening = told.apply(id);
        askTold.put(id, happening);
        tell(happening);
        return id;
    }

    void askClosed(long question) {
        asks.remove(question);
        askTold.remove(question);
        tell(new Happening.AskClosed(question));
    }

    void ran(@Nullable Run run, String place, Order order, long due, long at, AsRun.Outcome outcome, String message) {
        tell(new Happening.Ran(new AsRun(due, at, run == null ? 0 : run.id, run == null ? "" : run.buttonId(), place,
                run == null ? AsRun.RACK : "", order.gear(), order.command().id(), order.args(), order.title(), outcome,
                message)));
    }

    /** A level was moved by hand to where an order takes it, or could not be, and why. */
    void moved(ButtonPlay b, Order order, String source, long at, @Nullable String fault) {
        tell(new Happening.Ran(new AsRun(at, clock.nanos(), 0, b.button.id(), "", source, order.gear(), order.command()
                .id(), order.args(), order.title(), fault == null ? AsRun.Outcome.SENT : AsRun.Outcome.FAULT,
                fault == null ? "" : fault)));
    }

    /** A step that commands no gear could not be done, and why; gives the reason back. */
    String faulted(Run run, String place, String why) {
        tell(new Happening.Ran(
                new AsRun(moment, clock.nanos(), run.id, run.buttonId(), place, "", "", "", Map.of(), place,
                        AsRun.Outcome.FAULT, why)));
        fault(run, null, why);
        return why;
    }

    void fault(@Nullable Run run, @Nullable String gear, String message) {
        if (run != null) {
            run.faults++;
            if (run.button != null) {
                fault(run.button, gear, message);
                hands.gearFailed(run.button, gear);
            }
        }
    }

    void fault(ButtonPlay b, @Nullable String gear, String message) {
        b.faulted = true;
        tell(new Happening.Faulted(b.button.id(), gear, message));
    }

    void clearFault(ButtonPlay b) {
        if (b.faulted) {
            b.faulted = false;
            tell(new Happening.Faulted(b.button.id(), null, null));
        }
    }

    /** A reading has come in, or is taken to be as sent. */
    void came(String gear, String reading, Value value) {
        orders.came(new Orders.Key(gear, reading), value);
        if (!situation.came(gear, reading, value)) {
            return;
        }
        tell(new Happening.Came(gear, reading, value));
        follows.came(gear, reading);
        armed.came(gear, reading, moment);
        if (watches.any()) {
            watches.changed(gear + ":" + reading);
        }
    }

    void shows(ButtonPlay b) {
        tell(new Happening.Shows(b.button.id(), b.shown, b.onItsWay, b.held()));
    }

    void tell(Happening happening) {
        try {
            watcher.accept(happening);
        } catch (RuntimeException e) {
            LOG.error("a watcher failed on {}", happening, e);
        }
    }
}
