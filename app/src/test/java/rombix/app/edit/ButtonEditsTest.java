package rombix.app.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;
import rombix.app.edit.ButtonEdits.Onto;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.chain.Gesture;
import rombix.core.check.References;
import rombix.core.store.BoardFile;

/** On the demo board: Gate and Dome door have two states each; Observing uses buttons of other pages. */
@Execution(ExecutionMode.CONCURRENT)
class ButtonEditsTest {
    private Workbench bench;
    private ButtonEdits edits;
    private Board before;

    @BeforeEach
    void open() throws Exception {
        bench = new Workbench(Path.of("b.json"), BoardFile.read(Path.of("../demo/star-night.json")));
        edits = new ButtonEdits(bench);
        before = bench.board();
    }

    private Button button(String id) {
        return bench.rig().button(id).orElseThrow();
    }

    private void whole() {
        assertThat(References.flaws(Rig.of(bench.board(), bench.rig().cards()))).isEmpty();
    }

    @Test
    void aCopyIsPastedIntoTheCellAndSelected() {
        bench.select("gate");
        edits.copy();
        edits.paste(5, 3);
        Button copy = bench.button().orElseThrow();
        assertThat(copy.id()).isEqualTo("gate-2");
        assertThat(copy.column()).isEqualTo(5);
        assertThat(copy.row()).isEqualTo(3);
        assertThat(copy.states()).isEqualTo(button("gate").states());
        whole();
        bench.undo();
        assertThat(bench.board()).isEqualTo(before);
    }

    @Test
    void severalAreCopiedAsTheyStandToEachOther() {
        bench.select("gate");
        bench.selectAlso("dome-door");
        edits.copy();
        bench.showPage("close");
        edits.paste(3, 3);
        assertThat(bench.buttons()).extracting(Button::name).containsExactly("Gate", "Dome door");
        Button gate = bench.buttons().get(0);
        Button door = bench.buttons().get(1);
        assertThat(gate.column() - door.column()).isEqualTo(button("gate").column() - button("dome-door").column());
        assertThat(bench.rig().pageOf(door.id()).orElseThrow().id()).isEqualTo("close");
    }

    @Test
    void whatIsCutStaysUntilItIsPastedAndIsStillItself() {
        bench.select("host-talk");
        edits.cut();
        assertThat(bench.board()).isEqualTo(before);
        assertThat(edits.isCut("host-talk")).isTrue();
        bench.showPage("close");
        edits.paste(0, 3);
        assertThat(bench.rig().pageOf("host-talk").orElseThrow().id()).isEqualTo("close");
        assertThat(edits.isCut("host-talk")).isFalse();
        whole();
        edits.paste(1, 3);
        assertThat(bench.rig().button("host-talk-2")).as("a second paste is a copy").isPresent();
    }

    @Test
    void looksChainsStatesAndGesturesArePastedEachByItself() {
        bench.select("gate");
        edits.copy();
        bench.select("dome-door");
        edits.paste(Onto.LOOKS);
        assertThat(button("dome-door").states().getFirst().face().icon()).isEqualTo(button("gate").states().getFirst()
                .face().icon());
        assertThat(button("dome-door").states().getFirst().on()).isEqualTo(before.button("dome-door").orElseThrow()
                .states().getFirst().on());
        edits.paste(Onto.CHAINS);
        assertThat(button("dome-door").states().get(1).on()).isEqualTo(button("gate").states().get(1).on());
        bench.select("walkway-up");
        edits.paste(Onto.GESTURE);
        assertThat(button("walkway-up").states().getFirst().chain(Gesture.PRESS)).isEqualTo(button("gate").states()
                .getFirst().chain(Gesture.PRESS));
        edits.paste(Onto.STATE_MORE);
        assertThat(button("walkway-up").states()).hasSize(2);
        edits.paste(Onto.STATE);
        assertThat(button("walkway-up").states().getFirst().face()).isEqualTo(button("gate").states().getFirst()
                .face());
        whole();
        for (int i = 0; i < 5; i++) {
            bench.undo();
        }
        assertThat(bench.board()).isEqualTo(before);
    }

