package rombix.core.engine;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.random.RandomGenerator;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import rombix.core.board.Board;
import rombix.core.board.Control;
import rombix.core.board.Rig;
import rombix.core.board.RunDown;
import rombix.core.board.StepPlaces;
import rombix.core.board.StepWords;
import rombix.core.board.Trigger.When;
import rombix.core.chain.DeckStep;
import rombix.core.engine.op.Compiler;
import rombix.core.engine.op.Op;
import rombix.core.engine.op.Scope;
import rombix.core.engine.op.Situation;
import rombix.core.engine.run.ButtonPlay;
import rombix.core.engine.run.Orders;
import rombix.core.engine.run.Run;
import rombix.core.engine.run.RunContext;
import rombix.core.event.Event;
import rombix.core.event.Gears;
import rombix.core.event.Happening;
import rombix.core.event.Known;
import rombix.core.event.Status;
import rombix.core.event.Trace;
import rombix.core.thread.OneThread;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.time.Agenda;
import rombix.core.time.Clock;
import rombix.core.twin.Twin;
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
@OwnedBy(Owner.CONDUCTOR)
public final class Deck extends RunContext {
    /** How long a reading may take to follow a press. */
    public static final long FOLLOW_NANOS = 2_000_000_000L;

    private static final Logger LOG = LoggerFactory.getLogger(Deck.class);

