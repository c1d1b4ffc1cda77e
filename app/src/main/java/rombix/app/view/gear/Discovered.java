package rombix.app.view.gear;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.animation.PauseTransition;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.Duration;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.CardEdits;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.board.Gear;
import rombix.core.card.Card;
import rombix.core.found.Fitting;
import rombix.core.found.FoundGear;
import rombix.core.found.FoundGear.How;
import rombix.core.found.Proposal;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.twin.Figures;

/** Gear that announces itself, to be added with its card and address. The interface's thread's. */
@OwnedBy(Owner.INTERFACE)
final class Discovered {
    private static final double HEIGHT = 170;
    private static final double WHERE_WIDTH = 190;
    private static final double CARD_WIDTH = 180;
    private static final double ADD_WIDTH = 110;
    private static final int SHOWN_TOPICS = 3;
    /** What comes within so long is shown at once. */
    private static final Duration GATHERED = Duration.millis(150);

    private final Desk desk;
    private final Discovery discovery;
    private final CardEdits edits;
    private final GearWays ways;
    private final VBox rows = new VBox();
    private final Label count = Styles.label("", "read", "quiet");
    private final PauseTransition gathered = new PauseTransition(GATHERED);
    /** The cards that were chosen by hand, by the proposals' keys; empty for one of the gear's own. */
    private final Map<String, Optional<Card>> chosen = new HashMap<>();
    private final Runnable watcher = gathered::playFromStart;
    private boolean open;

    Discovered(Desk desk, Discovery discovery, GearWays ways) {
        this.desk = desk;
        this.discovery = discovery;
        this.ways = ways;
        this.edits = new CardEdits(desk.bench());
        gathered.setOnFinished(_ -> fill());
        desk.bench().watchWhile(this::fill, () -> true);
    }

    /** Looks for gear until {@link #end}, and shows what was found. */
    List<Node> begin() {
        end();
        open = true;
        Button again = Fields.plain("Look again", "");
        again.setId("found-again");
        again.setOnAction(_ -> discovery.again());
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        Label title = Styles.label("Discovered", "gear-name");
        title.setTooltip(new Tooltip("Gear that announces itself: DNS-SD, SSDP, Art-Net, ports of this computer, and"
                + " retained topics on brokers. Nothing else is scanned."));
        HBox head = new HBox(Space.S10, title, count, space, again);
        head.setAlignment(Pos.CENTER_LEFT);
        rows.setId("discovered");
        ScrollPane scroll = new ScrollPane(rows);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.setMinHeight(HEIGHT); // However much is found: what is below stays under the pointer.
        scroll.setPrefHeight(HEIGHT);
        scroll.setMaxHeight(HEIGHT);
        scroll.getStyleClass().add("popover-scroll");
        fill();
        discovery.begin(watcher);
        return List.of(head, scroll);
    }

    void end() {
        if (open) {
            open = false;
            discovery.end(watcher);
        }
    }

    private void fill() {
        if (!open) {
            return;
        }
        List<Card> cards = List.copyOf(desk.bench().rig().cards().values());
        List<Proposal> all = discovery.all().stream().flatMap(g -> Fitting.proposals(g, cards).stream()).sorted(
                Comparator.comparing((Proposal p) -> known(p) != null).thenComparing(p -> p.found().how())
                        .thenComparing(Proposal::name))
                .toList();
        Node hand = rows.getScene() == null ? null : rows.getScene().getFocusOwner();
        String under = hand == null ? null : hand.getId();
        rows.getChildren().setAll(all.stream().map(this::row).toList());
        long known = all.stream().filter(p -> known(p) != null).count();
        count.setText(all.isEmpty()
                ? "Looking for gear that announces itself…"
                : all.size() + " so far" + (known == 0 ? "" : ", " + known + " on this board"));
        if (under != null && under.startsWith("found-") && rows.lookup("#" + under) instanceof Node field) {
            field.requestFocus(); // The hand stays where it was.
        }
    }

