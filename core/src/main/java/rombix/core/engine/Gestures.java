package rombix.core.engine;

import java.util.Map;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Button.Guard;
import rombix.core.board.Control;
import rombix.core.board.State;
import rombix.core.chain.DeckStep;
import rombix.core.chain.Gesture;
import rombix.core.engine.op.Op;
import rombix.core.engine.run.ButtonPlay;
import rombix.core.engine.run.ButtonPlay.Phase;
import rombix.core.engine.run.Orders;
import rombix.core.engine.run.Runs;
import rombix.core.event.Event;
import rombix.core.event.Happening;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.time.Agenda;
import rombix.core.value.Value;

/**
 * Turns presses and releases into gestures, starts the chain of the gesture, and chooses the state that follows.
 * Owned by the conductor's thread. A hold that has begun to run chains ends exactly once, with the release chain of the
 * state in which it began.
 */
@OwnedBy(Owner.CONDUCTOR)
public final class Gestures {
    private static final long MILLIS = 1_000_000L;
    private static final int MOST_QUEUED = 100;

    final Taps taps;
    private final Deck deck;

    Gestures(Deck deck) {
        this.deck = deck;
        this.taps = new Taps(deck);
    }

    void press(ButtonPlay b, long at, String source) {
        if (b.held()) {
            release(b, at, source);
        }
        deck.telling.clearFault(b);
        b.said = Map.of();
        Guard guard = b.button.guard();
        switch (b.phase) {
            case BETWEEN -> {
                cancel(b);
                b.heldIn = b.shown;
                b.phase = Phase.HELD;
                run(b, Gesture.DOUBLE_PRESS, at, source);
            }
            case PRESSED_ONCE -> {
                cancel(b);
                disarm(b);
                down(b, at, source);
            }
            case IDLE, GUARDING, DOWN, HELD -> {
                if (guard == null) {
                    down(b, at, source);
                } else if (guard.kind() == Guard.Kind.HOLD) {
                    b.phase = Phase.GUARDING;
                    b.guardTimer = deck.agenda.at(at + guard.ms() * MILLIS, due -> {
                        deck.telling.tell(new Happening.Guarded(b.button.id(), true, 0));
                        down(b, due, source);
                        deck.telling.shows(b);
                    });
                    deck.telling.tell(new Happening.Guarded(b.button.id(), true, guard.ms()));
                } else {
                    b.phase = Phase.PRESSED_ONCE;
                    b.guardTimer = deck.agenda.at(at + guard.ms() * MILLIS, _ -> disarm(b));
                    deck.telling.tell(new Happening.Guarded(b.button.id(), false, guard.ms()));
                }
            }
        }
        deck.telling.shows(b);
    }

    private void disarm(ButtonPlay b) {
        b.phase = Phase.IDLE;
        deck.telling.tell(new Happening.Guarded(b.button.id(), false, 0));
    }

    /** The press counts: it runs now, or when it is clear that it is not a long or a double one. */
    private void down(ButtonPlay b, long at, String source) {
        b.heldIn = b.shown;
        b.heldSince = at;
        boolean longs = b.answers(Gesture.LONG_PRESS);
        boolean doubles = b.answers(Gesture.DOUBLE_PRESS);
        if (longs) {
            b.longTimer = deck.agenda.at(at + deck.board().longPressMillis() * MILLIS, due -> {
                Agenda.cancel(b.doubleTimer);
                b.phase = Phase.HELD;
                run(b, Gesture.LONG_PRESS, due, source);
                deck.telling.shows(b);
            });
        }
        if (b.answers(Gesture.HELD)) {
            repeat(b, at, source);
        }
        if (doubles) {
            b.doubleTimer = deck.agenda.at(at + deck.board().doublePressMillis() * MILLIS,
                    due -> single(b, due, source));
        }
        if (!doubles && (!longs || b.button.pressAlso())) {
            b.phase = Phase.HELD;
            run(b, Gesture.PRESS, at, source);
        } else {
            b.phase = Phase.DOWN;
        }
    }

    private void repeat(ButtonPlay b, long from, String source) {
        b.repeatTimer = deck.agenda.at(from + b.button.repeatMillis() * MILLIS, due -> {
            Op.Seq chain = b.chain(b.heldIn, Gesture.HELD);
            if (chain != null && b.running.stream().noneMatch(r -> r.chain == chain)) {
                deck.runs.start(b, Gesture.HELD.id(), chain, b.scope(), due, source);
            }
            long beat = b.button.repeatMillis() * MILLIS;
            repeat(b, due + deck.missedBeats(due, beat) * beat, source);
        });
    }

