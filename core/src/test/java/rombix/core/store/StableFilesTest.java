package rombix.core.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.edit.Edits;

/** Files that programs compare line by line. */
class StableFilesTest {
    private static final Path DEMO = Path.of("../demo/star-night.json");

    @TempDir
    private Path folder;

    /** The order of a board's maps differed from one run of Rombix to the next. */
    @Test
    void theDemoIsWrittenAsItLies() throws Exception {
        assertThat(BoardFile.format(BoardFile.read(DEMO).board())).isEqualTo(Files.readString(DEMO));
    }

    @Test
    void savingWithoutAnEditChangesNoByteHoweverTheFileIsLaidOut() throws Exception {
        String own = "{\"rombix\": 1,\n\n  \"name\": \"Own\", \"pages\": [\n {\"id\": \"p\", \"name\": \"P\"}]}";
        Path file = Files.writeString(folder.resolve("b.json"), own);
        Board board = BoardFile.read(file).board();
        BoardFile.save(file, board);
        assertThat(file).hasContent(own);
        BoardFile.save(file, board.withName("Another"));
        assertThat(Files.readString(file)).contains("\"name\": \"Another\"");
    }

    @Provide
    Arbitrary<Button> buttons() throws BadFile {
        return Arbitraries.of(BoardFile.read(DEMO).board().buttons().toList());
    }

    /** An edit of one button changes lines of that button alone, and none before or behind it. */
    @Property(tries = 60)
    void oneEditChangesItsLinesAlone(@ForAll("buttons") Button button, @ForAll boolean gone) throws Exception {
        Board board = BoardFile.read(DEMO).board();
        List<String> was = BoardFile.format(board).lines().toList();
        List<String> is = BoardFile.format(gone
                ? Edits.removeState(board, button.id(), 0)
                : Edits.button(board, button.id(), b -> b.withName("Quite another name"))).lines().toList();
        int head = 0;
        while (head < was.size() && head < is.size() && was.get(head).equals(is.get(head))) {
            head++;
        }
        int tail = 0;
        while (tail < was.size() - head && tail < is.size() - head && was.get(was.size() - 1 - tail).equals(is.get(is
                .size() - 1 - tail))) {
            tail++;
        }
        int of = (int) BoardTree.of(button).toPrettyString().lines().count() * 2;
        assertThat(was.size() - head - tail).isLessThanOrEqualTo(gone ? of : 1);
    }
}
