package rombix.app.view.card;

import java.util.ArrayList;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.CardEdits;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.board.Gear;
import rombix.core.card.Protocol;
import rombix.core.listen.Said;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.traffic.PacketWords;
import rombix.core.traffic.Traffic;
import rombix.core.traffic.TrafficPacket;
import rombix.core.twin.Order;
import rombix.core.twin.Twin;
import rombix.running.Player;

/** Sends a gear something by hand, shows what comes back, and makes a command of it. The interface's thread's. */
@OwnedBy(Owner.INTERFACE)
final class TryTab {
    private static final int SHOWN = 200;

    private final Player player;
    private final CardEdits edits;
    private final TextField address = new TextField();
    private final TextField text = new TextField();
    private final TextField name = new TextField();
    private final Button send = new Button("Send");
    private final Button make = Fields.plain("Save as command", "");
    private final Label trouble = Fields.read("");
    private final Label told = Fields.read("");
    /** Which parts of what was sent a step is to say itself. */
    private final FlowPane places = new FlowPane(Space.S10, Space.S6);
    private final List<CheckBox> asked = new ArrayList<>();
    private final TableView<TrafficPacket> table = new TableView<>();
    private final VBox node = new VBox(Space.S8);
    private String gear = "";
    private long seen = -1;
    private @Nullable Protocol protocol;
    private Order.@Nullable Outgoing sent;

    TryTab(Player player, CardEdits edits) {
        this.player = player;
        this.edits = edits;
        address.setId("try-address");
        address.setPrefColumnCount(22);
        text.setId("try-text");
        HBox.setHgrow(text, Priority.ALWAYS);
        send.setId("try-send");
        send.setDefaultButton(true);
        send.setOnAction(_ -> send());
        text.setOnAction(_ -> send());
        address.setOnAction(_ -> send());
        name.setId("try-name");
        make.setId("try-make");
        make.setOnAction(_ -> make());
        Styles.set(trouble, "label", "read", "trouble");
        trouble.managedProperty().bind(trouble.textProperty().isNotEmpty());
        told.managedProperty().bind(told.textProperty().isNotEmpty());
        table.setId("try-packets");
        table.setColumnResizePolicy(TableView.CONSTRAINED_RESIZE_POLICY_FLEX_LAST_COLUMN);
        table.setPlaceholder(Fields.read("Sent and received messages appear here."));
        table.getColumns()
                .setAll(List.of(Fields.<TrafficPacket>column("Time", 116, PacketWords::time),
                        Fields.<TrafficPacket>column("",
                                60, p -> p.way() == TrafficPacket.Way.OUT ? "out →" : "← in"),
                        Fields.<TrafficPacket>column("Message", 620,
                                PacketWords::shown),
                        Fields.<TrafficPacket>column("Result", 280, TrafficPacket::result)));
        VBox.setVgrow(table, Priority.ALWAYS);
        VBox carried = Fields.named("Payload", text);
        HBox.setHgrow(carried, Priority.ALWAYS);
        HBox first = new HBox(Space.S8, Fields.named("To", address), carried, send);
        first.setAlignment(Pos.BOTTOM_LEFT);
        HBox second = new HBox(Space.S8, Fields.named("Name of the command", name), make, told);
        second.setAlignment(Pos.BOTTOM_LEFT);
        node.getChildren().setAll(first, trouble, table, places, second);
        parts();
    }

    Node node() {
        return node;
    }

    void begin(String of) {
        gear = of;
        seen = -1;
        sent = null;
        table.getItems().clear();
        text.clear();
        name.clear();
        trouble.setText("");
        told.setText("");
        protocol = null;
        parts();
    }

    void card(Gear g, Twin twin) {
        if (!twin.protocol().equals(protocol)) {
            protocol = twin.protocol();
            address.setText(protocol.descriptor().usualAddress());
            address.setPromptText(protocol.descriptor().expected());
            text.setPromptText(protocol.descriptor().bothWays()
                    ? "values separated by spaces; texts in quotes"
                    : "text or JSON");
        }
    }

    private void send() {
        Protocol over = protocol;
        if (over == null) {
            return;
        }
        try {
            Order.Outgoing packet = CardEdits.typed(over, address.getText(), text.getText());
            trouble.setText("");
            player.say(CardEdits.order(gear, packet));
            sent = packet;
            parts();
        } catch (IllegalArgumentException e) {
            trouble.setText(String.valueOf(e.getMessage()));
        }
    }

    /** Shows the parts of what was sent last, each of which a step may say. */
    private void parts() {
        asked.clear();
        Order.Outgoing packet = sent;
        make.setDisable(packet == null);
        name.setDisable(packet == null);
        List<String> parts = packet == null ? List.of() : Said.parts(packet);
        for (int i = 0; i < parts.size(); i++) {
            CheckBox box = new CheckBox("“" + parts.get(i) + "” becomes a parameter");
            box.setId("try-place-" + i);
            asked.add(box);
        }
        places.getChildren().setAll(asked);
    }

    private void make() {
        Order.Outgoing packet = sent;
        Protocol over = protocol;
        if (packet == null || over == null) {
            return;
        }
        if (name.getText().isBlank()) {
            trouble.setText("Enter a name for the command.");
            name.requestFocus();
            return;
        }
        trouble.setText("");
        List<Boolean> places = asked.stream().map(CheckBox::isSelected).toList();
        String title = name.getText().strip();
        edits.change("make “" + title + "”", gear, card -> Said.command(card, over, packet, title, places));
        told.setText("“" + title + "” is now a command of the gear.");
    }

    /** Takes in what came since the last look. */
    void look() {
        Traffic.Look look = player.traffic().look(seen);
        if (look == null) {
            return;
        }
        seen = look.changes();
        List<TrafficPacket> mine = look.packets().stream().filter(p -> p.gear().equals(gear)).toList();
        List<TrafficPacket> shown = mine.subList(Math.max(0, mine.size() - SHOWN), mine.size()).reversed();
        if (!shown.equals(table.getItems())) {
            table.getItems().setAll(shown);
        }
    }
}
