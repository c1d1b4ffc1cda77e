package rombix.app.view.window;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.function.Consumer;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.layout.VBox;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.running.owner.OpenedBoard;

/** A large board that is being read: says so, and can be cancelled. The deck goes on meanwhile. */
final class Opening {
    private static final double WIDTH = 320;
    /** A file of so many bytes takes longer to read than a hand waits without being told. */
    private static final long LARGE = 4L << 20;

    private final Desk desk;
    private final Path file;
    private final FutureTask<OpenedBoard> reading;

    Opening(Desk desk, Path file, FutureTask<OpenedBoard> reading) {
        this.desk = desk;
        this.file = file;
        this.reading = reading;
    }

    /** Whether it takes so long to read a file that it is to be shown. */
    static boolean large(Path file) {
        return size(file) >= LARGE;
    }

    /** How many bytes a file has; 0 where it is none: reading it says why. */
    private static long size(Path file) {
        try {
            return Files.isRegularFile(file) ? Files.size(file) : 0;
        } catch (IOException e) {
            return 0;
        }
    }

    /**
     * @param opened told of the board, on the interface's thread, unless it was cancelled
     * @param trouble told why it could not be read, on the interface's thread
     */
    void show(Node by, Consumer<OpenedBoard> opened, Consumer<String> trouble) {
        Label what = Styles.label("Opening %s, %d MB".formatted(file.getFileName(), size(file) >> 20), "gear-name");
        ProgressBar bar = new ProgressBar();
        bar.setMaxWidth(Double.MAX_VALUE);
        Button cancel = Fields.plain("Cancel", "Esc");
        cancel.setId("cancel-opening");
        VBox box = new VBox(Space.S10, what, bar, cancel);
        box.setPrefWidth(WIDTH);
        box.setId("opening");
        desk.overlay().show(box, by, () -> reading.cancel(true));
        cancel.setOnAction(_ -> desk.overlay().close());
        cancel.requestFocus();
        Thread.ofVirtual().start(() -> {
            try {
                OpenedBoard board = reading.get();
                Platform.runLater(() -> {
                    if (box.getScene() != null) {
                        desk.overlay().close();
                    }
                    opened.accept(board);
                });
            } catch (CancellationException e) {
                // All stays as it was.
            } catch (ExecutionException e) {
                Throwable why = e.getCause() == null ? e : e.getCause();
                Platform.runLater(() -> {
                    if (box.getScene() != null) {
                        desk.overlay().close();
                    }
                    trouble.accept(String.valueOf(why.getMessage()));
                });
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        });
    }
}