    private @Nullable String known(Proposal proposal) {
        return proposal.among(desk.bench().board().gear()).map(Gear::name).orElse(null);
    }

    private static String id(Proposal proposal) {
        return proposal.key().replaceAll("[^A-Za-z0-9]+", "-");
    }

    private Node row(Proposal p) {
        FoundGear gear = p.found();
        VBox what = column(Styles.label(p.name(), "gear-name"), Styles.label(about(p), "quiet"));
        VBox where = new VBox(Styles.label(gear.address(), "read"), Styles.label(gear.protocol().title() + (gear.tls()
                ? ", over TLS"
                : ""), "quiet"));
        Fields.wide(where, WHERE_WIDTH);
        String known = known(p);
        HBox row = new HBox(Space.S10, what, where);
        row.setAlignment(Pos.CENTER_LEFT);
        row.getStyleClass().add("here-row");
        if (known != null) {
            Label there = Styles.label("on this board as “" + known + "”", "read", "quiet");
            Fields.wide(there, CARD_WIDTH + ADD_WIDTH + Space.S10);
            row.getChildren().add(there);
        } else {
            Button add = add(p);
            HBox at = new HBox(add);
            at.setAlignment(Pos.CENTER_RIGHT);
            row.getChildren().addAll(card(p, () -> named(add, p)), Fields.wide(at, ADD_WIDTH));
        }
        return row;
    }

    private static String about(Proposal p) {
        if (!p.topics().isEmpty()) {
            String some = String.join(", ", p.topics().subList(0, Math.min(SHOWN_TOPICS, p.topics().size())));
            return Figures.count(p.topics().size(), "topic") + ": " + some + (p.topics()
                    .size() > SHOWN_TOPICS ? ", …" : "");
        }
        String how = p.found().how() == How.PORT ? "" : p.found().how().words();
        String about = p.found().about();
        return how.isEmpty() || about.isEmpty() ? how + about : how + ": " + about;
    }

    private Optional<Card> now(Proposal p) {
        Optional<Card> hand = chosen.get(p.key());
        if (hand != null) {
            return hand;
        }
        return p.fits() != null || CardEdits.ownable(p.found().protocol())
                ? Optional.ofNullable(p.fits())
                : p.cards().stream().findFirst();
    }

    /** The card that describes it; one of its own, which begins empty, as well. */
    private Node card(Proposal p, Runnable changed) {
        List<Optional<Card>> all = new ArrayList<>(p.cards().stream().map(Optional::of).toList());
        if (CardEdits.ownable(p.found().protocol())) {
            all.add(Optional.empty());
        }
        var choice = Fields.choice("found-card-" + id(p), all, now(p), c -> c.map(Card::title).orElse(
                "none yet: made by listening"), c -> {
                    chosen.put(p.key(), c);
                    changed.run();
                });
        choice.setAccessibleText("Card for " + p.name());
        Fields.wide(choice, CARD_WIDTH);
        return choice;
    }

    private Button add(Proposal p) {
        Button add = Fields.plain("", "");
        add.setId("found-add-" + id(p));
        add.setTooltip(new Tooltip("Adds it to this board with its card and address"));
        add.setOnAction(_ -> now(p).ifPresentOrElse(card -> edits.add(p, card), () -> ways.card(edits.addOwn(p))));
        add.setMinWidth(Region.USE_PREF_SIZE);
        named(add, p);
        return add;
    }

    /** What is done: a card that is still empty wants to be listened to. */
    private void named(Button add, Proposal p) {
        add.setText(now(p).isPresent() ? "Add" : "Add, listen…");
        add.setAccessibleText(add.getText() + ": " + p.name());
    }

    private static VBox column(Node... lines) {
        VBox what = new VBox(lines);
        what.setMinWidth(0);
        HBox.setHgrow(what, Priority.ALWAYS);
        return what;
    }
}