    /** No second press has come in time. */
    private void single(ButtonPlay b, long due, String source) {
        if (b.phase == Phase.BETWEEN) {
            b.phase = Phase.HELD;
            run(b, Gesture.PRESS, due, source);
            end(b, due, source, false);
        } else if (b.phase == Phase.DOWN && (b.longTimer == null || b.button.pressAlso())) {
            b.phase = Phase.HELD;
            run(b, Gesture.PRESS, due, source);
        }
        b.doubleTimer = null;
        deck.telling.shows(b);
    }

    /** A release ends a hold once; without a hold it does nothing. */
    void release(ButtonPlay b, long at, String source) {
        switch (b.phase) {
            case IDLE, PRESSED_ONCE, BETWEEN -> {
                return;
            }
            case GUARDING -> {
                cancel(b);
                b.phase = Phase.IDLE;
                deck.telling.tell(new Happening.Guarded(b.button.id(), true, 0));
            }
            case DOWN -> {
                Agenda.cancel(b.longTimer);
                Agenda.cancel(b.repeatTimer);
                b.longTimer = null;
                if (b.doubleTimer != null) {
                    b.phase = Phase.BETWEEN;
                } else {
                    run(b, Gesture.PRESS, at, source);
                    end(b, at, source, false);
                }
            }
            case HELD -> end(b, at, source, true);
        }
        deck.telling.shows(b);
    }

    /** Something other than the hand ends the hold; what the hand had not made up its mind about does not happen. */
    void letGo(ButtonPlay b, long at, String source) {
        deck.strokes.letGo(b);
        deck.ways.letGo(b, at, source);
        switch (b.phase) {
            case HELD, GUARDING -> release(b, at, source);
            case PRESSED_ONCE -> {
                cancel(b);
                disarm(b);
            }
            case DOWN, BETWEEN -> {
                cancel(b);
                b.phase = Phase.IDLE;
                b.ending(b.heldIn);
                b.heldIn = -1;
                deck.telling.shows(b);
            }
            case IDLE -> {
            }
        }
    }

    private void end(ButtonPlay b, long at, String source, boolean stopsPress) {
        int state = b.heldIn;
        cancel(b);
        b.heldIn = -1;
        b.phase = Phase.IDLE;
        deck.levels.letGo(b, at, source);
        if (b.showsPage != null) {
            deck.telling.tell(new Happening.PageShown(b.showsPage, DeckStep.Show.Way.BACK, ""));
            b.showsPage = null;
        }
        Op.Seq chain = b.ending(state);
        if (chain != null) {
            b.queued.clear();
            if (stopsPress) {
                deck.runs.stopAll(b);
            }
            move(b, state, b.chain(state, Gesture.PRESS), chain);
            deck.follows.await(b, deck.runs.start(b, Gesture.RELEASE.id(), chain, b.scope(), at, source), at);
        } else if (b.button.springsBack() && stopsPress
                && at - b.heldSince >= deck.board().longPressMillis() * MILLIS) {
            back(b, successor(b, state), at, source);
        }
    }

    /** A hold that was no tap is over: what the press of its state would do takes it back. */
    private void back(ButtonPlay b, int to, long at, String source) {
        Op.Seq chain = b.chain(to, Gesture.PRESS);
        if (chain != null) {
            deck.runs.stopAll(b);
            move(b, to, chain);
            deck.follows.await(b, deck.runs.start(b, Gesture.PRESS.id(), chain, b.scope(), at, source), at);
        }
    }

    /** Runs the chain of a gesture without a hand. */
    void perform(ButtonPlay b, Event.Perform what, long at) {
        Gesture gesture = what.gesture();
        String source = what.source();
        deck.telling.clearFault(b);
        b.said = what.said();
        if (gesture == Gesture.PRESS && (what.holdMillis() >= 0 || b.answers(Gesture.RELEASE))) {
            letGo(b, at, source);
            down(b, at, source);
            taps.releaseAfter(b, at, what.holdMillis(), source);
            return;
        }
        switch (gesture) {
            case PRESS, LONG_PRESS, DOUBLE_PRESS -> run(b, gesture, at, source);
            case RELEASE, HELD -> started(b, gesture, b.chain(gesture), at, source);
            case TURN, TURN_FINE -> {
                if (!turn(b, 1, gesture == Gesture.TURN_FINE, at, source)) {
                    // Whoever asked is told that it is over.
                    deck.runs.start(b, gesture.id(), Op.Seq.NOTHING, b.scope(), at, source);
                }
            }
        }
        deck.telling.shows(b);
    }

