package rombix.app.view.sheet;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.format.DateTimeFormatter;
import java.time.format.FormatStyle;
import java.util.List;
import java.util.Map;
import java.util.function.BiConsumer;
import java.util.function.UnaryOperator;
import javafx.application.Platform;
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
import org.jspecify.annotations.Nullable;
import rombix.app.edit.file.Elsewhere;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.board.Board;
import rombix.core.board.Rig;
import rombix.core.diff.BoardDiff;
import rombix.core.diff.Change;
import rombix.core.edit.Edits;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;
import rombix.core.store.Versions.Version;
import rombix.core.store.Versions;

/** The last versions of the board that were saved: each can be taken back whole, or a button of it. Undo brings all back. */
public final class VersionsPopover {
    private static final double WIDTH = 520;
    private static final int MOST_BUTTONS = 24;
    private static final int MOST_CHANGES = 5;
    private static final DateTimeFormatter WHEN = DateTimeFormatter.ofLocalizedDateTime(FormatStyle.MEDIUM,
            FormatStyle.MEDIUM);

    private final Desk desk;
    private final BiConsumer<Board, Runnable> before;

    /** @param before goes on with a board that comes back, once all of it is agreed to */
    public VersionsPopover(Desk desk, BiConsumer<Board, Runnable> before) {
        this.desk = desk;
        this.before = before;
    }

    /** A version as it was read; of one that can't be read, why. */
    private record Read(Version version, @Nullable Board was, List<String> since, String trouble) {
    }

    /** Reads the versions off the interface's thread, and shows them. */
    public void show(Node by) {
        Path file = desk.bench().file();
        Rig now = desk.bench().rig();
        Thread.ofPlatform().daemon().name("versions").start(() -> {
            List<Read> all = Versions.of(file).stream().map(v -> read(v, now)).toList();
            Platform.runLater(() -> show(by, all));
        });
    }

    private static Read read(Version version, Rig now) {
        try {
            Board was = BoardFile.parse(version.file(), Files.readString(version.file()), now.cards());
            return new Read(version, was, BoardDiff.of(now.with(was), now).stream().map(Change::line).toList(), "");
        } catch (BadFile | IOException e) {
            return new Read(version, null, List.of(), String.valueOf(e.getMessage()));
        }
    }

    private void show(Node by, List<Read> all) {
        VBox box = new VBox(Space.S8);
        box.setId("versions");
        box.getChildren().add(Styles.label("Earlier versions", "gear-name"));
        if (all.isEmpty()) {
            box.getChildren()
                    .add(Fields.read("None yet. Each save keeps the previous version here."));
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

    private Node version(Read read, int place) {
        Label when = Styles.label(WHEN.format(read.version().saved()), "read");
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox head = new HBox(Space.S8, when, space);
        head.setAlignment(Pos.CENTER_LEFT);
        VBox box = new VBox(Space.S4, head);
        box.getStyleClass().add("gear-part");
        Board was = read.was();
        if (was == null) {
            box.getChildren().add(Styles.label("It can't be read: " + read.trouble(), "read", "trouble"));
            return box;
        }
        Button whole = Fields.plain("Restore everything", "");
        whole.setId("version-" + place);
        whole.setOnAction(_ -> {
            desk.overlay().close();
            takeBack("restore the version of " + when.getText(), _ -> was);
        });
        head.getChildren().add(whole);
        Label since = Fields.read(read.since().isEmpty()
                ? "The same as now."
                : "Changed since: " + Elsewhere.words(read.since(), MOST_CHANGES));
        since.setWrapText(true);
        since.setId("version-since-" + place);
        box.getChildren().add(since);
        Board now = desk.bench().board();
        FlowPane buttons = new FlowPane(Space.S4, Space.S4);
        now.buttons().filter(b -> was.buttons().anyMatch(w -> w.id().equals(b.id()) && !w.equals(b)))
                .limit(MOST_BUTTONS)
                .forEach(b -> {
                    Button one = Fields.plain(b.name(), "");
                    one.setId("version-" + place + "-" + b.id());
                    one.setAccessibleText("Restore the button " + b.name() + " of " + when.getText());
                    one.setOnAction(_ -> {
                        desk.overlay().close();
                        was.buttons().filter(w -> w.id().equals(b.id())).findFirst().ifPresent(w -> takeBack(
                                "restore the button “" + b.name() + "”", board -> Edits.button(board, b.id(), x -> w
                                        .withColumn(x.column()).withRow(x.row()))));
                    });
                    buttons.getChildren().add(one);
                });
        if (!buttons.getChildren().isEmpty()) {
            box.getChildren().addAll(Fields.read("Or restore one changed button:"), buttons);
        }
        return box;
    }
}
