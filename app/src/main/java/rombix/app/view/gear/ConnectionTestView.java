package rombix.app.view.gear;

import java.util.function.Function;
import javafx.application.Platform;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.traffic.WhyNot;
import rombix.core.traffic.WhyNot.Stage;
import rombix.core.traffic.WhyNot.Verdict;

/** Tests the connection to a gear and lists the result of each step, with what to do if one fails. Interface thread. */
@OwnedBy(Owner.INTERFACE)
final class ConnectionTestView {
    private static final double WHAT_WIDTH = 110;
    private static final double MARK_WIDTH = 90;

    private final Function<String, WhyNot> test;
    private final VBox results = new VBox(Space.S8);
    private final Button start = Fields.plain("Test connection", "");
    private String gear = "";
    private long asked;

    /** @param test tests the connection to a gear, by its id; takes some seconds, called on a thread of its own */
    ConnectionTestView(Function<String, WhyNot> test) {
        this.test = test;
        results.managedProperty().bind(results.visibleProperty());
        start.setMinWidth(Region.USE_PREF_SIZE);
        start.setTooltip(new Tooltip("Tests address, name lookup, port, TLS, login, response and readings"));
        start.setOnAction(_ -> begin());
    }

    /** Belongs to a gear from now on; the results of another are gone. */
    void of(String id) {
        if (!id.equals(gear)) {
            gear = id;
            clear();
        }
        start.setId("gear-test-" + id);
        results.setId("gear-test-results-" + id);
    }

    /** Forgets the results; a test that is still running is ignored. */
    void clear() {
        asked++;
        start.setDisable(false);
        results.getChildren().clear();
        results.setVisible(false);
    }

    Button button() {
        return start;
    }

    VBox results() {
        return results;
    }

    private void begin() {
        long mine = ++asked;
        String of = gear;
        start.setDisable(true);
        results.setVisible(true);
        results.getChildren().setAll(Fields.read("Testing… This can take a few seconds."));
        Thread.startVirtualThread(() -> {
            WhyNot found = test.apply(of);
            Platform.runLater(() -> {
                if (mine == asked) {
                    show(found);
                }
            });
        });
    }

    private void show(WhyNot found) {
        start.setDisable(false);
        GridPane rows = new GridPane(Space.S10, Space.S6);
        for (Stage s : found.stages()) {
            String tone = s.verdict() == Verdict.FAILED ? "trouble" : "quiet";
            Label what = Styles.label(s.what(), "field-name");
            what.setMinWidth(WHAT_WIDTH);
            Label verdict = Styles.label(mark(s.verdict()), "read", tone);
            verdict.setMinWidth(MARK_WIDTH);
            Label words = Styles.label(s.words(), "read", tone);
            words.setWrapText(true);
            rows.addRow(rows.getRowCount(), what, verdict, words);
        }
        Stage end = found.end();
        Label next = Styles.label(end == null
                ? "The connection works."
                : end.next().isBlank() ? end.words() : end.next(), "read");
        next.setId("gear-test-next");
        next.setWrapText(true);
        results.getChildren().setAll(rows, next);
    }

    private static String mark(Verdict verdict) {
        return switch (verdict) {
            case GOOD -> "✓ " + verdict.words();
            case FAILED -> "✗ " + verdict.words();
            case UNTRIED, NOTHING -> verdict.words();
        };
    }
}
