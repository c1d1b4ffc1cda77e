package rombix.app.view.gear;

import java.io.IOException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.PatchEdits;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Confirm;
import rombix.app.view.form.Fields;
import rombix.core.board.Board;
import rombix.core.board.Gear;
import rombix.core.card.Card;
import rombix.core.card.Protocol;
import rombix.core.edit.GearEdits;
import rombix.core.event.Known;
import rombix.core.event.Status;
import rombix.core.twin.Figures;
import rombix.running.input.Touches;
import rombix.running.owner.Certificates;
import rombix.running.owner.Secrets;

/** The gear of the board: added, named, reached, its lists, and taken away with what names it said first. */
public final class GearPopover {
    private static final double RACK_WIDTH = 290;
    private static final double WIDTH = 640;
    private static final double NAME_WIDTH = 150;
    private static final double KIND_WIDTH = 120;

    private final Desk desk;
    private final Touches touches;
    private final Practice practice;
    private final Supplier<Known> known;
    private final Runnable first;
    private final Map<String, Label> statuses = new HashMap<>();
    private final Map<String, Button> traffic = new HashMap<>();
    private GearWays ways = new GearWays() {
    };
    /** The ways to a stand-in, by gear; shown while the gear is not there. */
    private final Map<String, Button> standIns = new HashMap<>();
    /** Whether the kinds that can be added are shown. */
    private boolean choosing;
    private final GearLists lists;
    private final GearFigures figures;
    private final GearSecurity security;
    private final GearSettings settings;
    private final Findings findings;
    private @Nullable VBox content;
    private @Nullable Node by;

    /**
     * @param practice where stand-ins can be had for gear that is not here yet
     * @param first begins with a button on an empty page
     * @param secrets what gear wants that no board holds
     * @param findings where gear was found
     */
    public GearPopover(Desk desk, Touches touches, Practice practice, Supplier<Known> known, Runnable first,
            Secrets secrets, Findings findings) {
        this.desk = desk;
        this.touches = touches;
        this.practice = practice;
        this.known = known;
        this.first = first;
        this.findings = findings;
        this.figures = new GearFigures(of -> ways.counts(of));
        this.lists = new GearLists(desk, this::edit, this::shown);
        this.settings = new GearSettings(this::edit, this::shown);
        this.security = new GearSecurity(this::edit, this::shown, secrets, new Certificates());
        desk.model().watch(c -> c.whole().forEach(this::status));
    }

    /** @param out where one goes from here */
    public void ways(GearWays out) {
        ways = out;
    }

    /** @param gear whose address is to be under the hand at once; null for no gear's */
    public void show(Node anchor, @Nullable String gear) {
        desk.overlay().close(); // Its own last one, too.
        VBox box = new VBox(Space.S10);
        content = box;
        by = anchor;
        choosing = desk.bench().board().gear().isEmpty();
        fill();
        ScrollPane scroll = new ScrollPane(box);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("popover-scroll");
        VBox popover = new VBox(scroll);
        popover.setPrefWidth(WIDTH);
        popover.setId("gear");
        // Beside the rack, so that what it says of the gear stays in sight.
        desk.overlay().showAt(popover, RACK_WIDTH + WIDTH / 2, anchor.getScene().getHeight() / 2, () -> {
            content = null;
            statuses.clear();
            standIns.clear();
            traffic.clear();
            lists.fold();
            figures.end();
            security.fold();
            settings.fold();
            anchor.requestFocus();
        });
        focus(gear != null ? "gear-address-" + gear : choosing ? "kind-" + cards().getFirst().id() : "gear-add");
    }

    /** Shows where the secret of a gear is set. */
    public void showSecret(Node anchor, String gear) {
        show(anchor, gear);
        security.unfold(gear);
        shown("gear-secret-" + gear);
        Platform.runLater(() -> { // Once it has found its place.
            if (content != null && content.lookup("#gear-secret-" + gear) instanceof Node field && content.getParent()
                    .getParent().getParent() instanceof ScrollPane scroll) {
                double y = content.sceneToLocal(field.localToScene(0, 0)).getY();
                double room = content.getHeight() - scroll.getViewportBounds().getHeight();
                scroll.setVvalue(
                        room <= 0 ? 0 : Math.clamp((y - scroll.getViewportBounds().getHeight() / 2) / room, 0, 1));
            }
        });
    }

