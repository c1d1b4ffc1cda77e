package rombix.app.view.share;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.image.ImageView;
import javafx.scene.input.KeyCode;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.junit.jupiter.api.Test;
import rombix.app.paper.PaperSize;
import rombix.app.view.window.AtTheWindow;

/** A board on paper, in the window: seen before, saved, or told why not. */
class PaperSheetTest extends AtTheWindow {
    private void tick(String id) {
        robot.interact(() -> ((CheckBox) find(id)).fire());
    }

    private String count() {
        return ((Label) find("#paper-count")).getText();
    }

    private void file(Path file) {
        robot.interact(() -> ((TextField) find("#paper-file")).setText(file.toString()));
    }

    @Test
    void thePageIsSeenBeforeAndSavedAsPdf() throws Exception {
        key(KeyCode.P, KeyCode.ALT, KeyCode.SHIFT);
        soon(() -> find("#paper") != null && ((ImageView) find("#paper-preview")).getImage() != null);
        tick("#paper-runs");
        tick("#paper-patch");
        tick("#paper-gear");
        soon(() -> count().equals("Sheet 1 of 1"));
        tick("#paper-this-page");
        soon(() -> count().startsWith("Sheet 1 of") && !count().endsWith(" 1"));
        robot.interact(((Button) find("#paper-next"))::fire);
        assertThat(count()).startsWith("Sheet 2 of");
        robot.interact(((Button) find("#paper-back"))::fire);
        assertThat(count()).startsWith("Sheet 1 of");
        tick("#paper-colours");
        choose("#paper-size", PaperSize.LETTER.words());
        soon(() -> !((Button) find("#paper-save")).isDisabled());
        Path out = folder.resolve("night");
        file(out);
        robot.interact(() -> find("#paper-file").requestFocus());
        key(KeyCode.ENTER);
        Path pdf = folder.resolve("night.pdf");
        soon(() -> Files.exists(pdf) && find("#paper") == null);
        try (PDDocument saved = Loader.loadPDF(pdf.toFile())) {
            assertThat(saved.getNumberOfPages()).isGreaterThanOrEqualTo(bench().board().pages().size());
            assertThat(saved.getPage(0).getMediaBox().getHeight()).as("11 in by 8.5 in, in points").isIn(612f, 792f);
            assertThat(saved.getDocumentInformation().getTitle()).isEqualTo(bench().board().name());
        }
    }

    @Test
    void whatCannotBePrintedOrSavedIsTold() {
        key(KeyCode.P, KeyCode.ALT, KeyCode.SHIFT);
        soon(() -> find("#paper") != null && !((Button) find("#paper-save")).isDisabled());
        file(folder.resolve("nowhere").resolve("night.png"));
        robot.interact(((Button) find("#paper-save"))::fire);
        soon(() -> robot.lookup(".trouble").queryAllAs(Label.class).stream().anyMatch(l -> l.getText().startsWith(
                "It can't be saved")));
        tick("#paper-pages");
        tick("#paper-runs");
        tick("#paper-patch");
        tick("#paper-gear");
        soon(() -> count().startsWith("There is nothing to print"));
        assertThat(((Button) find("#paper-save")).isDisabled()).isTrue();
        assertThat(((ImageView) find("#paper-preview")).getImage()).isNull();
    }
}
