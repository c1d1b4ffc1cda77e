package rombix.app.view.window;

import java.util.Set;
import java.util.stream.Collectors;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.StackPane;
import javafx.stage.Stage;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.ButtonEdits;
import rombix.app.edit.Hints.Hint;
import rombix.app.edit.StepEdits;
import rombix.app.edit.Workbench;
import rombix.app.view.card.CardSheet;
import rombix.app.view.common.DeckModel;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Overlay;
import rombix.app.view.common.Theme;
import rombix.app.view.common.WindowPlace;
import rombix.app.view.gear.AddGear;
import rombix.app.view.gear.Discovery;
import rombix.app.view.gear.GearDetail;
import rombix.app.view.gear.GearParts;
import rombix.app.view.gear.GearSheet;
import rombix.app.view.gear.GearWays;
import rombix.app.view.gear.Practice;
import rombix.app.view.live.AskPopover;
import rombix.app.view.live.LiveStrips;
import rombix.app.view.live.RehearsalBand;
import rombix.app.view.page.PageTrail;
import rombix.app.view.page.PageTurns;
import rombix.app.view.page.PageView;
import rombix.app.view.page.SmallKey;
import rombix.app.view.patch.PatchSheet;
import rombix.app.view.rack.RackView;
import rombix.app.view.score.ScoreView;
import rombix.app.view.share.BundleSaving;
import rombix.app.view.share.BundleSheet;
import rombix.app.view.share.PaperSheet;
import rombix.app.view.share.PartClipboard;
import rombix.app.view.sheet.BoardsPopover;
import rombix.app.view.sheet.DevicesView;
import rombix.app.view.sheet.LogView;
import rombix.app.view.sheet.TrafficView;
import rombix.app.view.sheet.TriggersView;
import rombix.app.view.sheet.VersionsPopover;
import rombix.core.board.Button;
import rombix.core.board.Rig;
import rombix.core.edit.Proposals;
import rombix.core.traffic.Traffic;
import rombix.running.Player;
import rombix.running.face.FaceSources;
import rombix.running.input.Touches;
import rombix.running.log.LogStore;
import rombix.running.owner.Secrets;
import rombix.running.owner.Settings;
import rombix.running.owner.Trust;
import rombix.web.BrowserPages;

/** The window, put together: masthead, rack, page and score; in Live the page with its strips. */
public final class MainWindow {
    private final DeckModel model;
    private final Desk desk;
    private final Player player;
    private final Touches touches;
    private final BoardFiles files;
    private final Guests guests;
    private final Modes modes;
    private final Masthead masthead;
    private final PageView page;
    private final LiveStrips strips;
    private final LogView logView;
    private final TrafficView traffic;
    private final TriggersView triggers;
    private final CardSheet cardSheet;
    private final PatchSheet patch;
    private final Stagework stagework;
    private final Commands commands;
    private final GearSheet gear;
    private final RackView rack;
    private final HintLines hints = new HintLines();
    private final Keyboard keyboard;
    private final Beat beat;
    private Rig loaded;
    /** The buttons whose faces change as time passes, of the board that was looked through last. */
    private Set<String> ticking = Set.of();
    private @Nullable Rig ticksOf;

    /**
     * @param player plays the board; told of it after every edit
     * @param practice what ships to practise on
     * @param log what was run; null where it is not kept
     * @param touches what presses from outside
     * @param trust what the owner of this computer has agreed to
     */
    public MainWindow(Workbench bench, Player player, Practice practice, @Nullable LogStore log,
            Touches touches, Trust trust) {
        this.touches = touches;
        this.model = new DeckModel(player.feed(), player::nanos);
        this.player = player;
        this.loaded = bench.rig();
        BorderPane layout = new BorderPane();
        Overlay overlay = new Overlay();
        Notices notices = new Notices();
        desk = new Desk(bench, model, overlay, player);
        commands = new Commands(desk);
        stagework = new Stagework(desk, new StackPane(layout, overlay));
        Secrets secrets = new Secrets();
        guests = new Guests(desk, player, trust, notices, layout);
        files = new BoardFiles(desk, guests, notices, layout);
        PageTrail trail = new PageTrail(bench);
        ButtonEdits buttons = new ButtonEdits(bench);
        StepEdits steps = new StepEdits(bench);
        page = new PageView(desk, buttons, notices::show);
        traffic = new TrafficView(desk, player::traffic, notices::show);
        patch = new PatchSheet(desk, player);
        Discovery discovery = new Discovery(player::search);
        cardSheet = new CardSheet(desk, player, discovery);
        cardSheet.whenTraffic(of -> traffic.open(layout, of));
        GearWays ways = ways(layout);
        gear = new GearSheet(desk, new GearDetail(desk, new GearParts(practice, secrets, discovery, player::why),
                new TrafficView(desk, player::traffic, notices::show), ways), new AddGear(desk, discovery, ways),
                player::known, page.adding()::addFirst);
        rack = new RackView(desk, player::known, page, gear, hints.of(Hint.GEAR), touches);
        ScoreView score = new ScoreView(desk, steps, player::known, page::editFace);
        page.adding().whenAdded(score::focusFinder);
        score.whenAbandoned(page.adding()::abandon);
        bench.follow(rig -> Proposals.follow(rig, model.state()::readings));
        AskPopover ask = new AskPopover(desk, page::tileOf);
        strips = new LiveStrips(desk, ask::open, stagework.keyboard().control());
        logView = new LogView(desk, log, notices::show);
        SmallKey smallKey = new SmallKey(desk, touches, stagework::smallWindow);
        triggers = new TriggersView(desk, touches, smallKey::field);
        Overview overview = new Overview(desk, commands);
        masthead = new Masthead(desk,
                new BoardsPopover(desk, files::open, files::make, files::choose,
                        new VersionsPopover(desk, guests::before)::show, player::known, practice::demoBoard),
                player::known, trail, commands);
        RehearsalBand rehearsal = new RehearsalBand(desk, player);
        EditOnAir onAir = new EditOnAir(desk, player, page, notices::show);
        modes = new Modes(desk, player, guests, layout, new Modes.Parts(masthead, notices, rack, page, score, rehearsal,
                strips, ask, hints, onAir));
        PartClipboard clipboard = new PartClipboard(desk, practice, guests::before, notices::show, page::focusedCell);
        buttons.whenCopied(clipboard::copied, clipboard::copyOnly);
        steps.whenCopied(clipboard::copied);
        WindowCommands.fill(commands, desk, new WindowCommands.Parts(stagework, modes, files, masthead, rack, page,
                score, strips, trail, logView, traffic, triggers, gear, cardSheet, overview, onAir, clipboard, layout),
                steps, buttons);
        BundleSheet bundles = new BundleSheet(desk, practice, files::open, notices::show);
        files.whenOpened(bundle -> bundles.open(bundle, layout), this::beginWithGear);
        bundles.takeDrops(layout);
        WindowCommands.share(commands, new BundleSaving(desk, notices::show), new PaperSheet(desk, notices::show),
                layout);
        guests.whenTrusted(() -> MissingSecrets.tell(bench.rig(), secrets, notices, g -> gear.showSecret(rack, g),
                bench::select));
        masthead.whenModeChosen(modes::mode);
        score.whenTried(modes::tryOnTwins);
        score.head().whenTriggers(() -> triggers.open(layout));
        Scene scene = stagework.scene();
        new PageTurns(desk, page, trail, scene, stagework::small);
        scene.addEventFilter(MouseEvent.MOUSE_RELEASED, e -> page.hand().handOff(Desk.MOUSE, e.getTarget()));
        keyboard = new Keyboard(desk, scene, commands, page, touches, smallKey, onAir,
                () -> onAir.escape() || modes.endTrial());
        bench.watch(this::load);
        bench.watch(() -> player.showing(bench.page().id()));
        beat = new Beat(this::pulse, this::second);
        model.whenFed(beat::wake);
    }

