package rombix.core.touch;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Control;
import rombix.core.board.MessageTrigger;
import rombix.core.board.Rig;
import rombix.core.board.Trigger;
import rombix.core.board.Trigger.Midi.Turns;
import rombix.core.chain.Gesture;
import rombix.core.event.Event;
import rombix.core.twin.Scale;
import rombix.core.value.Value;

/**
 * Connects what touches from outside to the buttons of a board. Safe to use from any thread; touches of one source are
 * to come in order.
 *
 * <p>
 * Each key and each part of a controller has a {@link DeckPort} of its own, so that nothing queues without bound.
 */
public final class Switchboard {
    /** How far something has to go to press, and to come back to release. */
    private static final double HALF = 0.5;
    private static final double BACK = 0.4;
    /** A stick: held over to one side or to the other. */
    private static final Scale STICK = new Scale(-1, 1, null);

    private final Consumer<Event> deck;
    private final Consumer<String> touched;
    private final Map<Object, DeckPort> ports = new ConcurrentHashMap<>();
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

    /** A topic filter at a broker. */
    private record Topic(String gear, String filter) {
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
        ports.forEach((source, port) -> port.held().stream().filter(b -> !plugged(source, b)).forEach(b -> port.letGo(b,
                "trigger taken off")));
    }

    private static @Nullable Object source(Trigger t) {
        return switch (t) {
            case Trigger.Key k when k.everywhere() -> k.normal();
            case Trigger.Midi m -> new Knob(m.port(), m.message(), m.channel(), m.number());
            case Trigger.Gamepad g -> new Part(g.device(), g.part());
            case Trigger.Osc o -> o.address();
            case MessageTrigger.Mqtt m -> new Topic(m.gear(), m.topic());
            case Trigger.Key _,MessageTrigger.Http _,Trigger.Clock _,Trigger.Becomes _,Trigger.When _ -> null;
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
            ports.values().forEach(p -> p.letGo("not live"));
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
            case Touch.Key k -> plugged(new Trigger.Key(k.key()).normal(), p -> push(p, k.down(), k));
            case Touch.Midi m -> plugged(new Knob(m.port(), m.message(), m.channel(), m.number()),
                    p -> midi(p, m));
            case Touch.Osc o when OscPattern.isOne(o.address()) -> {
                OscPattern pattern = new OscPattern(o.address());
                List.copyOf(plugs.keySet()).stream().filter(k -> k instanceof String a && pattern.matches(a)).forEach(
                        k -> plugged(k, p -> osc(p, o)));
            }
            case Touch.Osc o -> plugged(o.address(), p -> osc(p, o));
            case Touch.Gamepad g -> plugged(new Part(g.device(), g.part()), p -> gamepad(p, g));
            case Touch.Mqtt m -> List.copyOf(plugs.keySet()).stream()
                    .filter(k -> k instanceof Topic t && t.gear().equals(
                            m.gear()) && TopicFilter.covers(t.filter(), m.topic()))
                    .forEach(k -> plugged(k, p -> mqtt(p, m)));
            case Touch.Gone g -> ports.forEach((source, port) -> {
                if (g.port().equals(device(source))) {
                    port.letGo(g.words());
                }
            });
        }
    }

    private static boolean begins(Touch touch) {
        return switch (touch) {
            case Touch.Key k -> k.down();
            case Touch.Midi m -> m.value() > 0;
            case Touch.Osc _ -> true;
            case Touch.Mqtt _ -> false; // A broker says much that nobody means by it.
            case Touch.Gamepad g -> Math.abs(g.x()) > HALF || Math.abs(g.y()) > HALF;
            case Touch.Gone _ -> false;
        };
    }

