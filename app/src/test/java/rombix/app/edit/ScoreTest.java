package rombix.app.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import rombix.core.board.Paths;
import rombix.core.board.Rig;
import rombix.core.chain.Chain;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;
import rombix.core.twin.Twin.Readings;
import rombix.core.value.Value;

class ScoreTest {
    private static final Step MUTE = new GearStep.Do("desk", "mute", Map.of("channel", Value.of("host")));
    private static final Step FAN = new GearStep.Do("house", "switch-on", Map.of("plug", Value.of("extractor-fan")));

    private static Rig rig() {
        try {
            return BoardFile.read(Path.of("../demo/star-night.json"));
        } catch (BadFile e) {
            throw new AssertionError(e);
        }
    }

    private static Score score(Chain chain, double room) {
        return Score.of(chain, rig(), _ -> Readings.NONE, _ -> room);
    }

    @Test
    void stepsStandInTheirGearsLanesAtTheirTimes() {
        Score s = score(Chain.of(MUTE, new Step.Wait(500),
                new Step.Together(List.of(Chain.of(FAN, new Step.Wait(900)), Chain.of(new Step.Wait(200), MUTE))), FAN),
                0);
        assertThat(s.lanes()).extracting(Score.Lane::title).containsExactly("Sound desk", "House");
        assertThat(s.lanes().get(0).marks()).extracting(Score.Mark::startMillis).containsExactly(0.0, 700.0);
        assertThat(s.lanes().get(1).marks()).extracting(Score.Mark::startMillis).containsExactly(500.0, 1400.0);
        assertThat(s.lengthMillis()).isEqualTo(1400);
        assertThat(s.waits()).extracting(Score.Mark::path).containsExactly(List.of(1));
        assertThat(s.brackets()).extracting(Score.Mark::path).containsExactly(List.of(2), List.of(2, 0, 1),
                List.of(2, 1, 0));
    }

    @Test
    void marksThatWouldCoverEachOtherTakeRows() {
        Score s = score(Chain.of(MUTE, MUTE, new Step.Wait(50), MUTE, new Step.Wait(1000), MUTE), 100);
        assertThat(s.lanes().getFirst().rows()).isEqualTo(3);
        assertThat(s.lanes().getFirst().marks()).extracting(Score.Mark::row).containsExactly(0, 1, 2, 0);
    }

    @Test
    void aClipIsABarOfItsTrueLengthWithTheOutlineOfThePartThatPlays() {
        Step play = new GearStep.Do("player", "play", Map.of("clip", Value.of("night-bed"), "from", Value.of(3), "to",
                Value.of(9)));
        Step beside = new GearStep.Do("player", "play", Map.of("clip", Value.of("star"), "wait", Value.of(false)));
        Score s = score(Chain.of(play, beside, MUTE), 0);
        assertThat(s.lanes().get(0).marks()).extracting(Score.Mark::startMillis).containsExactly(0.0, 6000.0);
        assertThat(s.lanes().get(0).marks()).extracting(Score.Mark::lengthMillis).containsExactly(6000.0, 2400.0);
        assertThat(s.lanes().get(0).marks()).extracting(m -> m.outline().length()).containsExactly(60, 120);
        assertThat(s.lanes().get(1).marks().getFirst().startMillis()).as("one that is not waited for").isEqualTo(6000);
    }

    @Test
    void marksSpeakInWords() throws BadFile {
        Chain doors = BoardFile.read(Path.of("../demo/star-night.json")).board().button("doors-open").orElseThrow()
                .states().getFirst().chain(Gesture.PRESS);
        assertThat(score(doors, 0).lanes().stream().flatMap(l -> l.marks().stream()).map(m -> m.text().replace('\u00a0',
                ' '))).contains("Mute Host", "Desk Key to 60 %", "Unlock Dome door", "Music Bed to −12 dB");
    }

    @Test
    void stepsAreFoundChangedPutInAndTakenOutByPath() {
        Chain chain = Chain.of(MUTE, new Step.Together(List.of(Chain.EMPTY, Chain.of(new Step.Wait(1), FAN))));
        assertThat(Paths.step(chain, List.of(1, 1, 1))).contains(FAN);
        assertThat(Paths.step(chain, List.of(1, 2, 0))).isEmpty();
        Chain longer = Paths.changed(chain, List.of(1, 1, 0), _ -> new Step.Wait(9));
        assertThat(Paths.step(longer, List.of(1, 1, 0))).contains(new Step.Wait(9));
        Chain without = Paths.changed(chain, List.of(1, 1, 1), _ -> null);
        assertThat(Paths.step(without, List.of(1, 1, 1))).isEmpty();
        Chain more = Paths.inserted(chain, Paths.next(List.of(1, 1, 0)), List.of(MUTE));
        assertThat(Paths.step(more, List.of(1, 1, 1))).contains(MUTE);
        assertThat(Paths.inserted(chain, List.of(2), List.of(FAN)).steps()).hasSize(3);
        assertThat(Paths.changed(chain, List.of(7), _ -> null)).isEqualTo(chain);
    }
}
