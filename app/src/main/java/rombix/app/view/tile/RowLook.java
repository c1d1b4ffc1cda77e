package rombix.app.view.tile;

import java.util.ArrayList;
import java.util.List;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.layout.Region;
import rombix.app.view.common.Styles;
import rombix.core.board.Button;
import rombix.core.board.State;

/** The states of a row side by side, or one below the other: the present one, the one on its way, the one under the hand. */
final class RowLook extends Region {
    private static final PseudoClass NOW = PseudoClass.getPseudoClass("now");
    private static final PseudoClass COMING = PseudoClass.getPseudoClass("coming");
    private static final PseudoClass UNDER = PseudoClass.getPseudoClass("under");
    private static final double GAP = 3;

    private final List<Label> cells = new ArrayList<>();
    private boolean along = true;
    private int under = -1;

    RowLook() {
        setMouseTransparent(true);
    }

    /** Shows the states of a button. @param coming the one on its way, or -1 */
    void show(Button button, int now, int coming) {
        while (cells.size() > button.states().size()) {
            cells.removeLast();
        }
        while (cells.size() < button.states().size()) {
            Label cell = new Label();
            cell.getStyleClass().add("row-cell");
            cell.setAlignment(Pos.CENTER);
            cells.add(cell);
        }
        for (int i = 0; i < cells.size(); i++) {
            Label cell = cells.get(i);
            Styles.text(cell, name(button.states().get(i)));
            cell.pseudoClassStateChanged(NOW, i == now);
            cell.pseudoClassStateChanged(COMING, i != now && i == coming);
            cell.pseudoClassStateChanged(UNDER, i == under);
        }
        if (!getChildren().equals(cells)) {
            getChildren().setAll(cells);
        }
        requestLayout();
    }

    private static String name(State state) {
        String label = state.face().label();
        return label == null || label.isBlank() ? state.name() : label;
    }

    /** Has the cell under the hand stand out; none with -1. */
    void under(int index) {
        under = index;
        for (int i = 0; i < cells.size(); i++) {
            cells.get(i).pseudoClassStateChanged(UNDER, i == index);
        }
    }

    /** Which cell lies at a point of the tile; -1 where none does. */
    int at(double x, double y) {
        double px = x - getLayoutX();
        double py = y - getLayoutY();
        if (cells.isEmpty() || px < 0 || py < 0 || px >= getWidth() || py >= getHeight()) {
            return -1;
        }
        return (int) ((along ? px / getWidth() : py / getHeight()) * cells.size());
    }

    @Override
    protected void layoutChildren() {
        int n = Math.max(1, cells.size());
        along = getWidth() >= getHeight();
        double length = ((along ? getWidth() : getHeight()) + GAP) / n;
        for (int i = 0; i < cells.size(); i++) {
            double from = Math.rint(i * length);
            double size = Math.rint((i + 1) * length) - GAP - from;
            if (along) {
                cells.get(i).resizeRelocate(from, 0, size, getHeight());
            } else {
                cells.get(i).resizeRelocate(0, from, getWidth(), size);
            }
        }
    }
}
