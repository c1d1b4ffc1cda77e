package rombix.core.touch;

import java.util.HashMap;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.BinaryOperator;
import java.util.function.Consumer;
import java.util.function.Function;
import rombix.core.chain.Gesture;
import rombix.core.event.Event;
import rombix.core.value.Value;

/**
 * The way to a deck of one source: a key, a controller, a device, a shell. It presses, turns, moves, answers and stops,
 * and nothing else; the log names the source. Safe to use from any thread, and never waits; what one source does is to
 * come in order.
 *
 * <p>
 * Nothing queues without bound, however much comes: of a level only the last value waits, turns and strokes add up, and
 * of presses at most {@value #MOST_WAITING} wait; what comes beyond that is dropped together with its release, and
 * counted. A source that is gone holds nothing.
 */
public final class DeckPort implements AutoCloseable {
    private static final int MOST_WAITING = 32;
    /** How many controls of one source may wait at once: more than a board has, less than fills a memory. */
    private static final int MOST_CONTROLS = 4096;

    private final Consumer<Event> deck;
    private final String source;
    private final AtomicInteger dropped;
    private final AtomicInteger waiting = new AtomicInteger();
    private final Set<String> held = ConcurrentHashMap.newKeySet();
    /** What waits of controls that move. Guarded by itself. */
    private final Map<Control, Object> moving = new HashMap<>();

    private record Control(String button, String part) {
    }

    /** @param source who it is, in words, as the log says it */
    public DeckPort(Consumer<Event> deck, String source) {
        this(deck, source, new AtomicInteger());
    }

    /** @param dropped counts what is dropped */
    DeckPort(Consumer<Event> deck, String source, AtomicInteger dropped) {
        this.deck = deck;
        this.source = source;
        this.dropped = dropped;
    }

    /** How much was dropped because more came than could be taken. */
    public int dropped() {
        return dropped.get();
    }

    /** Begins to press a button; it is held until this releases it. */
    public void press(String button) {
        if (post(new Event.Pressed(button, source))) {
            held.add(button); // Set after the press is posted, so that a release can only follow it.
        }
    }

    /** Ends the press of a button that this holds; of any other it says nothing. */
    public void release(String button) {
        if (held.remove(button)) {
            waiting.incrementAndGet();
            taken(new Event.Released(button, source));
        }
    }

    /** Ends the presses of all that this holds. */
    public void releaseAll() {
        held.forEach(this::release);
    }

    /** Whether it holds a button. */
    public boolean holds(String button) {
        return held.contains(button);
    }

    /** Whether it holds any button. */
    public boolean holdsAny() {
        return !held.isEmpty();
    }

    /** The buttons that it holds. */
    Set<String> held() {
        return held;
    }

    /** A control of this is off its place, or under a hand, or back: it holds its button without a press. */
    public void off(String button, boolean on) {
        if (on) {
            held.add(button);
        } else {
            held.remove(button);
        }
    }

    /** Runs the chain of a gesture; see {@link Event.Perform}. */
    public void perform(String button, Gesture gesture, long holdMillis) {
        post(new Event.Perform(button, gesture, source, holdMillis));
    }

    /** Runs the press chain, which knows these values by their names. */
    public void perform(String button, Map<String, Value> said) {
        post(new Event.Perform(button, Gesture.PRESS, source, -1, said));
    }

    /** Sets a value of a button, or of the board where that is empty; for a run-down's id it goes to that item. */
    public void set(String button, String value, Value to) {
        post(new Event.Given(button, value, to));
    }

    /** Chooses one of the states of a row, counted from 0. */
    public void choose(String button, int state) {
        post(new Event.Chosen(button, state, source));
    }

    /** Turns a dial by so many detents, negative to the left. */
    public void turn(String button, int detents, boolean fine) {
        if (detents != 0) {
            move(new Control(button, fine ? "fine" : "coarse"), detents, Integer::sum,
                    sum -> new Event.Turned(button, sum,
                            fine, source));
        }
    }

    /** Moves a level of a dial, a fader or a pad to a value, in its unit; {@code axis} is 1 for the one up a pad. */
    public void move(String button, int axis, double value) {
        move(new Control(button, "axis " + axis), value, (_, last) -> last, now -> new Event.Moved(button, axis, now,
                source));
    }

    /** A hand slid over a pointer field or a wheel strip; see {@link Event.Stroked}. */
    public void stroke(String button, double across, double up) {
        move(new Control(button, "stroke"), new Event.Stroked(button, across, up, source), (a, b) -> new Event.Stroked(
                button, a.across() + b.across(), a.up() + b.up(), source), all -> all);
    }

    /** Holds these ways of a key pad from now on, counted from 0, and no others. */
    public void ways(String button, Set<Integer> ways) {
        Event now = new Event.Held(button, ways, source);
        if (ways.isEmpty()) {
            waiting.incrementAndGet(); // As a release it is never dropped.
            taken(now);
        } else {
            post(now);
        }
    }

    /** Answers a question: a choice by its place or name, a number, or a text. */
    public void answer(long question, Value answer) {
        post(new Event.Reply(question, answer));
    }

    /** Stops one running chain. */
    public void stop(long run) {
        move(new Control(String.valueOf(run), "stop"), run, (_, last) -> last, Event.StopRun::new);
    }

    /** Stops everything that runs. That is never dropped. */
    public void stopAll() {
        deck.accept(new Event.StopAll());
    }

    /** Lets go of a button that it holds; what the hand had not made up its mind about does not happen. */
    public void letGo(String button, String why) {
        if (held.remove(button)) {
            deck.accept(new Event.LetGo(button, why));
        }
    }

    /** Lets go of all that it holds. */
    public void letGo(String why) {
        held.forEach(b -> letGo(b, why));
    }

    /** The source is gone. */
    @Override
    public void close() {
        letGo(source + " gone");
    }

    private boolean post(Event event) {
        if (waiting.incrementAndGet() > MOST_WAITING) {
            waiting.decrementAndGet();
            dropped.incrementAndGet();
            return false;
        }
        taken(event);
        return true;
    }

    private void taken(Event event) {
        deck.accept(new Event.Latest(() -> {
            waiting.decrementAndGet();
            return event;
        }));
    }

    /** Of a control that moves one event waits, of all that came by then. */
    private <T> void move(Control control, T value, BinaryOperator<T> with, Function<T, Event> event) {
        synchronized (moving) {
            @SuppressWarnings("unchecked") // One kind of value for one control.
            T before = (T) moving.get(control);
            if (before == null && moving.size() >= MOST_CONTROLS) {
                dropped.incrementAndGet();
                return;
            }
            moving.put(control, before == null ? value : with.apply(before, value));
            if (before != null) {
                return;
            }
        }
        deck.accept(new Event.Latest(() -> {
            synchronized (moving) {
                @SuppressWarnings("unchecked")
                T now = (T) Objects.requireNonNull(moving.remove(control));
                return event.apply(now);
            }
        }));
    }
}
