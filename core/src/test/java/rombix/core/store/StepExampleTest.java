package rombix.core.store;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import rombix.core.card.Card;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;
import rombix.core.computer.Place;

class StepExampleTest {
    /** What is shown can be copied into a board. */
    @Test
    void theExampleOfEachCommandOfEachCardThatShipsIsAStep() {
        int commands = 0;
        for (Card card : CardLibrary.shipped().values()) {
            for (Card.Command command : card.commands()) {
                Step step = Json.MAPPER.readValue(StepExample.of(card, command, "gear"), Step.class);
                assertThat(step).isInstanceOfSatisfying(GearStep.Do.class, s -> {
                    assertThat(s.command()).isEqualTo(command.id());
                    assertThat(s.args().keySet()).containsExactlyInAnyOrderElementsOf(command.params().stream().map(
                            Card.Param::id).toList());
                });
                commands++;
            }
        }
        assertThat(commands).isGreaterThan(100);
    }

    @Test
    void eachWayToWriteAPlaceIsOne() {
        assertThat(Place.FORMS).allSatisfy(f -> assertThat(Place.parse(f.example())).as(f.example()).isPresent());
        assertThat(Place.FORMS).anyMatch(f -> Place.of(f.example()) instanceof Place.OnPicture);
    }
}
