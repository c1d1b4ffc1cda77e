package rombix.running.face;

import java.time.ZonedDateTime;
import java.util.Optional;
import java.util.function.Supplier;
import rombix.core.board.Control;
import rombix.core.board.Rig;
import rombix.core.board.StepWords;
import rombix.core.twin.Scale;
import rombix.core.value.Value;
import rombix.running.state.DeckState;

/**
 * Readings and levels in the words of the gear's cards.
 *
 * @param wall the time of day on the clock of what plays
 */
public record FaceWords(Supplier<Rig> rig, Supplier<DeckState> deck, Supplier<ZonedDateTime> wall) {
    /** A reading's present value in words; a dash where none has come. */
    public String spoken(String gear, String reading) {
        Value value = deck.get().reading(gear, reading);
        return value == null ? "—" : new StepWords(rig.get(), deck.get()::readings).value(gear, reading, value);
    }

    /** How a level is shown and worked. */
    public Optional<Scale> scale(Control.Axis axis) {
        return rig.get().twin(axis.gear()).flatMap(t -> Scale.of(t, axis.reading()));
    }
}
