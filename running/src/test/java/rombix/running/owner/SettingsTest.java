package rombix.running.owner;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class SettingsTest {
    @TempDir
    Path folder;

    private Settings settings() {
        return new Settings(folder.resolve("deep/settings.properties"));
    }

    @Test
    void boardsThatWereOpenAreKnownNewestFirstAsLongAsTheyAreThere() throws Exception {
        assertThat(settings().recentBoards()).isEmpty();
        Path one = Files.writeString(folder.resolve("one.json"), "{}");
        Path two = Files.writeString(folder.resolve("two.json"), "{}");
        settings().set(Map.of("small-window.x", "7"));
        settings().opened(one);
        settings().opened(two);
        settings().opened(one);
        assertThat(settings().recentBoards()).containsExactly(one, two);
        assertThat(settings().get("small-window.x")).as("the rest stays").hasValue("7");
        Files.delete(one);
        assertThat(settings().recentBoards()).containsExactly(two);
    }

    @Test
    void noMoreThanSixAreKept() throws Exception {
        for (int i = 0; i < 9; i++) {
            settings().opened(Files.writeString(folder.resolve(i + ".json"), "{}"));
        }
        assertThat(settings().recentBoards()).hasSize(6).first().isEqualTo(folder.resolve("8.json"));
    }

    @Test
    void aFileThatIsNoneIsAsGoodAsNone() throws Exception {
        Files.createDirectories(folder.resolve("deep"));
        Files.writeString(folder.resolve("deep/settings.properties"), "\\u12");
        assertThat(settings().recentBoards()).isEmpty();
    }
}
