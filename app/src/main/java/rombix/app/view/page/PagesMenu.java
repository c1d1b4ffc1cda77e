package rombix.app.view.page;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.Supplier;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.Label;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.Starters;
import rombix.app.edit.Uses;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.form.Confirm;
import rombix.app.view.form.Fields;
import rombix.app.view.step.ConditionField;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Face;
import rombix.core.board.Page;
import rombix.core.edit.Edits;
import rombix.core.event.Known;

/** What is done with pages: added, named, sized, moved, doubled, deleted. */
public final class PagesMenu {
    private final Desk desk;

    private final Supplier<Known> known;

    public PagesMenu(Desk desk, Supplier<Known> known) {
        this.desk = desk;
        this.known = known;
    }

    public void fill(MenuButton menu) {
        Page page = desk.bench().page();
        String now = "“" + page.name() + "”";
        MenuItem add = item("page-add", "Add a page", () -> {
            desk.bench().edit("add a page", b -> Edits.addPage(b, "Page " + (b.pages().size() + 1)));
            desk.bench().showPage(desk.bench().board().pages().getLast().id());
            sheet(menu);
        });
        MenuItem name = item("page-edit", "Rename or resize " + now + "…", () -> sheet(menu));
        MenuItem twice = item("page-duplicate", "Duplicate " + now, () -> desk.bench().edit("duplicate the page " + now,
                b -> Edits.duplicatePage(b, page.id())));
        MenuItem follow = item("page-follow", "Show " + now + " automatically…", () -> follow(menu));
        CheckMenuItem tab = new CheckMenuItem("Show " + now + " in the tabs in Live");
        tab.setId("page-tab");
        tab.setSelected(!page.hidden());
        tab.setOnAction(_ -> desk.bench().edit("change the tabs", b -> Edits.page(b, page.id(), p -> p.withHidden(!p
                .hidden()))));
        MenuItem left = item("page-left", "Move it to the left", () -> desk.bench().edit("move the page " + now,
                b -> Edits.movePage(b, page.id(), -1)));
        MenuItem right = item("page-right", "Move it to the right", () -> desk.bench().edit("move the page " + now,
                b -> Edits.movePage(b, page.id(), 1)));
        MenuItem delete = item("page-delete", "Delete " + now + (page.buttons().isEmpty() ? "" : "…"), () -> delete(
                page, menu));
        delete.setDisable(desk.bench().board().pages().size() < 2);
        menu.getItems().setAll(add, starters(), name, follow, tab, twice, left, right, new SeparatorMenuItem(), delete);
    }

    /** Pages made from the gear that the board has. */
    private Menu starters() {
        Menu starters = new Menu("Add a starter page for your gear");
        starters.setId("page-starters");
        for (Starters s : Starters.values()) {
            starters.getItems().add(item("starter-" + s.name().toLowerCase(Locale.ROOT), s.title(), () -> add(s)));
        }
        return starters;
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
    private void sheet(MenuButton by) {
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
                    Page.MAX_ROWS)).stream().map(Button::name).toList();
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
                                .edit("change the page's tint", b -> Edits.page(b, page.id(), p -> p.withFill(t.fill()))))),
                new HBox(Space.S8, Fields.named("Columns, 1 to "
                        + Page.MAX_COLUMNS, columns), Fields.named("Rows, 1 to " + Page.MAX_ROWS, rows)),
                falls, resize);
        desk.overlay().show(box, by, () -> {
        });
    }

    /** What a page follows: while it is so, the page is shown in Live and in Rehearse. */
    private void follow(MenuButton by) {
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
                        "change the type of “" + page.name() + "” follows",
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
    private void delete(Page page, MenuButton by) {
        Board board = desk.bench().board();
        List<String> uses = new java.util.ArrayList<>(Uses.ofPage(board, page.id()));
        page.buttons().forEach(b -> uses.addAll(Uses.ofButton(board, b.id())));
        Confirm.ask(desk, by, "Delete the page “" + page.name() + "” with its " + page.buttons().size() + " buttons?",
                uses,
                "Delete", () -> desk.bench().edit("delete the page " + page.name(), b -> Uses.withoutPage(b, page
                        .id())));
    }
}