    /** Offers to show pages in browsers. */
    public void offer(BrowserPages pages) {
        triggers.whenHooked(() -> pages.server().isPresent());
        WindowCommands.browsers(commands, new DevicesView(desk, pages), stagework.scene().getRoot());
    }

    /** Where the sheet of gear leads to. */
    private GearWays ways(Node over) {
        return new GearWays() {
            @Override
            public void card(String of) {
                cardSheet.open(over, of);
            }

            @Override
            public void add() {
                cardSheet.add(over);
            }

            @Override
            public void patch(String of) {
                patch.open(over, of);
            }

            @Override
            public Traffic.Counts counts(String of) {
                return player.traffic().counts(of);
            }
        };
    }

    /** Plays the board that the window was made for. */
    public void begin() {
        guests.meet(loaded);
        player.load(loaded);
        guests.met();
    }

    private void load() {
        if (desk.bench().rig() != loaded) {
            loaded = desk.bench().rig();
            player.load(loaded);
        }
    }

    private boolean pulse() {
        model.pulse();
        modes.pulse();
        return model.state().moves() || modes.tries();
    }

    private void second() {
        if (ticksOf != desk.bench().rig()) {
            ticksOf = desk.bench().rig();
            ticking = ticksOf.board().buttons().filter(b -> FaceSources.of(b).ticks())
                    .map(Button::id).collect(Collectors.toSet());
        }
        model.tick(ticking);
        masthead.tick();
        strips.tick();
        files.autosave();
    }

    /** Shows the window on a stage. Losing the focus lets go of what is held. */
    public void show(Stage stage) {
        stagework.on(stage);
        stage.focusedProperty().addListener((_, _, focused) -> {
            if (!focused) {
                // What the hands at this window hold: keys seen everywhere and controllers hold on.
                keyboard.letGo();
                page.hand().letGo();
            }
        });
        WindowPlace place = new WindowPlace(new Settings());
        place.put(stage);
        stage.getIcons().setAll(WindowPlace.icons());
        stage.setOnCloseRequest(_ -> {
            place.remember(stage);
            closing();
        });
        stage.show();
    }

    /** Lets go of all holds and writes what is not saved. */
    public void closing() {
        beat.close();
        model.close();
        stagework.close();
        page.hand().letGo();
        files.flush();
    }

    public Scene scene() {
        return stagework.scene();
    }

    public void theme(Theme theme) {
        stagework.theme(theme);
    }

    /** The window as such, with the small one beside it. */
    public Stagework stagework() {
        return stagework;
    }

    public Guests guests() {
        return guests;
    }

    public BoardFiles files() {
        return files;
    }

    public Workbench bench() {
        return desk.bench();
    }

    /** Shows the hints that were not followed yet on this computer. */
    public void hint(Settings settings) {
        hints.begin(desk.bench(), settings);
    }

    /** A new board begins with what it is to work. */
    public void beginWithGear() {
        Platform.runLater(() -> gear.show(rack, null));
    }

    /** The deck as the window knows it. The interface's thread's. */
    public DeckModel model() {
        return model;
    }

    PageView page() {
        return page;
    }

    public Touches touches() {
        return touches;
    }

    public LogView logView() {
        return logView;
    }

    public PatchSheet patchSheet() {
        return patch;
    }

    public CardSheet cardSheet() {
        return cardSheet;
    }

    public TrafficView traffic() {
        return traffic;
    }

    Commands commands() {
        return commands;
    }
}
