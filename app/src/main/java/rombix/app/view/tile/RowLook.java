package rombix.app.view.tile;

import java.util.Set;

/** The states of a row side by side, or one below the other. */
final class RowLook extends StatesLook {
    private static final double GAP = 3;

    private boolean along = true;

    @Override
    Set<Integer> at(double x, double y) {
        double px = x - getLayoutX();
        double py = y - getLayoutY();
        if (cells.isEmpty() || px < 0 || py < 0 || px >= getWidth() || py >= getHeight()) {
            return Set.of();
        }
        return Set.of((int) ((along ? px / getWidth() : py / getHeight()) * cells.size()));
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
