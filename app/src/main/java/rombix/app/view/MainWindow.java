package rombix.app.view;

import java.io.File;
import java.io.IOException;
import java.nio.file.Path;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import javafx.animation.AnimationTimer;
import javafx.scene.Parent;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyCodeCombination;
import javafx.scene.input.KeyCombination;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.text.Font;
import javafx.stage.FileChooser;
import javafx.stage.Stage;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import rombix.app.edit.Workbench;
import rombix.app.edit.Workbench.Mode;
import rombix.core.board.Rig;
import rombix.core.engine.Event;
import rombix.core.store.BadFile;

/** The window: masthead, rack, page and score; in Live the page with its strips. */
public final class MainWindow {
    private static final Logger LOG = LoggerFactory.getLogger(MainWindow.class);
    private static final long AUTOSAVE_NANOS = 1_000_000_000L;

    /** The two looks. */
    public enum Theme {
        NIGHT, DAY
    }

    private final Workbench bench;
    private final DeckModel model;
    private final Desk desk;
    private final Player player;
    private final HBox rehearsal = new HBox();
    private final BorderPane layout = new BorderPane();
    private final Overlay overlay = new Overlay();
    private final VBox notices = new VBox(6);
    private final Masthead masthead;
    private final RackView rack;
    private final PageView page;
    private final ScoreView score;
    private final LiveStrips strips;
    private final AskPopover ask;
    private final Overview overview;
    private final Scene scene;
    private Rig loaded;
    private Mode shownMode;
    private long lastTick;
    private final Map<KeyCode, String> heldByKey = new EnumMap<>(KeyCode.class);

    static {
        for (String font : new String[]{"archivo-narrow-latin-400-normal", "archivo-narrow-latin-600-normal",
                "archivo-narrow-latin-700-normal", "atkinson-hyperlegible-latin-400-normal",
                "atkinson-hyperlegible-latin-700-normal"}) {
            Font.loadFont(MainWindow.class.getResourceAsStream("/rombix/app/fonts/" + font + ".woff"), 14);
        }
    }

    /**
     * @param player plays the board; told of it after every edit
     */
    public MainWindow(Workbench bench, DeckModel model, Player player) {
        this.bench = bench;
        this.model = model;
        this.player = player;
        this.loaded = bench.rig();
        this.shownMode = bench.mode();
        desk = new Desk(bench, model, overlay, player::post);
        masthead = new Masthead(desk, this::chooseBoard);
        page = new PageView(desk);
        rack = new RackView(desk, player::known, page);
        score = new ScoreView(desk, player::known, page::editFace);
        ask = new AskPopover(desk, page::tileOf);
        strips = new LiveStrips(desk, ask::open);
        overview = new Overview(desk, commands());
        Label word = new Label("REHEARSAL");
        word.getStyleClass().add("rehearsal-word");
        Label what = new Label("Presses run on twins: nothing leaves this machine.");
        what.getStyleClass().add("read");
        rehearsal.getChildren().addAll(word, what);
        rehearsal.getStyleClass().add("rehearsal");
        rehearsal.setId("rehearsal");
        model.watch(c -> c.pages().forEach(p -> bench.showPage(p.page())));
        notices.setPickOnBounds(false);
        notices.setMaxHeight(Region.USE_PREF_SIZE);
        notices.setMaxWidth(640);
        StackPane.setAlignment(notices, javafx.geometry.Pos.TOP_CENTER);
        StackPane.setMargin(notices, new javafx.geometry.Insets(56, 0, 0, 0));
        StackPane root = new StackPane(layout, notices, overlay);
        scene = new Scene(root, 1280, 800);
        scene.getStylesheets().addAll(css("tokens.css"), css("rombix.css"));
        theme(Theme.NIGHT);
        scene.addEventFilter(KeyEvent.KEY_PRESSED, this::key);
        scene.addEventFilter(KeyEvent.KEY_RELEASED, this::keyReleased);
        arrange();
        bench.watch(this::changed);
        new AnimationTimer() {
            @Override
            public void handle(long now) {
                pulse(now);
            }
        }.start();
    }

    private static String css(String name) {
        return String.valueOf(MainWindow.class.getResource("/rombix/app/" + name));
    }

    public Scene scene() {
        return scene;
    }

    public void theme(Theme theme) {
        Parent root = scene.getRoot();
        root.getStyleClass().removeAll("night", "day");
        root.getStyleClass().add(theme == Theme.NIGHT ? "night" : "day");
    }

