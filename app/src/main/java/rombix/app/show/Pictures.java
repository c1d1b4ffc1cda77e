package rombix.app.show;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import javafx.application.Platform;
import javafx.embed.swing.SwingFXUtils;
import javafx.scene.Group;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.Scene;
import javafx.scene.control.ListView;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TableView;
import javafx.scene.control.TextInputControl;
import javafx.scene.control.ToggleButton;
import javafx.scene.image.WritableImage;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.stage.Stage;
import javax.imageio.ImageIO;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.Workbench;
import rombix.app.view.common.Theme;
import rombix.app.view.window.MainWindow;
import rombix.app.view.window.Welcome;
import rombix.core.board.Rig;
import rombix.core.bundle.BundleWriter;
import rombix.core.card.Card;
import rombix.core.chain.Gesture;
import rombix.core.edit.GearEdits;
import rombix.core.event.Event;
import rombix.core.event.Mode;
import rombix.core.store.WholeFile;
import rombix.running.RunningDeck;
import rombix.standins.set.StandIns;
import rombix.web.access.Access;
import rombix.web.access.AccessList;
import rombix.web.access.Right;

/** Pictures of the window in a given state. */
public final class Pictures {
    /** What can be pictured. */
    public static final List<String> VIEWS = List.of("build", "live", "on-air", "rehearse", "face", "conditions",
            "search", "step",
            "rules",
            "list", "check",
            "commands", "find", "menu", "boards", "parts", "log", "triggers", "report", "small", "gear", "traffic",
            "card", "why", "found", "patch", "welcome", "pages", "items", "gear-card", "traffic-of", "devices",
            "bundle", "bundle-saving", "paper");
    /** Those that fill by and by. */
    private static final Set<String> SLOW = Set.of("report", "traffic", "card", "why", "on-air", "traffic-of", "items");

    /** Those that are shown before anything is pressed. */
    private static final Set<String> LIVELY = Set.of("live", "small", "rehearse", "report", "on-air");

    /** The largest width and height, in pixels. */
    public static final int MAX_SIDE = 4096;
    /** The offscreen display has room for so many pixels, a thousand in a row; a larger window throws within it. */
    private static final int DISPLAY = 1000;

    private final Session session;
    private final Rig rig;

    /** What a picture shows. */
    public record Wanted(String view, @Nullable String page, @Nullable String button, List<String> press, String type,
            Theme theme, int width, int height) {
    }

    public Pictures(Session session, Rig rig, StandIns gear) {
        this.session = session;
        this.rig = rig;
        gear.house().becomes("house/heater/temperature", "19.5");
    }

    /** Takes a picture. Waits a little for the gear, as a person would. */
    public void take(Wanted wanted, Path out) throws IOException {
        if (wanted.view().equals("welcome")) {
            WritableImage image = Session.onInterface(() -> new Welcome(List.of(new Welcome.Recent(Path.of(
                    "star-night.json"), rig.board().name(), rig.board().pages().getFirst())), "", wanted.theme(), _ -> {
                    }).scene().snapshot(null));
            write(image, out);
            return;
        }
        Stage stage = Session.onInterface(() -> {
            Stage s = new Stage();
            s.setWidth(tooLarge(wanted) ? Math.min(wanted.width(), 1280) : wanted.width());
            s.setHeight(tooLarge(wanted) ? Math.min(wanted.height(), 800) : wanted.height());
            session.window().theme(wanted.theme());
            session.window().show(s);
            return s;
        });
        pause(1500);
        boolean first = LIVELY.contains(wanted.view());
        if (first) {
            pose(wanted);
        }
        for (String button : wanted.press()) {
            session.deck().port("picture").perform(button, Gesture.PRESS, -1);
            pause(300);
        }
        pause(wanted.press().isEmpty() ? 0 : 300);
        if (!first) {
            pose(wanted);
        }
        if (wanted.view().equals("report")) {
            Session.onInterface(() -> {
                click("#rehearsal-report");
                return true;
            });
        }
        pause(600);
        for (int i = 0; i < 30 && Session.onInterface(this::forecasting); i++) {
            pause(100);
        }
        Scene shown = Session.onInterface(() -> wanted.view().equals("small")
                ? session.window().stagework().smallWindow()
                : tooLarge(wanted) ? enlarged(stage.getScene(), wanted) : stage.getScene());
        if (tooLarge(wanted)) {
            for (int i = 0; i < 3; i++) { // What depends on its size is made when it has been laid out.
                Session.onInterface(() -> shown.snapshot(null));
                pause(100);
            }
        }
        WritableImage image = Session.onInterface(() -> shown.snapshot(null));
        Session.onInterface(() -> {
            if (wanted.view().equals("small")) {
                session.window().stagework().smallWindow();
            }
            stage.hide(); // What is still to be painted as the toolkit ends would be told as an error.
            return true;
        });
        pause(100);
        write(image, out);
    }

