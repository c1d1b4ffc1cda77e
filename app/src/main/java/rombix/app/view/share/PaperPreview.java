package rombix.app.view.share;

import java.awt.image.BufferedImage;
import java.util.List;
import javafx.embed.swing.SwingFXUtils;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.image.ImageView;
import javafx.scene.layout.HBox;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import rombix.app.view.common.Space;
import rombix.app.view.form.Fields;

/** Sheets of paper as they will be, one at a time. The interface's thread's. */
final class PaperPreview {
    private static final double WIDTH = 420;
    private static final double HEIGHT = 420;

    private final ImageView image = new ImageView();
    private final Label words = Fields.read("");
    private final Button back = Fields.plain("◂", "");
    private final Button next = Fields.plain("▸", "");
    private final VBox box;
    private List<BufferedImage> sheets = List.of();
    private int at;

    PaperPreview() {
        image.setPreserveRatio(true);
        image.setFitWidth(WIDTH);
        image.setFitHeight(HEIGHT);
        image.setId("paper-preview");
        words.setId("paper-count");
        words.setWrapText(true);
        back.setId("paper-back");
        back.setAccessibleText("Previous sheet");
        back.setOnAction(_ -> go(at - 1));
        next.setId("paper-next");
        next.setAccessibleText("Next sheet");
        next.setOnAction(_ -> go(at + 1));
        StackPane frame = new StackPane(image);
        frame.setMinSize(WIDTH, HEIGHT);
        HBox turn = new HBox(Space.S8, back, words, next);
        turn.setAlignment(Pos.CENTER);
        box = new VBox(Space.S8, frame, turn);
        box.setMaxWidth(WIDTH);
        tell("Drawing…");
    }

    VBox node() {
        return box;
    }

    /** Shows sheets, from the first on. */
    void show(List<BufferedImage> all) {
        sheets = List.copyOf(all);
        go(Math.min(at, sheets.size() - 1));
    }

    /** Says why there is nothing to be seen; what was seen stays while it is drawn anew. */
    void tell(String why) {
        words.setText(why);
        back.setDisable(true);
        next.setDisable(true);
    }

    /** There is nothing to be seen, and why. */
    void nothing(String why) {
        sheets = List.of();
        image.setImage(null);
        tell(why);
    }

    private void go(int to) {
        at = Math.clamp(to, 0, sheets.size() - 1);
        image.setImage(SwingFXUtils.toFXImage(sheets.get(at), null));
        words.setText("Sheet %d of %d".formatted(at + 1, sheets.size()));
        back.setDisable(at == 0);
        next.setDisable(at == sheets.size() - 1);
    }
}
