package rombix.app.view.share;

import java.io.File;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.stage.FileChooser;
import rombix.app.view.common.Space;
import rombix.app.view.form.Fields;

/** A field for the file that something is saved in, with the system's dialog beside it. */
final class OutFile {
    private final TextField field;
    private final HBox box;
    private final List<String> endings;

    /**
     * @param kinds what the dialog calls the files
     * @param endings how their names may end, such as {@code .pdf}; one with no such ending gets the first
     */
    OutFile(String id, Path board, String kinds, List<String> endings) {
        this.endings = endings;
        field = Fields.text(id, board.toAbsolutePath().resolveSibling(String.valueOf(board.getFileName()).replaceFirst(
                "\\.json$", "") + endings.getFirst()).toString(), _ -> {
                });
        HBox.setHgrow(field, Priority.ALWAYS);
        Button choose = Fields.plain("Choose…", "");
        choose.setOnAction(_ -> choose(kinds));
        box = new HBox(Space.S8, field, choose);
        box.setAlignment(Pos.CENTER_LEFT);
    }

    HBox node() {
        return box;
    }

    TextField field() {
        return field;
    }

    Path path() {
        Path path = Path.of(field.getText().strip());
        String name = path.toString().toLowerCase(Locale.ROOT);
        return endings.stream().anyMatch(name::endsWith) ? path : Path.of(path + endings.getFirst());
    }

    private void choose(String kinds) {
        FileChooser chooser = new FileChooser();
        chooser.setTitle("Save");
        chooser.getExtensionFilters().add(new FileChooser.ExtensionFilter(kinds, endings.stream().map(e -> "*" + e)
                .toList()));
        Path now = path();
        chooser.setInitialFileName(String.valueOf(now.getFileName()));
        if (now.getParent() != null && Files.isDirectory(now.getParent())) {
            chooser.setInitialDirectory(now.getParent().toFile());
        }
        File chosen = chooser.showSaveDialog(field.getScene().getWindow());
        if (chosen != null) {
            field.setText(chosen.toString());
        }
    }
}
