package rombix.app.view.rack;

import java.io.IOException;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import javafx.stage.Stage;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.file.PictureFile;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.board.Board;
import rombix.core.board.Board.Picture;
import rombix.core.chain.Step;
import rombix.core.computer.Input;
import rombix.core.computer.Layout;
import rombix.core.computer.Place;
import rombix.core.edit.Edits;
import rombix.core.forecast.Recording;
import rombix.core.forecast.Recording.Clicks;
import rombix.core.forecast.Recording.Pauses;
import rombix.core.sight.Pixels;
import rombix.core.sight.Search;
import rombix.core.twin.Twin;
import rombix.running.input.Touches;
import rombix.running.owner.Secrets;

/** What the operator's hands do at this computer while they are shadowed, in every window but Rombix's own. */
final class InputRecording {
    /** The keys that end it, whatever is in front. */
    static final String END = "Ctrl+Alt+S";

    private final Desk desk;
    private final Touches touches;
    private final Set<String> down = new HashSet<>();
    private final Map<String, Picture> framed = new HashMap<>();
    private @Nullable Recording recording;
    private long beganEnd;
    private String computer = "";

    InputRecording(Desk desk, Touches touches) {
        this.desk = desk;
        this.touches = touches;
    }

    /** Begins, where a gear of the board is this computer. @param ended done when the keys that end it are pressed */
    void begin(Runnable ended) {
        Twin computer = desk.bench().rig().twins().values().stream().filter(t -> t.card().command("press-keys")
                .isPresent() && screens(t).screens().stream().anyMatch(s -> s.title().startsWith("screen"))).findFirst()
                .orElse(null);
        if (computer == null) {
            return;
        }
        Recording started = new Recording(computer.gear());
        recording = started;
        this.computer = computer.gear();
        down.clear();
        framed.clear();
        touches.record(input -> {
            if (recording == started) {
                take(started, input, computer, ended);
            }
        });
    }

    boolean recording() {
        return recording != null;
    }

    /** Whether a gear is this computer, whose readings then only say what its hands do. */
    boolean records(String gear) {
        return recording != null && gear.equals(computer);
    }

    private Layout screens(Twin twin) {
        Twin.Readings now = desk.model().state().readings(twin.gear());
        return Layout.of(now.apply("windows"), now.apply("screens"));
    }

    private void take(Recording to, Input input, Twin computer, Runnable ended) {
        if (input instanceof Input.Key k) {
            if (k.down()) {
                if (down.isEmpty()) {
                    beganEnd = k.atNanos();
                }
                down.add(k.key());
                if (down.equals(Set.of("Ctrl", "Alt", "S"))) {
                    to.cut(beganEnd);
                    ended.run();
                    return;
                }
            } else {
                down.remove(k.key());
            }
        }
        Layout layout = screens(computer);
        boolean own = switch (input) {
            case Input.Button b -> ownWindow(layout.titleAt(b.x(), b.y()));
            case Input.Wheel w -> ownWindow(layout.titleAt(w.x(), w.y()));
            case Input.Key _,Input.Typed _ ->
                ownWindow(String.valueOf(desk.model().state().readings(computer.gear()).apply(
                        "window")));
        };
        if (!own) {
            to.add(input, layout);
            if (input instanceof Input.Button b && b.down()) {
                frame(to, b);
            }
        }
    }

    /** Cuts out what is clicked, before the click has changed it, where that is to be seen nowhere else. */
    private void frame(Recording of, Input.Button click) {
        String gear = computer;
        Thread.ofVirtual().name("frame").start(() -> {
            Pixels seen = desk.look(gear);
            if (seen == null) {
                return;
            }
            Search.sole(seen, (int) click.x(), (int) click.y()).ifPresent(m -> {
                Pixels part = seen.part(m.x(), m.y(), m.width(), m.height());
                Picture picture = PictureFile.of("Clicked", m.width(), m.height(), part.rgb());
                Platform.runLater(() -> {
                    framed.put(picture.id(), picture);
                    of.seen(click.atNanos(), new Place.OnPicture(picture.id(), "everywhere", 90, Place.Which.SOLE,
                            (int) click.x() - m.x(), (int) click.y() - m.y(), 2000));
                });
            });
        });
    }

    /** Whether a window is one of Rombix's own. */
    private static boolean ownWindow(String title) {
        return !title.isEmpty() && javafx.stage.Window.getWindows().stream().anyMatch(w -> w instanceof Stage s && title
                .equals(s.getTitle()));
    }

    /** Ends it, and shows what was done, to be added to the chain in the way that is chosen. */
    void end(Node by) {
        touches.record(null);
        Recording done = recording;
        recording = null;
        if (done == null || done.isEmpty() || !desk.bench().hasChain()) {
            return;
        }
        ComboBox<Pauses> pauses = Fields.choice("recorded-pauses", List.of(Pauses.values()), Pauses.SQUEEZED,
                Pauses::words, _ -> {
                });
        ComboBox<Clicks> clicks = Fields.choice("recorded-clicks", List.of(Clicks.values()), Clicks.WINDOW,
                Clicks::words, _ -> {
                });
        Label count = Styles.label("", "gear-name");
        Runnable show = () -> count.setText(steps(done, pauses, clicks).size() + " steps at this computer");
        pauses.valueProperty().subscribe(show);
        clicks.valueProperty().subscribe(show);
        show.run();
        Button add = Fields.plain("Add the steps", "");
        add.setId("recorded-add");
        TypedTexts texts = new TypedTexts(steps(done, pauses, clicks), new Secrets());
        Label trouble = Styles.label("", "trouble");
        trouble.managedProperty().bind(trouble.textProperty().isNotEmpty());
        add.setOnAction(_ -> {
            try {
                List<Step> steps = texts.as(steps(done, pauses, clicks));
                desk.overlay().close();
                if (texts.asks()) {
                    desk.bench().edit("add a value for the question", TypedTexts::withValue);
                }
                if (clicks.getValue() == Clicks.PICTURE) {
                    desk.bench().edit("frame what was clicked", b -> {
                        Board all = b;
                        for (Picture p : framed.values()) {
                            all = Edits.addPicture(all, p);
                        }
                        return all;
                    });
                }
                desk.bench().add("shadow " + steps.size() + " steps at this computer", steps);
            } catch (IOException e) {
                trouble.setText("the secrets can't be written: " + e.getMessage());
            }
        });
        Button drop = Fields.plain("Discard", "Esc");
        drop.setOnAction(_ -> desk.overlay().close());
        VBox box = new VBox(Space.S8, count, Fields.named("Pauses", pauses), Fields.named("Click positions", clicks));
        box.getChildren().addAll(texts, trouble, new HBox(Space.S8, add, drop));
        box.setId("recorded");
        desk.overlay().show(box, by, () -> {
        });
        add.requestFocus();
        if (by.getScene().getWindow() instanceof Stage stage) {
            stage.toFront();
        }
    }

    private static List<Step> steps(Recording of, ComboBox<Pauses> pauses, ComboBox<Clicks> clicks) {
        return of.steps(pauses.getValue(), clicks.getValue());
    }
}
