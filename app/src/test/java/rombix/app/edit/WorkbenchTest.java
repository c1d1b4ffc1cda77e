package rombix.app.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;
import rombix.app.edit.file.BoardWrite;
import rombix.core.board.Board;
import rombix.core.edit.Edits;
import rombix.core.store.BoardFile;
import rombix.running.owner.OpenedBoard;

@Execution(ExecutionMode.CONCURRENT)
class WorkbenchTest {
    @TempDir
    Path folder;
    private Path file;
    private Workbench bench;

    @BeforeEach
    void open() throws Exception {
        file = folder.resolve("star-night.json");
        Files.copy(Path.of("../demo/star-night.json"), file);
        bench = new Workbench(file, BoardFile.read(file));
    }

    @Test
    void everyEditCanBeUndoneAndDoneAgain() {
        Board before = bench.board();
        bench.edit("rename", b -> b.withName("Other"));
        bench.edit("delete", b -> Edits.removeButton(b, "gate"));
        Board after = bench.board();
        assertThat(bench.undoName()).contains("delete");
        bench.undo();
        bench.undo();
        assertThat(bench.board()).isEqualTo(before);
        assertThat(bench.redoName()).contains("rename");
        bench.redo();
        bench.redo();
        assertThat(bench.board()).isEqualTo(after);
        bench.undo();
        bench.edit("another way", b -> b.withName("Third"));
        assertThat(bench.redoName()).isEmpty();
    }

    @Test
    void anEditThatChangesNothingLeavesNoTrace() {
        bench.edit("nothing", b -> b.withName(b.name()));
        assertThat(bench.undoName()).isEmpty();
        assertThat(bench.unsaved()).isFalse();
    }

    @Test
    void theSelectionGoesWithItsButton() {
        bench.select("gate");
        bench.selectState(1);
        bench.edit("delete a state", b -> Edits.removeState(b, "gate", 1));
        assertThat(bench.stateIndex()).isZero();
        bench.edit("delete", b -> Edits.removeButton(b, "gate"));
        assertThat(bench.button()).isEmpty();
        assertThat(bench.chain().isEmpty()).isTrue();
    }

    @Test
    void autosaveKeepsWhatASaveHasNotAndOpeningBringsItBack() throws Exception {
        bench.edit("rename", b -> b.withName("Unsaved"));
        BoardWrite unsafe = bench.toJournal().orElseThrow();
        assertThat(bench.toJournal()).as("once").isEmpty();
        bench.notWritten(unsafe);
        bench.toJournal().orElseThrow().write();
        assertThat(BoardFile.read(file).board().name()).isEqualTo("Star Night");
        Path other = folder.resolve("other.json");
        BoardFile.save(other, Board.empty("Other"));
        bench.take(OpenedBoard.read(other));
        OpenedBoard edited = OpenedBoard.read(file);
        assertThat(edited.broughtBack()).isTrue();
        bench.take(edited);
        assertThat(bench.board().name()).isEqualTo("Unsaved");
        assertThat(bench.unsaved()).isTrue();
        BoardWrite whole = bench.toSave(file);
        whole.write();
        bench.written(whole);
        assertThat(bench.unsaved()).isFalse();
        assertThat(BoardFile.read(file).board().name()).isEqualTo("Unsaved");
        assertThat(OpenedBoard.read(file).broughtBack()).isFalse();
    }

    @Test
    void anAutosaveMakesNothingAnewUnderTheHand() throws Exception {
        bench.edit("rename", b -> b.withName("Edited"));
        int[] told = {0};
        bench.watch(() -> told[0]++);
        BoardWrite unsafe = bench.toJournal().orElseThrow();
        unsafe.write();
        bench.written(unsafe);
        assertThat(told[0]).isZero();
        bench.written(bench.toSave(file));
        assertThat(told[0]).isEqualTo(1);
    }
}
