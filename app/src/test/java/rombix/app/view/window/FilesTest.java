package rombix.app.view.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import javafx.scene.control.Button;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import rombix.core.board.Board;
import rombix.core.store.BoardFile;

/** Boards are written and read beside the deck, which goes on. */
class FilesTest extends AtTheWindow {
    /** The demo board with a picture of some megabytes in place of its own. */
    private Path large() throws Exception {
        Path large = folder.resolve("large.json");
        Board board = BoardFile.read(file).board();
        BoardFile.save(large,
                board.withName("Large").withPictures(board.pictures().stream().map(p -> new Board.Picture(p
                        .id(), p.name(), "QUJD".repeat(2_000_000))).toList()));
        return large;
    }

    @Test
    void aLargeBoardIsOpenedWhileTheWindowGoesOn() throws Exception {
        Path large = large();
        robot.interact(() -> {
            session.window().files().open(large);
            assertThat(find("#opening")).as("it says so at once").isNotNull();
        });
        soon(() -> bench().file().equals(large));
        assertThat(bench().board().name()).isEqualTo("Large");
        assertThat(find("#opening")).isNull();
    }

    @Test
    void openingCanBeCancelled() throws Exception {
        Path large = large();
        Board before = bench().board();
        robot.interact(() -> {
            session.window().files().open(large);
            ((Button) find("#cancel-opening")).fire();
        });
        soon(() -> find("#opening") == null);
        assertThat(bench().board()).isSameAs(before);
        assertThat(bench().file()).isEqualTo(file);
    }

    @Test
    void whatIsSavedIsInTheFileAndSaidSo() throws Exception {
        robot.interact(() -> bench().edit("rename", b -> b.withName("Another night")));
        assertThat(label("#board-name")).endsWith("•");
        key(KeyCode.S, KeyCode.CONTROL);
        soon(() -> label("#board-name").equals("Another night"));
        assertThat(BoardFile.read(file).board().name()).isEqualTo("Another night");
    }

    @Test
    void editsAreInTheJournalWhenTheWindowCloses() throws Exception {
        robot.interact(() -> {
            bench().edit("rename", b -> b.withName("In a hurry"));
            session.window().closing();
        });
        assertThat(BoardFile.unsaved(file, bench().rig().cards()).map(Board::name)).hasValue("In a hurry");
    }
}