    private void focus(String id) {
        VBox box = content;
        if (box != null && box.lookup("#" + id) instanceof Node field) {
            field.requestFocus();
        }
    }

    private void fill() {
        VBox box = content;
        if (box == null) {
            return;
        }
        statuses.clear();
        standIns.clear();
        traffic.clear();
        Board board = desk.bench().board();
        boolean none = board.gear().isEmpty();
        Button add = Fields.plain("Add gear…", "");
        add.setId("gear-add");
        add.setMinWidth(Region.USE_PREF_SIZE);
        add.setVisible(!none && !choosing);
        add.setOnAction(_ -> {
            choosing = true;
            shown("kind-" + cards().getFirst().id());
        });
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        box.getChildren().setAll(row(Styles.label(none ? "What should this board control?" : "Gear on this board",
                "gear-name"), space, add));
        if (choosing) {
            box.getChildren().add(new Kinds(cards(), this::add, () -> ways.found(), () -> ways.add()));
        }
        board.gear().forEach(g -> box.getChildren().add(gear(g)));
        if (!none && board.pages().stream().allMatch(p -> p.buttons().isEmpty())) {
            box.getChildren().add(new FirstPages(desk, known, () -> {
                desk.overlay().close();
                first.run();
            }));
        }
        box.getChildren().addAll(Fields.read("A card describes a kind of gear: its commands and readings."),
                Fields.read("Custom cards go into the folder “cards” next to the board."));
        desk.overlay().requestLayout();
    }

    /** What can be added. */
    private List<Card> cards() {
        return desk.bench().rig().cards().values().stream().filter(c -> !c.protocols().isEmpty()).toList();
    }

    private void add(Card card) {
        choosing = false;
        edit("add " + card.title(), b -> GearEdits.add(b, card, card.protocols().iterator().next()));
        focus("gear-address-" + desk.bench().board().gear().getLast().id());
    }

    /** Fills anew and puts the hand on a field. */
    private void shown(String field) {
        fill();
        focus(field);
    }

    private void edit(String name, UnaryOperator<Board> change) {
        VBox box = content;
        Node focused = box == null || box.getScene() == null ? null : box.getScene().getFocusOwner();
        String id = focused == null ? null : focused.getId();
        desk.bench().edit(name, change);
        fill();
        if (id != null) {
            focus(id);
        }
    }

    private void status(String gear) {
        Label label = statuses.get(gear);
        if (label != null) {
            Status s = desk.model().state().status(gear);
            label.setText(s.words() + (s.hint().isBlank() ? "" : ". " + s.hint()));
            Styles.set(label, "label", "read", s.well() ? "quiet" : "trouble");
            Button packets = traffic.get(gear);
            if (packets != null) {
                packets.setText(s.ignored() > 0 ? s.ignored() + " ignored…" : "Traffic…");
            }
            Button standIn = standIns.get(gear);
            if (standIn != null) {
                standIn.setVisible(!s.well());
            }
        }
    }

    private static Button way(String id, String words, String about, Runnable go) {
        Button way = Fields.plain(words, "");
        way.setId(id);
        way.setTooltip(new Tooltip(about));
        way.setMinWidth(Region.USE_PREF_SIZE);
        way.setOnAction(_ -> go.run());
        return way;
    }

    /** The ways to why it cannot be worked, to its card, and to what goes to and fro. */
    private Node[] ways(Gear g, Node before) {
        Button packets = way("gear-traffic-" + g.id(), "Traffic…",
                "Packets sent and received, with results", () -> ways.traffic(g.id(), desk.model()
                        .state().status(g.id()).ignored() > 0));
        traffic.put(g.id(), packets);
        return new Node[]{before, way("gear-why-" + g.id(), "Test connection",
                "Tests address, name lookup, port, TLS, login, response and readings", () -> ways.why(g.id())),
                way("gear-card-" + g.id(),
                        "Card…", "Its commands and readings: listen, try, edit", () -> ways
                                .card(g.id())),
                packets};
    }

    /** The way to simulated gear where there is such of its kind. */
    private Node standIn(Gear g) {
        Button use = Fields.plain("Use a stand-in", "");
        use.setId("gear-stand-in-" + g.id());
        use.setTooltip(new Tooltip("Simulated gear on this computer, until Rombix closes"));
        use.setMinWidth(Region.USE_PREF_SIZE);
        use.setOnAction(_ -> {
            use.setText("Starting…");
            use.setDisable(true);
            Thread.startVirtualThread(() -> started(g, use));
        });
        standIns.put(g.id(), use);
        return use;
    }

