package rombix.app.view.share;

import java.awt.image.BufferedImage;
import java.io.IOException;
import java.util.concurrent.Executor;
import javafx.application.Platform;
import javafx.embed.swing.SwingFXUtils;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.image.ImageView;
import javafx.scene.layout.HBox;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import rombix.app.paper.PaperFile;
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
    private final Executor drawer;
    private byte[] pdf = {};
    private int sheets;
    private int at;

    /** @param drawer draws sheets, which takes a moment, one after the other */
    PaperPreview(Executor drawer) {
        this.drawer = drawer;
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

    /** Shows a PDF of so many sheets; the one that was shown, if there still is one. */
    void show(byte[] all, int number) {
        pdf = all;
        sheets = number;
        go(at);
    }

    /** Says why there is nothing to be seen; what was seen stays while it is drawn anew. */
    void tell(String why) {
        words.setText(why);
        back.setDisable(true);
        next.setDisable(true);
    }

    /** There is nothing to be seen, and why. */
    void nothing(String why) {
        sheets = 0;
        image.setImage(null);
        tell(why);
    }

    private void go(int to) {
        at = Math.clamp(to, 0, sheets - 1);
        words.setText("Sheet %d of %d".formatted(at + 1, sheets));
        back.setDisable(at == 0);
        next.setDisable(at == sheets - 1);
        byte[] of = pdf;
        int wanted = at;
        drawer.execute(() -> {
            try {
                BufferedImage drawn = PaperFile.picture(of, wanted);
                Platform.runLater(() -> {
                    if (pdf == of && at == wanted && sheets > 0) {
                        image.setImage(SwingFXUtils.toFXImage(drawn, null));
                    }
                });
            } catch (IOException | RuntimeException e) {
                Platform.runLater(() -> tell("This sheet can't be shown: " + e.getMessage()));
            }
        });
    }
}
