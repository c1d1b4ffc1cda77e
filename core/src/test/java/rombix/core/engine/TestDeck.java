package rombix.core.engine;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Face;
import rombix.core.board.Gear;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.card.Protocol;
import rombix.core.chain.Chain;
import rombix.core.chain.Condition;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.event.AsRun;
import rombix.core.event.Cause;
import rombix.core.event.Event;
import rombix.core.event.Happening;
import rombix.core.event.Status;
import rombix.core.event.Trace;
import rombix.core.store.BadFile;
import rombix.core.store.CardLibrary;
import rombix.core.time.SimulatedClock;
import rombix.core.value.Value;

/** A deck on a simulated clock, with a studio and a sound desk that do as they are told, or not. */
public final class TestDeck {
    static final String CARD = """
            {"card": 1, "id": "switcher", "title": "Switcher",
             "lists": {"lamp": [{"id": "a", "name": "A"}, {"id": "b", "name": "B"}]},
             "readings": [
               {"id": "on/{lamp}", "title": "Lamp {lamp}", "type": "flag", "arrives": {"osc": {"from": "/on/{lamp}"}}},
               {"id": "level", "type": "number", "min": 0, "max": 100}],
             "commands": [
               {"id": "on", "title": "{lamp} on", "params": [{"id": "lamp", "type": "choice"}],
                "send": {"osc": [{"to": "/set/{lamp}", "args": [true]}]},
                "changes": [{"reading": "on/{lamp}", "to": true}], "undo": {"command": "off", "with": {"lamp": "{lamp}"}}},
               {"id": "off", "title": "{lamp} off", "params": [{"id": "lamp", "type": "choice"}],
                "send": {"osc": [{"to": "/set/{lamp}", "args": [false]}]},
                "changes": [{"reading": "on/{lamp}", "to": false}], "undo": {"command": "on", "with": {"lamp": "{lamp}"}}},
               {"id": "level", "title": "Level {level}",
                "params": [{"id": "level", "type": "number", "unit": "%", "min": 0, "max": 100, "default": 50}],
                "send": {"osc": [{"to": "/level", "args": ["{level}"]}]},
                "changes": [{"reading": "level", "to": "{level}"}],
                "undo": {"command": "level", "with": {"level": "before"}}},
               {"id": "look", "title": "Look", "waits": true, "send": {"osc": [{"to": "/look"}]}},
               {"id": "ping", "title": "Ping", "send": {"osc": [{"to": "/ping"}]}}]}
            """;
    public static final Step PING = new GearStep.Do("gear", "ping", Map.of());
    static final Condition.OnReading A_ON = Condition.OnReading.is("gear", "on/a", Value.of(true));
    static final Condition.OnReading A_OFF = Condition.OnReading.is("gear", "on/a", Value.of(false));

    final SimulatedClock clock = new SimulatedClock();
    final List<Happening> happened = new ArrayList<>();
    final Set<String> deaf = new HashSet<>();
    /** Tickets of orders that take their time. */
    final List<Long> looking = new ArrayList<>();
    private final List<String> sentOrders = new ArrayList<>();
    boolean obeys = true;
    final Deck deck = new Deck(clock, new java.util.Random(7), this::send, happened::add, Trace.NONE);

    /** A deck that plays a board with these buttons; its gear is ready, and lamp A is off. */
    static TestDeck with(Button... buttons) {
        return playing(rig(buttons));
    }

    static TestDeck playing(Rig rig) {
        TestDeck t = new TestDeck();
        t.post(new Event.Load(rig));
        t.post(new Event.Linked("gear", new Status(Status.Phase.READY, Cause.READY)));
        t.post(new Event.Came("gear", "on/a", Value.of(false)));
        return t;
    }

    /** A deck with one button that runs a chain when pressed. */
    static TestDeck running(Step... steps) {
        return with(button("b", state(Chain.of(steps))));
    }

    public static Rig rig(Button... buttons) {
        return rig(b -> b, buttons);
    }