    @Test
    void selectedButtonsAreMadeToMatchTheFirst() {
        bench.select("doors-open");
        bench.selectAlso("gate");
        bench.selectAlso("tea-urn");
        edits.match();
        assertThat(button("gate").states()).allSatisfy(s -> assertThat(s.face().fill()).isEqualTo(button("doors-open")
                .states().getFirst().face().fill()));
        assertThat(button("gate").states().getFirst().face().icon()).isEqualTo(before.button("gate").orElseThrow()
                .states().getFirst().face().icon());
        assertThat(bench.undoName()).contains("make 3 buttons match");
    }

    @Test
    void buttonsMoveToAnotherPageAndAreFollowedThere() {
        bench.select("gate");
        bench.selectAlso("dome-door");
        edits.moveToPage("levels");
        assertThat(bench.page().id()).isEqualTo("levels");
        assertThat(bench.buttons()).extracting(Button::id).containsExactly("gate", "dome-door");
        whole();
        assertThat(edits.pageBy(1).id()).isEqualTo("dome");
        bench.showPage("night");
        assertThat(edits.pageBy(1).id()).as("round and round").isEqualTo("doors");
        bench.showPage("doors");
        assertThat(edits.pageBy(-1).id()).isEqualTo("night");
    }

    @Test
    void buttonsTakeMoreCellsAndFewer() {
        bench.select("next-cue");
        edits.size(1, 1);
        assertThat(button("next-cue").width()).isEqualTo(2);
        assertThat(button("next-cue").height()).isEqualTo(2);
        edits.size(-1, 0);
        assertThat(button("next-cue").width()).isEqualTo(1);
        edits.size(-1, 0);
        assertThat(button("next-cue").width()).as("one cell is the least").isEqualTo(1);
    }

    @Test
    void severalAreMovedDoubledAndDeletedTogether() {
        bench.select("tea-urn");
        bench.selectAlso("dew-heaters");
        edits.move(0, 1);
        assertThat(button("tea-urn").row()).isEqualTo(3);
        assertThat(button("dew-heaters").row()).isEqualTo(3);
        edits.duplicate();
        assertThat(bench.buttons()).hasSize(2).extracting(Button::name).containsExactly("Tea urn", "Dew heaters");
        edits.delete();
        assertThat(bench.page().buttons()).hasSameSizeAs(before.page("doors").map(Page::buttons).orElseThrow());
        whole();
    }

    @Test
    void deletingWhatStepsNameTakesThoseStepsAlongOrHasThemNameAnother() {
        Board left = UsageWords.withoutButton(before, "doors-open");
        assertThat(UsageWords.ofButton(left, "doors-open")).isEmpty();
        String used = before.buttons().map(Button::id).filter(b -> !UsageWords.ofButton(before, b).isEmpty())
                .findFirst()
                .orElseThrow();
        Board other = UsageWords.repointed(before, used, "gate");
        assertThat(UsageWords.ofButton(other, used)).isEmpty();
        assertThat(UsageWords.ofButton(other, "gate")).isNotEmpty();
        assertThat(References.flaws(Rig.of(UsageWords.withoutButton(other, used), bench.rig().cards()))).isEmpty();
    }

    @Test
    void selectingOneMoreAndLettingItGo() {
        bench.select("gate");
        bench.selectAlso("dome-door");
        bench.selectAlso("tea-urn");
        bench.selectAlso("dome-door");
        assertThat(bench.buttons()).extracting(Button::id).containsExactly("gate", "tea-urn");
        bench.selectAlso("gate");
        assertThat(bench.buttons()).extracting(Button::id).containsExactly("tea-urn");
        bench.select("record");
        assertThat(bench.buttons()).extracting(Button::id).containsExactly("record");
    }
}