    /** Shows the window on a stage. Losing the focus lets go of what is held. */
    public void show(Stage stage) {
        stage.setScene(scene);
        stage.setMinWidth(1024);
        stage.setMinHeight(700);
        title(stage);
        bench.watch(() -> title(stage));
        stage.focusedProperty().addListener((_, _, focused) -> {
            if (!focused) {
                heldByKey.clear();
                page.letGo();
                player.post(new Event.LetGo());
            }
        });
        stage.setOnCloseRequest(_ -> closing());
        stage.show();
    }

    private void title(Stage stage) {
        stage.setTitle(bench.board().name() + " · Rombix");
    }

    /** Lets go of all holds and writes what is not saved. */
    public void closing() {
        page.letGo();
        autosave();
    }

    private void pulse(long now) {
        model.pulse();
        if (now - lastTick > AUTOSAVE_NANOS) {
            lastTick = now;
            masthead.tick();
            strips.tick();
            autosave();
        }
    }

    private void autosave() {
        try {
            bench.autosave();
        } catch (IOException e) {
            LOG.warn("autosave failed", e);
            notice("Your changes cannot be kept safe: " + e.getMessage() + ". Save the board somewhere else.");
        }
    }

    private void changed() {
        if (bench.rig() != loaded) {
            loaded = bench.rig();
            player.load(loaded);
        }
        if (bench.mode() != shownMode) {
            shownMode = bench.mode();
            page.letGo();
            player.rehearse(shownMode == Mode.REHEARSE);
            if (shownMode == Mode.LIVE) {
                player.post(new Event.WentLive());
            }
            arrange();
        }
    }

    private void arrange() {
        overlay.close();
        page.letGo();
        VBox middle = new VBox(page);
        VBox.setVgrow(page, Priority.ALWAYS);
        if (bench.mode() == Mode.BUILD) {
            layout.setTop(masthead);
            layout.setLeft(rack);
            middle.getChildren().add(score);
            layout.setBottom(null);
        } else {
            boolean twins = bench.mode() == Mode.REHEARSE;
            layout.setTop(
                    twins ? new VBox(masthead, rehearsal, strips.airStrip()) : new VBox(masthead, strips.airStrip()));
            layout.setLeft(twins ? rack : null);
            layout.setBottom(strips.runStrip());
        }
        layout.getStyleClass().remove("rehearsing");
        if (bench.mode() == Mode.REHEARSE) {
            layout.getStyleClass().add("rehearsing");
        }
        layout.setCenter(middle);
        javafx.application.Platform.runLater(ask::open);
    }

    private void key(KeyEvent e) {
        boolean typing = scene.getFocusOwner() instanceof TextInputControl;
        if (matches(e, KeyCode.PERIOD, KeyCombination.SHORTCUT_DOWN)) {
            desk.post().accept(new Event.StopAll());
        } else if (e.getCode() == KeyCode.F5) {
            bench.mode(Mode.BUILD);
        } else if (e.getCode() == KeyCode.F6) {
            bench.mode(Mode.LIVE);
        } else if (e.getCode() == KeyCode.F7) {
            bench.mode(Mode.REHEARSE);
        } else if (bench.mode() != Mode.BUILD) {
            if (typing || !keyPressed(e)) {
                return;
            }
        } else if (matches(e, KeyCode.Z, KeyCombination.SHORTCUT_DOWN, KeyCombination.SHIFT_DOWN)
                || matches(e, KeyCode.Y, KeyCombination.SHORTCUT_DOWN)) {
            bench.redo();
        } else if (matches(e, KeyCode.Z, KeyCombination.SHORTCUT_DOWN) && !typing) {
            bench.undo();
        } else if (matches(e, KeyCode.S, KeyCombination.SHORTCUT_DOWN)) {
            save();
        } else if (matches(e, KeyCode.O, KeyCombination.SHORTCUT_DOWN)) {
            chooseBoard();
        } else if (e.getCode() == KeyCode.F4) {
            score.toggleList();
        } else if (matches(e, KeyCode.F, KeyCombination.SHORTCUT_DOWN)) {
            overview.find(layout);
        } else if (e.getCode() == KeyCode.F8) {
            overview.check(layout);
        } else if (e.getCode() == KeyCode.F1 || matches(e, KeyCode.K, KeyCombination.SHORTCUT_DOWN)) {
            overview.commands(layout);
        } else if (e.getCode() == KeyCode.SLASH && !typing && !e.isShortcutDown()) {
            score.focusFinder();
        } else {
            return;
        }
        e.consume();
    }

