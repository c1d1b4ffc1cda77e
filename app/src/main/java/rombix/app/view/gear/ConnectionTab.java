package rombix.app.view.gear;

import java.io.IOException;
import java.util.List;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.board.Board;
import rombix.core.board.Gear;
import rombix.core.card.Card;
import rombix.core.card.Protocol;
import rombix.core.edit.GearEdits;
import rombix.core.event.Status;
import rombix.core.twin.Figures;
import rombix.running.owner.Certificates;

/** The connection of a gear: status, address, test, login and encryption, settings. */
final class ConnectionTab {
    private static final double PROTOCOL_WIDTH = 150;

    private final Desk desk;
    private final Practice practice;
    private final Discovery discovery;
    private final BiConsumer<String, UnaryOperator<Board>> edit;
    private final GearFigures figures;
    private final GearSecurity security;
    private final GearSettings settings;
    private final ConnectionTestView test;
    private final Label status = Styles.label("", "read");
    private final Button standIn = Fields.plain("Use a stand-in", "");
    private String gear = "";

    /** @param shown shows all anew, with the hand on what has this id */
    ConnectionTab(Desk desk, GearParts parts, GearWays ways, BiConsumer<String, UnaryOperator<Board>> edit,
            Consumer<String> shown) {
        this.desk = desk;
        this.practice = parts.practice();
        this.discovery = parts.discovery();
        this.edit = edit;
        this.figures = new GearFigures(ways::counts);
        this.security = new GearSecurity(edit, shown, parts.secrets(), new Certificates());
        this.settings = new GearSettings(edit, shown);
        this.test = new ConnectionTestView(parts.test());
        status.setWrapText(true);
        standIn.setTooltip(new Tooltip("Simulated gear on this computer, until Rombix closes"));
        standIn.setMinWidth(Region.USE_PREF_SIZE);
        standIn.managedProperty().bind(standIn.visibleProperty());
    }

    /** Folds the settings and clears the last test, because another gear is shown. */
    void fold() {
        settings.fold();
        test.clear();
    }

    void end() {
        figures.end();
        test.clear();
    }

    Node of(Gear g, @Nullable Card card) {
        gear = g.id();
        test.of(g.id());
        figures.end();
        VBox well = new VBox(status, figures.of(g.id()));
        status.setId("gear-status-" + g.id());
        Node address = Fields.named("Address", GearAddress.of(g, discovery, edit));
        HBox.setHgrow(address, Priority.ALWAYS);
        HBox where = new HBox(Space.S8, protocol(g, card), address, test.button());
        where.setAlignment(Pos.BOTTOM_LEFT);
        VBox all = new VBox(Space.S12, well, where);
        if (practice.has(g.card())) {
            standIn(g);
            where.getChildren().add(standIn);
        }
        all.getChildren().add(test.results());
        security.show(g, all);
        settings.show(g, desk.bench().rig().twin(g.id()).orElse(null), all);
        status();
        return all;
    }

    /** Refreshes the status. */
    void status() {
        Status s = desk.model().state().status(gear);
        Styles.text(status, s.hint().isBlank() ? s.words() : sentence(s.words()) + " " + s.hint());
        Styles.set(status, "label", "read", s.well() ? "quiet" : "trouble");
        standIn.setVisible(!s.well());
    }

    private static String sentence(String words) {
        return Figures.capitalized(words) + (words.endsWith(".") ? "" : ".");
    }

    private Node protocol(Gear g, @Nullable Card card) {
        List<Protocol> all = card == null ? List.of() : List.copyOf(card.protocols());
        Node choice;
        if (all.size() < 2) {
            Label only = Styles.label(g.link().protocol().title(), "read", "fixed-field");
            choice = only;
        } else {
            var several = Fields.choice("gear-protocol-" + g.id(), all, g.link().protocol(), Protocol::title,
                    to -> edit.accept("connect “" + g.name() + "” over " + to.title(), b -> GearEdits.reached(b, g
                            .id(), to, to.descriptor().presetAddress())));
            several.setAccessibleText("Protocol of " + g.name());
            choice = several;
        }
        VBox named = Fields.named("Protocol", choice);
        Fields.wide(named, PROTOCOL_WIDTH);
        return named;
    }

    /** The way to simulated gear while the gear itself is not there. */
    private void standIn(Gear g) {
        standIn.setId("gear-stand-in-" + g.id());
        standIn.setText("Use a stand-in");
        standIn.setDisable(false);
        standIn.setOnAction(_ -> {
            standIn.setText("Starting…");
            standIn.setDisable(true);
            Thread.startVirtualThread(() -> start(g));
        });
    }

    private void start(Gear g) {
        try {
            String address = practice.standIn(g.card());
            Platform.runLater(() -> edit.accept("use a stand-in for “" + g.name() + "”", b -> GearEdits.reached(b, g
                    .id(), g.link().protocol(), address)));
        } catch (IOException e) {
            Platform.runLater(() -> standIn.setText("Can't start the stand-in: " + e.getMessage()));
        }
    }
}