    /** A dial is turned; where no finer chain is given, the coarse one runs. Says whether there was one. */
    boolean turn(ButtonPlay b, int detents, boolean fine, long at, String source) {
        Op.Seq chain = fine ? b.chain(b.shown, Gesture.TURN_FINE) : null;
        Op.Seq turned = chain == null ? b.chain(b.shown, Gesture.TURN) : chain;
        if (turned != null) {
            deck.telling.clearFault(b);
            deck.runs.start(b, (chain == null ? Gesture.TURN : Gesture.TURN_FINE).id(), turned,
                    b.scope().with("turn", Value.of(detents)), at, source);
        }
        if (turned == null && (b.button.control() instanceof Control.Row || b.button
                .control() instanceof Control.Items)) {
            deck.rows.turn(b, detents, at, source);
        } else if (turned == null) {
            deck.levels.turn(b, detents, fine, at, source);
        }
        return turned != null;
    }

    /** Runs a gesture by the button's busy rule. */
    private void run(ButtonPlay b, Gesture gesture, long at, String source) {
        if (b.running.isEmpty()) {
            started(b, gesture, b.chain(gesture), at, source);
            return;
        }
        switch (b.button.busy()) {
            case RESTART, OVERLAP -> started(b, gesture, b.chain(gesture), at, source);
            case QUEUE -> {
                if (b.queued.size() < MOST_QUEUED) {
                    b.queued.add(new ButtonPlay.Queued(gesture, source, b.said));
                } else {
                    deck.telling.fault(b, null,
                            "more than " + MOST_QUEUED + " presses are waiting, so this one was ignored");
                }
            }
            case IGNORE -> {
            }
            case STOP -> deck.runs.stopAll(b);
        }
    }

    /** The button rests: what waits for that runs. */
    void rested(ButtonPlay b, long due) {
        ButtonPlay.Queued next = b.queued.poll();
        if (next != null) {
            b.said = next.said();
            started(b, next.gesture(), b.chain(next.gesture()), due, next.source());
            deck.telling.shows(b);
        }
    }

    private void started(ButtonPlay b, Gesture gesture, Op.Seq chain, long at, String source) {
        int state = b.shown;
        boolean moves = gesture == Gesture.PRESS
                || !b.answers(Gesture.PRESS) && (gesture == Gesture.LONG_PRESS || gesture == Gesture.DOUBLE_PRESS);
        boolean restarts = !b.running.isEmpty() && b.button.busy() == rombix.core.board.Button.Busy.RESTART
                && gesture != Gesture.RELEASE && gesture != Gesture.HELD;
        // What ran before is stopped first: it takes what was on its way with it.
        Map<Op.ForAWhile, Map<Orders.Key, Value>> inherited = restarts ? deck.runs.stopForAnother(b, chain) : Map.of();
        if (moves && !b.answers(Gesture.RELEASE)) {
            move(b, state, chain);
        }
        deck.follows.await(b, deck.runs.start(b, gesture.id(), chain, b.scope(), at, source, inherited), at);
    }

    /**
     * A press has happened in a state: its successor is shown, or awaited if the button follows the gear and one of the
     * press's chains may change what it follows.
     */
    private void move(ButtonPlay b, int from, Op.@Nullable Seq... chains) {
        int to = successor(b, from);
        if (to == b.shown) {
            return;
        }
        if (b.button.follows()) {
            b.onItsWay = Follows.mayCome(b, to, chains) ? to : -1;
        } else {
            show(b, to);
        }
    }

    /** The state that follows a press in a state. */
    private int successor(ButtonPlay b, int from) {
        String then = b.button.states().get(Math.min(from, b.button.states().size() - 1)).then();
        int count = b.button.states().size();
        return switch (then) {
            case State.STAY -> from;
            case State.NEXT -> (from + 1) % count;
            case State.RANDOM -> count < 2 ? from : (from + 1 + deck.chance.nextInt(count - 1)) % count;
            default -> b.state(then);
        };
    }

    /** Shows a state, and falls back from it in its time. */
    void show(ButtonPlay b, int state) {
        b.shown = state;
        Agenda.cancel(b.fallTimer);
        State.FallBack fall = b.button.states().get(state).fallBack();
        if (fall != null) {
            b.fallTimer = deck.agenda.at(deck.now() + fall.ms() * MILLIS, _ -> {
                show(b, b.state(fall.to()));
                deck.telling.shows(b);
            });
        }
    }

    private static void cancel(ButtonPlay b) {
        Agenda.cancel(b.longTimer);
        Agenda.cancel(b.doubleTimer);
        Agenda.cancel(b.repeatTimer);
        Agenda.cancel(b.guardTimer);
        Agenda.cancel(b.tapTimer);
        b.tapTimer = null;
        b.longTimer = null;
        b.doubleTimer = null;
        b.repeatTimer = null;
        b.guardTimer = null;
    }
}