    /** A board with these buttons on one page, changed further. */
    public static Rig rig(UnaryOperator<Board> change, Button... buttons) {
        try {
            var card = CardLibrary.read(Path.of("switcher.json"), CARD);
            List<Button> placed = new ArrayList<>();
            for (int i = 0; i < buttons.length; i++) {
                placed.add(buttons[i].withColumn(i));
            }
            Board board = new Board(1, "Test",
                    List.of(new Gear("gear", "Gear", "switcher",
                            new Gear.Link(Protocol.of("osc"), "127.0.0.1:1", Map.of()),
                            Map.of(), Map.of())),
                    List.of(new Page("p", "P", 8, 4, placed, Map.of())), Map.of());
            return Rig.of(change.apply(board), Map.of("switcher", card));
        } catch (BadFile e) {
            throw new AssertionError(e);
        }
    }

    public static Button button(String id, State... states) {
        return new Button(id, id, 0, 0, 1, 1, Button.Busy.RESTART, List.of(states), Map.of());
    }

    public static State state(String id, Condition.OnReading when, Chain press, Chain release) {
        Map<Gesture, Chain> on = new EnumMap<>(Gesture.class);
        on.put(Gesture.PRESS, press);
        on.put(Gesture.RELEASE, release);
        return new State(id, id, Face.PLAIN, State.NEXT, when, on, Map.of());
    }

    public static State state(Chain press) {
        return state("on", null, press, Chain.EMPTY);
    }

    public static Step on(String lamp) {
        return new GearStep.Do("gear", "on", Map.of("lamp", Value.of(lamp)));
    }

    public static Step off(String lamp) {
        return new GearStep.Do("gear", "off", Map.of("lamp", Value.of(lamp)));
    }

    public static Step level(double level) {
        return new GearStep.Do("gear", "level", Map.of("level", Value.of(level)));
    }

    public static Step pause(long ms) {
        return new Step.Wait(ms);
    }

    private void send(long ticket, rombix.core.twin.Order order) {
        sentOrders.add(order.packets().getFirst().address() + order.packets().getFirst().args() + " @"
                + clock.nanos() / 1_000_000);
        if (order.command().id().equals("look")) {
            looking.add(ticket);
            return;
        }
        if (deaf.contains(order.command().id())) {
            deck.take(new Event.OrderDone(ticket, clock.nanos(), "did not hear"), clock.nanos());
            return;
        }
        deck.take(new Event.OrderDone(ticket, clock.nanos(), null), clock.nanos());
        if (obeys) {
            order.changes().forEach((r, v) -> deck.take(new Event.Came("gear", r, v), clock.nanos()));
        }
    }

    void post(Event event) {
        deck.take(event, clock.nanos());
        deck.advance();
    }

    void press(String button) {
        post(new Event.Pressed(button, "test"));
    }

    void release(String button) {
        post(new Event.Released(button, "test"));
    }

    void click(String button) {
        press(button);
        release(button);
    }

    /** Lets time pass, waking exactly when something is due. */
    void pass(long millis) {
        pass(millis, 0);
    }

    /** Lets time pass, waking late by some nanoseconds each time. */
    void pass(long millis, long lateNanos) {
        long end = clock.nanos() + millis * 1_000_000;
        for (long wait = deck.advance(); wait != Long.MAX_VALUE
                && clock.nanos() + wait <= end; wait = deck.advance()) {
            clock.advance(wait + lateNanos);
        }
        if (end > clock.nanos()) {
            clock.advance(end - clock.nanos());
        }
        deck.advance();
    }

    List<AsRun> ran() {
        return happened.stream().filter(Happening.Ran.class::isInstance).map(h -> ((Happening.Ran) h).line()).toList();
    }

    /** What was run: the words of each command and when it was due, in milliseconds. */
    List<String> lines() {
        return ran().stream().map(l -> l.title() + " @" + l.dueNanos() / 1_000_000).toList();
    }

    Happening.Shows shows(String button) {
        return (Happening.Shows) happened.stream()
                .filter(h -> h instanceof Happening.Shows s && s.button().equals(button)).reduce((_, b) -> b)
                .orElseThrow();
    }

    /** The fill of the lamp as it was sent each time, for fades: the level and when it was due, in milliseconds. */
    List<String> sent() {
        return List.copyOf(sentOrders);
    }

    List<String> faults() {
        return happened.stream().filter(h -> h instanceof Happening.Faulted f && f.message() != null)
                .map(h -> ((Happening.Faulted) h).message()).toList();
    }

    <T extends Happening> List<T> all(Class<T> kind) {
        return happened.stream().filter(kind::isInstance).map(kind::cast).toList();
    }
}
