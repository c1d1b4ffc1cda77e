package rombix.app.view.sheet;

import java.util.function.Function;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.board.Gear;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.thread.OwnedBy;
import rombix.core.traffic.WhyNot.Stage;
import rombix.core.traffic.WhyNot.Verdict;
import rombix.core.traffic.WhyNot;

/** A connection test, step by step, with what to do where one fails. Interface thread. */
@OwnedBy(Owner.INTERFACE)
public final class WhyPopover {
    private static final double WIDTH = 640;
    private static final double WHAT_WIDTH = 130;
    private static final double MARK_WIDTH = 76;

    private final Desk desk;
    private final Function<String, WhyNot> walk;
    private final VBox box = new VBox(Space.S10);
    private long asked;

    /** @param walk tries the way to a gear, by its id; it may take some seconds, and is not called on this thread */
    public WhyPopover(Desk desk, Function<String, WhyNot> walk) {
        this.desk = desk;
        this.walk = walk;
        box.setId("why");
        box.setPrefWidth(WIDTH);
    }

    public void open(Node by, String gear) {
        begin(gear);
        desk.overlay().show(box, by, () -> asked++);
    }

    private String name(String gear) {
        return desk.bench().board().gear(gear).map(Gear::name).orElse(gear);
    }

    private void begin(String gear) {
        long mine = ++asked;
        box.getChildren().setAll(Styles.label("Connection test: " + name(gear), "gear-name"), Fields.read(
                "Testing… This can take a few seconds."), foot(gear, false));
        Thread.startVirtualThread(() -> {
            WhyNot found = walk.apply(gear);
            Platform.runLater(() -> {
                if (mine == asked) {
                    show(gear, found);
                }
            });
        });
    }

    private void show(String gear, WhyNot found) {
        GridPane rows = new GridPane(Space.S10, Space.S8);
        for (Stage s : found.stages()) {
            Label what = Styles.label(s.what(), "field-name");
            what.setMinWidth(WHAT_WIDTH);
            Label verdict = Styles.label(mark(s.verdict()), "read",
                    s.verdict() == Verdict.FAILED ? "trouble" : "quiet");
            verdict.setMinWidth(MARK_WIDTH);
            Label words = Styles.label(s.words(), "read", s.verdict() == Verdict.FAILED ? "trouble" : "quiet");
            words.setWrapText(true);
            rows.addRow(rows.getRowCount(), what, verdict, words);
        }
        Stage end = found.end();
        Label next = Styles.label(end == null
                ? "The connection works."
                : end.next().isBlank() ? end.words() : end.next(), "read");
        next.setId("why-next");
        next.setWrapText(true);
        box.getChildren().setAll(Styles.label("Connection test: " + name(gear), "gear-name"), rows,
                Styles.label(end == null ? "Result" : "What to do", "field-name"), next, foot(gear, true));
        desk.overlay().requestLayout();
    }

    private static String mark(Verdict verdict) {
        return switch (verdict) {
            case GOOD -> "✓ " + verdict.words();
            case FAILED -> "✗ " + verdict.words();
            case UNTRIED, NOTHING -> verdict.words();
        };
    }

    private Node foot(String gear, boolean done) {
        Button again = Fields.plain("Try again", "");
        again.setId("why-again");
        again.setDisable(!done);
        again.setOnAction(_ -> begin(gear));
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        Button close = Fields.plain("Close", "Esc");
        close.setOnAction(_ -> desk.overlay().close());
        HBox foot = new HBox(Space.S8, again, space, close);
        foot.setAlignment(Pos.CENTER_LEFT);
        return foot;
    }
}
