package rombix.core.touch;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Control;
import rombix.core.board.Rig;
import rombix.core.board.Trigger;
import rombix.core.board.Trigger.Midi.Turns;
import rombix.core.card.Scale;
import rombix.core.chain.Gesture;
import rombix.core.engine.Event;
import rombix.core.value.Value;

/**
 * Connects what touches from outside to the buttons of a board. Safe to use from any thread; touches of one source are
 * to come in order.
 *
 * <p>
 * Nothing queues without bound, however many messages come: of a control that moves a level only the last value waits,
 * turns of an encoder add up, and of a control that is pushed at most {@value #MAX_WAITING} pushes wait; what comes
 * beyond that is dropped together with its release, and counted.
 */
public final class Switchboard {
    private static final int MAX_WAITING = 32;
    /** How far something has to go to press, and to come back to release. */
    private static final double HALF = 0.5;
    private static final double BACK = 0.4;
    /** A stick: held over to one side or to the other. */
    private static final Scale STICK = new Scale(-1, 1, null);

    private final Consumer<Event> deck;
    private final Consumer<String> touched;
    private final Map<Object, Line> lines = new ConcurrentHashMap<>();
    private volatile Map<Object, List<Plug>> plugs = Map.of();
    private volatile boolean armed;
    private volatile @Nullable Consumer<Touch> learner;
    private final AtomicInteger dropped = new AtomicInteger();

    /** A trigger and the button that it presses. */
    private record Plug(Button button, Trigger trigger, List<Scale> scales) {
    }

    private record Knob(String port, Trigger.Midi.Message message, int channel, int number) {
    }

    private record Part(String device, String part) {
    }

    private record Held(Object source, String button, int axis) {
    }

    /** What waits of one control for one button. */
    private static final class Line {
        private final AtomicInteger waiting = new AtomicInteger();
        private final AtomicInteger detents = new AtomicInteger();
        private final AtomicReference<@Nullable Double> level = new AtomicReference<>();
        private volatile boolean down;
        private volatile @Nullable String port;
    }

    /**
     * @param deck where events are posted
     * @param touched told of the button that a controller or OSC would press while nothing is armed, to
     *            select it
     */
    public Switchboard(Consumer<Event> deck, Consumer<String> touched) {
        this.deck = deck;
        this.touched = touched;
    }

    /** Connects the triggers of a board from now on. What is held by one that is gone is let go. */
    public void load(Rig rig) {
        Map<Object, List<Plug>> next = new HashMap<>();
        for (Button b : (Iterable<Button>) rig.board().buttons()::iterator) {
            for (Trigger t : b.triggers()) {
                Object source = source(t);
                if (source != null) {
                    next.computeIfAbsent(source, _ -> new ArrayList<>()).add(new Plug(b, t, scales(rig, b)));
                }
            }
        }
        plugs = next;
        lines.forEach((key, line) -> {
            if (key instanceof Held h && line.down && !plugged(h.source(), h.button())) {
                line.down = false;
                deck.accept(new Event.LetGo(h.button(), "trigger taken off"));
            }
        });
    }

    private static @Nullable Object source(Trigger t) {
        return switch (t) {
            case Trigger.Key k when k.everywhere() -> k.normal();
            case Trigger.Midi m -> new Knob(m.port(), m.message(), m.channel(), m.number());
            case Trigger.Gamepad g -> new Part(g.device(), g.part());
            case Trigger.Osc o -> o.address();
            case Trigger.Key _,Trigger.Clock _,Trigger.Becomes _,Trigger.When _ -> null;
        };
    }

    private static List<Scale> scales(Rig rig, Button b) {
        Control control = b.control();
        return control == null
                ? List.of()
                : control instanceof Control.PointerField || control instanceof Control.WheelStrip
                        || control instanceof Control.KeyPad
                                ? List.of(STICK, STICK)
                                : control.axes().stream()
                                        .map(a -> rig.twin(a.gear()).flatMap(t -> Scale.of(t, a.reading())).orElse(
                                                new Scale(0, 1, null)))
                                        .toList();
    }

    /** Whether touches press now. */
    public boolean armed() {
        return armed;
    }

