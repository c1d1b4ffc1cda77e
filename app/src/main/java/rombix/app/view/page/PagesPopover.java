package rombix.app.view.page;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.Supplier;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.Starters;
import rombix.app.edit.UsageWords;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Drag;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Confirm;
import rombix.app.view.form.Fields;
import rombix.app.view.step.ConditionField;
import rombix.core.board.Board;
import rombix.core.board.Face;
import rombix.core.board.Page;
import rombix.core.edit.Edits;
import rombix.core.event.Known;

/**
 * All pages of the board in a list, each with its size and shortcut: shown, moved by dragging or Alt+Up and Alt+Down,
 * and edited by the menu at its end. Interface thread.
 */
public final class PagesPopover {
    private static final double WIDTH = 380;
    private static final double KEY_WIDTH = 60;
    private static final double SIZE_WIDTH = 50;

    /** So many pages have a key: Alt with a digit. */
    public static final int KEYED = 9;

    private final Desk desk;
    private final Supplier<Known> known;
    private final VBox rows = new VBox(Space.S1);
    private boolean open;
    /** How many places the row under the hand is dragged. */
    private int dragged;

    public PagesPopover(Desk desk, Supplier<Known> known) {
        this.desk = desk;
        this.known = known;
        rows.setId("pages-list");
        desk.bench().watch(() -> {
            if (open) {
                fill();
            }
        });
    }

    public void show(Node by) {
        Button add = Fields.plain("Add page", "");
        add.setId("page-add");
        add.setOnAction(_ -> {
            desk.bench().edit("add a page", b -> Edits.addPage(b, "Page " + (b.pages().size() + 1)));
            desk.bench().showPage(desk.bench().board().pages().getLast().id());
            sheet(by);
        });
        MenuButton starters = new MenuButton("Add starter page");
        starters.setId("page-starters");
        starters.getStyleClass().add("quiet-choice");
        for (Starters s : Starters.values()) {
            starters.getItems().add(item("starter-" + s.name().toLowerCase(Locale.ROOT), s.title(), () -> add(s)));
        }
        VBox box = new VBox(Space.S8, Styles.label("Pages", "sheet-title"), rows, new HBox(Space.S8, add, starters));
        box.setId("pages-popover");
        box.setPrefWidth(WIDTH);
        open = true;
        desk.overlay().show(box, by, () -> {
            open = false;
            by.requestFocus();
        });
        fill();
        focus(desk.bench().page().id());
    }

    private void fill() {
        Node hand = rows.getScene() == null ? null : rows.getScene().getFocusOwner();
        String under = hand == null ? null : hand.getId();
        List<Page> pages = desk.bench().board().pages();
        rows.getChildren().clear();
        for (int i = 0; i < pages.size(); i++) {
            rows.getChildren().add(row(pages.get(i), i));
        }
        if (under != null && rows.lookup("#" + under) instanceof Node again) {
            again.requestFocus();
        }
    }

    private void focus(String page) {
        if (rows.lookup("#page-row-" + page) instanceof Node row) {
            row.requestFocus();
        }
    }

