package rombix.app.view.share;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.function.Consumer;
import java.util.regex.Matcher;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.input.DragEvent;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.app.view.gear.Practice;
import rombix.app.view.sheet.BoardLooks;
import rombix.core.board.Rig;
import rombix.core.bundle.Bundle;
import rombix.core.bundle.Manifest;
import rombix.core.bundle.Matching;
import rombix.core.edit.Edits;
import rombix.core.store.BadFile;
import rombix.core.trust.Ask;
import rombix.core.trust.Asks;
import rombix.core.twin.Figures;

/**
 * A bundle before it is unpacked: its pages, what it asks for, its files, and its gear beside one's own. Nothing of it is
 * on the disk, connected or run until that is agreed to; what is unpacked opens as a guest.
 */
public final class BundleSheet {
    private static final double WIDTH = 1140;
    private static final double HEIGHT = 560;
    private static final double FILES_HEIGHT = 112;
    private static final int MOST_FILES = 200;
    private static final double GEAR_HEIGHT = 330;
    private static final double MATCH_WIDTH = 500;

    private final Desk desk;
    private final Practice practice;
    private final Consumer<Path> open;
    private final Consumer<String> notices;

    /** @param open opens the board that was unpacked */
    public BundleSheet(Desk desk, Practice practice, Consumer<Path> open, Consumer<String> notices) {
        this.desk = desk;
        this.practice = practice;
        this.open = open;
        this.notices = notices;
    }

    /** Takes bundles that are dropped anywhere on the window while the board is built. */
    public void takeDrops(Node window) {
        window.addEventFilter(DragEvent.DRAG_OVER, e -> {
            if (dropped(e)) {
                e.acceptTransferModes(TransferMode.COPY);
                e.consume();
            }
        });
        window.addEventFilter(DragEvent.DRAG_DROPPED, e -> {
            if (dropped(e)) {
                open(e.getDragboard().getFiles().getFirst().toPath(), window);
                e.setDropCompleted(true);
                e.consume();
            }
        });
    }

    private boolean dropped(DragEvent e) {
        return desk.building() && e.getDragboard().hasFiles() && Bundle.named(e.getDragboard().getFiles().getFirst()
                .toPath());
    }

    /** Looks at a bundle off the interface's thread, and shows what is in it. */
    public void open(Path file, Node by) {
        Rig mine = desk.bench().rig();
        Thread.ofPlatform().daemon().name("bundle").start(() -> {
            try {
                Bundle bundle = Bundle.read(file);
                Matching matching = new Matching(bundle.rig(), mine);
                MatchGrid gear = new MatchGrid(bundle.rig(), matching, practice);
                List<Ask> asks = Asks.of(bundle.rig(), List.of());
                Platform.runLater(() -> show(by, bundle, matching, gear, asks));
            } catch (BadFile e) {
                Platform.runLater(() -> notices.accept(String.valueOf(e.getMessage())));
            }
        });
    }

