package rombix.app.view.common;

import java.util.Arrays;
import java.util.List;
import java.util.regex.Pattern;
import javafx.scene.control.Label;
import javafx.scene.layout.Pane;

/**
 * A label of a time that goes on. As long as its words keep their form, and only figures change, nothing beside it is
 * laid out anew, and nothing but itself is painted.
 */
public final class TimeLabel extends Pane {
    private static final Pattern FIGURE = Pattern.compile("[0-9]");

    private final Label label = new Label();
    private String form = "";

    public TimeLabel() {
        label.setManaged(false);
        getChildren().add(label);
    }

    /** Shows a text in these style classes, beside those of any label. */
    public void show(String text, String... styles) {
        List<String> classes = new java.util.ArrayList<>(List.of("label"));
        classes.addAll(Arrays.asList(styles));
        Styles.set(label, classes.toArray(String[]::new));
        if (text.equals(label.getText()) && form.endsWith(classes.toString())) {
            return;
        }
        label.setText(text);
        String now = FIGURE.matcher(text).replaceAll("0") + classes;
        if (now.equals(form) && label.prefWidth(-1) <= getWidth() + 1) {
            place();
        } else {
            form = now;
            requestLayout();
        }
    }

    public String text() {
        return label.getText();
    }

    boolean styled(String style) {
        return label.getStyleClass().contains(style);
    }

    @Override
    protected double computePrefWidth(double height) {
        return label.prefWidth(-1);
    }

    @Override
    protected double computeMinWidth(double height) {
        return computePrefWidth(height);
    }

    @Override
    protected double computePrefHeight(double width) {
        return label.prefHeight(-1);
    }

    @Override
    protected void layoutChildren() {
        place();
    }

    private void place() {
        double height = label.prefHeight(-1);
        label.resizeRelocate(0, Math.rint((getHeight() - height) / 2), label.prefWidth(-1), height);
    }
}
