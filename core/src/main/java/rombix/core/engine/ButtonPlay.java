package rombix.core.engine;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Button;
import rombix.core.chain.Chain;
import rombix.core.chain.Gesture;
import rombix.core.engine.op.Compiler;
import rombix.core.engine.op.Op;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.thread.OwnedBy;
import rombix.core.time.Agenda;

/**
 * A button in play. Owned by the conductor's thread. {@code shown} is a valid state; {@code onItsWay} is -1 or the
 * state that a following button waits for; {@code heldIn} is -1 or the state in which the present hold began, whose
 * release chain runs exactly once, whatever ends the hold.
 */
@OwnedBy(Owner.CONDUCTOR)
final class ButtonPlay {
    /** Where the hand is with it. */
    enum Phase {
        /** Nobody touches it. */
        IDLE,
        /** Held, and not for long enough to fire. */
        GUARDING,
        /** Pressed once; it fires when it is pressed again. */
        PRESSED_ONCE,
        /** Held, and not yet known whether for a press, a long press, or the first of a double. */
        DOWN,
        /** Held, and a chain has run for it. */
        HELD,
        /** Let go, and perhaps pressed again for a double. */
        BETWEEN
    }

    /** A chain that waits for the one that runs. */
    record Queued(Gesture gesture, String source) {
    }

    Button button;
    private Compiler compiler;
    private final List<Map<Gesture, Op.Seq>> chains = new ArrayList<>();
    private Op.@Nullable Seq onStart;
    int shown;
    int onItsWay = -1;
    /** The run that set it on its way, and since when. */
    long wayRun;
    long wayNanos;
    int heldIn = -1;
    Phase phase = Phase.IDLE;
    boolean faulted;
    /** The page that is shown for as long as it is held. */
    @Nullable
    String showsPage;
    @Nullable
    Run awaited;
    Agenda.@Nullable Entry followBy;
    Agenda.@Nullable Entry longTimer;
    Agenda.@Nullable Entry doubleTimer;
    Agenda.@Nullable Entry repeatTimer;
    Agenda.@Nullable Entry guardTimer;
    Agenda.@Nullable Entry fallTimer;
    /** Ends a hold that no hand will end. */
    Agenda.@Nullable Entry tapTimer;
    final List<Run> running = new ArrayList<>(2);
    final Deque<Queued> queued = new ArrayDeque<>(2);

    ButtonPlay(Button button, Compiler compiler) {
        this.button = button;
        this.compiler = compiler;
        forget();
    }

    /** Plays another description of its button from now on; what runs goes on. */
    void become(Button next, Compiler with) {
        button = next;
        compiler = with;
        shown = Math.min(shown, next.states().size() - 1);
        onItsWay = onItsWay < next.states().size() ? onItsWay : -1;
        forget();
    }

    private void forget() {
        onStart = null;
        chains.clear();
        for (int i = 0; i < button.states().size(); i++) {
            chains.add(new EnumMap<>(Gesture.class));
        }
    }

    /** The compiled chain of a gesture; null where the state does not answer it. Compiled when first asked for. */
    Op.@Nullable Seq chain(int state, Gesture gesture) {
        if (state >= chains.size()) {
            return null;
        }
        Op.Seq compiled = chains.get(state).get(gesture);
        Chain source = button.states().get(state).on().get(gesture);
        if (compiled == null && source != null && !source.isEmpty()) {
            compiled = compiler.seq(source, gesture.id());
            chains.get(state).put(gesture, compiled);
        }
        return compiled;
    }

    Op.@Nullable Seq onStart() {
        if (onStart == null && !button.onStart().isEmpty()) {
            onStart = compiler.seq(button.onStart(), "on-start");
        }
        return onStart;
    }

    boolean held() {
        return phase == Phase.GUARDING || phase == Phase.DOWN || phase == Phase.HELD;
    }

    /** The place of the state with this id; the present one where there is none. */
    int state(@Nullable String id) {
        for (int i = 0; i < button.states().size(); i++) {
            if (button.states().get(i).id().equals(id)) {
                return i;
            }
        }
        return shown;
    }
}
