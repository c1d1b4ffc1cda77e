package rombix.app.view.sheet;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.function.Supplier;
import java.util.stream.Stream;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import rombix.app.edit.Starters;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.board.Board;
import rombix.core.board.Gear;
import rombix.core.board.Rig;
import rombix.core.edit.Edits;
import rombix.core.event.Known;
import rombix.core.store.BoardFile;

/** The boards beside this one, a new one, and this one under another name. */
public final class BoardsPopover {
    private static final int MAX = 12;

    private final Desk desk;
    private final Consumer<Path> open;
    private final Maker maker;
    private final Runnable elsewhere;
    private final Consumer<Node> versions;
    private final Supplier<Known> known;
    private final Supplier<String> demo;

    /** What a new board starts with. */
    private enum Start {
        EMPTY("one empty page"), STARTERS("starter pages for its gear"), DEMO("a copy of the demo");

        private final String words;

        Start(String words) {
            this.words = words;
        }
    }

    /** Makes a board's file beside the interface's thread, and opens it. */
    public interface Maker {
        /**
         * @param trouble told on the interface's thread why it could not be made, in words
         */
        void make(Path file, Supplier<String> text, Consumer<String> trouble);
    }

    /**
     * @param open opens a board
     * @param maker makes one
     * @param elsewhere asks for a board in another folder
     * @param versions shows the earlier versions of this one
     * @param demo the demo board's text
     */
    public BoardsPopover(Desk desk, Consumer<Path> open, Maker maker, Runnable elsewhere, Consumer<Node> versions,
            Supplier<Known> known, Supplier<String> demo) {
        this.desk = desk;
        this.open = open;
        this.maker = maker;
        this.elsewhere = elsewhere;
        this.versions = versions;
        this.known = known;
        this.demo = demo;
    }

    public void show(Node by) {
        VBox box = new VBox(Space.S10);
        box.setPrefWidth(440);
        box.setId("boards");
        box.getChildren().addAll(Styles.label("Open", "gear-name"), beside(by), Styles.label("New board", "gear-name"),
                fresh(),
                Styles.label("Save this board as", "gear-name"),
                saveAs());
        desk.overlay().show(box, by, by::requestFocus);
        if (box.lookup("#board-new-name") instanceof TextField name) {
            name.requestFocus();
        }
    }

    private Node beside(Node by) {
        FlowPane row = new FlowPane(Space.S6, Space.S6);
        for (Path file : files()) {
            Button go = Fields.plain(String.valueOf(file.getFileName()).replaceFirst("\\.json$", ""), "");
            go.setOnAction(_ -> {
                desk.overlay().close();
                open.accept(file);
            });
            row.getChildren().add(go);
        }
        Button other = Fields.plain("Open another folder…", "Ctrl+O");
        other.setOnAction(_ -> {
            desk.overlay().close();
            elsewhere.run();
        });
        Button earlier = Fields.plain("Earlier versions…", "");
        earlier.setId("board-versions");
        earlier.setOnAction(_ -> versions.accept(by));
        row.getChildren().addAll(other, earlier);
        return row;
    }

    private Path folder() {
        Path folder = desk.bench().file().toAbsolutePath().getParent();
        return folder == null ? Path.of(".").toAbsolutePath() : folder;
    }

    private List<Path> files() {
        try (Stream<Path> all = Files.list(folder())) {
            return all.filter(f -> f.toString().endsWith(".json") && !String.valueOf(f.getFileName()).startsWith(".")
                    && !f.equals(desk.bench().file().toAbsolutePath())).sorted().limit(MAX).toList();
        } catch (IOException e) {
            return List.of();
        }
    }

    private Node fresh() {
        TextField name = new TextField("My board");
        name.setId("board-new-name");
        name.selectAll();
        ComboBox<Start> start = Fields.choice("board-new-start", List.of(Start.values()), Start.EMPTY, s -> s.words,
                _ -> {
                });
        FlowPane gear = new FlowPane(Space.S10, Space.S4);
        Map<Gear, CheckBox> wanted = new LinkedHashMap<>();
        for (Gear g : desk.bench().board().gear()) {
            CheckBox box = Fields.check("board-gear-" + g.id(), g.name(), true, _ -> {
            });
            wanted.put(g, box);
            gear.getChildren().add(box);
        }
        Label flaw = flaw();
        Button make = Fields.plain("Create", "");
        make.setId("board-make");
        make.setOnAction(_ -> {
            List<Gear> chosen = wanted.entrySet().stream().filter(e -> e.getValue().isSelected()).map(Map.Entry::getKey)
                    .toList();
            String called = name.getText().strip();
            Start from = start.getValue();
            Rig present = desk.bench().rig();
            Known now = known.get();
            write(called, () -> text(called, from, chosen, present, now), flaw);
        });
        name.setOnAction(_ -> make.fire());
        HBox first = new HBox(Space.S8, Fields.named("Name", name), Fields.named("Start with", start));
        first.setAlignment(javafx.geometry.Pos.BOTTOM_LEFT);
        HBox.setHgrow(first.getChildren().get(0), Priority.ALWAYS);
        return new VBox(Space.S8, first, Fields.named("Gear to copy from this board", gear), flaw, make);
    }

    private String text(String name, Start start, List<Gear> gear, Rig present, Known now) {
        if (start == Start.DEMO) {
            return demo.get();
        }
        Board board = Board.empty(name).withGear(gear);
        if (start == Start.STARTERS) {
            board = Starters.pages(Rig.of(board, present.cards()), now, List.of(Starters.values()));
        }
        return BoardFile.format(board);
    }

    private Node saveAs() {
        TextField name = new TextField(desk.bench().board().name() + " 2");
        name.setId("board-as-name");
        HBox.setHgrow(name, Priority.ALWAYS);
        Label flaw = flaw();
        Button save = Fields.plain("Save as", "");
        save.setId("board-save-as");
        save.setOnAction(_ -> {
            String called = name.getText().strip();
            Board board = desk.bench().board().withName(called);
            write(called, () -> BoardFile.format(board), flaw);
        });
        name.setOnAction(_ -> save.fire());
        HBox row = new HBox(Space.S8, name, save);
        row.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
        return new VBox(Space.S4, row, flaw);
    }

    /** A line for what is wrong; it takes no room while nothing is. */
    private static Label flaw() {
        Label flaw = Fields.read("");
        flaw.getStyleClass().add("trouble");
        flaw.managedProperty().bind(flaw.textProperty().isNotEmpty());
        return flaw;
    }

    private void write(String name, Supplier<String> text, Label flaw) {
        Path file = folder().resolve(Edits.freshId(name, "board", _ -> false) + ".json");
        if (name.isBlank()) {
            flaw.setText("Enter a name.");
        } else if (Files.exists(file)) {
            flaw.setText("A board “%s” already exists here. Choose another name.".formatted(file.getFileName()));
        } else {
            maker.make(file, text, trouble -> {
                flaw.setText(trouble);
                desk.overlay().requestLayout();
            });
        }
        desk.overlay().requestLayout();
    }
}
