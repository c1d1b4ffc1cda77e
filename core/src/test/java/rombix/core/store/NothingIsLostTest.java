package rombix.core.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.DisabledOnOs;
import org.junit.jupiter.api.condition.OS;
import org.junit.jupiter.api.io.TempDir;
import rombix.core.board.Board;

/** What saving does to the files around a board. */
@DisabledOnOs(OS.WINDOWS)
class NothingIsLostTest {
    @TempDir
    Path folder;
    private Path file;

    @BeforeEach
    void save() throws IOException {
        file = folder.resolve("b.json");
        BoardFile.save(file, Board.empty("First"));
    }

    private List<String> files() throws IOException {
        try (Stream<Path> all = Files.list(folder)) {
            return all.map(f -> String.valueOf(f.getFileName())).sorted().toList();
        }
    }

    @Test
    void theLastTenVersionsAreKeptNewestFirst() throws Exception {
        for (int i = 1; i <= 13; i++) {
            Files.setLastModifiedTime(file, FileTime.from(Instant.parse("2026-01-01T00:00:00Z").plusSeconds(i)));
            BoardFile.save(file, Board.empty("Board " + i));
        }
        List<Versions.Version> kept = Versions.of(file);
        assertThat(kept).hasSize(10).isSortedAccordingTo((a, b) -> b.saved().compareTo(a.saved()));
        assertThat(BoardFile.parse(kept.getFirst().file(), Files.readString(kept.getFirst().file()), Map.of()).name())
                .isEqualTo("Board 12");
    }

    @Test
    void aSymbolicLinkStaysOneAndAFileKeepsItsPermissions() throws Exception {
        Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rw-rw----"));
        Path link = Files.createSymbolicLink(folder.resolve("link.json"), file);
        BoardFile.save(link, Board.empty("Through the link"));
        assertThat(link).isSymbolicLink();
        assertThat(BoardFile.read(file).board().name()).isEqualTo("Through the link");
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(file))).isEqualTo("rw-rw----");
    }

    @Test
    void theJournalIsTheOwnersAlone() throws Exception {
        BoardFile.journal(file, Board.empty("Secret"));
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(BoardFile.journalOf(file)))).isEqualTo(
                "rw-------");
    }

    @Test
    void whatCannotBeSavedLeavesNothingBehind() throws Exception {
        Path taken = Files.createDirectories(folder.resolve("taken.json").resolve("inside")).getParent();
        assertThatThrownBy(() -> BoardFile.save(taken, Board.empty("X"))).isInstanceOf(IOException.class);
        assertThat(files()).containsExactly("b.json", "taken.json");
    }

    @Test
    void aJournalThatCannotBeReadIsSaidAndKeptAside() throws Exception {
        Files.writeString(BoardFile.journalOf(file), "{\"rombix\": 1, \"name\": \"half");
        assertThatThrownBy(() -> BoardFile.unsaved(file, Map.of())).isInstanceOf(BadFile.class);
        assertThat(BoardFile.keepAside(file)).exists().hasFileName(".b.json.journal.damaged");
        assertThat(BoardFile.unsaved(file, Map.of())).isEmpty();
    }
}
