package rombix.core.touch;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.LongSupplier;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Button;
import rombix.core.board.Control.Axis;
import rombix.core.board.Rig;
import rombix.core.board.Trigger.Midi.Message;
import rombix.core.board.Trigger;
import rombix.core.twin.Scale;

/**
 * What controllers show: a led for the state of a button, and where motors take faders. Told of what has changed by one
 * thread at a time; asks for no more than one message for each led that changes.
 */
public final class Feedback {
    /** For how long a control that was touched is the hand's. */
    private static final long HAND_NANOS = 400_000_000L;

    private final Consumer<Touch.Midi> out;
    private final LongSupplier nanos;
    private final Deck deck;
    private final Map<List<Object>, Long> touched = new HashMap<>();
    private final Set<Axis> owed = new HashSet<>();
    private final Map<List<Object>, Integer> shown = new HashMap<>();
    private final Map<String, List<Trigger.Midi>> lit = new HashMap<>();
    private final Map<Axis, List<Motor>> motors = new HashMap<>();
    private @Nullable Rig rig;

    /** The deck as it is now. */
    public interface Deck {
        /** Which state of a button is shown, from 0. */
        int state(String button);

        /** Where a level is, in its unit; null where that is not known. */
        @Nullable
        Double level(Axis axis);
    }

    private record Motor(Trigger.Midi trigger, Scale scale) {
    }

    /**
     * @param out takes a message to be sent, on the thread that tells what has changed
     * @param nanos the time
     * @param deck asked on any thread
     */
    public Feedback(Consumer<Touch.Midi> out, LongSupplier nanos, Deck deck) {
        this.deck = deck;
        this.out = out;
        this.nanos = nanos;
    }

    /** A hand moves a control: it is not moved against the hand, and where it is now is known. */
    public synchronized void touched(Touch.Midi touch) {
        List<Object> key = List.of(touch.port(), touch.message(), touch.channel(), touch.number());
        touched.put(key, nanos.getAsLong());
        if (touch.message() == Message.CONTROL) {
            shown.put(key, touch.value());
        }
    }

    /** Buttons may show another state, and levels may have moved. */
    public synchronized void changed(Set<String> buttons, Set<Axis> axes) {
        List<Axis> again = List.copyOf(owed);
        owed.clear();
        again.forEach(this::motors);
        buttons.forEach(this::leds);
        axes.forEach(this::motors);
    }

    /** Anything may have changed. */
    public synchronized void changed() {
        changed(lit.keySet(), motors.keySet());
    }

    /** A controller was plugged in: all that it shows is sent once more. */
    public synchronized void arrived(String port) {
        shown.keySet().removeIf(k -> k.getFirst().equals(port));
        changed();
    }

    /** A board is played from now on. */
    public synchronized void load(Rig next) {
        rig = next;
        lit.clear();
        motors.clear();
        next.board().buttons().forEach(b -> b.triggers().forEach(t -> {
            if (t instanceof Trigger.Midi m) {
                if (!m.leds().isEmpty()) {
                    lit.computeIfAbsent(b.id(), _ -> new ArrayList<>()).add(m);
                }
                if (m.motor() && b.control() != null && !b.control().axes().isEmpty()) {
                    Axis axis = b.control().axes().getFirst();
                    next.twin(axis.gear()).flatMap(x -> Scale.of(x, axis.reading())).ifPresent(s -> motors
                            .computeIfAbsent(axis, _ -> new ArrayList<>()).add(new Motor(m, s)));
                }
            }
        }));
        changed();
    }

    private void leds(String button) {
        Rig here = rig;
        List<Trigger.Midi> all = lit.getOrDefault(button, List.of());
        if (here == null || all.isEmpty()) {
            return;
        }
        Button b = here.button(button).orElseThrow();
        int state = Math.min(deck.state(button), b.states().size() - 1);
        for (Trigger.Midi m : all) {
            Trigger.Midi.Led led = m.leds().get(b.states().get(state).id());
            // A state without a led of its own darkens those of the others.
            m.leds().values().stream().map(l -> number(m, l)).distinct()
                    .filter(n -> led == null || n != number(m, led)).forEach(n -> show(m, n, 0));
            if (led != null) {
                show(m, number(m, led), led.value());
            }
        }
    }

    private static int number(Trigger.Midi m, Trigger.Midi.Led led) {
        return Objects.requireNonNullElse(led.number(), m.number());
    }

    private void motors(Axis axis) {
        Double level = deck.level(axis);
        if (level == null || level.isNaN()) {
            return;
        }
        for (Motor m : motors.getOrDefault(axis, List.of())) {
            Long at = touched.get(key(m.trigger(), m.trigger().number()));
            if (at != null && nanos.getAsLong() - at < HAND_NANOS) {
                owed.add(axis);
            } else {
                show(m.trigger(), m.trigger().number(), (int) Math.rint(m.scale().position(level) * 127));
            }
        }
    }

    private void show(Trigger.Midi m, int number, int value) {
        Integer before = shown.put(key(m, number), value);
        if (before == null || before != value) {
            out.accept(new Touch.Midi(m.port(), message(m), m.channel(), number, value));
        }
    }

    private static Message message(Trigger.Midi m) {
        return m.message() == Message.NOTE ? Message.NOTE : Message.CONTROL;
    }

    private static List<Object> key(Trigger.Midi m, int number) {
        return List.of(m.port(), message(m), m.channel(), number);
    }
}
