package rombix.core.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rombix.core.board.Board;

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
}
