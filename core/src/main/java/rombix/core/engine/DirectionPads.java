package rombix.core.engine;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Control;
import rombix.core.chain.Gesture;
import rombix.core.engine.op.Op;
import rombix.core.engine.op.Scope;
import rombix.core.engine.run.ButtonPlay;
import rombix.core.engine.run.Run;
import rombix.core.event.Happening;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;

/**
 * Key pad fields: each way is a state with a press and a release chain of its own; several are held at once. Whatever
 * ends the hold, each way that was pressed is released, once. Owned by the conductor's thread.
 */
@OwnedBy(Owner.CONDUCTOR)
final class DirectionPads {
    /** How far a stick has to be held over to press a way, and how far back it has to go to let go of it. */
    private static final double ON = 0.5;
    private static final double OFF = 0.4;

    private final Deck deck;
    private final Map<String, Map<Integer, Run>> held = new HashMap<>();
    private final Map<String, double[]> sticks = new HashMap<>();

    DirectionPads(Deck deck) {
        this.deck = deck;
    }

    /** These ways of a key pad are held from now on, and no others. */
    void hold(ButtonPlay b, Set<Integer> ways, long at, String source) {
        Map<Integer, Run> now = held.computeIfAbsent(b.button.id(), _ -> new LinkedHashMap<>());
        for (int way : new LinkedHashSet<>(now.keySet())) {
            if (!ways.contains(way)) {
                release(b, way, now.remove(way), at, source);
            }
        }
        for (int way : new TreeSet<>(ways)) {
            if (way >= 0 && way < b.button.states().size() && !now.containsKey(way)) {
                deck.telling.clearFault(b);
                Op.Seq chain = b.chain(way, Gesture.PRESS);
                now.put(way, deck.runs.start(b, Gesture.PRESS.id(), chain == null ? Op.Seq.NOTHING : chain, Scope.of(
                        b.button.id()), at, source));
            }
        }
        if (now.isEmpty()) {
            held.remove(b.button.id());
        }
        deck.telling.shows(b);
    }

    /** What a way began and still runs ends with it; what it has to do at its end is done. */
    private void release(ButtonPlay b, int way, @Nullable Run pressed, long at, String source) {
        Op.Seq chain = b.chain(way, Gesture.RELEASE);
        if (chain != null) {
            if (pressed != null && b.running.contains(pressed)) {
                pressed.stop(Happening.End.STOPPED);
            }
            deck.runs.start(b, Gesture.RELEASE.id(), chain, Scope.of(b.button.id()), at, source);
        }
    }

    boolean held(ButtonPlay b) {
        return held.containsKey(b.button.id());
    }

    /** A stick is held over so far along an axis, from -1 to 1: it holds the ways that it points to. */
    void deflect(ButtonPlay b, int axis, double over, long at, String source) {
        double[] stick = sticks.computeIfAbsent(b.button.id(), _ -> new double[2]);
        stick[axis] = over;
        Set<Integer> before = held.getOrDefault(b.button.id(), Map.of()).keySet();
        double limit = before.isEmpty() ? ON : OFF;
        int x = Math.abs(stick[0]) >= limit ? (int) Math.signum(stick[0]) : 0;
        int y = Math.abs(stick[1]) >= limit ? (int) Math.signum(stick[1]) : 0;
        Set<Integer> ways = ((Control.KeyPad) java.util.Objects.requireNonNull(b.button.control())).toward(x, y);
        if (!ways.equals(before)) {
            hold(b, ways, at, source);
        }
    }

    /** The hold ends by something other than its hand. */
    void letGo(ButtonPlay b, long at, String source) {
        sticks.remove(b.button.id());
        if (held(b)) {
            hold(b, Set.of(), at, source);
        }
    }
}