    /** Everything that the window can do, for the list of commands. */
    private List<Overview.Command> commands() {
        return List.of(new Overview.Command("Add a step by typing", "/", () -> score.focusFinder()),
                new Overview.Command("Find a page, a button, a step, a note", "Ctrl+F", () -> overview().find(layout)),
                new Overview.Command("Check the board", "F8", () -> overview().check(layout)),
                new Overview.Command("Read the steps as a list, or look at them", "F4", () -> score.toggleList()),
                new Overview.Command("Edit the face of the button", "F2", page::editFace),
                new Overview.Command("Undo", "Ctrl+Z", bench::undo), new Overview.Command("Redo", "Ctrl+Shift+Z",
                        bench::redo),
                new Overview.Command("Save the board", "Ctrl+S", this::save),
                new Overview.Command("Open another board", "Ctrl+O", this::chooseBoard),
                new Overview.Command("Build: edit the board", "F5", () -> bench.mode(Mode.BUILD)),
                new Overview.Command("Rehearse: press on twins", "F7", () -> bench.mode(Mode.REHEARSE)),
                new Overview.Command("Live: press for real", "F6", () -> bench.mode(Mode.LIVE)),
                new Overview.Command("Stop every chain that runs", "Ctrl+.", () -> player.post(new Event.StopAll())),
                new Overview.Command("Night colours", "", () -> theme(Theme.NIGHT)), new Overview.Command("Day colours",
                        "", () -> theme(Theme.DAY)),
                key("Copy, cut, paste, double the selected steps",
                        "Ctrl+C X V D"),
                key("Select steps, one by one", "← →, Shift"), key(
                        "Switch steps off or on", "O"),
                key("Zoom the score", "+ − 0, Ctrl+wheel"), key(
                        "Move a button to another cell", "Alt+arrows"),
                key(
                        "Delete the button or the steps", "Delete"));
    }

    private Overview overview() {
        return overview;
    }

    /** A key that works where the focus is; choosing it puts the focus on the score. */
    private Overview.Command key(String words, String key) {
        return new Overview.Command(words, key, () -> {
            if (scene.lookup("#score-drawing") instanceof javafx.scene.Node n) {
                n.requestFocus();
            }
        });
    }

    /** Presses the button whose key it is; a key that the keyboard repeats while it is held presses once. */
    private boolean keyPressed(KeyEvent e) {
        rombix.core.board.Button b = RulesPopover.Keys.pressedBy(e, bench.board());
        if (b != null && heldByKey.putIfAbsent(e.getCode(), b.id()) == null) {
            desk.press(b.id(), "key " + RulesPopover.Keys.name(e));
        }
        return b != null;
    }

    private void keyReleased(KeyEvent e) {
        String held = heldByKey.remove(e.getCode());
        if (held != null) {
            desk.release(held, "key");
        }
    }

    private static boolean matches(KeyEvent e, KeyCode code, KeyCombination.Modifier... modifiers) {
        return new KeyCodeCombination(code, modifiers).match(e);
    }

    private void save() {
        try {
            bench.save();
        } catch (IOException e) {
            notice("The board could not be saved: " + e.getMessage() + ". What you made is still here; free some room"
                    + " or save it somewhere else.");
        }
    }

    private void chooseBoard() {
        FileChooser chooser = new FileChooser();
        chooser.setTitle("Open a board");
        chooser.getExtensionFilters().add(new FileChooser.ExtensionFilter("Boards", "*.json"));
        Path folder = bench.file().toAbsolutePath().getParent();
        if (folder != null && folder.toFile().isDirectory()) {
            chooser.setInitialDirectory(folder.toFile());
        }
        File chosen = chooser.showOpenDialog(scene.getWindow());
        if (chosen != null) {
            open(chosen.toPath());
        }
    }

    /** Opens another board; a bad one is told of, and all stays as it was. */
    public void open(Path file) {
        try {
            if (bench.open(file)) {
                broughtBack();
            }
        } catch (BadFile | IOException e) {
            notice(String.valueOf(e.getMessage()));
        }
    }

    /** Says that edits which were not saved were brought back. */
    public void broughtBack() {
        notice("Changes that were not saved were brought back. Ctrl+S keeps them.");
    }

    /** Shows a sentence until it is closed. */
    public void notice(String text) {
        Label words = new Label(text);
        words.setWrapText(true);
        HBox.setHgrow(words, Priority.ALWAYS);
        words.setMaxWidth(Double.MAX_VALUE);
        Button close = Fields.plain("Close", "");
        close.setMinWidth(Region.USE_PREF_SIZE);
        HBox box = new HBox(words, close);
        box.getStyleClass().add("notice");
        close.setOnAction(_ -> notices.getChildren().remove(box));
        notices.getChildren().add(box);
    }

    /** The desk's parts, for pictures. */
    public Workbench bench() {
        return bench;
    }
}
