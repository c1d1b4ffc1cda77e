package rombix.app.view.gear;

import java.util.List;
import java.util.stream.Collectors;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.TableView;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.board.Gear;
import rombix.core.card.Card;
import rombix.core.card.Card.Command;
import rombix.core.card.Card.Param;
import rombix.core.twin.Twin;
import rombix.core.value.Value;

/** What a gear can do: its readings with their present values, and its commands with what they take. */
final class CardTab {
    private final Desk desk;
    private final GearWays ways;
    private final TableView<Twin.Reading> readings = new TableView<>();
    private final TableView<Command> commands = new TableView<>();
    private String gear = "";

    CardTab(Desk desk, GearWays ways) {
        this.desk = desk;
        this.ways = ways;
        readings.setId("gear-readings");
        readings.setPlaceholder(Fields.read("This card has no readings."));
        readings.setColumnResizePolicy(TableView.CONSTRAINED_RESIZE_POLICY_FLEX_LAST_COLUMN);
        readings.getColumns().setAll(List.of(Fields.column("Reading", 220, Twin.Reading::title), Fields.column(
                "Present value", 220, this::value)));
        commands.setId("gear-commands");
        commands.setPlaceholder(Fields.read("This card has no commands."));
        commands.setColumnResizePolicy(TableView.CONSTRAINED_RESIZE_POLICY_FLEX_LAST_COLUMN);
        commands.getColumns().setAll(List.of(Fields.column("Command", 220, c -> plain(c)), Fields.column(
                "Parameters", 220, CardTab::params)));
        VBox.setVgrow(readings, Priority.ALWAYS);
        VBox.setVgrow(commands, Priority.ALWAYS);
    }

    Node of(Gear g, Card card) {
        gear = g.id();
        Button edit = Fields.plain("Edit card…", "");
        edit.setId("gear-card-" + g.id());
        edit.setAccessibleText("Edit the card of " + g.name() + ": listen, try, change");
        edit.setOnAction(_ -> ways.card(g.id()));
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox head = new HBox(Space.S8, Styles.label(card.title(), "gear-name"), Styles.label(
                "Commands and readings of this kind of gear", "read", "quiet"), space, edit);
        head.setAlignment(Pos.CENTER_LEFT);
        commands.getItems().setAll(card.commands());
        refresh();
        return new VBox(Space.S8, head, readings, commands);
    }

    /** Shows the values as they are by now. */
    void refresh() {
        List<Twin.Reading> now = desk.bench().rig().twin(gear).map(t -> t.readings(desk.model().state().readings(gear)))
                .orElse(List.of());
        if (now.equals(readings.getItems())) {
            readings.refresh();
        } else {
            readings.getItems().setAll(now);
        }
    }

    private String value(Twin.Reading reading) {
        Value v = desk.model().state().readings(gear).apply(reading.id());
        return v == null
                ? "unknown"
                : desk.bench().rig().twin(gear).map(t -> t.spoken(reading, v, desk.model().state().readings(gear)))
                        .orElse("");
    }

    /** The title with its parameters in brackets, so that they stand out from its words. */
    private static String plain(Command command) {
        return command.title().toString().replace('{', '‹').replace('}', '›');
    }

    private static String params(Command command) {
        return command.params().stream().map(Param::title).collect(Collectors.joining(", "));
    }
}
