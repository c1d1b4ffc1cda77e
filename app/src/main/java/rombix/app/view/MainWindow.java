package rombix.app.view;

import java.io.File;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Supplier;
import javafx.animation.AnimationTimer;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCombination;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.text.Font;
import javafx.stage.FileChooser;
import javafx.stage.Stage;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import rombix.app.edit.ButtonEdits;
import rombix.app.edit.StepEdits;
import rombix.app.edit.Workbench;
import rombix.app.edit.Workbench.Mode;
import rombix.app.log.LogStore;
import rombix.core.board.Proposals;
import rombix.core.board.Rig;
import rombix.core.chain.Step.Show.Way;
import rombix.core.check.Check;
import rombix.core.engine.Event;
import rombix.core.engine.Happening;
import rombix.core.engine.Status;
import rombix.core.store.BadFile;

/** The window: masthead, rack, page and score; in Live the page with its strips. */
public final class MainWindow {
    private static final Logger LOG = LoggerFactory.getLogger(MainWindow.class);
    private static final long AUTOSAVE_NANOS = 1_000_000_000L;
    /** How many pulses the twins are still shown after what was tried has ended. */
    private static final int TRIAL_PULSES = 150;

    /** The two looks. */
    public enum Theme {
        NIGHT, DAY
    }

    private final Workbench bench;
    private final DeckModel model;
    private final Desk desk;
    private final Player player;
    private final Touches touches;
    private final GearPopover gear;
    private final RehearsalBand rehearsal;
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
    private final LogView logView;
    private final TriggersView triggersView;
    private final Scene scene;
    private final PageTrail trail;
    private @Nullable SmallWindow smallWindow;
    private Rig loaded;
    private Mode shownMode;
    private long lastTick;
    private Point2D pointer = new Point2D(640, 400);
    private boolean trial;
    private int trialQuiet;
    private final Commands commands;
    private final Keyboard keyboard;
    private final ButtonEdits buttons;

    static {
        for (String font : new String[]{"archivo-narrow-latin-400-normal", "archivo-narrow-latin-600-normal",
                "archivo-narrow-latin-700-normal", "atkinson-hyperlegible-latin-400-normal",
                "atkinson-hyperlegible-latin-700-normal"}) {
            Font.loadFont(MainWindow.class.getResourceAsStream("/rombix/app/fonts/" + font + ".woff"), 14);
        }
    }

    /**
     * @param player plays the board; told of it after every edit
     * @param demo the demo board's text
     * @param log what was run; null where it is not kept
     * @param touches what presses from outside
     */
    public MainWindow(Workbench bench, DeckModel model, Player player, Supplier<String> demo, @Nullable LogStore log,
            Touches touches) {
        this.bench = bench;
        this.touches = touches;
        this.model = model;
        this.player = player;
        this.loaded = bench.rig();
        this.shownMode = bench.mode();
        desk = new Desk(bench, model, overlay, player::post);
        trail = new PageTrail(bench);
        masthead = new Masthead(desk, this::mode,
                new BoardsPopover(desk, this::open, this::chooseBoard, player::known, demo),
                player::known, trail, this::commands);
        buttons = new ButtonEdits(bench);
        StepEdits steps = new StepEdits(bench);
        page = new PageView(desk, buttons, this::notice);
        gear = new GearPopover(desk, touches);
        rack = new RackView(desk, player::known, page, gear);
        score = new ScoreView(desk, steps, player::known, page::editFace, this::tryOnTwins);
        page.whenAdded(score::focusFinder);
        bench.follow(rig -> Proposals.follow(rig, model::readings));
        ask = new AskPopover(desk, page::tileOf);
        strips = new LiveStrips(desk, ask::open);
        logView = new LogView(desk, log, this::notice);
        triggersView = new TriggersView(desk, touches);
        score.whenTriggers(() -> triggersView.open(layout));
        commands = new Commands(desk, this, steps, buttons);
        overview = new Overview(desk, commands);
        rehearsal = new RehearsalBand(desk, player);
        model.clock(player::nanos);
        PopUpPage popUp = new PopUpPage(desk);
        model.watch(c -> c.pages().forEach(p -> turn(p, popUp)));
        notices.setPickOnBounds(false);
        notices.setMaxHeight(Region.USE_PREF_SIZE);
        notices.setMaxWidth(640);
        StackPane.setAlignment(notices, javafx.geometry.Pos.TOP_CENTER);
        StackPane.setMargin(notices, new javafx.geometry.Insets(56, 0, 0, 0));
        StackPane root = new StackPane(layout, notices, overlay);
        scene = new Scene(root, 1280, 800);
        scene.getStylesheets().addAll(css("tokens.css"), css("rombix.css"));
        theme(Theme.NIGHT);
        scene.addEventFilter(MouseEvent.ANY, e -> pointer = new Point2D(e.getSceneX(), e.getSceneY()));
        scene.addEventFilter(MouseEvent.MOUSE_RELEASED, e -> page.handOff("mouse", e.getTarget()));
        keyboard = new Keyboard(desk, scene, commands, page, touches, () -> {
            boolean was = trial;
            endTrial();
            return was;
        });
        arrange();
        bench.watch(this::changed);
        new AnimationTimer() {
            @Override
            public void handle(long now) {
                pulse(now);
            }
        }.start();
    }

