package rombix.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rombix.app.cli.RombixCommand;

/** What a desktop calls when a file is double-clicked, and what is said at once. */
class MainTest {
    @TempDir
    private Path folder;

    @Test
    void theHelpAndTheVersionAreSaidWithoutTheLibraryForCommandLines() {
        for (String asked : new String[]{"--help", "-h", "--version", "-V"}) {
            StringWriter said = new StringWriter();
            RombixCommand.line(asked).setOut(new PrintWriter(said)).execute(asked);
            assertThat(Main.known(new String[]{asked})).hasValue(said.toString());
        }
        assertThat(Main.known(new String[]{"press", "--help"})).isEmpty();
        assertThat(Main.known(new String[0])).isEmpty();
    }

    @Test
    void aBundleAloneIsOpened() throws Exception {
        String bundle = Files.createFile(folder.resolve("a night.rombix")).toString();
        assertThat(Main.commanded(new String[]{bundle})).containsExactly("open", bundle);
        assertThat(Main.commanded(new String[]{folder.resolve("none.rombix").toString()})).hasSize(1);
        assertThat(Main.commanded(new String[]{"check", bundle})).containsExactly("check", bundle);
        assertThat(Main.commanded(new String[0])).isEmpty();
    }
}
