package rombix.app.view.window;

import java.io.File;
import java.io.IOException;
import java.nio.file.Path;
import javafx.scene.Node;
import javafx.stage.FileChooser;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import rombix.app.deck.Player;
import rombix.app.edit.Workbench;
import rombix.core.engine.Event;
import rombix.core.store.BadFile;

/** The board's file as the hand meets it: save, choose another, open it; what goes wrong is said as a notice. */
public final class BoardFiles {
    private static final Logger LOG = LoggerFactory.getLogger(BoardFiles.class);

    private final Workbench bench;
    private final Player player;
    private final Notices notices;
    private final Node over;

    /** @param over something in the window that a chooser of files is to stand over */
    BoardFiles(Workbench bench, Player player, Notices notices, Node over) {
        this.bench = bench;
        this.player = player;
        this.notices = notices;
        this.over = over;
    }

    void save() {
        try {
            bench.save();
        } catch (IOException e) {
            notices.show("The board could not be saved: " + e.getMessage()
                    + ". Your work is still here: free some disk space, or save it somewhere else.");
        }
    }

    /** Writes what is not saved yet to the journal. */
    void autosave() {
        try {
            bench.autosave();
        } catch (IOException e) {
            LOG.warn("autosave failed", e);
            notices.show("Your changes cannot be autosaved: " + e.getMessage() + ". Save the board somewhere else.");
        }
    }

    /** Asks for another board, and opens it. */
    void choose() {
        FileChooser chooser = new FileChooser();
        chooser.setTitle("Open a board");
        chooser.getExtensionFilters().add(new FileChooser.ExtensionFilter("Boards", "*.json"));
        Path folder = bench.file().toAbsolutePath().getParent();
        if (folder != null && folder.toFile().isDirectory()) {
            chooser.setInitialDirectory(folder.toFile());
        }
        File chosen = chooser.showOpenDialog(over.getScene().getWindow());
        if (chosen != null) {
            open(chosen.toPath());
        }
    }

    /** Opens another board; a bad one is told of, and all stays as it was. */
    public void open(Path file) {
        try {
            boolean brought = bench.open(file);
            player.post(new Event.Opened());
            if (brought) {
                broughtBack();
            }
        } catch (BadFile | IOException e) {
            notices.show(String.valueOf(e.getMessage()));
        }
    }

    /** Says that edits which were not saved were brought back. */
    public void broughtBack() {
        notices.show("Unsaved changes were restored. Ctrl+S saves them.");
    }
}