    private void started(Gear g, Button use) {
        try {
            String address = practice.standIn(g.card());
            Platform.runLater(() -> edit("use a stand-in for “" + g.name() + "”", b -> GearEdits.reached(b, g.id(), g
                    .link().protocol(), address)));
        } catch (IOException e) {
            Platform.runLater(() -> use.setText("Can't start the stand-in: " + e.getMessage()));
        }
    }

    private Node gear(Gear g) {
        Card card = desk.bench().rig().cards().get(g.card());
        TextField name = Fields.text("gear-name-" + g.id(), g.name(), text -> {
            if (!text.isBlank()) {
                edit("name “" + text.strip() + "”", b -> GearEdits.change(b, g.id(), x -> x.withName(text.strip())));
            }
        });
        name.setPrefWidth(NAME_WIDTH);
        name.setAccessibleText("Name of " + g.name());
        Button gone = Fields.plain("×", "");
        gone.setId("gear-gone-" + g.id());
        gone.setAccessibleText("Delete " + g.name());
        gone.setOnAction(_ -> delete(g));
        Label status = Styles.label("", "read");
        status.setWrapText(true);
        status.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(status, Priority.ALWAYS);
        VBox well = new VBox(status, figures.of(g.id()));
        HBox.setHgrow(well, Priority.ALWAYS);
        HBox state = row(ways(g, well));
        if (practice.has(g.card())) {
            Node standIn = standIn(g);
            standIn.managedProperty().bind(standIn.visibleProperty());
            state.getChildren().add(1, standIn);
        }
        statuses.put(g.id(), status);
        status(g.id());
        Node address = GearAddress.of(g, findings, this::edit);
        HBox.setHgrow(address, Priority.ALWAYS);
        VBox box = new VBox(Space.S4, row(name, kind(g, card), address, gone), state);
        if (card != null && PatchEdits.patched(card)) {
            box.getChildren().add(patched(g));
        }
        if (card != null && !card.lists().isEmpty() && (!PatchEdits.patched(card) || !g.lists().isEmpty())) {
            lists.show(g, card, box);
        }
        security.show(g, box);
        settings.show(g, desk.bench().rig().twin(g.id()).orElse(null), box);
        box.getStyleClass().add("gear-part");
        return box;
    }

    /** The way to its fixtures. */
    private Node patched(Gear g) {
        int all = g.patch().size();
        Button open = way("gear-patch-" + g.id(), "Patch: " + Figures.count(all, "fixture") + "…",
                "Universe and slot of each fixture", () -> ways.patch(g.id()));
        HBox row = row(open);
        return row;
    }

    /** Of what card it is, and how it is reached. */
    private Node kind(Gear g, @Nullable Card card) {
        Label title = Styles.label(card == null ? g.card() : card.title(), "field-name");
        VBox kind = new VBox(Space.S1, title, protocol(g, card));
        kind.setMinWidth(KIND_WIDTH);
        kind.setPrefWidth(KIND_WIDTH);
        kind.setMaxWidth(KIND_WIDTH);
        return kind;
    }

    private Node protocol(Gear g, @Nullable Card card) {
        List<Protocol> all = card == null ? List.of() : List.copyOf(card.protocols());
        if (all.size() < 2) {
            return Styles.label(g.link().protocol().title(), "read");
        }
        var choice = Fields.choice("gear-protocol-" + g.id(), all, g.link().protocol(), Protocol::title,
                to -> edit("reach “" + g.name() + "” over " + to.title(), b -> GearEdits.reached(b, g.id(), to, to
                        .descriptor().presetAddress())));
        choice.setAccessibleText("How " + g.name() + " is reached");
        return choice;
    }

    private void delete(Gear g) {
        Node anchor = by;
        if (anchor != null) {
            desk.overlay().close();
            Confirm.ask(desk, anchor, "Delete the gear “" + g.name() + "”?", GearEdits.uses(desk.bench().board(), g
                    .id()), "Delete",
                    () -> desk.bench().edit("delete “" + g.name() + "”", b -> GearEdits.without(b, g
                            .id())));
        }
    }

    private static HBox row(Node... nodes) {
        HBox row = new HBox(Space.S8, nodes);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }
}
