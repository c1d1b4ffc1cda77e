package rombix.app.view.common;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.function.ToIntFunction;
import javafx.scene.Node;
import javafx.scene.layout.Pane;

/** A row that never clips its nodes: if there isn't room for all, the less important ones are hidden. */
public class FittingRow extends Pane {
    private final boolean left;
    private final double gap;
    private final ToIntFunction<Node> rank;

    /**
     * @param left whether they begin at the left; else they end at the right
     * @param rank how soon a node gives way: those with the highest first
     */
    public FittingRow(boolean left, double gap, ToIntFunction<Node> rank) {
        this.left = left;
        this.gap = gap;
        this.rank = rank;
        setMinWidth(0);
    }

    @Override
    protected double computePrefWidth(double height) {
        return getChildren().stream().mapToDouble(c -> c.prefWidth(-1) + gap).sum();
    }

    @Override
    protected double computePrefHeight(double width) {
        return getChildren().stream().mapToDouble(c -> c.prefHeight(-1)).max().orElse(0);
    }

    @Override
    protected void layoutChildren() {
        List<Node> shown = new ArrayList<>();
        double room = getWidth();
        for (Node n : getChildren().stream().sorted(Comparator.comparingInt(rank)).toList()) {
            double w = n.prefWidth(-1) + gap;
            if (w <= room) {
                shown.add(n);
                room -= w;
            }
        }
        double x = left ? 0 : room;
        for (Node n : getChildren()) {
            n.setVisible(shown.contains(n));
            if (n.isVisible()) {
                double h = n.prefHeight(-1);
                n.resizeRelocate(x, Math.rint((getHeight() - h) / 2), n.prefWidth(-1), h);
                x += n.prefWidth(-1) + gap;
            }
        }
    }
}
