package rombix.app.view.patch;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.stage.FileChooser;
import rombix.app.edit.PatchEdits;
import rombix.core.patch.PatchCsv;
import rombix.core.store.WholeFile;

/** A patch, read from a table and written to one. */
final class TableFiles {
    private static final int SAID = 4;

    private final PatchEdits edits;
    private final Node over;
    private final Consumer<String> told;

    /** @param told told what came of it */
    TableFiles(PatchEdits edits, Node over, Consumer<String> told) {
        this.edits = edits;
        this.over = over;
        this.told = told;
    }

    private static FileChooser chooser(String what) {
        FileChooser chooser = new FileChooser();
        chooser.setTitle(what);
        chooser.setInitialFileName("patch.csv");
        chooser.getExtensionFilters().add(new FileChooser.ExtensionFilter("Tables", "*.csv"));
        return chooser;
    }

    void readChosen(String gear) {
        File file = chooser("Read the patch from a table").showOpenDialog(over.getScene().getWindow());
        if (file != null) {
            read(gear, file.toPath());
        }
    }

    /** Takes the fixtures of a table in place of those there are. */
    void read(String gear, Path file) {
        try {
            List<String> wrong = edits.read(gear, Files.readString(file));
            told.accept(wrong.isEmpty()
                    ? edits.fixtures(gear).size() + " fixtures read from " + file.getFileName()
                    : "Skipped: " + String.join("; ", wrong.subList(0, Math.min(SAID, wrong.size()))));
        } catch (IOException e) {
            told.accept("Can't read the table: " + e.getMessage());
        }
    }

    void writeChosen(String gear) {
        File file = chooser("Write the patch as a table").showSaveDialog(over.getScene().getWindow());
        if (file != null) {
            write(gear, file.toPath());
        }
    }

    /** Writes the fixtures as a table. */
    void write(String gear, Path file) {
        try {
            WholeFile.write(file, PatchCsv.write(edits.fixtures(gear)), WholeFile.Readers.AS_BEFORE);
            told.accept(edits.fixtures(gear).size() + " fixtures written to " + file.getFileName());
        } catch (IOException e) {
            told.accept("Can't write the table: " + e.getMessage());
        }
    }
}
