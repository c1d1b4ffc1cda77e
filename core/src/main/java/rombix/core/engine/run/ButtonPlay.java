package rombix.core.engine.run;

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
import rombix.core.engine.op.Scope;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.time.Agenda;
import rombix.core.value.Value;

/**
 * A button in play. Owned by the conductor's thread. {@code shown} is a valid state; {@code onItsWay} is -1 or the
 * state that a following button waits for; {@code heldIn} is -1 or the state in which the present hold began, whose
 * release chain runs exactly once, whatever ends the hold.
 */
@OwnedBy(Owner.CONDUCTOR)
public final class ButtonPlay {
    /** Where the hand is with it. */
    public enum Phase {
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
    public record Queued(Gesture gesture, String source, Map<String, Value> said) {
    }

    public Button button;
    private Compiler compiler;
    private final List<Map<Gesture, Op.Seq>> chains = new ArrayList<>();
    private Op.@Nullable Seq onStart;
    /** What was said by what pressed it, by the names that its chains have it under. */
    public Map<String, Value> said = Map.of();
    public int shown;
    public int onItsWay = -1;
    /** The run that set it on its way, and since when. */
    public long wayRun;
    public long wayNanos;
    public int heldIn = -1;
    /** When the hold began. */
    public long heldSince;
    /** What ends the present hold, where the button was changed since that began. */
    private Op.@Nullable Seq ending;
    public Phase phase = Phase.IDLE;
    public boolean faulted;
    /** The page that is shown for as long as it is held. */
    @Nullable
    public String showsPage;
    @Nullable
    public Run awaited;
    public Agenda.@Nullable Entry followBy;
    public Agenda.@Nullable Entry longTimer;
    public Agenda.@Nullable Entry doubleTimer;
    public Agenda.@Nullable Entry repeatTimer;
    public Agenda.@Nullable Entry guardTimer;
    public Agenda.@Nullable Entry fallTimer;
    /** Ends a hold that no hand will end. */
    public Agenda.@Nullable Entry tapTimer;
    public final List<Run> running = new ArrayList<>(2);
    public final Deque<Queued> queued = new ArrayDeque<>(2);

    public ButtonPlay(Button button, Compiler compiler) {
        this.button = button;
        this.compiler = compiler;
        forget();
    }

    /** Plays another description of its button from now on; what runs goes on, and a hold ends as it began. */
    public void become(Button next, Compiler with) {
        if (heldIn >= 0 && ending == null) {
            Op.Seq was = chain(heldIn, Gesture.RELEASE);
            ending = was == null ? Op.Seq.NOTHING : was;
        }
        button = next;
        compiler = with;
        shown = Math.min(shown, next.states().size() - 1);
        onItsWay = onItsWay < next.states().size() ? onItsWay : -1;
        forget();
    }

    /** The chain that ends a hold in a state, as it was when the hold began; null where there is none. Once. */
    public Op.@Nullable Seq ending(int state) {
        Op.Seq was = ending;
        ending = null;
        return was == null ? chain(state, Gesture.RELEASE) : was == Op.Seq.NOTHING ? null : was;
    }

    private void forget() {
        onStart = null;
        chains.clear();
        for (int i = 0; i < button.states().size(); i++) {
            chains.add(new EnumMap<>(Gesture.class));
        }
    }

    /** The compiled chain of a gesture; null where the state does not answer it. Compiled when first asked for. */
    public Op.@Nullable Seq chain(int state, Gesture gesture) {
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

    public Op.@Nullable Seq onStart() {
        if (onStart == null && !button.onStart().isEmpty()) {
            onStart = compiler.seq(button.onStart(), "on-start");
        }
        return onStart;
    }

    /** What its chains know. */
    public Scope scope() {
        return said.isEmpty() ? Scope.of(button.id()) : Scope.of(button.id()).with(said);
    }

    public boolean held() {
        return phase == Phase.GUARDING || phase == Phase.DOWN || phase == Phase.HELD;
    }

    /** The chain of a gesture in the state that is shown; an empty one where it does not answer it. */
    public Op.Seq chain(Gesture gesture) {
        Op.Seq chain = chain(shown, gesture);
        return chain == null ? Op.Seq.NOTHING : chain;
    }

    /** Whether the state that is shown has a chain for a gesture. */
    public boolean answers(Gesture gesture) {
        return chain(shown, gesture) != null;
    }

    /** The place of the state with this id; the present one where there is none. */
    public int state(@Nullable String id) {
        for (int i = 0; i < button.states().size(); i++) {
            if (button.states().get(i).id().equals(id)) {
                return i;
            }
        }
        return shown;
    }
}
