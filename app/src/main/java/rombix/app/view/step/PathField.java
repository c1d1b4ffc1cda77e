package rombix.app.view.step;

import java.io.File;
import java.util.function.Consumer;
import javafx.scene.control.Button;
import javafx.scene.control.TextField;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.stage.DirectoryChooser;
import javafx.stage.FileChooser;
import rombix.app.view.common.Space;
import rombix.app.view.form.Fields;

/** A file, a folder, a program or the address of a page: chosen, dropped, or typed. */
final class PathField extends HBox {
    PathField(String id, String now, Consumer<String> changed) {
        super(Space.S6);
        TextField field = Fields.text(id + "-text", now, t -> changed.accept(t.strip()));
        field.setPromptText("choose, drop or type");
        HBox.setHgrow(field, Priority.ALWAYS);
        Button file = Fields.plain("File…", "");
        file.setId(id + "-file");
        file.setOnAction(_ -> take(new FileChooser().showOpenDialog(getScene().getWindow()), field, changed));
        Button folder = Fields.plain("Folder…", "");
        folder.setId(id + "-folder");
        folder.setOnAction(_ -> take(new DirectoryChooser().showDialog(getScene().getWindow()), field, changed));
        setOnDragOver(e -> {
            if (e.getDragboard().hasFiles()) {
                e.acceptTransferModes(TransferMode.LINK, TransferMode.COPY);
            }
            e.consume();
        });
        setOnDragDropped(e -> {
            take(e.getDragboard().getFiles().getFirst(), field, changed);
            e.setDropCompleted(true);
            e.consume();
        });
        getChildren().addAll(field, file, folder);
    }

    private static void take(@org.jspecify.annotations.Nullable File chosen, TextField field,
            Consumer<String> changed) {
        if (chosen != null) {
            field.setText(chosen.getAbsolutePath());
            changed.accept(chosen.getAbsolutePath());
        }
    }
}
