package rombix.app.view.window;

import java.util.EnumMap;
import java.util.Map;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import rombix.app.edit.Hints.Hint;
import rombix.app.edit.Hints;
import rombix.app.edit.Workbench;
import rombix.app.view.common.Shapes;
import rombix.app.view.common.Space;
import rombix.app.view.form.Fields;
import rombix.running.owner.Settings;

/** The hints of the first minutes, each a line in its place; they take no room while they are not due. */
final class HintLines {
    private static final double MARK = 12;
    private final Map<Hint, HBox> lines = new EnumMap<>(Hint.class);

    HintLines() {
        line(Hint.GEAR, "Start here: add the gear this board should control (Alt+R).");
        line(Hint.BUTTON, "Click an empty cell, then type below what the button should do.");
        line(Hint.PRESS, "Press your button: Rehearse (F7) tries it on simulated gear, Live (F6) works the real gear.");
    }

    private void line(Hint hint, String words) {
        Label text = Fields.read(words);
        text.getStyleClass().setAll("label", "read");
        HBox.setHgrow(text, Priority.ALWAYS);
        HBox line = new HBox(Space.S10, Shapes.rhombus(MARK, "hint-mark"), text);
        line.setAlignment(Pos.CENTER_LEFT);
        line.setId("hint-" + hint.name().toLowerCase(java.util.Locale.ROOT));
        line.getStyleClass().add("hint");
        line.setVisible(false);
        line.setManaged(false);
        lines.put(hint, line);
    }

    /** Where a hint is shown when it is due. */
    Node of(Hint hint) {
        return java.util.Objects.requireNonNull(lines.get(hint));
    }

    /** Shows those that were not followed yet, from now on. */
    void begin(Workbench bench, Settings settings) {
        Hints hints = new Hints(bench, settings);
        Runnable show = () -> {
            Hint due = hints.now().orElse(null);
            lines.forEach((h, line) -> {
                line.setVisible(h == due);
                line.setManaged(h == due);
            });
        };
        bench.watch(show);
        show.run();
    }
}
