package rombix.app.view.common;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Card.Tone;
import rombix.core.card.Card.Word;
import rombix.core.card.Figures;
import rombix.core.card.Twin;
import rombix.core.value.ValueType;
import rombix.core.value.Value;

/** Indicators in a row; where there is no room for all, the quiet ones give way to those that are lit. */
public final class IndicatorRow extends Pane {
    private static final double GAP = 8;

    private final boolean left;

    /** What a indicator says, and how: {@code air}, {@code ready} or plain. */
    public record Indicator(String text, String tone) {
        public boolean air() {
            return tone.equals("air");
        }

        /** A indicator that says so. */
        public Label label() {
            Label indicator = new Label();
            indicator.setMinWidth(Region.USE_PREF_SIZE);
            on(indicator);
            return indicator;
        }

        private void on(Label indicator) {
            Styles.text(indicator, text);
            Styles.set(indicator,
                    tone.isEmpty() ? new String[]{"label", "indicator"} : new String[]{"label", "indicator", tone});
        }
    }

    /** @param left whether they begin at the left; else they end at the right */
    public IndicatorRow(boolean left) {
        this.left = left;
        setMinWidth(0);
    }

    /** Shows indicators; those that are there already change only where they must. */
    public void show(List<Indicator> lit) {
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
        for (Node indicator : getChildren().stream().sorted(Comparator.comparingInt(IndicatorRow::rank)).toList()) {
            double w = indicator.prefWidth(-1) + GAP;
            if (w <= room) {
                shown.add(indicator);
                room -= w;
            }
        }
        double x = left ? 0 : room;
        for (Node indicator : getChildren()) {
            indicator.setVisible(shown.contains(indicator));
            if (indicator.isVisible()) {
                double h = indicator.prefHeight(-1);
                indicator.resizeRelocate(x, Math.rint((getHeight() - h) / 2), indicator.prefWidth(-1), h);
                x += indicator.prefWidth(-1) + GAP;
            }
        }
    }

    private static int rank(Node indicator) {
        return indicator.getStyleClass().contains("air") ? 0 : indicator.getStyleClass().contains("ready") ? 1 : 2;
    }

    /** The indicators that the gear's cards want always in sight. */
    public static List<Indicator> of(Desk desk) {
        List<Indicator> all = new ArrayList<>();
        for (Twin twin : desk.bench().rig().twins().values()) {
            for (Twin.Reading known : twin.readings(desk.model().readings(twin.gear()))) {
                if (known.spec().indicator() && known.spec().type() == ValueType.FLAG && !excluded(desk, twin, known)) {
                    Indicator indicator = indicator(desk, twin, known);
                    if (indicator != null) {
                        all.add(indicator);
                    }
                }
            }
        }
        return all;
    }

    private static boolean excluded(Desk desk, Twin twin, Twin.Reading known) {
        return known.spec().id().match(known.id()).filter(places -> !places.isEmpty()).map(places -> {
            String list = places.keySet().iterator().next();
            var items = twin.items(list, desk.model().readings(twin.gear()));
            return items.stream().anyMatch(i -> i.fields().containsKey("lamp")) && items.stream()
                    .noneMatch(i -> i.id().equals(places.get(list)) && Boolean.TRUE.equals(i.fields().get("lamp")));
        }).orElse(false);
    }

    private static @Nullable Indicator indicator(Desk desk, Twin twin, Twin.Reading known) {
        Value value = desk.model().reading(twin.gear(), known.id());
        Word word = value == null ? null : value.asFlag() ? known.spec().yes() : known.spec().no();
        if (word == null || value == null) {
            return null;
        }
        boolean family = !known.spec().id().places().isEmpty();
        long seconds = desk.model().secondsSince(twin.gear(), known.id());
        String text = family ? known.title().toUpperCase(java.util.Locale.ROOT) + " " + word.word() : word.word();
        boolean air = !family && word.tone() == Tone.AIR;
        return new Indicator(air ? text + " " + Figures.clock(seconds, true) : text, air
                ? "air"
                : word.tone() == Tone.READY ? "ready" : "");
    }
}