    private void show(Node by, Bundle bundle, Matching matching, MatchGrid gear, List<Ask> asks) {
        ScrollPane rows = gear.node(GEAR_HEIGHT);
        VBox.setVgrow(rows, Priority.ALWAYS);
        VBox match = new VBox(Space.S8, Styles.label("Its gear, and yours", "gear-name"), rows);
        match.setPrefWidth(MATCH_WIDTH);
        match.setMinWidth(MATCH_WIDTH);
        ScrollPane asked = BoardLooks.asks(asks);
        VBox.setVgrow(asked, Priority.ALWAYS);
        VBox about = new VBox(Space.S8, Styles.label("What it asks for", "gear-name"), asked, Styles.label("Files",
                "gear-name"), files(bundle.manifest()));
        HBox.setHgrow(about, Priority.ALWAYS);
        HBox middle = new HBox(Space.S16, BoardLooks.pages(bundle.rig().board()), match, about);
        VBox.setVgrow(middle, Priority.ALWAYS);
        TextField folder = Fields.text("unpack-folder", fresh(bundle), _ -> {
        });
        folder.setMinWidth(MATCH_WIDTH);
        Label trouble = Styles.label("", "trouble");
        trouble.setWrapText(true);
        trouble.managedProperty().bind(trouble.textProperty().isNotEmpty());
        Button unpack = Fields.plain("Unpack and open", "");
        unpack.setId("unpack");
        unpack.setOnAction(_ -> unpack(bundle, matching, gear, whole(folder.getText()), trouble));
        Button cancel = Fields.plain("Cancel", "Esc");
        cancel.setId("unpack-cancel");
        cancel.setOnAction(_ -> desk.overlay().close());
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox foot = new HBox(Space.S8, new Label("Folder"), folder, gap, unpack, cancel);
        foot.setAlignment(Pos.CENTER_LEFT);
        VBox box = new VBox(Space.S10, Styles.label("“%s”, from %s".formatted(bundle.manifest().name(), bundle.file()
                .getFileName()), "gear-name"), Fields.read(summary(bundle)), middle, trouble, foot);
        box.setPrefSize(WIDTH, HEIGHT);
        box.setId("bundle");
        desk.overlay().show(box, by, by::requestFocus);
        cancel.requestFocus();
    }

    private static String summary(Bundle bundle) {
        String missing = bundle.manifest().missing().isEmpty()
                ? ""
                : " Missing: " + String.join(", ", bundle.manifest().missing()) + ".";
        return "Nothing has been unpacked, connected or run yet. It has %s, %d kB.%s".formatted(Figures.count(bundle
                .manifest().files().size(), "file"), bundle.bytes() / 1000, missing);
    }

    /** Each file with its size. */
    private static ScrollPane files(Manifest manifest) {
        VBox list = new VBox(Space.S4);
        for (Manifest.Entry f : manifest.files().stream().limit(MOST_FILES).toList()) {
            Label name = Styles.label(f.file(), "read");
            name.setMaxWidth(Double.MAX_VALUE);
            HBox.setHgrow(name, Priority.ALWAYS);
            Label size = Fields.read(Math.max(1, f.bytes() / 1000) + "\u00a0kB");
            size.setMinWidth(Region.USE_PREF_SIZE);
            list.getChildren().add(new HBox(Space.S8, name, size));
        }
        if (manifest.files().size() > MOST_FILES) {
            list.getChildren().add(Fields.read("and " + (manifest.files().size() - MOST_FILES) + " more"));
        }
        ScrollPane scroll = new ScrollPane(list);
        scroll.setId("bundle-files");
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.setMinHeight(FILES_HEIGHT);
        scroll.setPrefHeight(FILES_HEIGHT);
        scroll.getStyleClass().add("popover-scroll");
        return scroll;
    }

    /** A folder that is not there yet, as people write it. */
    private static String fresh(Bundle bundle) {
        Path boards = whole("~/Rombix");
        String name = bundle.manifest().board().replaceFirst("\\.json$", "");
        return "~/Rombix/" + Edits.freshId(name, "board", id -> Files.exists(boards.resolve(id)));
    }

    /** A folder as it was typed; {@code ~} is the home folder. */
    private static Path whole(String typed) {
        return Path.of(typed.strip().replaceFirst("^~(?=/|\\\\|$)", Matcher.quoteReplacement(System.getProperty(
                "user.home"))));
    }

    private void unpack(Bundle bundle, Matching matching, MatchGrid gear, Path folder, Label trouble) {
        Thread.ofPlatform().daemon().name("unpacking").start(() -> {
            try {
                Path board = bundle.unpack(folder, matching.applied(gear.carriedOut()).rig());
                Platform.runLater(() -> {
                    desk.overlay().close();
                    open.accept(board);
                });
            } catch (IOException e) {
                Platform.runLater(() -> trouble.setText(String.valueOf(e.getMessage())));
            }
        });
    }
}
