package rombix.app.view.button;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.scene.Node;
import rombix.app.edit.ButtonEdits;
import rombix.app.edit.ButtonEdits.Copied;
import rombix.app.edit.ButtonEdits.Onto;
import rombix.app.view.common.Desk;
import rombix.app.view.form.Chooser;
import rombix.app.view.form.Chooser.Item;
import rombix.app.view.form.Confirm;
import rombix.core.board.Button;
import rombix.core.board.Page;
import rombix.core.board.State;
import rombix.core.bundle.SharedPart.What;

/** The context menu of the selected buttons. */
public final class ButtonMenu {
    private final Desk desk;
    private final ButtonEdits edits;
    private final Consumer<Node> face;

    /** @param face opens the face by a node */
    public ButtonMenu(Desk desk, ButtonEdits edits, Consumer<Node> face) {
        this.desk = desk;
        this.edits = edits;
        this.face = face;
    }

    public void open(Node by) {
        List<Button> all = desk.bench().buttons();
        if (all.isEmpty()) {
            return;
        }
        List<Item> items = new ArrayList<>();
        items.add(new Item("menu-face", "Face…", "F2", () -> face.accept(by)));
        items.add(new Item("menu-copy", "Copy", "Ctrl+C", edits::copy));
        if (all.size() == 1) {
            items.add(new Item("menu-copy-only", "Copy only…", "", () -> copyOnly(by)));
        }
        items.add(new Item("menu-cut", "Cut", "Ctrl+X", edits::cut));
        if (edits.copied().isPresent()) {
            items.add(new Item("menu-paste", "Paste onto this button…", "Ctrl+V", () -> paste(by)));
        }
        items.add(new Item("menu-double", "Duplicate", "Ctrl+D", edits::duplicate));
        if (all.size() > 1) {
            items.add(new Item("menu-match", "Make these " + all.size() + " match", "Ctrl+M", edits::match));
        }
        items.add(new Item("menu-page", "Move to another page…", "Ctrl+Shift+PgDn", () -> pages(by)));
        items.add(new Item("menu-wider", "Make wider", "Alt+Shift+→", () -> edits.size(1, 0)));
        items.add(new Item("menu-narrower", "Make narrower", "Alt+Shift+←", () -> edits.size(-1, 0)));
        items.add(new Item("menu-taller", "Make taller", "Alt+Shift+↓", () -> edits.size(0, 1)));
        items.add(new Item("menu-lower", "Make shorter", "Alt+Shift+↑", () -> edits.size(0, -1)));
        items.add(new Item("menu-delete", "Delete", "Delete", () -> Confirm.deleteButtons(desk, by, edits)));
        Chooser.open(desk, by, all.size() == 1 ? all.getFirst().name() : all.size() + " buttons", items);
    }

    private void copyOnly(Node by) {
        Button button = desk.bench().button().orElseThrow();
        String state = desk.bench().state().map(State::name).orElse("");
        Chooser.open(desk, by, "Copy of “" + button.name() + "”", List.of(new Item("copy-state", "its state “" + state
                + "”", "", () -> edits.copyOnly(What.STATE)), new Item("copy-chain", "the chain below", "",
                        () -> edits
                                .copyOnly(What.CHAIN)),
                new Item("copy-look", "its look", "", () -> edits.copyOnly(What.LOOK))));
    }

    /** What of the copied button is put onto those that are selected. */
    public void paste(Node by) {
        Copied copied = edits.copied().orElse(null);
        if (copied == null) {
            return;
        }
        List<Item> items = new ArrayList<>();
        for (Onto onto : Onto.values()) {
            items.add(new Item("paste-" + onto.name().toLowerCase(java.util.Locale.ROOT).replace('_', '-'), onto.words(
                    copied), "", () -> edits.paste(onto)));
        }
        Button last = desk.bench().buttons().getLast();
        items.add(new Item("paste-whole", "adds a copy next to the button", "",
                () -> edits.paste(last.column() + last.width(),
                        last.row())));
        Chooser.open(desk, by, "Paste of “" + copied.first().name() + "”", items);
    }

    private void pages(Node by) {
        List<Item> items = new ArrayList<>();
        for (Page page : desk.bench().board().pages()) {
            if (!page.id().equals(desk.bench().page().id())) {
                items.add(new Item("to-page-" + page.id(), page.name(), "", () -> edits.moveToPage(page.id())));
            }
        }
        if (items.isEmpty()) {
            items.add(new Item("to-page-none", "No other page yet", "", () -> {
            }));
        }
        Chooser.open(desk, by, "Move to", items);
    }
}
