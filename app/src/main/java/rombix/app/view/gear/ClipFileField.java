package rombix.app.view.gear;

import java.io.File;
import java.io.IOException;
import java.nio.file.Path;
import java.util.function.Consumer;
import javafx.application.Platform;
import javafx.scene.control.Button;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.stage.FileChooser;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.file.ClipFiles;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.board.Rig;
import rombix.core.card.Card.Item;
import rombix.core.twin.Figures;

/** The sound file of a clip, with its length: chosen, and read at once, so that it is known to be sound. */
final class ClipFileField extends HBox {
    private static final double WIDTH = 220;

    /**
     * @param wrong told why a file cannot be used; null where it can
     * @param chosen told of the clip with its new file
     */
    ClipFileField(String id, Rig rig, Item item, Consumer<@Nullable String> wrong, Consumer<Item> chosen) {
        super(Space.S8);
        Object file = item.fields().get(ClipFiles.FILE);
        Button choose = Fields.plain(file == null ? "File…" : Path.of(file.toString()).getFileName().toString(), "");
        choose.setId(id);
        choose.setMaxWidth(WIDTH);
        choose.setAccessibleText("Sound file of " + item.name());
        choose.setTooltip(new Tooltip(file == null ? "Choose a sound file" : rig.file(file.toString())));
        choose.setOnAction(_ -> {
            FileChooser chooser = new FileChooser();
            chooser.getExtensionFilters().add(new FileChooser.ExtensionFilter("Sound", "*.wav", "*.aif", "*.aiff",
                    "*.flac", "*.ogg", "*.oga", "*.mp3"));
            File picked = chooser.showOpenDialog(getScene().getWindow());
            if (picked != null) {
                take(picked.toPath(), rig, item, wrong, chosen);
            }
        });
        getChildren().add(choose);
        if (item.fields().get(ClipFiles.SECONDS) instanceof Number seconds) {
            getChildren().add(Styles.label(Figures.span(seconds.doubleValue() * 1000), "field-name"));
        }
        setAlignment(javafx.geometry.Pos.CENTER_LEFT);
    }

    private static void take(Path file, Rig rig, Item item, Consumer<@Nullable String> wrong, Consumer<Item> chosen) {
        Thread.ofVirtual().name("clip").start(() -> { // A long one takes seconds to be read.
            try {
                ClipFiles.Sound sound = ClipFiles.read(file);
                Platform.runLater(() -> chosen.accept(ClipFiles.withFile(rig, item, sound)));
            } catch (IOException e) {
                Platform.runLater(() -> wrong.accept(String.valueOf(e.getMessage())));
            }
        });
    }
}
