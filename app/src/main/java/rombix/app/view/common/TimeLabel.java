package rombix.app.view.common;

import java.util.Arrays;
import java.util.List;
import java.util.regex.Pattern;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.Pane;

/**
 * A label of a time, a level or another figure that changes. As long as its words keep their form, and only figures
 * change, nothing beside it is laid out anew, and nothing but itself is painted.
 */
public final class TimeLabel extends Pane {
    private static final Pattern FIGURE = Pattern.compile("[0-9]");

    private final Label label = new Label();
    private final boolean shrinks;
    private String form = "";
    /** Whether it was given less room than its words take. */
    private boolean squeezed;

    public TimeLabel() {
        this(false);
    }

    /** @param shrinks whether it may be narrower than its words, which end with dots then; it keeps to the right */
    public TimeLabel(boolean shrinks) {
        this.shrinks = shrinks;
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
        if (now.equals(form) && (squeezed || label.prefWidth(-1) <= getWidth() + 1)) {
            place();
        } else {
            form = now;
            requestLayout();
        }
    }

    /** Whether it is within the part that is seen of what it is scrolled in, as far as that is known. */
    public boolean inSight() {
        for (Node n = this; n != null; n = n.getParent()) {
            if (n instanceof ScrollPane pane) {
                Bounds bounds = localToScene(getLayoutBounds());
                return bounds.getHeight() == 0 || bounds.intersects(pane.localToScene(pane.getLayoutBounds()));
            }
        }
        return true;
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
        return shrinks ? label.minWidth(-1) : computePrefWidth(height);
    }

    @Override
    protected double computePrefHeight(double width) {
        return label.prefHeight(-1);
    }

    @Override
    protected void layoutChildren() {
        squeezed = shrinks && label.prefWidth(-1) > getWidth() + 1;
        place();
    }

    private void place() {
        double height = label.prefHeight(-1);
        double width = shrinks ? Math.min(label.prefWidth(-1), getWidth()) : label.prefWidth(-1);
        label.resizeRelocate(shrinks ? getWidth() - width : 0, Math.rint((getHeight() - height) / 2), width, height);
    }
}
