package rombix.core.engine;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Button;
import rombix.core.chain.Gesture;

/**
 * A button in play. Owned by the conductor's thread. {@code shown} is a valid state; {@code onItsWay} is -1 or the
 * state that a following button waits for; {@code heldIn} is -1 or the state in which the present hold began, whose
 * release chain runs exactly once, whatever ends the hold.
 */
final class ButtonPlay {
    Button button;
    List<Map<Gesture, Op.Seq>> chains;
    int shown;
    int onItsWay = -1;
    int heldIn = -1;
    boolean faulted;
    @Nullable
    Run awaited;
    Agenda.@Nullable Entry followBy;
    final List<Run> running = new ArrayList<>(2);
    final Deque<String> queued = new ArrayDeque<>(2);

    ButtonPlay(Button button, List<Map<Gesture, Op.Seq>> chains) {
        this.button = button;
        this.chains = chains;
    }

    Op.@Nullable Seq chain(int state, Gesture gesture) {
        return state < chains.size() ? chains.get(state).get(gesture) : null;
    }

    /** The state that follows a press in a state. */
    int after(int state) {
        String then = button.states().get(state).then();
        return switch (then) {
            case "stay" -> state;
            case "next" -> (state + 1) % button.states().size();
            default -> {
                for (int i = 0; i < button.states().size(); i++) {
                    if (button.states().get(i).id().equals(then)) {
                        yield i;
                    }
                }
                yield state;
            }
        };
    }
}