    private Node row(Page page, int index) {
        boolean shown = page.id().equals(desk.bench().page().id());
        Label name = Styles.label(page.name(), shown ? "gear-name" : "field-words");
        name.setMinWidth(0);
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        Label size = Styles.label(page.columns() + "×" + page.rows(), "quiet");
        Label key = Styles.label(index < KEYED ? "Alt+" + (index + 1) : "", "where");
        HBox words = new HBox(Space.S8, name, space, Styles.label(page.hidden() ? "hidden in Live" : "", "quiet"),
                Fields
                        .wide(size, SIZE_WIDTH),
                Fields.wide(key, KEY_WIDTH));
        words.setAlignment(Pos.CENTER_LEFT);
        Button go = new Button();
        go.setGraphic(words);
        go.setId("page-row-" + page.id());
        go.getStyleClass().setAll("button", "choice");
        go.setAccessibleText(page.name() + (shown ? ", shown" : "") + (page.hidden() ? ", hidden in Live" : ""));
        go.setMaxWidth(Double.MAX_VALUE);
        go.setOnAction(_ -> desk.bench().showPage(page.id()));
        go.setOnKeyPressed(e -> {
            int by = e.getCode() == KeyCode.UP ? -1 : e.getCode() == KeyCode.DOWN ? 1 : 0;
            if (by != 0 && e.isAltDown()) {
                move(page, by);
                e.consume();
            } else if (e.getCode() == KeyCode.ENTER) {
                go.fire();
                e.consume();
            }
        });
        words.prefWidthProperty().bind(go.widthProperty().subtract(Space.S22));
        HBox.setHgrow(go, Priority.ALWAYS);
        draggable(go, page);
        MenuButton more = new MenuButton("Edit");
        more.setId("page-menu-" + page.id());
        more.getStyleClass().add("quiet-choice");
        more.setAccessibleText("Edit the page " + page.name());
        more.getItems().setAll(items(page, more));
        HBox row = new HBox(Space.S4, go, more);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    /** A row that is dragged past half of another takes its place. */
    private void draggable(Button go, Page page) {
        Drag.on(go, _ -> true, e -> {
            double y = rows.sceneToLocal(e.getSceneX(), e.getSceneY()).getY();
            List<Page> pages = desk.bench().board().pages();
            int now = pages.indexOf(page);
            int to = 0;
            for (Node row : rows.getChildren()) {
                to += y > row.getBoundsInParent().getCenterY() ? 1 : 0;
            }
            dragged = Math.clamp(to - (to > now ? 1 : 0), 0, pages.size() - 1) - now;
            rows.getChildren().forEach(r -> r.setTranslateY(0));
            rows.getChildren().get(now).setTranslateY(y - rows.getChildren().get(now).getLayoutY() - go.getHeight()
                    / 2);
        }, e -> {
            rows.getChildren().forEach(r -> r.setTranslateY(0));
            if (dragged != 0) {
                go.disarm(); // A press that became a drag does not show the page.
                move(page, dragged);
                dragged = 0;
                e.consume();
            }
        });
    }

    private void move(Page page, int by) {
        desk.bench().edit("move the page “" + page.name() + "”", b -> Edits.movePage(b, page.id(), by));
    }

    private List<MenuItem> items(Page page, Node by) {
        String now = "“" + page.name() + "”";
        CheckMenuItem tab = new CheckMenuItem("Show in the tabs in Live");
        tab.setId("page-tab");
        tab.setSelected(!page.hidden());
        tab.setOnAction(_ -> desk.bench().edit("change the tabs", b -> Edits.page(b, page.id(), p -> p.withHidden(!p
                .hidden()))));
        MenuItem delete = item("page-delete", page.buttons().isEmpty() ? "Delete" : "Delete…", () -> delete(page, by));
        delete.setDisable(desk.bench().board().pages().size() < 2);
        return List.of(item("page-edit", "Rename, resize…", () -> {
            desk.bench().showPage(page.id());
            sheet(by);
        }), item("page-follow", "Show automatically…", () -> {
            desk.bench().showPage(page.id());
            follow(by);
        }), tab, item("page-duplicate", "Duplicate", () -> desk.bench().edit("duplicate the page " + now, b -> Edits
                .duplicatePage(b, page.id()))), delete);
    }

    private void add(Starters starter) {
        int before = desk.bench().board().pages().size();
        desk.bench().edit("add the page “" + starter.title() + "”", b -> starter.added(desk.bench().rig().with(b), known
                .get()));
        if (desk.bench().board().pages().size() > before) {
            desk.bench().showPage(desk.bench().board().pages().getLast().id());
        }
    }

    private static MenuItem item(String id, String text, Runnable action) {
        MenuItem item = new MenuItem(text);
        item.setId(id);
        item.setOnAction(_ -> action.run());
        return item;
    }

    /** Name and size; buttons that would fall off are shown before they do. */
    private void sheet(Node by) {
        Page page = desk.bench().page();
        VBox box = new VBox(Space.S10);
        box.setPrefWidth(300);
        box.setId("page-sheet");
        TextField name = Fields.text("page-name", page.name(), text -> desk.bench().edit("name the page “" + text + "”",
                b -> Edits.page(b, page.id(), p -> p.withName(text))));
        Label falls = Fields.read("");
        falls.getStyleClass().add("trouble");
        TextField columns = new TextField(String.valueOf(page.columns()));
        columns.setId("page-columns");
        TextField rows = new TextField(String.valueOf(page.rows()));
        rows.setId("page-rows");
        var resize = Fields.plain("Set the size", "");
        resize.setId("page-resize");
        Runnable look = () -> {
            List<String> gone = Edits.beyond(desk.bench().page(), size(columns, Page.MAX_COLUMNS), size(rows,
                    Page.MAX_ROWS)).stream().map(rombix.core.board.Button::name).toList();
            falls.setText(
                    gone.isEmpty() ? "" : "No longer fit and will be deleted: " + String.join(", ", gone) + ".");
            desk.overlay().requestLayout();
        };
        columns.textProperty().addListener((_, _, _) -> look.run());
        rows.textProperty().addListener((_, _, _) -> look.run());
        resize.setOnAction(_ -> desk.bench().edit("size the page", b -> Edits.resizePage(b, page.id(), size(columns,
                Page.MAX_COLUMNS), size(rows, Page.MAX_ROWS))));
        List<Tint> tints = new ArrayList<>(List.of(new Tint("theme colour", null)));
        for (Face.Fill fill : Face.Fill.values()) {
            tints.add(new Tint(fill.name().toLowerCase(Locale.ROOT), fill));
        }
        box.getChildren().addAll(
                Fields.named("Name", name), Fields.named("Background tint", Fields.choice("page-fill",
                        tints, tints.stream().filter(t -> t.fill() == page.fill()).findFirst().orElse(null),
                        Tint::words, t -> desk
                                .bench()
                                .edit("change the page's tint",
                                        b -> Edits.page(b, page.id(), p -> p.withFill(t.fill()))))),
                new HBox(Space.S8, Fields.named("Columns, 1 to "
                        + Page.MAX_COLUMNS, columns), Fields.named("Rows, 1 to " + Page.MAX_ROWS, rows)),
                falls, resize);
        desk.overlay().show(box, by, () -> {
        });
    }

    /** What a page follows: while it is so, the page is shown in Live and in Rehearse. */
    private void follow(Node by) {
        Page page = desk.bench().page();
        VBox box = new VBox(Space.S10);
        box.setPrefWidth(360);
        box.setId("page-follow-sheet");
        Label what = Fields
                .read("While this condition is true, “" + page.name()
                        + "” is shown in Live and Rehearse; afterwards the previous page returns. “Always” turns this off.");
        what.setWrapText(true);
        box.getChildren().addAll(what,
                new ConditionField(desk, "page-follows", page.follows(), "always", t -> desk.bench().edit(
                        "change the condition of the page “" + page.name() + "”",
                        b -> Edits.page(b, page.id(), p -> p.withFollows(t)))));
        desk.overlay().show(box, by, () -> {
        });
    }

    private record Tint(String words, Face.@Nullable Fill fill) {
    }

    private static int size(TextField field, int max) {
        return (int) Math.clamp(Fields.parsed(field.getText(), 1), 1, max);
    }

    /** What uses a page, or its buttons, is said before they go. */
    private void delete(Page page, Node by) {
        Board board = desk.bench().board();
        List<String> uses = new java.util.ArrayList<>(UsageWords.ofPage(board, page.id()));
        page.buttons().forEach(b -> uses.addAll(UsageWords.ofButton(board, b.id())));
        Confirm.ask(desk, by, "Delete the page “" + page.name() + "” with its " + page.buttons().size() + " buttons?",
                uses,
                "Delete", () -> desk.bench().edit("delete the page " + page.name(), b -> UsageWords.withoutPage(b, page
                        .id())));
    }
}
