package rombix.app.view.page;

import javafx.scene.Node;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Desk;
import rombix.core.board.Button;
import rombix.core.board.Page;
import rombix.core.edit.Edits;
import rombix.core.edit.Proposals;

/** Adds a button where an empty cell was chosen, and takes it away again where nothing was made of it. */
public final class NewButton {
    private static final String ADD = "add a button";

    private final Desk desk;
    private final Cells page;
    private Runnable added = () -> {
    };
    private @Nullable Button fresh;

    NewButton(Desk desk, Cells page) {
        this.desk = desk;
        this.page = page;
    }

    /** What is done once a button was added. */
    public void whenAdded(Runnable next) {
        added = next;
    }

    /** Adds one in the first cell that is empty. */
    public void addFirst() {
        Page shown = desk.bench().page();
        for (int cell = 0; cell < shown.columns() * shown.rows(); cell++) {
            int column = cell % shown.columns();
            int row = cell / shown.columns();
            if (shown.at(column, row).isEmpty()) {
                add(column, row);
                return;
            }
        }
    }

    void add(int column, int row) {
        if (desk.bench().page().at(column, row).isPresent()) {
            return; // Something was dropped here with this very click.
        }
        Button button = Proposals.fresh(desk.bench().board(), column, row);
        desk.bench().edit(ADD, b -> Edits.addButton(b, desk.bench().page().id(), button));
        fresh = button;
        desk.bench().select(button.id());
        page.layout();
        page.focusSelected();
        added.run();
    }

    /** A button that was only just added and has nothing of its own is taken away again; its cell has the focus. */
    public void abandon() {
        Button made = fresh;
        fresh = null;
        if (made != null && desk.bench().button().filter(made::equals).isPresent() && desk.bench().undoName().filter(
                ADD::equals).isPresent()) {
            desk.bench().undo();
            Node cell = page.at(made.column(), made.row());
            if (cell != null) {
                cell.requestFocus();
            }
        } else {
            page.focusSelected();
        }
    }
}
