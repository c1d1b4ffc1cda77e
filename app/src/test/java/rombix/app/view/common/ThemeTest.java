package rombix.app.view.common;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import javafx.scene.layout.Pane;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rombix.running.owner.Settings;

final class ThemeTest {
    @TempDir
    Path folder;

    /** Symptom: the day theme was forgotten at the next start. */
    @Test
    void theThemeThatWasChosenIsChosenAtTheNextStart() {
        Path file = folder.resolve("settings.properties");
        assertThat(Theme.chosen(new Settings(file))).isEqualTo(Theme.NIGHT);
        Theme.NIGHT.other().keep(new Settings(file));
        assertThat(Theme.chosen(new Settings(file))).isEqualTo(Theme.DAY);
        Theme.DAY.other().keep(new Settings(file));
        assertThat(Theme.chosen(new Settings(file))).isEqualTo(Theme.NIGHT);
    }

    @Test
    void aWindowShowsOneThemeAtATime() {
        Pane root = new Pane();
        Theme.DAY.show(root);
        Theme.NIGHT.show(root);
        Theme.DAY.show(root);
        assertThat(Theme.of(root)).isEqualTo(Theme.DAY);
        assertThat(root.getStyleClass()).containsExactly("day");
    }
}
