package rombix.running.face;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import rombix.core.board.Button;
import rombix.core.board.Control;
import rombix.core.board.Question;
import rombix.core.board.Rig;
import rombix.core.edit.Edits;
import rombix.core.event.Happening;
import rombix.core.store.BoardFile;
import rombix.core.value.Formula;
import rombix.core.value.Value;
import rombix.running.state.DeckState;

/** What a face shows, without a toolkit: a page in a browser shows the same. */
class FaceNowTest {
    private DeckState deck = DeckState.NOTHING;
    private final long[] now = {0};
    private Rig rig;
    private FaceWords words;
    private ZonedDateTime wall = ZonedDateTime.of(2026, 3, 14, 19, 58, 30, 0, ZoneOffset.UTC);

    @BeforeEach
    void open() throws Exception {
        rig = BoardFile.read(Path.of("../demo/star-night.json"));
        words = new FaceWords(() -> rig, () -> deck, () -> wall, () -> now[0]);
        tell(new Happening.Loaded(rig));
    }

    @Test
    void aCountdownToATimeOfDayIsOnTheFace() {
        Button doors = button("gate");
        Button counting = doors.withStates(doors.states().stream().map(s -> s.withFace(s.face().withSecond(
                "in {=FORMAT_TIME(TIME_TO(\"20:00\"), \"m:ss\")}"))).toList());
        assertThat(FaceNow.of(counting, deck, words).second()).isEqualTo("in 1:30");
        wall = wall.plusSeconds(100);
        assertThat(FaceNow.of(counting, deck, words).second()).isEqualTo("in -0:10");
    }

    @Test
    void textsAreFilledWithReadingsValuesAndFormulasTheButtonsOwnFirst() {
        tell(new Happening.Came("studio", "clips", Value.of(3)), new Happening.ValueSet(null, "n", Value.of(4)),
                new Happening.ValueSet("gate", "n", Value.of(5)));
        assertThat(words.filled("{studio:clips} clips", "gate")).isEqualTo("3 clips");
        assertThat(words.filled("{n} of {= 2 * {n}}", "gate")).isEqualTo("5 of 10");
        assertThat(words.filled("{n}", "tea-urn")).isEqualTo("4");
        assertThat(words.filled("plain", "tea-urn")).isEqualTo("plain");
    }

    @Test
    void howLongTheChainStillRunsIsInItsTexts() {
        assertThat(words.filled("{left}", "gate")).as("at rest").isEmpty();
        tell(new Happening.Started(1, "gate", "press", "mouse", 0, 0));
        tell(new Happening.Lasts(1, "gate", 0, 90_000_000_000L));
        now[0] = 500_000_000L;
        assertThat(words.filled("in {left}", "gate")).isEqualTo("in 1:30");
        now[0] = 61_000_000_000L;
        assertThat(words.filled("{= IF({left} < 30, \"soon\", \"later\")}", "gate")).isEqualTo("soon");
        assertThat(Formula.ticks("in {left}")).isTrue();
    }

    private void tell(Happening... happenings) {
        for (Happening h : happenings) {
            deck = deck.after(h, now[0]);
        }
    }

    private Button button(String id) {
        return rig.button(id).orElseThrow();
    }

    private FaceNow face(String id) {
        return FaceNow.of(button(id), deck, words);
    }

    @Test
    void aFaceShowsItsStateItsTallyAndWhatIsOnItsWay() {
        tell(new Happening.Shows("gate", 1, 0, true), new Happening.Came("house", "locked/gate", Value.of(false)));
        FaceNow face = face("gate");
        assertThat(face.state()).isEqualTo(1);
        assertThat(face.coming()).isZero();
        assertThat(face.held()).isTrue();
        assertThat(face.states()).isEqualTo(2);
        assertThat(face.spoken()).startsWith(face.label()).contains(face.stateName());
    }

    @Test
    void aStateIsPreviewedWithTheTallyThatItWillHave() {
        tell(new Happening.Came("house", "locked/gate", Value.of(true)));
        Button gate = button("gate");
        for (int i = 0; i < 2; i++) {
            boolean locked = Question.of(gate.states().get(i).when()).orElseThrow().holds(_ -> Value.of(true));
            FaceNow preview = FaceNow.preview(gate, i, deck, words);
            assertThat(preview.tally() == null ? "" : preview.tally().word()).as(preview.stateName())
                    .isEqualTo(locked ? "LOCKED" : "OPEN");
        }
    }

    @Test
    void aFaultStaysUntilItIsClearedAndIsSpoken() {
        tell(new Happening.Faulted("gate", "house", "House: no answer"));
        assertThat(face("gate").fault()).isEqualTo("House: no answer");
        assertThat(face("gate").spoken()).endsWith("fault: House: no answer");
        tell(new Happening.Faulted("gate", null, null));
        assertThat(face("gate").fault()).isNull();
    }

    @Test
    void aRunningChainHasItsPartDoneAndItsTimeLeft() {
        Button gate = button("gate");
        assertThat(FaceNow.going(gate, deck, now[0])).isEqualTo(FaceNow.Going.NOTHING);
        tell(new Happening.Started(7, "gate", "press", "test", 0, 20_000_000_000L));
        now[0] = 5_000_000_000L;
        assertThat(FaceNow.going(gate, deck, now[0])).isEqualTo(new FaceNow.Going(0.25, "15.0\u00a0s"));
        tell(new Happening.Guarded("gate", true, 1000));
        assertThat(FaceNow.going(gate, deck, now[0]).words()).isEqualTo("HOLD");
    }

    @Test
    void aLevelHasItsPlaceAndItsWordsAndADashUntilItIsKnown() {
        rig = rig.with(Edits.button(rig.board(), "gate", b -> b.withControl(new Control.Fader(new Control.Axis(
                "desk", "level/host")))));
        assertThat(face("gate").levels()).hasSize(1).first().extracting(FaceNow.Level::words).isEqualTo("—");
        tell(new Happening.Came("desk", "level/host", Value.of(10)));
        assertThat(face("gate").levels()).containsExactly(new FaceNow.Level(1, "10\u00a0dB"));
    }

    @Test
    void aLabelHasItsReadingsFilledIn() {
        rig = rig.with(Edits.state(rig.board(), "gate", 0, s -> s.withFace(s.face().withLabel(
                "Gate {house:locked/gate}").withTint("#FFFFFF").withInk(null))));
        tell(new Happening.Came("house", "locked/gate", Value.of(true)));
        assertThat(face("gate").label()).isEqualTo("Gate LOCKED");
        assertThat(face("gate").ink()).as("dark on white").isEqualTo("#16201B");
    }
}