    /** Has touches press, or only tell which button they would; whoever stops that lets go of all that is held. */
    public void arm(boolean on) {
        armed = on;
        if (!on) {
            letGo(_ -> true, "not live");
        }
    }

    /** Hands the next touch that begins something to a learner, and to no button; null ends that. */
    public void learn(@Nullable Consumer<Touch> next) {
        learner = next;
    }

    /** How many pushes were dropped because a control sent more than could be taken. */
    public int dropped() {
        return dropped.get();
    }

    /** Takes a touch, from any thread; never waits. */
    public void take(Touch touch) {
        Consumer<Touch> learning = learner;
        if (learning != null && begins(touch)) {
            learning.accept(touch);
            return;
        }
        switch (touch) {
            case Touch.Key k -> plugged(new Trigger.Key(k.key()).normal(), p -> push(p, k.down(), k, null));
            case Touch.Midi m -> plugged(new Knob(m.port(), m.message(), m.channel(), m.number()),
                    p -> midi(p, m));
            case Touch.Osc o when OscPattern.isOne(o.address()) -> {
                OscPattern pattern = new OscPattern(o.address());
                List.copyOf(plugs.keySet()).stream().filter(k -> k instanceof String a && pattern.matches(a)).forEach(
                        k -> plugged(k, p -> osc(p, o)));
            }
            case Touch.Osc o -> plugged(o.address(), p -> osc(p, o));
            case Touch.Gamepad g -> plugged(new Part(g.device(), g.part()), p -> gamepad(p, g));
            case Touch.Gone g -> letGo(l -> g.port().equals(l.port), g.words());
        }
    }

    private static boolean begins(Touch touch) {
        return switch (touch) {
            case Touch.Key k -> k.down();
            case Touch.Midi m -> m.value() > 0;
            case Touch.Osc _ -> true;
            case Touch.Gamepad g -> Math.abs(g.x()) > HALF || Math.abs(g.y()) > HALF;
            case Touch.Gone _ -> false;
        };
    }

    private void plugged(Object source, Consumer<Plug> what) {
        List<Plug> all = plugs.getOrDefault(source, List.of());
        if (armed) {
            for (Plug p : all) {
                what.accept(p);
                letGoIfLate(p);
            }
        } else if (!all.isEmpty() && !(source instanceof Trigger.Key)) { // Keys are what one edits with.

            touched.accept(all.getFirst().button().id());
        }
    }

    /** Releases a press that came while this was disarmed or its trigger removed, too late to be found among the held. */
    private void letGoIfLate(Plug p) {
        Line line = line(p, 0);
        if (line.down && !(armed && plugged(source(p.trigger()), p.button().id()))) {
            line.down = false;
            deck.accept(new Event.LetGo(p.button().id(), "not live"));
        }
    }

    private boolean plugged(@Nullable Object source, String button) {
        return source != null && plugs.getOrDefault(source, List.of()).stream().anyMatch(p -> p.button().id().equals(
                button));
    }

    private Line line(Plug p, int axis) {
        return lines.computeIfAbsent(new Held(java.util.Objects.requireNonNull(source(p.trigger())), p.button().id(),
                axis), _ -> new Line());
    }

    private void midi(Plug p, Touch.Midi m) {
        Turns turns = ((Trigger.Midi) p.trigger()).turns();
        if (m.message() == Trigger.Midi.Message.PROGRAM) {
            post(line(p, 0), new Event.Perform(p.button().id(), Gesture.PRESS, m.words()));
        } else if (turns == null) {
            push(p, m.value() > 0, m, m.port());
        } else if (turns == Turns.ABSOLUTE) {
            level(p, 0, m.value() / 127.0, m);
        } else {
            Line line = line(p, 0);
            int by = turns.detents(m.value());
            if (by != 0 && line.detents.getAndAdd(by) == 0) {
                deck.accept(new Event.Latest(() -> {
                    int sum = line.detents.getAndSet(0);
                    return sum == 0 ? null : new Event.Turned(p.button().id(), sum, false, m.words());
                }));
            }
        }
    }

