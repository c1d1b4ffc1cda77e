package rombix.app.view.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.control.Button;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import rombix.app.show.Session;
import rombix.app.view.common.Theme;
import rombix.app.view.window.Welcome.Choice;
import rombix.core.board.Page;
import rombix.core.store.BoardFile;

class WelcomeTest {
    @BeforeAll
    static void toolkit() {
        Session.startToolkit(true);
    }

    @Test
    void eachWayAndEachRecentBoardIsOneClickAway() throws Exception {
        Path demo = Path.of("../demo/star-night.json");
        Page first = BoardFile.read(demo).board().pages().getFirst();
        List<Choice> chosen = new ArrayList<>();
        Session.onInterface(() -> {
            Welcome welcome = new Welcome(List.of(new Welcome.Recent(demo, "Star Night", first), new Welcome.Recent(
                    Path.of("bad.json"), "bad.json", null)), "bad.json: not JSON here", Theme.DAY, chosen::add);
            assertThat(Theme.of(welcome.scene().getRoot())).isEqualTo(Theme.DAY);
            for (String id : List.of("welcome-demo", "welcome-new", "welcome-recent-star-night.json")) {
                Button way = (Button) welcome.scene().getRoot().lookupAll(".button").stream().filter(b -> id.equals(b
                        .getId())).findFirst().orElseThrow();
                assertThat(way.getAccessibleText()).isNotBlank();
                way.fire();
            }
            return true;
        });
        assertThat(chosen).containsExactly(new Choice(Choice.What.DEMO, null), new Choice(Choice.What.NEW, null),
                new Choice(Choice.What.BOARD, demo));
    }
}
