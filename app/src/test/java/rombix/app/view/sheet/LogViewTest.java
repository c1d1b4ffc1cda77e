package rombix.app.view.sheet;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import javafx.scene.control.Button;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import rombix.app.view.window.AtTheWindow;
import rombix.core.event.Mode;
import rombix.running.log.LogRow.Kind;
import rombix.running.log.LogRow;

class LogViewTest extends AtTheWindow {
    private List<LogRow> rows() {
        return rowsOf("#log");
    }

    @SuppressWarnings("unchecked")
    private void select(Kind kind) {
        robot.interact(() -> {
            TableView<LogRow> table = (TableView<LogRow>) find("#log");
            table.getItems().stream().filter(r -> r.kind() == kind).findFirst()
                    .ifPresent(table.getSelectionModel()::select);
        });
    }

    @Override
    public Set<String> off() {
        return Set.of("cues");
    }

    @Test
    void whatWasPressedIsFollowedSearchedNarrowedAndLeadsToTheStep() throws Exception {
        mode(Mode.LIVE);
        click(tile("gate"));
        soon(() -> gear.house().state("house/lock/gate").orElse("").equals("UNLOCKED"));
        key(KeyCode.L, KeyCode.CONTROL);
        soon(() -> rows().stream().anyMatch(r -> r.kind() == Kind.STEP && r.words().equals("Unlock Gate")));
        assertThat(rows()).anySatisfy(r -> {
            assertThat(r.kind()).isEqualTo(Kind.PRESS);
            assertThat(r.name()).isEqualTo("Gate");
            assertThat(r.who()).isEqualTo("mouse");
        });
        robot.type(KeyCode.ESCAPE);
        click(tile("next-cue"));
        key(KeyCode.L, KeyCode.CONTROL);
        soon(() -> rows().stream().anyMatch(r -> r.kind() == Kind.FAULT));
        robot.interact(((ToggleButton) find("#log-faults"))::fire);
        soon(() -> !rows().isEmpty() && rows().stream().allMatch(r -> r.kind() == Kind.FAULT));
        select(Kind.FAULT);
        assertThat(((Button) find("#log-step")).isDisabled()).as("nothing is edited in Live").isTrue();
        robot.interact(((Button) find("#log-press"))::fire);
        soon(() -> rows().size() == 3 && rows().stream().allMatch(r -> r.button().equals("next-cue")));
        robot.interact(((ToggleButton) find("#log-all"))::fire);
        robot.interact(() -> ((TextField) find("#log-words")).setText("unlock gate"));
        soon(() -> rows().size() == 2); // The step, and that the gate showed it.
        robot.type(KeyCode.ESCAPE);

        mode(Mode.BUILD);
        key(KeyCode.L, KeyCode.CONTROL);
        soon(() -> find("#log") != null);
        robot.interact(() -> ((TextField) find("#log-words")).setText("no response"));
        soon(() -> rows().size() == 1);
        select(Kind.FAULT);
        robot.interact(((Button) find("#log-step"))::fire);
        assertThat(bench().button().orElseThrow().id()).isEqualTo("next-cue");
        assertThat(bench().step()).contains(List.of(0));
    }

    @Test
    void theLogIsWrittenAsCsvAndReadAgainByTheNextRun() throws Exception {
        mode(Mode.LIVE);
        click(tile("gate"));
        key(KeyCode.L, KeyCode.CONTROL);
        soon(() -> rows().stream().anyMatch(r -> r.words().equals("Unlock Gate")));
        Path csv = folder.resolve("as-run.csv");
        robot.interact(() -> session.window().logView().write(csv));
        soon(() -> Files.exists(csv) && Files.readString(csv).contains("Unlock Gate"));
        assertThat(Files.readAllLines(csv).getFirst()).startsWith("time,kind,press,button");
    }
}
