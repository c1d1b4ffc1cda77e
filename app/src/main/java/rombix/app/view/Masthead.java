package rombix.app.view;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.Workbench.Mode;
import rombix.core.board.Page;
import rombix.core.card.Card.Tone;
import rombix.core.card.Card.Word;
import rombix.core.card.Twin;
import rombix.core.engine.Event;
import rombix.core.value.Kind;
import rombix.core.value.Value;

/** The strip along the top: the board, its pages, the lamps that are always in sight, the mode, stop all. */
final class Masthead extends HBox {
    private final Desk desk;
    private final Button name = new Button();
    private final HBox pages = new HBox(2);
    private final LampRow lamps = new LampRow();
    private final HBox modes = new HBox();
    private final MenuButton morePages = new MenuButton("Pages");
    private final Button stopAll = new Button("STOP ALL");
    private List<Page> shownPages = List.of();

    Masthead(Desk desk, Runnable open) {
        this.desk = desk;
        getStyleClass().add("masthead");
        name.getStyleClass().add("board-name");
        name.setTooltip(new Tooltip("Open another board · Ctrl+O"));
        name.setOnAction(_ -> open.run());
        modes.setAlignment(javafx.geometry.Pos.CENTER);
        for (Mode mode : Mode.values()) {
            ToggleButton b = new ToggleButton(switch (mode) {
                case BUILD -> "Build";
                case REHEARSE -> "Rehearse";
                case LIVE -> "Live";
            });
            b.setId("mode-" + mode.name().toLowerCase(java.util.Locale.ROOT));
            b.getStyleClass().add("mode");
            b.setUserData(mode);
            b.setOnAction(_ -> desk.bench().mode(mode));
            b.setTooltip(new Tooltip(switch (mode) {
                case BUILD -> "Edit the board · F5";
                case REHEARSE -> "Press on twins: nothing leaves this machine · F7";
                case LIVE -> "Press for real, nothing can be edited · F6";
            }));
            modes.getChildren().add(b);
        }
        stopAll.getStyleClass().add("stop-all");
        stopAll.setId("stop-all");
        stopAll.setTooltip(new Tooltip("Stop every chain that runs · Ctrl+."));
        stopAll.setOnAction(_ -> desk.post().accept(new Event.StopAll()));
        HBox.setHgrow(lamps, Priority.ALWAYS);
        pages.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
        name.setMinWidth(Region.USE_PREF_SIZE);
        modes.setMinWidth(Region.USE_PREF_SIZE);
        stopAll.setMinWidth(Region.USE_PREF_SIZE);
        pages.setMinWidth(Region.USE_PREF_SIZE);
        getChildren().addAll(Shapes.rhombus(20, "mark"), name, pages, morePages, lamps, modes, stopAll);
        morePages.getStyleClass().add("quiet-choice");
        morePages.setId("pages-menu");
        morePages.setMinWidth(Region.USE_PREF_SIZE);
        morePages.setAccessibleText("Add, name, size, move, double or delete pages");
        morePages.setOnShowing(_ -> new PagesMenu(desk).fill(morePages));
        morePages.getItems().add(new javafx.scene.control.MenuItem());
        desk.bench().watch(this::rebuild);
        desk.model().watch(c -> {
            if (!c.gear().isEmpty()) {
                lamps();
            }
        });
        rebuild();
    }

    private void rebuild() {
        name.setText(desk.bench().board().name() + (desk.bench().unsaved() ? " •" : ""));
        name.setAccessibleText("Board " + desk.bench().board().name()
                + (desk.bench().unsaved() ? ", has changes that are not saved" : "") + ". Open another");
        List<Page> now = desk.bench().board().pages();
        if (!now.equals(shownPages)) {
            shownPages = now;
            pages.getChildren().clear();
            for (Page page : now) {
                ToggleButton tab = new ToggleButton(page.name());
                tab.getStyleClass().add("page-tab");
                tab.setId("page-" + page.id());
                tab.setUserData(page.id());
                tab.setOnAction(_ -> desk.bench().showPage(page.id()));
                pages.getChildren().add(tab);
            }
        }
        for (Node n : pages.getChildren()) {
            ((ToggleButton) n).setSelected(desk.bench().page().id().equals(n.getUserData()));
        }
        for (Node n : modes.getChildren()) {
            ((ToggleButton) n).setSelected(n.getUserData() == desk.bench().mode());
        }
        morePages.setVisible(desk.building());
        morePages.setManaged(desk.building());
        stopAll.setVisible(desk.building());
        stopAll.setManaged(desk.building());
        lamps();
    }

    private void lamps() {
        lamps.setVisible(desk.building());
        lamps.getChildren().setAll(desk.building() ? lamps(desk) : List.of());
    }

    /** The lamps that the gear's cards want always in sight. */
    static List<Label> lamps(Desk desk) {
        List<Label> all = new ArrayList<>();
        for (Twin twin : desk.bench().rig().twins().values()) {
            for (Twin.Known known : twin.readings(desk.model().readings(twin.gear()))) {
                if (known.spec().lamp() && known.spec().type() == Kind.FLAG && !excluded(desk, twin, known)) {
                    Label lamp = lamp(desk, twin, known);
                    if (lamp != null) {
                        all.add(lamp);
                    }
                }
            }
        }
        return all;
    }

    private static boolean excluded(Desk desk, Twin twin, Twin.Known known) {
        return known.spec().id().match(known.id()).filter(places -> !places.isEmpty()).map(places -> {
            String list = places.keySet().iterator().next();
            var items = twin.items(list, desk.model().readings(twin.gear()));
            return items.stream().anyMatch(i -> i.fields().containsKey("lamp")) && items.stream()
                    .noneMatch(i -> i.id().equals(places.get(list)) && Boolean.TRUE.equals(i.fields().get("lamp")));
        }).orElse(false);
    }

    private static @Nullable Label lamp(Desk desk, Twin twin, Twin.Known known) {
        Value value = desk.model().reading(twin.gear(), known.id());
        Word word = value == null ? null : value.asFlag() ? known.spec().yes() : known.spec().no();
        if (word == null || value == null) {
            return null;
        }
        boolean family = !known.spec().id().places().isEmpty();
        long seconds = desk.model().secondsSince(twin.gear(), known.id());
        String text = family ? known.title().toUpperCase(java.util.Locale.ROOT) + " " + word.word() : word.word();
        boolean air = !family && word.tone() == Tone.AIR;
        Label lamp = new Label(air ? text + " " + Shapes.clock(seconds, true) : text);
        lamp.getStyleClass().add("lamp");
        lamp.setMinWidth(Region.USE_PREF_SIZE);
        if (air) {
            lamp.getStyleClass().add("air");
        } else if (word.tone() == Tone.READY) {
            lamp.getStyleClass().add("ready");
        }
        return lamp;
    }

    /** Counts the time on air on. */
    void tick() {
        lamps();
    }
}
