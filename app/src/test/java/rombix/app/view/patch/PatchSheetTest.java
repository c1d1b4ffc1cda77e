package rombix.app.view.patch;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import rombix.app.view.window.AtTheWindow;
import rombix.core.board.Gear;
import rombix.core.card.Channel.Kind;
import rombix.core.patch.Fixture;
import rombix.core.store.CardLibrary;

/** The patch of the lamps, at the window. */
class PatchSheetTest extends AtTheWindow {
    private List<Fixture> patch() {
        return bench().board().gear("lamps").map(Gear::patch).orElseThrow();
    }

    private Fixture fixture(String name) {
        return patch().stream().filter(f -> f.name().equals(name)).findFirst().orElseThrow();
    }

    private void fire(String id) {
        robot.interact(() -> ((ButtonBase) find(id)).fire());
    }

    private void opened() {
        key(KeyCode.R, KeyCode.ALT);
        gear("lamps", "items");
        fire("#gear-patch-lamps");
        assertThat(find("#patch")).isNotNull();
    }

    private void kind(String title) {
        robot.interact(() -> {
            ComboBox<?> box = (ComboBox<?>) find("#patch-kind");
            for (int i = 0; i < box.getItems().size(); i++) {
                if (((rombix.core.card.Card) box.getItems().get(i)).title().equals(title)) {
                    box.getSelectionModel().select(i);
                }
            }
        });
    }

    private String text(String id) {
        return ((TextField) find(id)).getText();
    }

    @Test
    void fixturesAreAddedManyAtATimeWhereThereIsRoomAndAClashIsSeenAtOnce() {
        opened();
        kind("Moving spot");
        type("#patch-count", "3");
        robot.interact(() -> ((TextField) find("#patch-name")).setText("Spot"));
        assertThat(text("#patch-slot")).as("the first place with room for 27 slots").isEqualTo("42");
        fire("#patch-add");
        assertThat(fixture("Spot 3").slot()).isEqualTo(60);
        assertThat(text("#patch-slot")).isEqualTo("69");
        soon(() -> find("#rack-name-lamps-nothing") == null && bench().rig().twin("lamps").orElseThrow().reading(
                "pan-16/spot-2", rombix.core.twin.Twin.Readings.NONE).isPresent());
        // One is moved into another: that is seen, in words and in the picture, and undone.
        type("#fixture-slot", "34");
        assertThat(fixture("Spot 1").slot()).isEqualTo(34);
        assertThat(((Label) find("#slot-35")).getText()).isEqualTo("×");
        assertThat(find("#patch").lookupAll(".label").stream().map(n -> ((Label) n).getText()))
                .anyMatch(t -> t.contains(
                        "✗ 1 overlap"));
        undoAll();
        assertThat(patch()).hasSize(6);
        assertThat(find("#patch")).isNotNull();
    }

    @Test
    void aFixtureIsFoundByLightingItAndMovedByDraggingIt() {
        opened();
        click(find("#slot-20"));
        assertThat(text("#fixture-name")).isEqualTo("Walkway");
        fire("#fixture-light");
        soon(() -> gear.lamps().slot(20) == 255);
        click(find("#slot-36"));
        soon(() -> gear.lamps().slot(20) == 0 && gear.lamps().slot(37) == 255);
        assertThat(gear.lamps().slot(33)).as("what gives no light stays as it is").isZero();
        click(find("#slot-100"));
        soon(() -> gear.lamps().slot(100) == 255);
        fire("#fixture-light");
        soon(() -> gear.lamps().slot(100) == 0);
        drag(find("#slot-20"), find("#slot-110"));
        assertThat(fixture("Walkway").slot()).isEqualTo(110);
        assertThat(text("#fixture-slot")).isEqualTo("110");
    }