    private final OneThread thread = new OneThread();
    final Levels levels = new Levels(this);
    final Gestures hands = new Gestures(this);
    final Rows rows = new Rows(this);
    private final Shows shows = new Shows(this);
    final Strokes strokes = new Strokes(this);
    final DirectionPads ways = new DirectionPads(this);
    final Follows follows = new Follows(this, hands);
    private final BoardTriggers armed = new BoardTriggers(this);
    private final Ending ending = new Ending(this);
    volatile @Nullable Rig rig;
    final Buttons buttons = new Buttons(this);
    private final Deque<Posted> inbox = new ArrayDeque<>();
    private long moment;
    private boolean taking;
    private volatile String stepOf = "";
    private volatile String step = "";
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
        super(clock, chance, gears, watcher, trace);
    }

    /** A deck whose gear are twins, on a clock of its own. */
    public static Deck onTwins(Clock clock, RandomGenerator chance, Consumer<Happening> watcher, Trace trace) {
        Deck[] made = new Deck[1];
        made[0] = new Deck(clock, chance, new TwinGears(clock, e -> made[0].take(e, clock.nanos())), watcher, trace);
        return made[0];
    }

    /** Plays a board from what is known of its gear, without a word to the watcher. For forecasts. */
    public void begin(Rig board, Known known) {
        assert thread.entered() : thread;
        rig = board;
        situation.load(board);
        board.twins().keySet().forEach(gear -> situation.linked(gear, Status.TWIN));
        situation.copy(known);
        buttons.begin(board, known);
    }

    /** Takes an event that was posted at a moment. What goes wrong inside is logged; the deck goes on. */
    @Override
    public void take(Event event, long postedNanos) {
        assert thread.entered() : thread;
        inbox.add(new Posted(event, postedNanos));
        if (!taking) {
            taking = true;
            try {
                drain();
            } finally {
                taking = false;
            }
        }
    }

    private void drain() {
        for (Posted p = inbox.poll(); p != null; p = inbox.poll()) {
            moment = p.atNanos();
            try {
                handle(p.event(), p.atNanos());
                watches.settle();
            } catch (RuntimeException | Error e) {
                LOG.error("the deck can't process {}", p.event(), e);
            }
        }
    }

    /** Does all that is due, and says how long until the next thing is; {@link Long#MAX_VALUE} if nothing waits. */
    public long advance() {
        assert thread.entered() : thread;
        taking = true;
        try {
            doDue();
        } finally {
            taking = false;
        }
        if (busy && idle()) {
            busy = false;
            telling.tell(new Happening.Rested());
        }
        ending.look();
        return agenda.untilNext(clock.nanos());
    }

    private void doDue() {
        for (Agenda.Entry e = agenda.poll(clock.nanos()); e != null; e = agenda.poll(clock.nanos())) {
            moment = e.dueNanos();
            try {
                Agenda.run(e);
                watches.settle();
            } catch (RuntimeException | Error x) {
                LOG.error("a step failed to run", x);
            }
            drain();
        }
    }

    @Override
    protected void at(Run run, String place) {
        stepOf = run.buttonId();
        step = place;
    }

    /** The button whose step began last. From any thread. */
    String stepOf() {
        return stepOf;
    }

    /** The step that began last, in words. From any thread. */
    String step() {
        Rig here = rig;
        String place = step;
        return here == null
                ? place
                : StepPlaces.step(here, stepOf, place).map(new StepWords(here, _ -> _ -> null)::of).orElse(place);
    }

    /** Whether no chain runs and no answer is awaited. */
    public boolean idle() {
        return runs.isEmpty() && orders.idle() && !hands.taps.any();
    }

    @Override
    public long now() {
        return moment;
    }

    @Override
    protected void stir() {
        busy = true;
    }

    @Override
    public @Nullable ButtonPlay button(@Nullable String id) {
        return buttons.get(id);
    }

    @Override
    protected Compiler compiler() {
        return new Compiler(rig == null ? Rig.of(Board.empty(""), Map.of()) : rig);
    }

    @Override
    public Board board() {
        return rig == null ? Board.empty("") : rig.board();
    }

    private void handle(Event event, long at) {
        switch (event) {
            case Event.Load load -> load(load.rig(), at);
            case Event.Pressed p -> on(p.button(), b -> hands.press(b, at, p.source()));
            case Event.Released r -> on(r.button(), b -> hands.release(b, at, r.source()));
            case Event.Turned t -> on(t.button(), b -> hands.turn(b, t.detents(), t.fine(), at, t.source()));
            case Event.Given g -> rows.given(g);
            case Event.Chosen c -> on(c.button(), b -> rows.choose(b, c.state(), at, c.source()));
            case Event.Stroked s -> on(s.button(), b -> strokes.stroke(b, s.across(), s.up(), at, s.source()));
            case Event.Held h -> on(h.button(), b -> ways.hold(b, h.ways(), at, h.source()));
            case Event.Moved m -> on(m.button(), b -> moved(b, m, at));
            case Event.Perform p -> on(p.button(), b -> hands.perform(b, p, at));
            case Event.Try t -> on(t.button(), b -> runs.start(b, t.name(),
                    compiler().seq(t.chain(), t.name()), Scope.of(b.button.id()), at, t.name()));
            case Event.Opened _ -> armed.happened(When.What.BOARD_OPENED, null, at);
            case Event.Arm a -> {
                armed.arm(a.on());
                telling.tell(new Happening.Armed(a.on()));
            }
            case Event.Run r -> r.what().run();
            case Event.Latest l -> {
                Event now = l.what().get();
                if (now != null) {
                    handle(now, at);
                }
            }
            case Event.WentLive _ -> {
                buttons.all().forEach(b -> {
                    Op.Seq chain = b.onStart();
                    if (chain != null) {
                        runs.start(b, "on-start", chain, Scope.of(b.button.id()), at, "going live");
                    }
                });
                armed.happened(When.What.WENT_LIVE, null, at);
            }
            case Event.Reply a -> runs.answer(a.question(), a.answer(), at);
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
            case Event.Came c -> changed(c.gear(), c.reading(), c.value(), c.moment());
            case Event.Linked l -> linked(l.gear(), l.status(), at);
            case Event.OrderDone a -> orders.answered(a);
            case Event.Later l -> agenda.at(at + l.nanos(), due -> handle(l.event(), due));
            case Event.LetGo l -> List.copyOf(buttons.all()).stream().filter(b -> l.button() == null || b.button.id()
                    .equals(l.button())).forEach(b -> hands.letGo(b, at, l.source()));
            case Event.StopRun s -> runs.stop(s.run());
            case Event.StopAll _ -> stopAll(at);
            case Event.End e -> ending.begin(e.then(), at);
            case Event.Resume r -> telling.resume(r);
        }
    }

    private void moved(ButtonPlay b, Event.Moved m, long at) {
        switch (b.button.control()) {
            case Control.PointerField _,Control.WheelStrip _ -> strokes.deflect(b, m.axis(), m.value(), at, m.source());
            case Control.KeyPad _ -> ways.deflect(b, m.axis(), m.value(), at, m.source());
            case null, default -> levels.move(b, m.axis(), m.value(), at, m.source());
        }
    }

    private void linked(String gear, Status status, long at) {
        Status before = situation.status(gear);
        situation.linked(gear, status);
        telling.tell(new Happening.Linked(gear, status));
        armed.linked(gear, before.phase(), status.phase(), at);
    }

    /** Something went wrong with what presses a button. */
    void troubled(String button, String what) {
        on(button, b -> telling.fault(b, null, what));
    }

    private void stopAll(long at) {
        buttons.all().forEach(b -> b.queued.clear());
        orders.stop(); // Before last words go out, which it is not to end.
        runs.stopAll();
        letGo(at, "stop all");
    }

    void letGo(long at, String source) {
        List.copyOf(buttons.all()).forEach(b -> {
            b.queued.clear();
            hands.letGo(b, at, source);
        });
    }

    private void load(Rig next, long at) {
        boolean otherGear = rig == null || rig.twins() != next.twins();
        buttons.goneFrom(next).forEach(b -> { // While the board still has what they name.
            runs.stopAll(b);
            hands.letGo(b, at, "deleted");
        });
        this.rig = next;
        situation.load(next);
        levels.forget();
        runs.forgetChains();
        follows.clear();
        List<ButtonPlay> changed = buttons.load(next, otherGear);
        armed.load(buttons.all());
        telling.tell(new Happening.Loaded(next));
        situation.values(telling::value);
        changed.forEach(b -> {
            follows.follow(b);
            telling.shows(b);
        });
    }

    @Override
    protected void set(Scope scope, String value, Value to) throws FormulaFault {
        String owner = situation.set(scope, value, to);
        if (owner == null) {
            throw new FormulaFault(0, "there is no value “" + value + "” on this board");
        }
        telling.value(new Situation.Owned(owner, value), to);
        changed(value);
        armed.changed(value, to, moment, false);
    }

    @Override
    protected void go(RunDown list, Value to) throws FormulaFault {
        rows.go(list, to);
    }

    @Override
    protected void show(Run run, DeckStep.Show step) throws FormulaFault {
        shows.show(run, step);
    }

    @Override
    protected void stop(Run run, DeckStep.Stop step) {
        switch (step.what()) {
            case THIS -> run.stop(Happening.End.STOPPED);
            case BUTTON -> on(String.valueOf(step.button()), runs::stopAll);
            case TAG -> List.copyOf(buttons.all()).stream()
                    .filter(b -> b.button.tag() != null && b.button.tag().equals(step.tag())).forEach(runs::stopAll);
            case ALL -> stopAll(moment);
        }
    }

    @Override
    protected void changed(String gear, String reading, Value value, boolean moment) {
        orders.reported(new Orders.Key(gear, reading), value);
        String name = gear + ":" + reading;
        if (!situation.changed(gear, reading, value) && !moment && !armed.each(name)) {
            return;
        }
        telling.tell(new Happening.Came(gear, reading, value));
        changed(name);
        armed.changed(name, value, this.moment, moment);
    }

    private void changed(String name) {
        follows.changed(name);
        armed.changed(name);
        watches.changed(name);
    }

    @Override
    protected void awaitedEnded(ButtonPlay b, Happening.End end, long due) {
        follows.awaitedEnded(b, end, due);
    }

    @Override
    protected void rested(ButtonPlay b, long due) {
        hands.rested(b, due);
    }

    @Override
    protected void failed(ButtonPlay b, @Nullable String gear) {
        follows.failed(b, gear);
    }

    @Override
    protected boolean held(ButtonPlay b) {
        return b.held() || ways.held(b);
    }
}
