package rombix.app.view;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;

/** Lamps in a row; where there is no room for all, the quiet ones give way to those that are lit. */
final class LampRow extends Pane {
    private static final double GAP = 8;

    private final boolean left;

    /** What a lamp says, and how: {@code air}, {@code ready} or plain. */
    record Lit(String text, String tone) {
        boolean air() {
            return tone.equals("air");
        }

        /** A lamp that says so. */
        Label label() {
            Label lamp = new Label();
            lamp.setMinWidth(Region.USE_PREF_SIZE);
            on(lamp);
            return lamp;
        }

        private void on(Label lamp) {
            Styles.text(lamp, text);
            Styles.set(lamp, tone.isEmpty() ? new String[]{"label", "lamp"} : new String[]{"label", "lamp", tone});
        }
    }

    /** @param left whether they begin at the left; else they end at the right */
    LampRow(boolean left) {
        this.left = left;
        setMinWidth(0);
    }

    /** Shows lamps; those that are there already change only where they must. */
    void show(List<Lit> lit) {
        while (getChildren().size() > lit.size()) {
            getChildren().removeLast();
        }
        for (int i = 0; i < lit.size(); i++) {
            if (i < getChildren().size()) {
                lit.get(i).on((Label) getChildren().get(i));
            } else {
                getChildren().add(lit.get(i).label());
            }
        }
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
        double x = left ? 0 : room;
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
