package rombix.app.view.common;

import java.util.List;
import java.util.Objects;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.Labeled;

/**
 * Changes of looks that cost something even where nothing changes: a style class that is set anew has the node and all
 * within it styled again.
 */
public final class Styles {
    private Styles() {
    }

    /** The node's style classes, all of them. */
    public static void set(Node node, String... classes) {
        List<String> wanted = List.of(classes);
        if (!node.getStyleClass().equals(wanted)) {
            node.getStyleClass().setAll(wanted);
        }
    }

    /** A label with style classes beside its own. */
    public static Label label(String text, String... classes) {
        Label label = new Label(text);
        label.getStyleClass().addAll(classes);
        return label;
    }

    /** The node's own style. */
    public static void inline(Node node, String style) {
        if (!Objects.equals(node.getStyle(), style)) {
            node.setStyle(style);
        }
    }

    /** The size of a label's type, and the rest of its own style; it has it at once, so that it can be laid out. */
    public static void size(Labeled label, double size, String rest) {
        String style = "-fx-font-size: " + Math.round(size * 10) / 10.0 + "px;" + rest;
        if (!style.equals(label.getStyle())) {
            label.setStyle(style);
            label.applyCss();
        }
    }

    public static void text(Labeled label, String text) {
        if (!Objects.equals(label.getText(), text)) {
            label.setText(text);
        }
    }
}