    private void osc(Plug p, Touch.Osc o) {
        boolean levels = !p.scales().isEmpty() && !o.args().isEmpty()
                && o.args().getFirst() instanceof Value.Num;
        if (levels) {
            for (int i = 0; i < Math.min(o.args().size(), p.scales().size()); i++) {
                level(p, i, o.args().get(i).asNumber(), o);
            }
        } else if (o.args().isEmpty()) {
            push(p, true, o, null);
            push(p, false, o, null);
        } else {
            push(p, o.args().getFirst().asFlag(), o, null);
        }
    }

    /** Sticks move two levels, or one by how far up they are; what is pulled moves one; else it presses beyond its half. */
    private void gamepad(Plug p, Touch.Gamepad g) {
        boolean stick = GamepadParts.twoWay(g.part());
        int levels = p.scales().size();
        if (levels > 0 && (stick || GamepadParts.pulled(g.part()) || GamepadParts.turned(g.part()))) {
            Line line = line(p, 0);
            line.port = g.device();
            line.down = g.x() != 0 || g.y() != 0;
            if (stick && levels > 1) {
                level(p, 0, (g.x() + 1) / 2, g);
                level(p, 1, (g.y() + 1) / 2, g);
            } else if (stick) {
                level(p, 0, (g.y() + 1) / 2, g);
            } else {
                level(p, 0, GamepadParts.pulled(g.part()) ? g.x() : (g.x() + 1) / 2, g);
            }
            return;
        }
        double far = Math.max(Math.abs(g.x()), Math.abs(g.y()));
        boolean down = line(p, 0).down;
        if (far > HALF && !down || far < BACK && down) {
            push(p, far > HALF, g, g.device());
        }
    }

    /** Moves a level to a place of its way. */
    private void level(Plug p, int axis, double place, Touch by) {
        if (axis >= p.scales().size() || Double.isNaN(place)) {
            return;
        }
        Line line = line(p, axis);
        if (line.level.getAndSet(place) == null) {
            deck.accept(new Event.Latest(() -> {
                Double now = line.level.getAndSet(null);
                return now == null
                        ? null
                        : new Event.Moved(p.button().id(), axis, p.scales().get(axis).setting(now), by.words());
            }));
        }
    }

    private void push(Plug p, boolean down, Touch by, @Nullable String port) {
        Line line = line(p, 0);
        if (down) {
            if (by instanceof Touch.Key && line.down) {
                return; // A keyboard repeats a key that is held.
            }
            if (line.waiting.get() >= MAX_WAITING) {
                dropped.incrementAndGet();
                return;
            }
            line.port = by instanceof Touch.Key ? "" : port;
            post(line, new Event.Pressed(p.button().id(), by.words()));
            line.down = true; // Set after the press is posted, so that a release can only follow it.
        } else if (line.down) {
            line.down = false;
            post(line, new Event.Released(p.button().id(), by.words()));
        }
    }

    private void post(Line line, Event event) {
        line.waiting.incrementAndGet();
        deck.accept(new Event.Latest(() -> {
            line.waiting.decrementAndGet();
            return event;
        }));
    }

    private void letGo(java.util.function.Predicate<Line> which, String why) {
        lines.forEach((key, line) -> {
            if (key instanceof Held h && line.down && which.test(line)) {
                line.down = false;
                deck.accept(new Event.LetGo(h.button(), why));
            }
        });
    }

    /** The ports that a board's triggers name. */
    public static List<String> ports(Board board) {
        return board.buttons().flatMap(b -> b.triggers().stream()).filter(Trigger.Midi.class::isInstance)
                .map(t -> ((Trigger.Midi) t).port()).distinct().toList();
    }

    /** The gamepads that a board's triggers name. */
    public static List<String> gamepads(Board board) {
        return board.buttons().flatMap(b -> b.triggers().stream()).filter(Trigger.Gamepad.class::isInstance)
                .map(t -> ((Trigger.Gamepad) t).device()).distinct().toList();
    }

    /** Whether a board has triggers of a kind. */
    public static boolean any(Board board, java.util.function.Predicate<Trigger> kind) {
        return board.buttons().anyMatch(b -> b.triggers().stream().anyMatch(kind));
    }
}
