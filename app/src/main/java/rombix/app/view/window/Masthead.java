package rombix.app.view.window;

import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import rombix.app.view.common.Desk;
import rombix.app.view.common.IndicatorRow;
import rombix.app.view.common.Shapes;
import rombix.app.view.form.Fields;
import rombix.app.view.page.PageTabs;
import rombix.app.view.page.PageTrail;
import rombix.app.view.page.PagesPopover;
import rombix.app.view.sheet.BoardsPopover;
import rombix.app.view.sheet.PartsPopover;
import rombix.core.board.Page;
import rombix.core.event.Known;
import rombix.core.event.Mode;
import rombix.running.face.OnAir;

/** The strip along the top: the board, its pages, the lamps that are always in sight, the mode, stop all. */
final class Masthead extends HBox {
    private final Desk desk;
    private final Button name = new Button();
    private final PageTabs pages;
    private final OnAir onAir;
    private final IndicatorRow lamps = new IndicatorRow(false);
    private final HBox modes = new HBox();
    private static final Set<String> MORE = Set.of("Ctrl+P", "Ctrl+Shift+P", "Ctrl+T", "Ctrl+Shift+T", "Ctrl+L", "F11",
            "F1");
    private final PageTrail trail;
    private final Button back = new Button();
    private final MenuButton more = new MenuButton("More");
    private final Button allPages = Fields.plain("Pages…", "Alt+P");
    private final Button stopAll = new Button("STOP ALL");
    private final BoardsPopover boards;
    private final PagesPopover pagesPopover;
    private Consumer<Mode> chosen = _ -> {
    };

    Masthead(Desk desk, BoardsPopover boards, Supplier<Known> known, PageTrail trail,
            Commands commands) {
        this.desk = desk;
        this.onAir = new OnAir(desk.bench()::rig, desk.model()::state, desk.model()::now);
        this.pages = new PageTabs(desk.bench()::showPage);
        this.trail = trail;
        this.boards = boards;
        this.pagesPopover = new PagesPopover(desk, known);
        getStyleClass().add("masthead");
        name.getStyleClass().add("board-name");
        name.setTooltip(new Tooltip("Boards: open, new, save as · Ctrl+N"));
        name.setId("board-name");
        name.setOnAction(_ -> boards());
        modes.setAlignment(javafx.geometry.Pos.CENTER);
        for (Mode to : Mode.values()) {
            ToggleButton b = new ToggleButton(switch (to) {
                case BUILD -> "Build";
                case REHEARSE -> "Rehearse";
                case LIVE -> "Live";
            });
            b.setId("mode-" + to.name().toLowerCase(java.util.Locale.ROOT));
            b.getStyleClass().add("mode");
            b.setUserData(to);
            b.setOnAction(_ -> {
                b.setSelected(desk.bench().mode() == to);
                chosen.accept(to);
            });
            b.setTooltip(new Tooltip(switch (to) {
                case BUILD -> "Edit the board · F5";
                case REHEARSE -> "Press on twins: nothing is sent to the gear · F7";
                case LIVE -> "Run the show; editing is locked · F6";
            }));
            modes.getChildren().add(b);
        }
        stopAll.getStyleClass().add("stop-all");
        stopAll.setId("stop-all");
        stopAll.setTooltip(new Tooltip("Stop all chains · Ctrl+."));
        stopAll.setOnAction(_ -> desk.port().stopAll());
        HBox.setHgrow(lamps, Priority.ALWAYS);
        name.setMinWidth(Region.USE_PREF_SIZE);
        modes.setMinWidth(Region.USE_PREF_SIZE);
        stopAll.setMinWidth(Region.USE_PREF_SIZE);
        back.setId("page-back");
        back.getStyleClass().add("page-back");
        back.setMinWidth(Region.USE_PREF_SIZE);
        back.setOnAction(_ -> trail.back());
        more.setId("live-more");
        more.getStyleClass().add("quiet-choice");
        more.setMinWidth(78);
        more.setAccessibleText("Small window, triggers, log, full screen");
        more.setOnShowing(_ -> more.getItems().setAll(commands.possible().stream().filter(c -> MORE.contains(c
                .keys().getFirst())).map(c -> {
                    MenuItem item = new MenuItem(c.words().get() + "   " + c.key());
                    item.setOnAction(_ -> c.run().run());
                    return item;
                }).toList()));
        more.getItems().add(new MenuItem());
        getChildren().addAll(Shapes.rhombus(20, "mark"), name, pages, back, allPages, lamps, more, modes, stopAll);
        allPages.setId("pages-menu");
        allPages.setMinWidth(Region.USE_PREF_SIZE);
        allPages.setAccessibleText("All pages: add, rename, resize, move, duplicate or delete");
        allPages.setOnAction(_ -> pages());
        desk.bench().watch(this::rebuild);
        desk.model().watch(c -> {
            if (desk.building() && onAir.concerns(!c.whole().isEmpty(), c.readings())) {
                lamps();
            }
        });
        rebuild();
    }

    /** What goes to a mode that was chosen. */
    void whenModeChosen(Consumer<Mode> next) {
        chosen = next;
    }

    /** Shows the boards beside this one, and ways to a new one. */
    void boards() {
        boards.show(name);
    }

    void saveAs() {
        boards.show(name);
        if (desk.overlay().lookup("#board-as-name") instanceof javafx.scene.control.TextField as) {
            as.requestFocus();
            as.selectAll();
        }
    }

    /** Shows the values and chains of the board. */
    void parts() {
        new PartsPopover(desk).show(name);
    }

    /** Opens what can be done with pages. */
    void pages() {
        pagesPopover.show(allPages);
    }

    private void rebuild() {
        name.setText(desk.bench().board().name() + (desk.bench().unsaved() ? " •" : ""));
        name.setAccessibleText("Board " + desk.bench().board().name()
                + (desk.bench().unsaved() ? ", unsaved changes" : "") + ". Boards");
        pages.show(desk.bench().inTabs(), desk.bench().page().id(), !desk.building());
        for (Node n : modes.getChildren()) {
            ((ToggleButton) n).setSelected(n.getUserData() == desk.bench().mode());
        }
        String previous = desk.building() ? null : trail.previous();
        back.setText(previous == null ? "" : "← " + desk.bench().rig().page(previous).map(Page::name).orElse(""));
        back.setAccessibleText("Back to the page " + back.getText());
        back.setVisible(previous != null);
        back.setManaged(previous != null);
        more.setVisible(!desk.building());
        more.setManaged(!desk.building());
        allPages.setVisible(desk.building());
        allPages.setManaged(desk.building());
        stopAll.setVisible(desk.building());
        stopAll.setManaged(desk.building());
        lamps();
    }

    private void lamps() {
        lamps.setVisible(desk.building());
        lamps.show(desk.building() ? onAir.indicators() : List.of());
    }

    /** Counts the time on air on. */
    void tick() {
        lamps();
    }
}
