package rombix.app.view.share;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.function.Consumer;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.board.Rig;
import rombix.core.bundle.Bundle;
import rombix.core.bundle.BundleWriter;
import rombix.core.bundle.Manifest;

/** Saves the board, as it is now, as one file for another computer. */
public final class BundleSaving {
    private static final double WIDTH = 460;

    private final Desk desk;
    private final Consumer<String> notices;

    public BundleSaving(Desk desk, Consumer<String> notices) {
        this.desk = desk;
        this.notices = notices;
    }

    public void open(Node by) {
        OutFile file = new OutFile("bundle-file", desk.bench().file(), "Bundles", List.of(Bundle.END));
        CheckBox addresses = Fields.check("bundle-addresses", "With the addresses and user names of the gear", false,
                _ -> {
                });
        Label trouble = Styles.label("", "trouble");
        trouble.setWrapText(true);
        trouble.managedProperty().bind(trouble.textProperty().isNotEmpty());
        Button save = Fields.plain("Save the bundle", "");
        save.setId("bundle-save");
        save.setOnAction(_ -> save(file.path(), addresses.isSelected(), trouble));
        file.field().setOnAction(_ -> save.fire());
        Button cancel = Fields.plain("Cancel", "Esc");
        cancel.setOnAction(_ -> desk.overlay().close());
        HBox foot = new HBox(Space.S8, save, cancel);
        foot.setAlignment(Pos.CENTER_RIGHT);
        Label about = Fields.read(
                "One file for another computer: the board with its cards, pictures and sounds. Secrets, certificates, trust and the log are never in it.");
        about.setWrapText(true);
        VBox box = new VBox(Space.S10, Styles.label("Save as bundle", "gear-name"), about, Fields.named("File",
                file.node()), addresses, trouble, foot);
        box.setPrefWidth(WIDTH);
        box.setId("bundle-saving");
        desk.overlay().show(box, by, by::requestFocus);
        file.field().requestFocus();
    }

    private void save(Path file, boolean addresses, Label trouble) {
        Rig rig = desk.bench().rig();
        Thread.ofVirtual().name("bundle").start(() -> {
            try {
                Manifest made = BundleWriter.write(rig, file, addresses);
                long bytes = Files.size(file);
                Platform.runLater(() -> {
                    desk.overlay().close();
                    notices.accept("“%s” is saved, %d kB.%s".formatted(file.getFileName(), bytes / 1000, made.missing()
                            .isEmpty()
                                    ? ""
                                    : " Not in it, as the files are missing: " + String.join(", ", made.missing())));
                });
            } catch (IOException e) {
                Platform.runLater(() -> trouble.setText("It can't be saved: " + e.getMessage()));
            }
        });
    }
}