    /** A chain, or something that a page follows, has a page shown. */
    private void turn(Happening shown, PopUpPage popUp) {
        if (shown instanceof Happening.PageFollows f) {
            if (f.so()) {
                bench.showPage(f.page());
            } else {
                trail.backFrom(f.page());
            }
        } else if (shown instanceof Happening.PageShown p) {
            String id = p.page();
            if (id == null) {
                trail.back();
            } else if (p.way() == Way.BACK) {
                page.through(() -> trail.backFrom(id));
            } else if (p.way() == Way.WHILE_HELD) {
                page.through(() -> bench.showPage(id));
            } else if (p.way() == Way.POP_UP && bench.mode() != Mode.BUILD) {
                popUp.open(id, pointer.getX(), pointer.getY());
            } else {
                bench.showPage(id);
            }
        }
    }

    /** Shows the present page in a small window of its own, or takes that away; gives its scene. */
    public Scene smallWindow() {
        SmallWindow small = smallWindow == null ? new SmallWindow(desk, scene) : smallWindow;
        smallWindow = small;
        if (small.showing()) {
            small.close();
        } else {
            small.show(bench.page());
        }
        return small.scene();
    }

    /** The small window, where there is one. */
    @Nullable
    SmallWindow small() {
        return smallWindow;
    }

