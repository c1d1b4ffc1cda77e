package rombix.app.view.sheet;

import java.time.format.DateTimeFormatter;
import java.time.format.FormatStyle;
import java.util.List;
import java.util.function.BiConsumer;
import java.util.function.UnaryOperator;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Fields;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.core.board.Board;
import rombix.core.board.Edits;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;
import rombix.core.store.Versions;
import rombix.core.store.Versions.Version;

/** The last versions of the board that were saved: each can be taken back whole, or a button of it. Undo brings all back. */
public final class VersionsPopover {
    private static final double WIDTH = 520;
    private static final int MOST_BUTTONS = 24;
    private static final DateTimeFormatter WHEN = DateTimeFormatter.ofLocalizedDateTime(FormatStyle.MEDIUM,
            FormatStyle.MEDIUM);

    private final Desk desk;
    private final BiConsumer<Board, Runnable> before;

    /** @param before goes on with a board that comes back, once all of it is agreed to */
    public VersionsPopover(Desk desk, BiConsumer<Board, Runnable> before) {
        this.desk = desk;
        this.before = before;
    }

    public void show(Node by) {
        VBox box = new VBox(Space.S8);
        box.setId("versions");
        box.getChildren().add(Styles.label("Earlier versions", "gear-name"));
        List<Version> all = Versions.of(desk.bench().file());
        if (all.isEmpty()) {
            box.getChildren()
                    .add(Fields.read("None yet. Each time the board is saved, the version before it is kept here."));
        }
        for (int i = 0; i < all.size(); i++) {
            box.getChildren().add(version(all.get(i), i));
        }
        ScrollPane scroll = new ScrollPane(box);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("popover-scroll");
        VBox popover = new VBox(scroll);
        popover.setPrefWidth(WIDTH);
        desk.overlay().show(popover, by, by::requestFocus);
        if (box.lookup(".button") instanceof Button first) {
            first.requestFocus();
        }
    }

    private void takeBack(String name, UnaryOperator<Board> edit) {
        before.accept(edit.apply(desk.bench().board()), () -> desk.bench().edit(name, edit));
    }

    private Node version(Version version, int place) {
        Label when = Styles.label(WHEN.format(version.saved()), "read");
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox head = new HBox(Space.S8, when, space);
        head.setAlignment(Pos.CENTER_LEFT);
        VBox box = new VBox(Space.S4, head);
        box.getStyleClass().add("gear-part");
        Board was;
        try {
            was = BoardFile.parse(version.file(), java.nio.file.Files.readString(version.file()), desk.bench().rig()
                    .cards());
        } catch (BadFile | java.io.IOException e) {
            box.getChildren().add(Styles.label("It cannot be read: " + e.getMessage(), "read", "trouble"));
            return box;
        }
        Button whole = Fields.plain("Take back whole", "");
        whole.setId("version-" + place);
        whole.setOnAction(_ -> {
            desk.overlay().close();
            takeBack("take back the version of " + when.getText(), _ -> was);
        });
        head.getChildren().add(whole);
        Board now = desk.bench().board();
        FlowPane buttons = new FlowPane(Space.S4, Space.S4);
        now.buttons().filter(b -> was.buttons().anyMatch(w -> w.id().equals(b.id()) && !w.equals(b)))
                .limit(MOST_BUTTONS)
                .forEach(b -> {
                    Button one = Fields.plain(b.name(), "");
                    one.setId("version-" + place + "-" + b.id());
                    one.setAccessibleText("Take back the button " + b.name() + " of " + when.getText());
                    one.setOnAction(_ -> {
                        desk.overlay().close();
                        was.buttons().filter(w -> w.id().equals(b.id())).findFirst().ifPresent(w -> takeBack(
                                "take back the button “" + b.name() + "”", board -> Edits.button(board, b.id(), x -> w
                                        .withColumn(x.column()).withRow(x.row()))));
                    });
                    buttons.getChildren().add(one);
                });
        if (!buttons.getChildren().isEmpty()) {
            box.getChildren().addAll(Fields.read("Or only one of the buttons that were different:"), buttons);
        }
        return box;
    }
}
