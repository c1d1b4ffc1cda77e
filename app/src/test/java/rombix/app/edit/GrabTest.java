package rombix.app.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import rombix.core.board.Button;
import rombix.core.board.Control;
import rombix.core.board.Rig;
import rombix.core.chain.Gesture;
import rombix.core.store.BoardFile;
import rombix.core.twin.Twin.Readings;
import rombix.core.twin.Twin;
import rombix.core.value.Value;

/** What becomes of a control of the rack that is dropped on an empty cell. */
class GrabTest {
    private Rig rig;

    @BeforeEach
    void open() throws Exception {
        rig = BoardFile.read(Path.of("../demo/star-night.json"));
    }

    private Optional<Grab> grab(String gear, String reading, Value now) {
        Twin twin = rig.twin(gear).orElseThrow();
        return Grab.of(twin, twin.reading(reading, Readings.NONE).orElseThrow(), now);
    }

    @Test
    void aLevelIsAFaderThatFollowsIt() {
        Button b = grab("desk", "level/guest", Value.of(-12)).orElseThrow().button("b", "Guest", 1, 2);
        assertThat(b.control()).isEqualTo(new Control.Fader(new Control.Axis("desk", "level/guest")));
        assertThat(b.states()).singleElement().satisfies(s -> assertThat(s.on()).isEmpty());
        assertThat(b.gear()).containsExactly("desk");
    }

    @Test
    void aYesOrNoHasTwoStatesThatFollowAndEachBringsTheOther() {
        Button b = grab("desk", "muted/host", Value.of(false)).orElseThrow().button("b", "Host", 0, 0);
        assertThat(b.control()).isNull();
        assertThat(b.follows()).isTrue();
        assertThat(b.states()).extracting(s -> s.chain(Gesture.PRESS).steps().size()).containsExactly(1, 1);
        assertThat(b.states()).extracting(s -> s.face().tally().size()).containsExactly(2, 2);
    }

    @Test
    void aChoiceIsSetAndShownAsATally() {
        Button b = grab("studio", "scene", Value.of("sky-map")).orElseThrow().button("b", "Sky Map", 0, 0);
        assertThat(b.states()).singleElement().satisfies(s -> {
            assertThat(s.face().tally()).singleElement().satisfies(t -> assertThat(t.word()).isEqualTo("ON AIR"));
            assertThat(s.chain(Gesture.PRESS).steps()).hasSize(1);
        });
    }

    @Test
    void whatCannotBeToldCannotBeGrabbed() {
        assertThat(grab("studio", "clips", Value.of(3))).isEmpty();
        assertThat(grab("desk", "level/host", null)).as("not known").isEmpty();
    }
}
