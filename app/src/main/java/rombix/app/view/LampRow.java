package rombix.app.view;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.layout.Pane;

/** Lamps in a row, to the right; where there is no room for all, the quiet ones give way to those that are lit. */
final class LampRow extends Pane {
    private static final double GAP = 8;

    LampRow() {
        setMinWidth(0);
    }

    @Override
    protected double computePrefWidth(double height) {
        return getChildren().stream().mapToDouble(c -> c.prefWidth(-1) + GAP).sum();
    }

    @Override
    protected double computePrefHeight(double width) {
        return getChildren().stream().mapToDouble(c -> c.prefHeight(-1)).max().orElse(0);
    }

    @Override
    protected void layoutChildren() {
        List<Node> shown = new ArrayList<>();
        double room = getWidth();
        for (Node lamp : getChildren().stream().sorted(Comparator.comparingInt(LampRow::rank)).toList()) {
            double w = lamp.prefWidth(-1) + GAP;
            if (w <= room) {
                shown.add(lamp);
                room -= w;
            }
        }
        double x = room;
        for (Node lamp : getChildren()) {
            lamp.setVisible(shown.contains(lamp));
            if (lamp.isVisible()) {
                double h = lamp.prefHeight(-1);
                lamp.resizeRelocate(x, Math.rint((getHeight() - h) / 2), lamp.prefWidth(-1), h);
                x += lamp.prefWidth(-1) + GAP;
            }
        }
    }

    private static int rank(Node lamp) {
        return lamp.getStyleClass().contains("air") ? 0 : lamp.getStyleClass().contains("ready") ? 1 : 2;
    }
}
