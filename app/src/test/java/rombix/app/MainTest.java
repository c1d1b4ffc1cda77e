package rombix.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What a desktop calls when a file is double-clicked. */
class MainTest {
    @TempDir
    private Path folder;

    @Test
    void aBundleAloneIsOpened() throws Exception {
        String bundle = Files.createFile(folder.resolve("a night.rombix")).toString();
        assertThat(Main.commanded(new String[]{bundle})).containsExactly("open", bundle);
        assertThat(Main.commanded(new String[]{folder.resolve("none.rombix").toString()})).hasSize(1);
        assertThat(Main.commanded(new String[]{"check", bundle})).containsExactly("check", bundle);
        assertThat(Main.commanded(new String[0])).isEmpty();
    }
}
