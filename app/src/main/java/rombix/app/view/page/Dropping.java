package rombix.app.view.page;

import java.io.File;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import javafx.application.Platform;
import javafx.css.PseudoClass;
import javafx.scene.Cursor;
import javafx.scene.Node;
import javafx.scene.input.DragEvent;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.Pane;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.Grab;
import rombix.app.edit.file.ClipFiles;
import rombix.app.edit.file.PictureFile;
import rombix.app.view.common.Desk;
import rombix.app.view.score.ScoreDrawing;
import rombix.app.view.tile.Tile;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Rig;
import rombix.core.card.Card;
import rombix.core.card.Protocol;
import rombix.core.edit.Edits;
import rombix.core.edit.Proposals;

/** What is carried over the page and dropped: a control of the rack, a picture from outside. */
public final class Dropping {
    private static final PseudoClass TARGET = PseudoClass.getPseudoClass("target");

    private static final String PAINT = "put a picture on the face";

    private final Desk desk;
    private final Pane page;
    private final Cells cells;
    private final Consumer<String> trouble;
    private @Nullable Grab carried;

    /** @param trouble told in words of a picture that cannot be used */
    Dropping(Desk desk, Pane page, Cells cells, Consumer<String> trouble) {
        this.desk = desk;
        this.page = page;
        this.cells = cells;
        this.trouble = trouble;
        page.setOnDragOver(e -> {
            if (desk.building() && e.getDragboard().hasFiles()) {
                e.acceptTransferModes(TransferMode.COPY);
                target(e.getSceneX(), e.getSceneY());
            }
            e.consume();
        });
        page.setOnDragExited(_ -> target(-1, -1));
        page.setOnDragDropped(this::dropped);
    }

    private void target(double sceneX, double sceneY) {
        for (Node n : page.getChildren()) {
            n.pseudoClassStateChanged(TARGET, n.getBoundsInParent().contains(page.sceneToLocal(sceneX, sceneY)));
        }
    }

    private void dropped(DragEvent e) {
        target(-1, -1);
        List<File> files = e.getDragboard().getFiles();
        if (!files.isEmpty()) {
            files(files, e.getSceneX(), e.getSceneY());
        }
        e.setDropCompleted(!files.isEmpty());
        e.consume();
    }

    /** Files from outside are dropped: sounds to be played, or a picture. */
    public void files(List<File> files, double sceneX, double sceneY) {
        List<Path> sounds = files.stream().map(File::toPath).filter(ClipFiles::sound).toList();
        if (sounds.isEmpty()) {
            picture(files.getFirst(), sceneX, sceneY);
            return;
        }
        Node at = cells.nodeAt(sceneX, sceneY);
        Thread.ofVirtual().name("dropped sounds").start(() -> { // A long one takes seconds to be read.
            try {
                List<ClipFiles.Sound> read = new ArrayList<>();
                for (Path sound : sounds) {
                    read.add(ClipFiles.read(sound));
                }
                Platform.runLater(() -> sounds(read, at));
            } catch (IOException e) {
                Platform.runLater(() -> trouble.accept(String.valueOf(e.getMessage())));
            }
        });
    }

    private void sounds(List<ClipFiles.Sound> read, @Nullable Node at) {
        Rig rig = desk.bench().rig();
        String output = Protocol.of("sound").descriptor().ports().stream().findFirst().orElse("");
        ClipFiles.Added added = ClipFiles.add(rig, read, output);
        Card card = added.board().gear().stream().filter(g -> g.id().equals(added.player())).findFirst()
                .map(g -> rig.cards().get(g.card())).orElseThrow();
        String words = read.size() == 1 ? "play “" + added.clips().getFirst().name() + "”" : "play one of several";
        if (at instanceof Tile tile) {
            desk.bench().select(tile.button().id());
            desk.bench().edit("add the clips", _ -> added.board());
            desk.bench().add(words, List.of(ClipFiles.step(added)));
        } else if (at != null && at.getUserData() instanceof int[] cell) {
            Button made = ClipFiles.button(added, card, cell[0], cell[1]);
            String on = desk.bench().page().id();
            desk.bench().edit(words, _ -> Edits.addButton(added.board(), on, made));
            desk.bench().select(made.id());
        }
        if (rig.twin(added.player()).isEmpty()) {
            trouble.accept("A player was added. It plays through “" + output
                    + "”; choose another output under Manage gear.");
        }
    }

    /** A picture from outside is dropped: on a button it becomes its face's, on an empty cell a button is made of it. */
    public void picture(File file, double sceneX, double sceneY) {
        try {
            Board.Picture picture = PictureFile.read(file.toPath());
            Node at = cells.nodeAt(sceneX, sceneY);
            if (at instanceof Tile tile) {
                desk.bench().select(tile.button().id());
                desk.bench().edit(PAINT, b -> Edits.showPicture(b, tile.button().id(), desk.bench().stateIndex(),
                        picture));
            } else if (at != null && at.getUserData() instanceof int[] cell) {
                Button made = Proposals.fresh(desk.bench().board(), cell[0], cell[1]).withProposed(Set.of(
                        Button.Proposed.NAME, Button.Proposed.FILL));
                String on = desk.bench().page().id();
                desk.bench().edit("add a button", b -> Edits.showPicture(Edits.addButton(b, on, made), made.id(), 0,
                        picture));
                desk.bench().select(made.id());
            }
        } catch (IOException e) {
            trouble.accept(String.valueOf(e.getMessage()));
        }
    }

    /** A control of the rack is carried over the window: where it would land is shown. */
    public void carry(Grab grab, double sceneX, double sceneY) {
        carried = grab;
        target(sceneX, sceneY);
        if (page.getScene() != null) {
            page.getScene().setCursor(Cursor.CLOSED_HAND);
        }
    }

    /** What is carried is let go: on an empty cell it makes a button, on a button or in the score a step. */
    public void drop(double sceneX, double sceneY) {
        Grab grab = carried;
        carried = null;
        target(-1, -1);
        if (page.getScene() != null) {
            page.getScene().setCursor(Cursor.DEFAULT);
        }
        if (grab == null) {
            return;
        }
        Node at = cells.nodeAt(sceneX, sceneY);
        if (at instanceof Tile tile) {
            desk.bench().select(tile.button().id());
            grab.step().ifPresent(s -> desk.bench().add("grab “" + grab.known().title() + "”", List.of(s)));
        } else if (at != null && at.getUserData() instanceof int[] cell) {
            made(grab, cell[0], cell[1]);
        } else if (page.getScene() != null && page.getScene().lookup("#score-drawing") instanceof ScoreDrawing score
                && score.contains(score.sceneToLocal(sceneX, sceneY)) && desk.bench().hasChain()) {
            grab.step().ifPresent(s -> score.drop(s, "grab “" + grab.known().title() + "”", sceneX, sceneY));
        }
    }

    private void made(Grab grab, int column, int row) {
        String name = grab.name(desk.model().state().readings(grab.twin().gear()));
        String id = Edits.freshId(desk.bench().board(), name);
        Button button = grab.button(id, name, column, row);
        desk.bench().edit("grab “" + name + "”", b -> Edits.addButton(b, desk.bench().page().id(), button));
        desk.bench().select(id);
    }
}