    @Test
    void aPersonalityIsMadeHereAndKeptAsACard() {
        opened();
        fire("#patch-personalities");
        fire("#personality-new");
        robot.interact(() -> ((TextField) find("#personality-title")).setText("Star machine"));
        fire("#channel-add");
        choose("#channel-kind-2", "wheel");
        assertThat(((ButtonBase) find("#personality-keep")).isDisabled()).isTrue();
        assertThat(label("#personality-check")).contains("a wheel needs \"steps\"");
        robot.interact(() -> {
            ((TextField) find("#channel-name-2")).setText("Stars");
            ((TextField) find("#channel-more-2")).setText("Few 0, Many 128");
        });
        fire("#channel-add");
        choose("#channel-kind-3", "pan");
        robot.interact(() -> {
            ((TextField) find("#channel-from-3")).setText("-180°");
            ((TextField) find("#channel-to-3")).setText("180°");
        });
        fire("#channel-add");
        choose("#channel-kind-4", "pan");
        fire("#channel-fine-4");
        assertThat(find("#channel-from-4").isDisabled()).as("a fine byte has no range of its own").isTrue();
        fire("#personality-keep");
        assertThat(CardLibrary.shipped()).doesNotContainKey("star-machine");
        assertThat(bench().rig().cards().get("star-machine").channels()).hasSize(4).element(2)
                .satisfies(c -> assertThat(List.of(c.from(), c.to())).containsExactly(-180.0, 180.0));
        fire("#personality-back");
        kind("Star machine");
        robot.interact(() -> ((TextField) find("#patch-name")).setText("Stars"));
        fire("#patch-add");
        // It is worked in the rack at once, its wheel by the steps' names.
        soon(() -> find("#rack-lamps-wheel-star-machine-stars/stars-many") != null);
        robot.interact(() -> ((ButtonBase) find("#rack-lamps-wheel-star-machine-stars/stars-many")).fire());
        soon(() -> gear.lamps().slot(fixture("Stars").slot() + 1) == 128);
        // A fixture of another personality takes this one.
        type("#fixture-slot", "200");
        choose("#fixture-personality", "Dimmer");
        assertThat(fixture("Stars").personality()).isEqualTo("dimmer");
        type("#fixture-universe", "3");
        assertThat(fixture("Stars").universe()).isEqualTo(3);
        robot.interact(() -> session.window().files().save());
        soon(() -> Files.exists(CardLibrary.file(file, "star-machine")));
    }

    @Test
    void invertLimitAndCurveAreSetAndTheTableIsWrittenAndRead() throws Exception {
        opened();
        click(find("#slot-37"));
        assertThat(((CheckBox) find("#fixture-invert-tilt")).isSelected()).isTrue();
        fire("#fixture-invert-pan");
        type("#fixture-limit", "60 %");
        choose("#fixture-curve", "square (as the eye sees it)");
        assertThat(fixture("Dome Spot").invert()).containsExactlyInAnyOrder(Kind.PAN, Kind.TILT);
        assertThat(fixture("Dome Spot").limit()).isEqualTo(60);
        List<Fixture> before = patch();
        Path table = folder.resolve("patch.csv");
        PatchSheet sheet = session.window().patchSheet();
        robot.interact(() -> sheet.write(table));
        Files.writeString(table, Files.readString(table).replace("Walkway,dimmer,1,20", "Walkway,dimmer,2,5"));
        robot.interact(() -> sheet.read(table));
        assertThat(fixture("Walkway").universe()).isEqualTo(2);
        assertThat(patch().stream().map(Fixture::id)).isEqualTo(before.stream().map(Fixture::id).toList());
        assertThat(find("#universe-2")).isNotNull();
    }

    @Test
    void aFixtureThatIsUsedSaysWhereBeforeItGoes() {
        opened();
        click(find("#slot-1"));
        fire("#fixture-gone");
        assertThat(label("#fixture-gone")).startsWith("Delete it");
        assertThat(patch()).hasSize(6);
        fire("#fixture-gone");
        assertThat(patch()).hasSize(5);
    }
}