    private static void write(WritableImage image, Path out) throws IOException {
        ByteArrayOutputStream png = new ByteArrayOutputStream();
        ImageIO.write(SwingFXUtils.fromFXImage(image, null), "png", png);
        WholeFile.write(out, png.toByteArray(), WholeFile.Readers.AS_BEFORE);
    }

    private static boolean tooLarge(Wanted wanted) {
        return (long) wanted.height() * DISPLAY + wanted.width() > (long) DISPLAY * DISPLAY;
    }

    /** The same scene in none of the display's windows, at the size that is wanted. */
    private static Scene enlarged(Scene scene, Wanted wanted) {
        Parent root = scene.getRoot();
        // What scrolls is painted from a cache that only a window's own painting renews.
        root.lookupAll(".viewport").forEach(v -> v.setCache(false));
        scene.setRoot(new Group());
        Scene large = new Scene(root, wanted.width(), wanted.height());
        large.getStylesheets().setAll(scene.getStylesheets());
        return large;
    }

    /** Whether there is a forecast to come. */
    private boolean forecasting() {
        return session.window().bench().mode() == Mode.BUILD && session.window().bench().hasChain()
                && !session.window().bench().chain().isEmpty()
                && session.window().scene().lookup("#forecast") instanceof javafx.scene.Node n
                && (n.getAccessibleText() == null || n.getAccessibleText().isBlank());
    }

    private void pose(Wanted wanted) {
        Session.onInterface(() -> {
            posed(wanted);
            return true;
        });
        pause(Set.of("found", "bundle", "paper").contains(wanted.view())
                ? 6000
                : SLOW.contains(wanted.view()) ? 1000 : 100);
    }

    private void posed(Wanted wanted) {
        MainWindow window = session.window();
        Workbench bench = window.bench();
        if (wanted.page() != null) {
            bench.showPage(wanted.page());
        }
        if (wanted.view().equals("live") || wanted.view().equals("small")) {
            bench.mode(Mode.LIVE);
            return;
        }
        if (wanted.view().equals("on-air")) {
            bench.mode(Mode.LIVE);
            Platform.runLater(() -> {
                if (window.scene().lookup("#tile-" + wanted.button()) instanceof Node tile) {
                    tile.requestFocus();
                }
                press(KeyCode.E, true);
            });
            return;
        }
        if (wanted.view().equals("rehearse")) {
            bench.mode(Mode.REHEARSE);
            return;
        }
        String button = wanted.button();
        if (button == null) {
            button = rig.page(bench.page().id()).flatMap(p -> p.buttons().stream().findFirst())
                    .map(b -> b.id()).orElse(null);
        }
        bench.select(button);
        switch (wanted.view()) {
            case "face" -> click("#edit-face");
            case "conditions" -> {
                click("#edit-face");
                window.scene().getRoot().applyCss();
                if (window.scene().lookup("#face-popover") instanceof Node popover) {
                    popover.lookupAll(".scroll-pane").forEach(n -> ((ScrollPane) n).setVvalue(1));
                }
            }
            case "rules" -> click("#edit-rules");
            case "menu" -> {
                if (window.scene().lookup("#tile-" + button) instanceof Node tile) {
                    tile.requestFocus();
                }
                press(KeyCode.CONTEXT_MENU, false);
            }
            case "log" -> press(KeyCode.L, true);
            case "report" -> bench.mode(Mode.REHEARSE);
            case "triggers" -> press(KeyCode.T, true);
            case "devices" -> devices();
            case "bundle" -> bundle(bench);
            case "bundle-saving", "paper" -> javafx.event.Event.fireEvent(window.scene().getRoot(), new KeyEvent(
                    KeyEvent.KEY_PRESSED, "", "", wanted.view().equals("paper") ? KeyCode.P : KeyCode.S, true, false,
                    true,
                    false));
            case "gear", "items", "gear-card", "traffic-of", "card", "why", "patch" -> gearView(wanted);
            case "traffic" -> press(KeyCode.T, true, true);
            case "found" -> {
                click("#edit-gear");
                click("#gear-add");
            }
            case "boards" -> press(KeyCode.N, true);
            case "parts" ->
                javafx.event.Event.fireEvent(window.scene().getRoot(), new KeyEvent(KeyEvent.KEY_PRESSED, "",
                        "", KeyCode.V, false, false, true, false));
            case "list" -> press(KeyCode.F4, false);
            case "pages" -> click("#pages-menu");
            case "check" -> press(KeyCode.F8, false);
            case "commands" -> press(KeyCode.F1, false);
            case "find" -> {
                press(KeyCode.F, true);
                if (window.scene().lookup("#overview-find") instanceof TextInputControl field) {
                    field.setText(wanted.type());
                }
            }
            case "step" -> session.window().scene().getRoot().lookupAll(".mark-step").stream().findFirst()
                    .ifPresent(n -> n.getOnMouseClicked().handle(null));
            case "search" -> {
                if (session.window().scene().lookup("#finder") instanceof TextInputControl finder) {
                    finder.requestFocus();
                    finder.setText(wanted.type());
                }
            }
            default -> {
            }
        }
    }

