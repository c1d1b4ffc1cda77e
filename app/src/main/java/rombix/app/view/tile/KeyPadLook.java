package rombix.app.view.tile;

import java.util.List;
import java.util.Set;
import rombix.app.view.common.Styles;
import rombix.core.board.Control;
import rombix.core.board.State;

/** The ways of a key pad around its middle; what has no label of its own is an arrow. */
final class KeyPadLook extends StatesLook {
    private static final double GAP = 3;
    /** How far from the middle a hand presses nothing yet, of the way to the nearer edge. */
    private static final double REST = 0.28;
    private static final double SECTOR = Math.PI / 4;
    /** The letters' size, of a cell's height. */
    private static final double LETTER = 0.5;
    private static final double SMALLEST = 9;
    private static final double LARGEST = 20;
    private static final List<String> ARROWS = List.of("↑", "↗", "→", "↘", "↓", "↙", "←", "↖");
    /** Where each of eight ways lies, in columns and rows of three, clockwise from up. */
    private static final int[][] CELLS = {{1, 0}, {2, 0}, {2, 1}, {2, 2}, {1, 2}, {0, 2}, {0, 1}, {0, 0}};

    private Control.KeyPad pad = new Control.KeyPad(false);

    void pad(Control.KeyPad now) {
        pad = now;
    }

    private int eighth(int way) {
        return pad.eight() ? way : way * 2;
    }

    @Override
    String name(State state, int index) {
        String label = state.face().label();
        return label != null && !label.isBlank() ? label : ARROWS.get(eighth(index) % ARROWS.size());
    }

    @Override
    Set<Integer> at(double x, double y) {
        double dx = x - getLayoutX() - getWidth() / 2;
        double dy = getLayoutY() + getHeight() / 2 - y;
        // A pad that is wider than tall has its diagonals in its corners all the same.
        double nx = dx / Math.max(1, getWidth() / 2);
        double ny = dy / Math.max(1, getHeight() / 2);
        if (Math.hypot(nx, ny) < REST) {
            return Set.of();
        }
        double angle = Math.rint(Math.atan2(nx, ny) / SECTOR) * SECTOR;
        return pad.toward((int) Math.rint(Math.sin(angle)), (int) Math.rint(Math.cos(angle)));
    }

    @Override
    protected void layoutChildren() {
        double w = (getWidth() + GAP) / 3;
        double h = (getHeight() + GAP) / 3;
        double size = Math.clamp(h * LETTER, SMALLEST, LARGEST);
        for (int i = 0; i < cells.size(); i++) {
            Styles.size(cells.get(i), size, "");
            int[] cell = CELLS[eighth(i) % CELLS.length];
            double x = Math.rint(cell[0] * w);
            double y = Math.rint(cell[1] * h);
            cells.get(i).setVisible(i < pad.ways().size());
            cells.get(i).resizeRelocate(x, y, Math.rint((cell[0] + 1) * w) - GAP - x, Math.rint((cell[1] + 1) * h) - GAP
                    - y);
        }
    }
}
