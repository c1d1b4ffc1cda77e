package rombix.app.view.tile;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.List;
import javafx.scene.Group;
import javafx.scene.Scene;
import javafx.scene.shape.Rectangle;
import javafx.stage.Stage;
import org.awaitility.Awaitility;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import rombix.app.show.Session;

class RetiredTest {
    @BeforeAll
    static void toolkit() {
        Session.startToolkit(true);
    }

    /** Symptom: pictures of tiles that had left the window filled the memory until it ran low. */
    @Test
    void aNodeThatLeavesGivesItsPictureBackBeforeItIsGone() {
        Rectangle tile = new Rectangle(40, 40);
        tile.setId("tile-gate");
        tile.setCache(true);
        Retired retired = new Retired();
        Stage stage = Session.onInterface(() -> {
            Stage s = new Stage();
            s.setScene(new Scene(new Group(tile, retired), 100, 100));
            s.show();
            return s;
        });
        Session.onInterface(() -> {
            retired.retire(List.of(tile));
            assertThat(tile.getParent()).as("it is painted once more, without its picture").isSameAs(retired);
            assertThat(tile.isCache()).isFalse();
            assertThat(tile.isVisible()).isFalse();
            assertThat(tile.getId()).as("another of this name may come").isNull();
            return true;
        });
        Awaitility.await().atMost(Duration.ofSeconds(60)).until(() -> Session.onInterface(() -> retired.getChildren()
                .isEmpty()));
        Session.onInterface(() -> {
            stage.hide();
            return true;
        });
    }
}
