package rombix.app.view.gear;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import rombix.app.edit.Starters;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.board.Board;
import rombix.core.event.Known;

/** How a board without a button goes on from its gear: with pages made from it, or with a first button. */
final class FirstPages extends VBox {
    private final Desk desk;
    private final Supplier<Known> known;
    private final Label flaw = Styles.label("", "read", "trouble");
    private final Map<Starters, CheckBox> wanted = new LinkedHashMap<>();

    /** @param first begins with a button on the empty page */
    FirstPages(Desk desk, Supplier<Known> known, Runnable first) {
        super(Space.S8);
        this.desk = desk;
        this.known = known;
        FlowPane pages = new FlowPane(Space.S16, Space.S6);
        for (Starters s : Starters.values()) {
            CheckBox box = Fields.check("first-page-" + s.name().toLowerCase(java.util.Locale.ROOT), s.title(), true,
                    _ -> {
                    });
            wanted.put(s, box);
            pages.getChildren().add(box);
        }
        Button make = Fields.plain("Make these pages", "");
        make.setId("first-pages");
        make.setOnAction(_ -> make());
        Button empty = Fields.plain("Start with an empty page", "");
        empty.setId("first-button");
        empty.setOnAction(_ -> first.run());
        flaw.setWrapText(true);
        flaw.managedProperty().bind(flaw.textProperty().isNotEmpty());
        getStyleClass().add("gear-part");
        getChildren().addAll(Styles.label("Pages made from this gear", "gear-name"), pages, flaw,
                new HBox(Space.S8, make, empty));
    }

    private void make() {
        List<Starters> chosen = wanted.entrySet().stream().filter(e -> e.getValue().isSelected()).map(Map.Entry::getKey)
                .toList();
        Board made = Starters.pages(desk.bench().rig(), known.get(), chosen);
        if (made == desk.bench().board()) {
            flaw.setText(chosen.isEmpty()
                    ? "Choose a page, or start with an empty one."
                    : "No pages can be made yet, as this gear hasn't reported anything. Connect it, use a stand-in, or start with an empty page.");
            desk.overlay().requestLayout();
            return;
        }
        desk.overlay().close();
        desk.bench().edit("make pages from the gear", _ -> made);
        desk.bench().showPage(made.pages().getFirst().id());
    }
}
