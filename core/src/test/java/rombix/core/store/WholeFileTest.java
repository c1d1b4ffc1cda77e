package rombix.core.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.condition.DisabledOnOs;
import org.junit.jupiter.api.condition.OS;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import rombix.core.board.Board;
import rombix.core.store.WholeFile.Readers;

@Timeout(60)
@DisabledOnOs(OS.WINDOWS)
class WholeFileTest {
    @TempDir
    Path folder;

    /** Saving wrote into whatever a link pointed to that lay where the new version is written first. */
    @Test
    void linksThatLieInTheWayAreNotFollowed() throws IOException {
        Path prey = Files.writeString(folder.resolve("prey"), "precious");
        Path board = folder.resolve("b.json");
        long pid = ProcessHandle.current().pid();
        Files.createSymbolicLink(folder.resolve(".b.json.new"), prey);
        for (int i = 1; i < 3000; i++) { // Whatever number it is at.
            Files.createSymbolicLink(folder.resolve(".b.json." + pid + "-" + i + ".new"), prey);
        }
        assertThatThrownBy(() -> BoardFile.save(board, Board.empty("B"))).hasMessageContaining("is in the way");
        assertThat(prey).hasContent("precious");
    }

    @Test
    void whatIsWrittenReplacesALinkAndNotWhatItPointsTo() throws IOException {
        Path prey = Files.writeString(folder.resolve("prey"), "precious");
        Path link = Files.createSymbolicLink(folder.resolve("out.png"), prey);
        WholeFile.write(link, "new", Readers.AS_BEFORE);
        assertThat(prey).hasContent("precious");
        assertThat(link).hasContent("new").isRegularFile();
    }

    @Test
    void whatAKilledProcessLeftGoesWithTheNextSave() throws IOException {
        Path left = Files.createFile(folder.resolve(".b.json.999999999-1.new"));
        Path others = Files.createFile(folder.resolve(".b.json.mine.new"));
        WholeFile.write(folder.resolve("b.json"), "x", Readers.OWNER);
        assertThat(left).doesNotExist();
        assertThat(others).exists();
        try (Stream<Path> all = Files.list(folder)) {
            assertThat(all).hasSize(2);
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"../../evil", "a/b", "..", ".hidden", "a\\\\b", "a\\u0007b", " "})
    void aCardWhoseIdIsAPathIsRefused(String id) {
        assertThatThrownBy(() -> CardLibrary.read(Path.of("x.json"), "{\"card\": 2, \"id\": \"" + id
                + "\", \"title\": \"X\"}")).isInstanceOf(BadFile.class).hasMessageContaining("id");
    }

    @Test
    void whatLiesAmongTheCardsAndIsNoneStopsNothing() throws Exception {
        Path cards = Files.createDirectory(folder.resolve("cards"));
        Files.createSymbolicLink(cards.resolve("dangling.json"), folder.resolve("nowhere"));
        Files.createDirectory(cards.resolve("folder.json"));
        Files.createSymbolicLink(cards.resolve("endless.json"), Path.of("/dev/zero"));
        new ProcessBuilder("mkfifo", cards.resolve("pipe.json").toString()).start().waitFor();
        Files.write(cards.resolve("latin.json"), new byte[]{'{', (byte) 0xE9, '}'});
        Files.writeString(cards.resolve("good.json"), "\uFEFF{\"card\": 2, \"id\": \"good\", \"title\": \"Good\"}");
        CardLibrary.Cards found = CardLibrary.found(folder.resolve("b.json"));
        assertThat(found.good()).containsKey("good");
        assertThat(found.bad()).containsOnlyKeys("dangling", "folder", "endless", "pipe", "latin");
        assertThat(found.bad().get("latin")).hasMessageContaining("UTF-8");
        assertThat(found.bad().get("dangling")).hasMessageContaining("is a link to a missing file");
    }
}