    private void plugged(Object source, Consumer<Plug> what) {
        List<Plug> all = plugs.getOrDefault(source, List.of());
        if (armed) {
            for (Plug p : all) {
                what.accept(p);
                DeckPort port = ports.get(source);
                if (port != null && !(armed && plugged(source, p.button().id()))) {
                    port.letGo(p.button().id(), "not live"); // It came too late to be found among what is held.
                }
            }
        } else if (!all.isEmpty() && !(source instanceof Trigger.Key || source instanceof Topic)) {
            // Keys are what one edits with, and no hand sends what a broker passes on.

            touched.accept(all.getFirst().button().id());
        }
    }

    private boolean plugged(Object source, String button) {
        return plugs.getOrDefault(source, List.of()).stream().anyMatch(p -> p.button().id().equals(
                button));
    }

    /** What holds when it is pulled out: the port of a controller, or the keys; null for what has no end. */
    private static @Nullable String device(Object source) {
        return switch (source) {
            case Knob k -> k.port();
            case Part p -> p.device();
            case Trigger.Key _ -> "";
            default -> null;
        };
    }

    private DeckPort port(Plug p, Touch by) {
        return ports.computeIfAbsent(java.util.Objects.requireNonNull(source(p.trigger())), _ -> new DeckPort(deck, by
                .words(), dropped));
    }

    private void midi(Plug p, Touch.Midi m) {
        Turns turns = ((Trigger.Midi) p.trigger()).turns();
        if (m.message() == Trigger.Midi.Message.PROGRAM) {
            port(p, m).perform(p.button().id(), Gesture.PRESS, -1);
        } else if (turns == null) {
            push(p, m.value() > 0, m);
        } else if (turns == Turns.ABSOLUTE) {
            level(p, 0, m.value() / 127.0, m);
        } else {
            port(p, m).turn(p.button().id(), turns.detents(m.value()), false);
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
            push(p, true, o);
            push(p, false, o);
        } else {
            push(p, o.args().getFirst().asFlag(), o);
        }
    }

    private void mqtt(Plug p, Touch.Mqtt m) {
        String wanted = ((MessageTrigger.Mqtt) p.trigger()).text();
        if (wanted == null || wanted.equals(m.text())) {
            port(p, m).perform(p.button().id(), m.said());
        }
    }

    /** Sticks move two levels, or one by how far up they are; what is pulled moves one; else it presses beyond its half. */
    private void gamepad(Plug p, Touch.Gamepad g) {
        boolean stick = GamepadParts.twoWay(g.part());
        int levels = p.scales().size();
        if (levels > 0 && (stick || GamepadParts.pulled(g.part()) || GamepadParts.turned(g.part()))) {
            port(p, g).off(p.button().id(), g.x() != 0 || g.y() != 0);
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
        boolean down = port(p, g).holds(p.button().id());
        if (far > HALF && !down || far < BACK && down) {
            push(p, far > HALF, g);
        }
    }

    /** Moves a level to a place of its way. */
    private void level(Plug p, int axis, double place, Touch by) {
        if (axis >= p.scales().size() || Double.isNaN(place)) {
            return;
        }
        port(p, by).move(p.button().id(), axis, p.scales().get(axis).setting(place));
    }

    private void push(Plug p, boolean down, Touch by) {
        DeckPort port = port(p, by);
        String button = p.button().id();
        if (!down) {
            port.release(button);
        } else if (!(by instanceof Touch.Key && port.holds(button))) { // A keyboard repeats a key that is held.
            port.press(button);
        }
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

    /** The topics of a gear that a board's triggers name. */
    public static Set<String> topics(Board board, String gear) {
        return board.buttons().flatMap(b -> b.triggers().stream())
                .filter(t -> t instanceof MessageTrigger.Mqtt m && m.gear()
                        .equals(gear))
                .map(t -> ((MessageTrigger.Mqtt) t).topic()).collect(Collectors.toSet());
    }

    /** Whether a board has triggers of a kind. */
    public static boolean any(Board board, java.util.function.Predicate<Trigger> kind) {
        return board.buttons().anyMatch(b -> b.triggers().stream().anyMatch(kind));
    }
}
