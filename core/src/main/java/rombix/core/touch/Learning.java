package rombix.core.touch;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Button;
import rombix.core.board.Control;
import rombix.core.board.Trigger;
import rombix.core.board.Trigger.Midi.Message;
import rombix.core.board.Trigger.Midi.Turns;

/** A trigger learnt from what is touched: the first control counts, and how its values go tells what kind it is. */
public final class Learning {
    private static final int FEW = 12;

    private @Nullable Touch first;
    private final List<Integer> values = new ArrayList<>();

    /**
     * Takes a touch.
     *
     * @return whether all is known now; of a control that is turned more values are to come
     */
    public boolean add(Touch touch) {
        Touch before = first;
        if (before == null) {
            first = touch;
        } else if (!(before instanceof Touch.Midi a && touch instanceof Touch.Midi b && a.port().equals(b.port())
                && a.message() == b.message() && a.channel() == b.channel() && a.number() == b.number())) {
            return false;
        }
        if (touch instanceof Touch.Midi m && m.message() == Message.CONTROL) {
            values.add(m.value());
            return false;
        }
        return true;
    }

    /** Whether anything was touched. */
    public boolean begun() {
        return first != null;
    }

    /** The trigger for a button; empty where nothing was touched that can be one. */
    public Optional<Trigger> trigger(Button button) {
        return switch (first) {
            case null -> Optional.empty();
            case Touch.Key k -> Optional.of(new Trigger.Key(k.key(), true));
            case Touch.Osc o -> Optional.of(new Trigger.Osc(o.address()));
            case Touch.Midi m -> {
                Turns turns = m.message() == Message.CONTROL ? turns(button) : null;
                boolean motor = turns == Turns.ABSOLUTE && button.control() != null && !button.control().axes()
                        .isEmpty();
                yield Optional.of(new Trigger.Midi(m.port(), m.message(), m.channel(), m.number(), turns, Map.of(),
                        motor));
            }
            case Touch.Gamepad g -> Optional.of(new Trigger.Gamepad(g.device(), g.part()));
            case Touch.Mqtt _,Touch.Gone _ -> Optional.empty();
        };
    }

    /** How a control turns, by its values: steps about 0 and 128, about 0 and 64, or places on a way. */
    private @Nullable Turns turns(Button button) {
        boolean small = values.stream().allMatch(v -> v > 0 && v < FEW || v > 127 - FEW);
        boolean signed = values.stream().allMatch(v -> v > 0 && v < FEW || v > 64 && v < 64 + FEW);
        boolean fullOnly = values.stream().allMatch(v -> v == 0 || v == 127);
        if (fullOnly && !(button.control() instanceof Control.Fader)) {
            return null; // On and off: it is pushed.
        }
        if (signed && values.stream().anyMatch(v -> v > 64)) {
            return Turns.SIGNED_BIT;
        }
        boolean steps = small && values.stream().distinct().count() < values.size();
        boolean dial = button.control() instanceof Control.Dial && small;
        return steps || dial ? Turns.TWOS_COMPLEMENT : Turns.ABSOLUTE;
    }
}
