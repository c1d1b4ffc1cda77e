package rombix.app.view.gear;

import java.util.List;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.VBox;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.card.Card;
import rombix.core.edit.GearEdits;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;

/** All ways to add gear in one place: what was discovered, the kinds that there are cards for, and custom gear. */
@OwnedBy(Owner.INTERFACE)
public final class AddGear {
    private final Desk desk;
    private final Discovered discovered;
    private final GearWays ways;
    private final VBox box = new VBox(Space.S12);
    private final ScrollPane scroll = new ScrollPane(box);
    private Consumer<String> added = _ -> {
    };

    public AddGear(Desk desk, Discovery discovery, GearWays ways) {
        this.desk = desk;
        this.ways = ways;
        this.discovered = new Discovered(desk, discovery, ways);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("popover-scroll");
    }

    /** @param then told of the id of gear that was added as one of the kinds */
    void whenAdded(Consumer<String> then) {
        added = then;
    }

    /** Shows it, and looks for gear until {@link #end}. */
    Node begin() {
        boolean none = desk.bench().board().gear().isEmpty();
        box.getChildren().setAll(Styles.label(none ? "What should this board control?" : "Add gear", "sheet-title"));
        box.getChildren().addAll(discovered.begin());
        box.getChildren().addAll(Styles.label("Kinds", "gear-name"), new Kinds(cards(), this::add, ways::add), Fields
                .read("Custom cards go into the folder “cards” next to the board."));
        scroll.setVvalue(0);
        return scroll;
    }

    void end() {
        discovered.end();
    }

    void focusFirst() {
        if (box.lookup("#kind-" + cards().getFirst().id()) instanceof Node kind) {
            kind.requestFocus();
        }
    }

    private List<Card> cards() {
        return desk.bench().rig().cards().values().stream().filter(c -> !c.protocols().isEmpty()).toList();
    }

    private void add(Card card) {
        desk.bench().edit("add " + card.title(), b -> GearEdits.add(b, card, card.protocols().iterator().next()));
        added.accept(desk.bench().board().gear().getLast().id());
    }
}
