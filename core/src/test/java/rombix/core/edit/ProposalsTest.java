package rombix.core.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import rombix.core.board.Board;
import rombix.core.board.Button.Proposed;
import rombix.core.board.Button;
import rombix.core.board.Face;
import rombix.core.board.Rig;
import rombix.core.chain.Chain;
import rombix.core.chain.DeckStep;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;
import rombix.core.twin.Twin.Readings;
import rombix.core.value.Value;

class ProposalsTest {
    private static final Step MUTE = new GearStep.Do("desk", "mute", Map.of("channel", Value.of("host")));
    private static final Step URN = new GearStep.Do("house", "switch-on", Map.of("plug", Value.of("tea-urn")));
    private Rig rig;
    private String id;

    @BeforeEach
    void fresh() throws BadFile {
        Rig demo = BoardFile.read(Path.of("../demo/star-night.json"));
        Board with = Edits.addPage(demo.board(), "Fresh");
        Button button = Proposals.fresh(with, 0, 0);
        id = button.id();
        rig = demo.with(Edits.addButton(with, with.pages().getLast().id(), button));
    }

    private void press(int state, Step... steps) {
        rig = Proposals.follow(rig.with(Edits.chain(rig.board(), id, state, Gesture.PRESS, _ -> Chain.of(steps))),
                _ -> Readings.NONE);
    }

    private Button button() {
        return rig.button(id).orElseThrow();
    }

    @Test
    void aNewButtonIsCalledAndLooksAfterItsFirstStep() {
        assertThat(button().name()).isEqualTo(Proposals.NAMELESS);
        press(0, new Step.Wait(500), MUTE);
        assertThat(button().name()).isEqualTo("Mute Host");
        assertThat(button().states().getFirst().face().icon()).isEqualTo(rig.twin("desk").orElseThrow().card().icon());
        press(0, URN);
        assertThat(button().name()).isEqualTo("Tea urn on");
        assertThat(button().states().getFirst().face().icon()).isEqualTo(rig.twin("house").orElseThrow().card().icon());
    }

    @Test
    void whatAPersonChoseFollowsNoMore() {
        press(0, MUTE);
        rig = rig.with(Edits.button(rig.board(), id, b -> Proposals.chosen(b.withName("Quiet"), Proposed.NAME)));
        press(0, URN);
        assertThat(button().name()).isEqualTo("Quiet");
        assertThat(button().states().getFirst().face().icon()).isEqualTo(rig.twin("house").orElseThrow().card().icon());
        rig = rig.with(Edits.button(rig.board(), id, b -> Proposals.chosen(Proposals.chosen(b, Proposed.ICON),
                Proposed.FILL)));
        Face before = button().states().getFirst().face();
        press(0, MUTE);
        assertThat(button().states().getFirst().face()).isEqualTo(before);
    }

    @Test
    void eachStateHasTheIconOfItsOwnFirstStepAndTheNameIsTheFirstStates() {
        press(0, MUTE);
        rig = rig.with(Edits.addState(rig.board(), id));
        press(1, URN);
        assertThat(button().name()).isEqualTo("Mute Host");
        assertThat(button().states().get(1).face().icon()).isEqualTo(rig.twin("house").orElseThrow().card().icon());
    }

    @Test
    void aStepThatHoldsOthersLooksLikeTheFirstGearWithinIt() {
        press(0, new Step.Together(List.of(Chain.of(new Step.Wait(5)), Chain.of(URN))));
        assertThat(button().name()).isEqualTo("Together");
        assertThat(button().states().getFirst().face().icon()).isEqualTo(rig.twin("house").orElseThrow().card().icon());
    }

    @Test
    void longWordsAreCutAtAWord() {
        press(0, new DeckStep.Say("the very last bus to town leaves at half past ten",
                rombix.core.chain.StepOptions.PLAIN,
                Map
                        .of()));
        assertThat(button().name()).startsWith("Say “the very last").hasSizeLessThanOrEqualTo(28);
        assertThat(button().states().getFirst().face().icon()).isEqualTo("mdi2m-message-outline");
    }

    @Test
    void buttonsThatProposeNothingStayAsTheyAre() {
        Rig plain = rig.with(Edits.button(rig.board(), id, b -> b.withProposed(java.util.Set.of())));
        Board stepped = Edits.chain(plain.board(), id, 0, Gesture.PRESS, _ -> Chain.of(MUTE));
        assertThat(Proposals.follow(plain.with(stepped), _ -> Readings.NONE).board()).isEqualTo(stepped);
    }
}
