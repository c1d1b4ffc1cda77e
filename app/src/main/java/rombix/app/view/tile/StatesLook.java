package rombix.app.view.tile;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.layout.Region;
import rombix.app.view.common.Styles;
import rombix.core.board.Button;
import rombix.core.board.State;

/** The states of a button, each in a cell of its own: the present one, the one on its way, those under the hand. */
abstract class StatesLook extends Region {
    private static final PseudoClass NOW = PseudoClass.getPseudoClass("now");
    private static final PseudoClass COMING = PseudoClass.getPseudoClass("coming");
    private static final PseudoClass UNDER = PseudoClass.getPseudoClass("under");

    final List<Label> cells = new ArrayList<>();
    private Set<Integer> under = Set.of();

    StatesLook() {
        setMouseTransparent(true);
    }

    /**
     * Shows the states of a button.
     *
     * @param now the present one, or -1 where there is none
     * @param coming the one on its way, or -1
     */
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
            Styles.text(cell, name(button.states().get(i), i));
            mark(cell, i, i == now, i != now && i == coming);
        }
        if (!getChildren().containsAll(cells)) {
            getChildren().setAll(cells);
        }
        requestLayout();
    }

    /** Marks a cell as the present one, or as the one that comes. */
    void mark(Label cell, int index, boolean now, boolean coming) {
        cell.pseudoClassStateChanged(NOW, now);
        cell.pseudoClassStateChanged(COMING, coming);
        cell.pseudoClassStateChanged(UNDER, under.contains(index));
    }

    /** Shows other cells, so many further on, where not all can be seen. */
    void scroll(int by) {
        // All can be seen.
    }

    String name(State state, int index) {
        String label = state.face().label();
        return label == null || label.isBlank() ? state.name() : label;
    }

    /** Has the cells under the hand stand out. */
    void under(Set<Integer> which) {
        under = which;
        for (int i = 0; i < cells.size(); i++) {
            cells.get(i).pseudoClassStateChanged(UNDER, which.contains(i));
        }
    }

    /** Which cells a hand at a point of the tile means. */
    abstract Set<Integer> at(double x, double y);
}
