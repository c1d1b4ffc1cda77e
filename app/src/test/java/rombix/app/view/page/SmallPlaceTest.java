package rombix.app.view.page;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import javafx.geometry.Point2D;
import javafx.geometry.Rectangle2D;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rombix.running.owner.Settings;

class SmallPlaceTest {
    private static final Rectangle2D SCREEN = new Rectangle2D(0, 0, 1920, 1080);

    @TempDir
    Path folder;

    private SmallPlace place() {
        return new SmallPlace(new Settings(folder.resolve("deep/settings.properties")));
    }

    @Test
    void itOpensBesideTheMainWindowWhereThereIsRoom() {
        assertThat(place().place(new Rectangle2D(0, 40, 1280, 800), SCREEN, 400, 300)).isEqualTo(new Point2D(1292, 40));
        assertThat(place().place(new Rectangle2D(600, 40, 1280, 800), SCREEN, 400, 300)).isEqualTo(new Point2D(188,
                40));
    }

    @Test
    void itCoversNeitherWhatIsOnAirNorStopAllOfAWindowThatFillsTheScreen() {
        Point2D at = place().place(SCREEN, SCREEN, 400, 300);
        assertThat(at.getY()).isGreaterThanOrEqualTo(110);
        assertThat(at.getY() + 300).isLessThan(1080 - 121);
    }

    @Test
    void itIsWhereItWasPutLastButOnTheScreen() throws Exception {
        place().remember(200, 300, "");
        assertThat(place().place(SCREEN, SCREEN, 400, 300)).isEqualTo(new Point2D(200, 300));
        place().remember(5000, -80, "");
        assertThat(place().place(SCREEN, SCREEN, 400, 300)).isEqualTo(new Point2D(1520, 0));
        Files.writeString(folder.resolve("deep/settings.properties"), "small-window.x=nonsense");
        assertThat(place().place(SCREEN, SCREEN, 400, 300).getX()).isEqualTo(1508);
    }

    @Test
    void eachApplicationInFrontHasAPlaceOfItsOwnForIt() {
        place().remember(200, 300, "notes");
        place().remember(20, 30, "slides");
        assertThat(place().of("notes")).contains(new Point2D(200, 300));
        assertThat(place().of("slides")).contains(new Point2D(20, 30));
        assertThat(place().of("chart")).isEmpty();
        place().size(1.5);
        assertThat(place().size()).isEqualTo(1.5);
    }
}