    /** The sheet of gear, or what it leads to, for the gear whose id is typed. */
    private void gearView(Wanted wanted) {
        click("#edit-gear");
        if (session.window().scene().lookup("#gear-all") instanceof ListView<?> all && !wanted.type().isEmpty()) {
            all.getSelectionModel().select(all.getItems().indexOf(wanted.type()));
        }
        switch (wanted.view()) {
            case "items" -> tab("items");
            case "gear-card" -> tab("card");
            case "traffic-of" -> tab("traffic");
            case "why" -> click("#gear-test-" + wanted.type());
            case "patch" -> {
                tab("items");
                click("#gear-patch-" + wanted.type());
            }
            case "card" -> {
                tab("card");
                click("#gear-card-" + wanted.type());
                if (session.window().scene().lookup("#voices") instanceof TableView<?> voices) {
                    Platform.runLater(() -> voices.getSelectionModel().select(0));
                }
            }
            default -> click("#gear-settings-" + wanted.type());
        }
    }

    private void tab(String name) {
        if (session.window().scene().lookup("#gear-tab-" + name) instanceof ToggleButton tab) {
            tab.fire();
        }
    }

    /** Devices as they may have been let in at the observatory. */
    private void devices() {
        try {
            AccessList access = session.pages().access();
            long now = RunningDeck.CLOCK.wall().toInstant().toEpochMilli();
            access.add("Door phone", Access.Kind.DEVICE, Set.of("doors"), Set.of(Right.PRESS), now);
            access.add("Desk tablet", Access.Kind.DEVICE, Set.of(), Set.of(Right.PRESS, Right.STOP_ALL), now + 1);
            access.add("Warm room screen", Access.Kind.DEVICE, Set.of("observing", "night"), Set.of(), now + 2);
            access.add("Dome sensor", Access.Kind.PROGRAM, Set.of(), Set.of(Right.PRESS), now + 3);
            session.pages().on(InetAddress.getLoopbackAddress(), 0);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        javafx.event.Event.fireEvent(session.window().scene().getRoot(), new KeyEvent(KeyEvent.KEY_PRESSED, "", "",
                KeyCode.W, false, false, true, false));
    }

    /** The board comes as a bundle to a hall that has no relay box, and a desk with fewer channels. */
    private void bundle(Workbench bench) {
        try {
            Path file = Files.createTempDirectory("bundle").resolve("star-night.rombix");
            BundleWriter.write(bench.rig(), file, false);
            bench.edit("another hall", b -> GearEdits.change(GearEdits.listed(GearEdits.without(b, "relays"), "desk",
                    "channel", List.of(new Card.Item("host", "Host", Map.of("number", 1)))), "desk",
                    g -> g.withName(
                            "Hall desk")));
            bench.discardUnsaved(); // The board itself stays as it is.
            session.window().files().open(file);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private void press(KeyCode code, boolean shortcut) {
        press(code, false, shortcut);
    }

    private void press(KeyCode code, boolean shift, boolean shortcut) {
        javafx.event.Event.fireEvent(session.window().scene().getRoot(), new KeyEvent(KeyEvent.KEY_PRESSED, "", "",
                code, shift, shortcut, false, false));
    }

    private void click(String id) {
        if (session.window().scene().lookup(id) instanceof javafx.scene.control.Button b) {
            b.fire();
        }
    }

    private static void pause(long millis) {
        LockSupport.parkNanos(TimeUnit.MILLISECONDS.toNanos(millis));
    }
}
