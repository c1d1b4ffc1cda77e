package rombix.app.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;
import rombix.app.edit.file.BoardWrite;
import rombix.core.board.Rig;
import rombix.core.card.Protocol;
import rombix.core.listen.CardMaking;
import rombix.core.store.BoardFile;

/** Cards that are made on a board, and their files beside it. */
@Execution(ExecutionMode.CONCURRENT)
class CardEditsTest {
    @TempDir
    private Path folder;
    private Path file;
    private Workbench bench;
    private CardEdits edits;

    @BeforeEach
    void open() throws Exception {
        file = Files.copy(Path.of("../demo/star-night.json"), folder.resolve("b.json"));
        bench = new Workbench(file, BoardFile.read(file));
        edits = new CardEdits(bench);
    }

    private void journal() throws IOException {
        BoardWrite write = bench.toJournal().orElseThrow();
        write.write();
        bench.written(write);
    }

    private void save() throws IOException {
        BoardWrite write = bench.toSave(file);
        write.write();
        bench.written(write);
    }

    private boolean there(String card) {
        return Files.exists(folder.resolve("cards").resolve(card + ".json"));
    }

    @Test
    void aCardThatIsMadeIsSafeAsSoonAsTheBoardIs() throws Exception {
        String gear = edits.add();
        edits.name(gear, "Fog box");
        journal();
        Rig again = BoardFile.read(file);
        assertThat(BoardFile.unsaved(file, again.cards()).orElseThrow().gear(gear)).isPresent();
        assertThat(again.cards().get("new-gear").title()).isEqualTo("Fog box");
    }

    @Test
    void aCardWhoseMakingIsUndoneLeavesNoFile() throws Exception {
        edits.add();
        save();
        assertThat(there("new-gear")).isTrue();
        bench.undo();
        journal();
        assertThat(there("new-gear")).as("the board as it was saved needs it").isTrue();
        save();
        assertThat(there("new-gear")).isFalse();
        bench.redo();
        save();
        assertThat(BoardFile.read(file).twin("new-gear")).isPresent();
    }

    /** A command was deleted, the board was not saved, and could not be opened any more. */
    @Test
    void theBoardAsItWasSavedCanAlwaysBeOpenedWithItsCards() throws Exception {
        edits.change("own", "house", card -> CardMaking.titled(card, "Home"));
        save();
        List<String> lost = edits.change("less", "house", card -> CardMaking.withoutCommand(card, "unlock"));
        assertThat(lost).isNotEmpty();
        journal();
        assertThat(BoardFile.read(file).twin("house").orElseThrow().card().command("unlock")).isPresent();
        save();
        assertThat(BoardFile.read(file).twin("house").orElseThrow().card().command("unlock")).isEmpty();
    }

    @Test
    void aBoardThatIsSavedElsewhereTakesItsCardsAlong() throws Exception {
        edits.add();
        Path to = Files.createDirectory(folder.resolve("elsewhere")).resolve("b.json");
        bench.toSave(to).write();
        assertThat(BoardFile.read(to).twin("new-gear")).isPresent();
    }

    @Test
    void whatIsTypedToBeSentIsReadAsItsWireWantsIt() {
        var osc = CardEdits.typed(Protocol.of("osc"), "/strip/3", "1 0.5 \"two words\"");
        assertThat(osc.args()).extracting(Object::toString).containsExactly("1", "0.5", "two words");
        assertThat(osc.forms()).extracting(Object::toString).containsExactly("INT", "PLAIN", "TEXT");
        assertThat(CardEdits.typed(Protocol.of("line"), "line", "SET 2 ON").args()).hasSize(1);
    }
}
