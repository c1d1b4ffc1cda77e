package rombix.app.view.gear;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.Button;
import org.junit.jupiter.api.Test;
import org.testfx.util.WaitForAsyncUtils;
import rombix.app.show.Session;
import rombix.app.view.window.AtTheWindow;
import rombix.core.board.Gear;

/** Gear that says that it is here, added with two clicks. */
class FoundHereTest extends AtTheWindow {
    @Override
    public void board(Path to) throws Exception {
        Files.writeString(to, """
                {"rombix": 1, "name": "Bare", "pages": [{"id": "main", "name": "Main", "columns": 6, "rows": 4}]}
                """);
    }

    @Override
    public void reached() {
        // There is no gear yet.
    }

    private Node row(String part) {
        return stage.getScene().lookup("#discovered").lookupAll(".button").stream()
                .filter(n -> n.getId() != null && n.getId().startsWith(
                        "found-add-") && n.getId().contains(part))
                .findFirst().orElse(null);
    }

    private Button adding(String part) {
        soon(() -> Session.onInterface(() -> row(part) != null));
        return Session.onInterface(() -> (Button) row(part));
    }

    @Test
    void gearThatIsFoundIsAddedWithItsCardAndItsAddress() {
        gear.announce();
        click(find("#edit-gear"));
        Button studio = adding("127-0-0-1-" + gear.studio().port());
        assertThat(studio.getText()).isEqualTo("Add");
        robot.interact(studio::fire);
        Gear added = bench().board().gear().getFirst();
        assertThat(added.card()).isEqualTo("studio");
        // Another program on this machine may have taken the name already: then DNS-SD numbers it.
        assertThat(added.name()).matches("Larkmoor studio( \\(\\d+\\))?");
        assertThat(added.link().address()).isEqualTo("127.0.0.1:" + gear.studio().port());
        soon(() -> find("#rack-studio-scene-host-desk") != null); // It answers.
        soon(() -> Session.onInterface(() -> row("127-0-0-1-" + gear.studio().port()) == null)); // It is on the board now.
        // The broker says that it is there, and so its topics are known: the house's lists are filled from them.
        Button house = adding(gear.house().port() + "-topics-House");
        robot.interact(house::fire);
        Gear second = bench().board().gear().getLast();
        assertThat(second.lists().get("lock")).extracting(i -> i.id()).contains("gate", "dome-door");
        soon(() -> label("#rack-house-locked/gate").equals("LOCKED"));
        undoAll();
        assertThat(bench().board().gear()).isEmpty();
    }

    /** A kind moved away under the pointer as gear was discovered above it, and the click hit nothing. */
    @Test
    void theKindsStayWhereTheyAreAsGearIsDiscovered() {
        click(find("#edit-gear"));
        soon(() -> find("#kind-any-osc") != null && find("#discovered") != null);
        WaitForAsyncUtils.waitForFxEvents();
        Point2D before = middle(find("#kind-any-osc"));
        gear.announce();
        adding("127-0-0-1-" + gear.studio().port());
        WaitForAsyncUtils.waitForFxEvents();
        assertThat(middle(find("#kind-any-osc"))).isEqualTo(before);
    }

    @Test
    void gearThatNoCardFitsOpensTheCardSheetWhereItListens() {
        gear.announce();
        click(find("#edit-gear"));
        adding("osc-127-0-0-1-" + gear.studio().port());
        Button pads = adding("midi-Larkmoor-Pads");
        assertThat(pads.getText()).isEqualTo("Add, listen…");
        robot.interact(pads::fire);
        assertThat(find("#card-sheet")).isNotNull();
        assertThat(bench().board().gear().getLast().link().address()).isEqualTo("Larkmoor Pads");
        assertThat(bench().board().gear().getLast().name()).isEqualTo("Larkmoor Pads");
    }
}
