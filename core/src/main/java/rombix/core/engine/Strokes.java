package rombix.core.engine;

import java.util.HashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Control;
import rombix.core.chain.Gesture;
import rombix.core.engine.op.Op;
import rombix.core.engine.op.Scope;
import rombix.core.engine.run.ButtonPlay;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.thread.OwnedBy;
import rombix.core.time.Agenda;
import rombix.core.value.Value;

/**
 * Pointer fields and wheel strips: a hand that slides over them runs the turn chain again and again, with how far it came
 * across and up; a stick that is held over keeps them moving. Owned by the conductor's thread.
 *
 * <p>
 * These chains are run quietly: nobody wants a line of the log for each of sixty a second.
 */
@OwnedBy(Owner.CONDUCTOR)
final class Strokes {
    private static final long BEAT_NANOS = 1_000_000_000L / 60;
    /** How many pixels a second a stick moves the pointer that is held over whole, and how many notches a wheel. */
    private static final double PIXELS = 900;
    private static final double NOTCHES = 12;
    private static final double DEAD = 0.08;
    /** So many chains of one control at most are on their way; a stroke that finds them there is dropped. */
    private static final int MOST = 16;

    private final Deck deck;
    private final Map<String, Stick> sticks = new HashMap<>();
    private final Map<String, double[]> owed = new HashMap<>();

    /** How far a stick is held over, and what of its way has not been told yet. */
    private static final class Stick {
        private final double[] over = new double[2];
        private final double[] owed = new double[2];
        private String source = "";
        private Agenda.@Nullable Entry beat;

        boolean rests() {
            return over[0] == 0 && over[1] == 0;
        }
    }

    Strokes(Deck deck) {
        this.deck = deck;
    }

    /** A hand slid so far across and up, in pixels on a pointer field, in notches on a wheel strip. */
    void stroke(ButtonPlay b, double across, double up, long at, String source) {
        Op.Seq chain = b.chain(b.shown, Gesture.TURN);
        double pace = b.button.control() instanceof Control.PointerField p ? p.pace() : 1;
        if (chain == null || b.running.size() >= MOST) {
            return;
        }
        // Only whole ones go out; what is over counts for the next.
        double[] over = owed.computeIfAbsent(b.button.id(), _ -> new double[2]);
        over[0] += across * pace;
        over[1] += up * pace;
        double x = whole(over[0]);
        double y = whole(over[1]);
        over[0] -= x;
        over[1] -= y;
        if (x == 0 && y == 0) {
            return;
        }
        Scope scope = Scope.of(b.button.id()).with(Map.of("across", Value.of(x), "up", Value.of(y), "turn", Value.of(
                y == 0 ? x : y)));
        deck.runs.quietly(b, chain, scope, at, source);
    }

    private static double whole(double x) {
        return x < 0 ? Math.ceil(x) + 0.0 : Math.floor(x); // No negative nothing.
    }

    /** A stick is held over so far, from -1 to 1; 0 is its middle. */
    void deflect(ButtonPlay b, int axis, double over, long at, String source) {
        Stick stick = sticks.computeIfAbsent(b.button.id(), _ -> new Stick());
        double live = Math.abs(over) <= DEAD ? 0 : (Math.abs(over) - DEAD) / (1 - DEAD) * Math.signum(over);
        stick.over[axis] = Math.clamp(live, -1, 1);
        stick.source = source;
        if (stick.beat == null && !stick.rests()) {
            beat(b, stick, at);
        }
    }

    private void beat(ButtonPlay b, Stick stick, long due) {
        if (stick.rests() || deck.buttons.get(b.button.id()) != b) {
            stick.beat = null;
            return;
        }
        boolean pixels = b.button.control() instanceof Control.PointerField;
        double most = (pixels ? PIXELS : NOTCHES) * BEAT_NANOS / 1e9;
        double[] whole = new double[2];
        for (int i = 0; i < 2; i++) {
            // Finer near the middle: it goes by the square.
            stick.owed[i] += stick.over[i] * Math.abs(stick.over[i]) * most;
            whole[i] = (int) stick.owed[i];
            stick.owed[i] -= whole[i];
        }
        if (whole[0] != 0 || whole[1] != 0) {
            stroke(b, whole[0], whole[1], due, stick.source);
        }
        stick.beat = deck.agenda.at(due + (1 + deck.missedBeats(due, BEAT_NANOS)) * BEAT_NANOS, next -> beat(b, stick,
                next));
    }

    /** Whatever held a stick of this button over is gone. */
    void letGo(ButtonPlay b) {
        Stick stick = sticks.remove(b.button.id());
        if (stick != null) {
            stick.over[0] = 0;
            stick.over[1] = 0;
        }
    }
}
