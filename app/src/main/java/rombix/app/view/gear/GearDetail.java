package rombix.app.view.gear;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Shapes;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.app.view.sheet.TrafficView;
import rombix.core.board.Board;
import rombix.core.board.Gear;
import rombix.core.card.Card;
import rombix.core.edit.GearEdits;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;

/** The selected gear: its name and kind, and below four tabs: connection, items, card, traffic. Interface thread. */
@OwnedBy(Owner.INTERFACE)
public final class GearDetail {
    private static final double PICTURE = 28;
    private static final double NAME_WIDTH = 220;

    /** The tabs, in this order. */
    private enum Tab {
        CONNECTION("Connection"), ITEMS("Items"), CARD("Card"), TRAFFIC("Traffic");

        private final String title;

        Tab(String title) {
            this.title = title;
        }

        String id() {
            return "gear-tab-" + name().toLowerCase(Locale.ROOT);
        }
    }

    private final Desk desk;
    private final ConnectionTab connection;
    private final GearItems items;
    private final CardTab card;
    private final TrafficView traffic;
    private final VBox box = new VBox(Space.S10);
    private Consumer<Gear> deleted = _ -> {
    };
    private Tab tab = Tab.CONNECTION;
    private String gear = "";

    /** @param parts what the tabs are made of */
    public GearDetail(Desk desk, GearParts parts, TrafficView traffic, GearWays ways) {
        this.desk = desk;
        this.traffic = traffic;
        this.connection = new ConnectionTab(desk, parts, ways, this::edit, this::shown);
        this.items = new GearItems(desk, ways, this::edit, this::shown);
        this.card = new CardTab(desk, ways);
    }

    void whenDeleted(Consumer<Gear> then) {
        deleted = then;
    }

    /** The view of a gear, on the tab that was shown last. */
    Node of(String id) {
        if (!id.equals(gear)) {
            gear = id;
            connection.fold();
        }
        fill();
        return box;
    }

    /** Nothing is shown any longer: nothing is followed. */
    void end() {
        traffic.end();
        connection.end();
    }

    /** Refreshes the status. */
    void status() {
        connection.status();
        if (tab == Tab.CARD) {
            card.refresh();
        }
    }

    void focusFirst() {
        focus("gear-name-" + gear);
    }

    void focusAddress() {
        tab = Tab.CONNECTION;
        fill();
        focus("gear-address-" + gear);
    }

    void focusSecret() {
        focusAddress();
        focus("gear-secret-" + gear);
    }

    private void focus(String id) {
        if (box.lookup("#" + id) instanceof Node field) {
            field.requestFocus();
        }
    }

    private void shown(String field) {
        fill();
        focus(field);
    }

    /** The edit shows the gear anew, as the sheet follows the board. */
    private void edit(String name, UnaryOperator<Board> change) {
        desk.bench().edit(name, change);
    }

    private void fill() {
        traffic.end();
        Gear g = desk.bench().board().gear(gear).orElse(null);
        if (g == null) {
            return;
        }
        Card of = desk.bench().rig().cards().get(g.card());
        List<Tab> tabs = new ArrayList<>(List.of(Tab.values()));
        if (of == null || !items.has(g, of)) {
            tabs.remove(Tab.ITEMS);
        }
        if (of == null) {
            tabs.remove(Tab.CARD);
        }
        Tab now = tabs.contains(tab) ? tab : Tab.CONNECTION;
        Node content = switch (now) {
            case CONNECTION -> scrolled(connection.of(g, of));
            case ITEMS -> scrolled(items.of(g, Objects.requireNonNull(of)));
            case CARD -> card.of(g, Objects.requireNonNull(of));
            case TRAFFIC -> traffic.inside(g.id());
        };
        VBox.setVgrow(content, Priority.ALWAYS);
        box.getChildren().setAll(head(g, of), tabs(tabs, now), content);
        box.applyCss(); // What scrolls is found by its id only then.
    }

    private Node head(Gear g, @Nullable Card of) {
        TextField name = Fields.text("gear-name-" + g.id(), g.name(), text -> {
            if (!text.isBlank()) {
                edit("name “" + text.strip() + "”", b -> GearEdits.change(b, g.id(), x -> x.withName(text.strip())));
            }
        });
        name.setPrefWidth(NAME_WIDTH);
        name.setAccessibleText("Name of " + g.name());
        Button gone = Fields.plain("Delete…", "");
        gone.setId("gear-gone-" + g.id());
        gone.setMinWidth(Region.USE_PREF_SIZE);
        gone.setAccessibleText("Delete " + g.name());
        gone.setOnAction(_ -> deleted.accept(g));
        Button close = Fields.plain("Close", "Esc");
        close.setMinWidth(Region.USE_PREF_SIZE);
        close.setOnAction(_ -> desk.overlay().close());
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox head = new HBox(Space.S10, name, Styles.label((of == null ? g.card() : of.title()) + " · "
                + g.link().protocol().title(), "read", "quiet"), space, gone, close);
        Shapes.icon(of == null ? null : of.icon(), PICTURE).ifPresent(head.getChildren()::addFirst);
        head.setAlignment(Pos.CENTER_LEFT);
        return head;
    }

    private Node tabs(List<Tab> all, Tab now) {
        HBox row = new HBox(Space.S6);
        ToggleGroup group = new ToggleGroup();
        for (Tab t : all) {
            ToggleButton button = new ToggleButton(t.title);
            button.getStyleClass().setAll("toggle-button", "tab");
            button.setId(t.id());
            button.setMinWidth(Region.USE_PREF_SIZE);
            button.setToggleGroup(group);
            button.setSelected(t == now);
            button.setOnAction(_ -> {
                tab = t;
                shown(t.id());
            });
            row.getChildren().add(button);
        }
        row.getStyleClass().add("gear-tabs");
        return row;
    }

    private static ScrollPane scrolled(Node content) {
        ScrollPane scroll = new ScrollPane(content);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("popover-scroll");
        return scroll;
    }
}