    /** Goes back to the page that was shown before. */
    void back() {
        trail.back();
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
        stage.setFullScreenExitKeyCombination(KeyCombination.NO_MATCH); // Escape closes popovers, not the show.
        stage.setMinWidth(1024);
        stage.setMinHeight(700);
        title(stage);
        bench.watch(() -> title(stage));
        stage.focusedProperty().addListener((_, _, focused) -> {
            if (!focused) {
                // What the hands at this window hold: keys seen everywhere and controllers hold on.
                keyboard.letGo();
                page.letGo();
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
        if (smallWindow != null) {
            smallWindow.close();
        }
        page.letGo();
        autosave();
    }

    private void pulse(long now) {
        model.pulse();
        if (trial) {
            trialQuiet = model.runs().isEmpty() ? trialQuiet + 1 : 0;
            if (trialQuiet > TRIAL_PULSES) {
                endTrial();
            }
        }
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
            boolean rehearsed = shownMode == Mode.REHEARSE;
            shownMode = bench.mode();
            page.letGo();
            if (trial) {
                trial = false;
                player.tryOnTwins(null);
            }
            player.mode(shownMode);
            if (shownMode == Mode.LIVE) {
                wentLive();
            }
            arrange();
            if (rehearsed) {
                rehearsal.ended(layout);
            }
        }
    }

    private void arrange() {
        overlay.close();
        page.letGo();
        VBox middle = new VBox(page);
        VBox.setVgrow(page, Priority.ALWAYS);
        if (bench.mode() == Mode.BUILD) {
            if (trial) {
                rehearsal.trial(this::endTrial);
            }
            layout.setTop(trial ? new VBox(masthead, rehearsal) : masthead);
            layout.setLeft(rack);
            middle.getChildren().add(score);
            layout.setBottom(null);
        } else {
            boolean twins = bench.mode() == Mode.REHEARSE;
            if (twins) {
                rehearsal.begin();
            }
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

    /** Runs a chain on twins; the window shows them until it has ended. */
    private void tryOnTwins(Event.Try tried) {
        trial = true;
        trialQuiet = 0;
        player.tryOnTwins(tried);
        arrange();
    }

    /** Shows the gear again after a trial on twins. */
    private void endTrial() {
        if (trial) {
            trial = false;
            player.tryOnTwins(null);
            arrange();
        }
    }

    PageView page() {
        return page;
    }

    RackView rack() {
        return rack;
    }

    ScoreView score() {
        return score;
    }

    /** Takes what went wrong off the message line of Live. */
    void putAway() {
        strips.putAway();
    }

    /** Shows the board's gear, to be added, named and reached. */
    void gear() {
        gear.show(rack, null);
    }

    Touches touches() {
        return touches;
    }

    TriggersView triggers() {
        return triggersView;
    }

    LogView logView() {
        return logView;
    }

    Overview overview() {
        return overview;
    }

    Commands commands() {
        return commands;
    }

    Masthead masthead() {
        return masthead;
    }

    /** Where popovers stand that are about the whole window. */
    Node middle() {
        return layout;
    }

    /** Goes to another mode; leaving Live is asked for first, so that no slip ends a show. */
    void mode(Mode next) {
        if (bench.mode() != Mode.LIVE || next == Mode.LIVE) {
            bench.mode(next);
            return;
        }
        Chooser.open(desk, layout, "Leave Live?", List.of(new Chooser.Item("stay-live", "Stay in Live", "Esc", () -> {
        }), new Chooser.Item("leave-live", next == Mode.BUILD
                ? "Leave: edit the board"
                : "Leave: press on twins", "", () -> bench.mode(next))));
    }

    /** What stands in the way of a show is said as it begins. */
    private void wentLive() {
        List<String> missing = new ArrayList<>();
        bench.rig().twins().values().forEach(t -> {
            if (model.status(t.gear()).phase() == Status.Phase.OFF) {
                missing.add(t.title() + " is off");
            }
        });
        tellMissing(missing);
        Rig live = bench.rig();
        Thread.startVirtualThread(() -> { // A large board takes longer than a frame.
            int findings = Check.of(live).size();
            if (findings > 0) {
                javafx.application.Platform.runLater(() -> {
                    missing.add("the check found " + (findings == 1 ? "one thing" : findings + " things")
                            + " (F8 in Build)");
                    tellMissing(missing);
                });
            }
        });
    }

    private void tellMissing(List<String> missing) {
        if (!missing.isEmpty() && bench.mode() == Mode.LIVE) {
            strips.missing(String.join("; ", missing) + ".");
        }
    }

    /** The whole screen for the window that shows it, or a part of it again. */
    void fullScreen() {
        if (scene.getWindow() instanceof Stage stage) {
            stage.setFullScreen(!stage.isFullScreen());
        }
    }

    void otherTheme() {
        theme(scene.getRoot().getStyleClass().contains("night") ? Theme.DAY : Theme.NIGHT);
    }

    void save() {
        try {
            bench.save();
        } catch (IOException e) {
            notice("The board could not be saved: " + e.getMessage() + ". What you made is still here; free some room"
                    + " or save it somewhere else.");
        }
    }

    void chooseBoard() {
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
            boolean brought = bench.open(file);
            player.post(new Event.Opened());
            if (brought) {
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
