package rombix.app.view.sheet;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javafx.scene.control.Button;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.Clipboard;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import rombix.app.view.window.AtTheWindow;
import rombix.core.chain.GearStep;
import rombix.core.event.Mode;
import rombix.core.traffic.TrafficPacket;
import rombix.core.traffic.TrafficPacket.Fate;
import rombix.core.traffic.TrafficPacket.Way;
import rombix.core.value.Value;

class TrafficViewTest extends AtTheWindow {
    private List<TrafficPacket> rows() {
        return rowsOf("#traffic");
    }

    private boolean out(String words, Fate fate) {
        return rows().stream().anyMatch(p -> p.way() == Way.OUT && p.of().equals(words) && p.fate() == fate);
    }

    @Override
    public Set<String> off() {
        return Set.of("chat");
    }

    @Test
    void whatGoesOutAndComesInIsSeenNarrowedSentAgainAndSaved() throws Exception {
        mode(Mode.LIVE);
        click(tile("gate"));
        key(KeyCode.T, KeyCode.CONTROL, KeyCode.SHIFT);
        soon(() -> out("Unlock Gate", Fate.DONE) && rows().stream().anyMatch(p -> p.way() == Way.IN && p.gear().equals(
                "house") && p.raw().equals("house/lock/gate UNLOCKED") && p.fate() == Fate.LANDED));
        choose("#traffic-gear", "House");
        soon(() -> rows().stream().allMatch(p -> p.gear().equals("house")));
        robot.interact(() -> ((TextField) find("#traffic-words")).setText("unlock gate"));
        soon(() -> rows().size() == 1);
        gear.house().becomes("house/lock/gate", "LOCKED");
        robot.interact(() -> {
            @SuppressWarnings("unchecked")
            TableView<TrafficPacket> table = (TableView<TrafficPacket>) find("#traffic");
            table.getSelectionModel().select(0);
            ((Button) find("#traffic-again")).fire();
        });
        soon(() -> gear.house().state("house/lock/gate").orElse("").equals("UNLOCKED"));
        soon(() -> rows().size() == 2 && rows().stream().allMatch(p -> p.fate() == Fate.DONE));
        robot.interact(() -> {
            ((TableView<?>) find("#traffic")).getSelectionModel().select(0);
            ((Button) find("#traffic-copy")).fire();
            assertThat(Clipboard.getSystemClipboard().getString()).contains("Unlock Gate");
        });
        Path text = folder.resolve("traffic.txt");
        robot.interact(() -> session.window().traffic().write(text));
        assertThat(Files.readAllLines(text)).hasSize(2).allSatisfy(line -> assertThat(line).contains(
                "\tout\tHouse\tUnlock Gate\thouse/lock/gate/set UNLOCK\tdone in "));
    }

    @Test
    void whatCameToNothingStandsAloneWhereOneAsksForIt() {
        chain("gate", new GearStep.Do("chat", "say", Map.of("room", Value.of("star-night"))));
        mode(Mode.LIVE);
        click(tile("gate"));
        key(KeyCode.T, KeyCode.CONTROL, KeyCode.SHIFT);
        robot.interact(((ToggleButton) find("#traffic-failed-or-ignored"))::fire);
        soon(() -> rows().stream().anyMatch(p -> p.gear().equals("chat") && p.fate() == Fate.FAILED));
        assertThat(rows()).noneMatch(p -> p.fate().well());
    }

    @Test
    void whyAGearCannotBeWorkedIsSaidWithWhatToDo() {
        key(KeyCode.R, KeyCode.ALT);
        gear("chat", "connection");
        robot.interact(((Button) find("#gear-test-chat"))::fire);
        soon(() -> find("#gear-test-next") != null);
        assertThat(label("#gear-test-next")).contains("Start the program there");
        robot.interact(((Button) find("#gear-test-chat"))::fire);
        soon(() -> find("#gear-test-next") != null);
    }
}
