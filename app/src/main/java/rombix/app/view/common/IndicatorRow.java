package rombix.app.view.common;

import java.util.List;
import javafx.scene.Node;
import rombix.running.face.OnAir;

/** Indicators in a row; where there is no room for all, the quiet ones give way to those that are lit. */
public final class IndicatorRow extends FittingRow {
    private static final double GAP = 8;
    private static final String AIR = "air";
    private static final String READY = "ready";

    /** @param left whether they begin at the left; else they end at the right */
    public IndicatorRow(boolean left) {
        super(left, GAP, IndicatorRow::rank);
    }

    /** Shows indicators; those that are there already change only where they must. */
    public void show(List<OnAir.Indicator> lit) {
        while (getChildren().size() > lit.size()) {
            getChildren().removeLast();
        }
        for (int i = 0; i < lit.size(); i++) {
            if (i >= getChildren().size()) {
                getChildren().add(new TimeLabel());
            }
            on((TimeLabel) getChildren().get(i), lit.get(i));
        }
    }

    /** Has a label show an indicator. */
    public static void on(TimeLabel label, OnAir.Indicator indicator) {
        label.show(indicator.text(), indicator.tone() == null
                ? new String[]{"indicator"}
                : new String[]{"indicator", indicator.air() ? AIR : READY});
    }

    private static int rank(Node indicator) {
        return ((TimeLabel) indicator).styled(AIR) ? 0 : ((TimeLabel) indicator).styled(READY) ? 1 : 2;
    }
}
