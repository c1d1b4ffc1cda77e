package rombix.app.view.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Consumer;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import rombix.core.board.Board;
import rombix.core.edit.Edits;
import rombix.core.store.BoardFile;
import rombix.core.store.Versions;
import rombix.running.owner.OpenedBoard;

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

    /** Does something with a node as soon as it is there, before anything that comes after it. */
    private void once(String id, Consumer<Node> what) {
        Node node = find(id);
        if (node != null) {
            what.accept(node);
        } else if (bench().file().equals(file)) {
            Platform.runLater(() -> once(id, what));
        }
    }

    @Test
    void aLargeBoardIsOpenedWhileTheWindowGoesOn() throws Exception {
        Path large = large();
        AtomicBoolean said = new AtomicBoolean();
        robot.interact(() -> {
            session.window().files().open(large);
            once("#opening", _ -> said.set(true));
        });
        soon(() -> bench().file().equals(large));
        assertThat(said).as("it says so at once").isTrue();
        assertThat(bench().board().name()).isEqualTo("Large");
        assertThat(find("#opening")).isNull();
    }

    @Test
    void openingCanBeCancelled() throws Exception {
        Path large = large();
        Board before = bench().board();
        AtomicBoolean cancelled = new AtomicBoolean();
        robot.interact(() -> {
            session.window().files().open(large);
            once("#cancel-opening", cancel -> {
                ((Button) cancel).fire();
                cancelled.set(true);
            });
        });
        soon(() -> cancelled.get() && find("#opening") == null);
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
    void aBoardThatIsSavedUnderAnotherNameIsTheOneThatIsEditedFromThenOn() throws Exception {
        key(KeyCode.S, KeyCode.CONTROL, KeyCode.SHIFT);
        soon(() -> find("#board-as-name") != null);
        robot.interact(() -> ((TextField) find("#board-as-name")).setText("Rainy night"));
        robot.interact(((Button) find("#board-save-as"))::fire);
        soon(() -> bench().file().getFileName().toString().equals("rainy-night.json"));
        assertThat(bench().board().name()).isEqualTo("Rainy night");
        assertThat(BoardFile.read(file).board().name()).as("the first one stays").isEqualTo("Star Night");
    }

    @Test
    void editsAreInTheJournalWhenTheWindowCloses() throws Exception {
        robot.interact(() -> {
            bench().edit("rename", b -> b.withName("In a hurry"));
            session.window().closing();
        });
        assertThat(BoardFile.unsaved(file, bench().rig().cards()).map(Board::name)).hasValue("In a hurry");
    }

    @Test
    void aSaveIsDoneThoughTheWindowClosesAtOnce() throws Exception {
        robot.interact(() -> {
            bench().edit("rename", b -> b.withName("Saved in a hurry"));
            session.window().files().save();
            session.window().closing();
        });
        assertThat(BoardFile.read(file).board().name()).isEqualTo("Saved in a hurry");
        assertThat(BoardFile.journalOf(file)).as("nothing is unsaved").doesNotExist();
    }

    @Test
    void aSaveIsDoneThoughAnotherBoardIsOpenedAtOnce() throws Exception {
        Path other = folder.resolve("other.json");
        Files.copy(file, other);
        robot.interact(() -> {
            bench().edit("rename", b -> b.withName("Saved in a hurry"));
            session.window().files().save();
            session.window().files().open(other);
        });
        soon(() -> bench().file().equals(other));
        assertThat(BoardFile.read(file).board().name()).isEqualTo("Saved in a hurry");
        assertThat(BoardFile.journalOf(file)).as("nothing is unsaved").doesNotExist();
        assertThat(bench().board().name()).isNotEqualTo("Saved in a hurry");
    }

    private void changedElsewhere(String name) throws Exception {
        robot.interact(() -> bench().edit("rename", b -> b.withName("Mine")));
        Board board = BoardFile.read(file).board().withName(name);
        Files.writeString(file, BoardFile.format(board) + "\n");
        soon(() -> find("#take-theirs") != null);
    }

    private void push(String id) {
        soon(() -> find(id) != null);
        robot.interact(((Button) find(id))::fire);
    }

    @Test
    void aFileThatAnotherProgramWroteIsNeverOverwrittenUnasked() throws Exception {
        changedElsewhere("Theirs");
        key(KeyCode.S, KeyCode.CONTROL);
        robot.interact(() -> session.window().files().flush()); // By then a save would have been done.
        assertThat(BoardFile.read(file).board().name()).isEqualTo("Theirs");
        push("#keep-mine");
        soon(() -> BoardFile.read(file).board().name().equals("Mine"));
        assertThat(Versions.of(file)).as("theirs can be taken back").isNotEmpty();
    }

    @Test
    void whatAnotherProgramChangedIsMergedWithWhatWasChangedHere() throws Exception {
        robot.interact(() -> bench().edit("rename", b -> b.withName("Mine")));
        Files.writeString(file, BoardFile.format(Edits.button(BoardFile.read(file).board(), "gate", b -> b.withName(
                "Garden gate"))));
        soon(() -> find("#merge") != null);
        robot.interact(() -> bench().edit("rename another", b -> Edits.button(b, "tea-urn", x -> x.withName("Urn"))));
        push("#merge");
        soon(() -> bench().board().button("gate").orElseThrow().name().equals("Garden gate"));
        assertThat(bench().board().name()).isEqualTo("Mine");
        assertThat(bench().board().button("tea-urn").orElseThrow().name()).as("edited since it was asked")
                .isEqualTo("Urn");
        key(KeyCode.S, KeyCode.CONTROL);
        soon(() -> BoardFile.read(file).board().name().equals("Mine"));
        assertThat(BoardFile.read(file).board().button("gate").orElseThrow().name()).isEqualTo("Garden gate");
    }

    @Test
    void theirsIsTakenWhereThatIsChosen() throws Exception {
        changedElsewhere("Theirs");
        push("#take-theirs");
        soon(() -> bench().board().name().equals("Theirs"));
        assertThat(bench().unsaved()).isFalse();
    }

    @Test
    void bothStandSideBySideWhereThatIsChosen() throws Exception {
        changedElsewhere("Theirs");
        push("#keep-both");
        soon(() -> bench().board().name().equals("Theirs"));
        assertThat(BoardFile.read(folder.resolve("star-night-mine.json")).board().name()).isEqualTo("Mine (mine)");
    }

    @Test
    void anEarlierVersionIsTakenBackWholeOrOneButtonOfIt() throws Exception {
        String before = bench().board().name();
        robot.interact(() -> bench().edit("rename", b -> Edits.button(b.withName("Later"), "gate", x -> x.withName(
                "Gate of the garden"))));
        key(KeyCode.S, KeyCode.CONTROL);
        soon(() -> !bench().unsaved());
        key(KeyCode.N, KeyCode.CONTROL);
        push("#board-versions");
        push("#version-0-gate");
        assertThat(bench().rig().button("gate").orElseThrow().name()).isEqualTo("Gate");
        assertThat(bench().board().name()).isEqualTo("Later");
        key(KeyCode.N, KeyCode.CONTROL);
        push("#board-versions");
        push("#version-0");
        assertThat(bench().board().name()).isEqualTo(before);
    }

    @Test
    void aDamagedBoardWithAGoodJournalIsOpenedFromThatAndSaidSo() throws Exception {
        BoardFile.journal(file, bench().board().withName("Rescued"));
        Files.writeString(file, "{ half a board");
        OpenedBoard opened = OpenedBoard.read(file);
        assertThat(opened.rig().board().name()).isEqualTo("Rescued");
        assertThat(opened.notices()).singleElement().asString().contains("is damaged", "autosaved");
    }

    @Test
    void aDamagedJournalIsOpenedAsFarAsItCanBeReadAndTheRestIsAsItWasSaved() throws Exception {
        Board edited = Edits.button(bench().board(), "doors-open", b -> b.withName("Doors wide open"));
        BoardFile.journal(file, edited);
        Path journal = BoardFile.journalOf(file);
        String whole = Files.readString(journal);
        Files.writeString(journal, whole.substring(0, whole.length() / 2));
        OpenedBoard opened = OpenedBoard.read(file);
        assertThat(opened.rig().button("doors-open").orElseThrow().name()).isEqualTo("Doors wide open");
        assertThat(opened.rig().board().buttons().map(b -> b.id())).containsExactlyInAnyOrderElementsOf(bench().board()
                .buttons().map(b -> b.id()).toList());
        assertThat(opened.notices()).singleElement().asString().contains("to their end", ".journal.damaged");
        assertThat(journal.resolveSibling(journal.getFileName() + ".damaged")).hasContent(whole.substring(0, whole
                .length() / 2));
    }
}
