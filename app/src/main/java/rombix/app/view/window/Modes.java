package rombix.app.view.window;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.Hints.Hint;
import rombix.app.edit.Workbench;
import rombix.app.view.common.Checking;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Chooser;
import rombix.app.view.form.Fields;
import rombix.app.view.live.AskPopover;
import rombix.app.view.live.LiveStrips;
import rombix.app.view.live.RehearsalBand;
import rombix.app.view.page.PageView;
import rombix.app.view.rack.RackView;
import rombix.app.view.score.ScoreView;
import rombix.core.board.Rig;
import rombix.core.board.Trigger;
import rombix.core.check.Check;
import rombix.core.event.Event;
import rombix.core.event.Known;
import rombix.core.event.Mode;
import rombix.core.event.Status;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.twin.Figures;
import rombix.running.Player;

/**
 * What the window shows in each mode, and the way from one to another. In Build a trial shows the twins until what was
 * tried has ended. The interface's thread's.
 */
@OwnedBy(Owner.INTERFACE)
final class Modes {
    /** How many pulses the twins are still shown after what was tried has ended. */
    private static final int TRIAL_PULSES = 150;

    /** What is arranged. */
    record Parts(Masthead masthead, Notices notices, RackView rack, PageView page, ScoreView score,
            RehearsalBand rehearsal, LiveStrips strips, AskPopover ask, HintLines hints, EditOnAir onAir) {
    }

    private final Desk desk;
    private final Workbench bench;
    private final Player player;
    private final Guests guests;
    private final BorderPane layout;
    private final Parts parts;
    private Mode shown;
    /** Whether the start chains run at the next change to Live, where the board was live before. */
    private boolean starts;
    /** Whether it was answered for this board whether they do. */
    private boolean answered;
    /** Whether triggers press in Build, as they did in Live. */
    private boolean armed;
    private boolean trial;
    private int trialQuiet;

    Modes(Desk desk, Player player, Guests guests, BorderPane layout, Parts parts) {
        this.desk = desk;
        this.bench = desk.bench();
        this.player = player;
        this.guests = guests;
        this.layout = layout;
        this.parts = parts;
        this.shown = bench.mode();
        desk.overlay().keepClear(() -> height(layout.getTop()), () -> height(layout.getBottom()));
        arrange();
        bench.watch(this::changed);
    }

    private static double height(@Nullable Node strip) {
        return strip == null ? 0 : strip.getLayoutBounds().getHeight();
    }

    /**
     * Goes to another mode. Leaving Live is asked for first, so that no slip ends a show; so is whether start chains run
     * where the board was live before, as the show goes on then.
     */
    void mode(Mode next) {
        if (next == Mode.LIVE && guests.guest()) {
            guests.ask(); // Nobody goes on air with what was only looked at.
            return;
        }
        if (next == Mode.LIVE && bench.mode() != Mode.LIVE && bench.lives() > 0 && !answered && starting() > 0) {
            Chooser.open(desk, layout, "This board was live before. Run its start chains again?", List.of(
                    new Chooser.Item("live-on", "No, continue the show", "Enter", () -> live(false)),
                    new Chooser.Item("live-anew", "Yes: run " + Figures.count(starting(), "start chain"), "Ctrl+Enter",
                            () -> live(true))));
            return;
        }
        if (bench.mode() != Mode.LIVE || next == Mode.LIVE) {
            bench.mode(next);
            return;
        }
        List<Chooser.Item> items = new ArrayList<>();
        items.add(new Chooser.Item("stay-live", "Stay in Live", "Esc", () -> {
        }));
        items.add(new Chooser.Item("leave-live", next == Mode.BUILD
                ? "Leave and edit"
                : "Leave and rehearse", "Ctrl+Enter", () -> switchTo(next, false)));
        if (next == Mode.BUILD && triggers() > 0) {
            items.add(new Chooser.Item("leave-armed", "Leave, keep triggers armed", "", () -> switchTo(next, true)));
        }
        if (next == Mode.BUILD && !desk.model().state().running().isEmpty()) {
            items.add(new Chooser.Item("leave-stopped", "Leave and stop everything", "", () -> {
                desk.port().stopAll();
                switchTo(next, false);
            }));
        }
        Chooser.open(desk, layout, "Leave Live? " + whatStops(next), items);
    }

    /** @param keeps whether triggers still press in Build */
    private void switchTo(Mode next, boolean keeps) {
        armed = keeps;
        bench.mode(next);
    }

    private long triggers() {
        return bench.board().buttons().mapToLong(b -> b.triggers().size()).sum();
    }

    /** Has triggers no longer press in Build. */
    private void disarm() {
        armed = false;
        player.arm(false);
        arrange();
    }

    private void live(boolean anew) {
        answered = true;
        starts = anew;
        bench.mode(Mode.LIVE);
        starts = false;
    }

    /** Runs the start chains of the board that is live. */
    void startAnew() {
        player.start();
    }

    /** How many buttons do something as the board goes live. */
    private int starting() {
        return (int) bench.board().buttons().filter(b -> !b.onStart().isEmpty() || b.triggers().stream().anyMatch(
                t -> t instanceof Trigger.When w && w.what() == Trigger.When.What.WENT_LIVE)).count();
    }

    /** What stops as Live is left, in a sentence or two. */
    private String whatStops(Mode next) {
        List<String> running = desk.model().state().running().stream()
                .map(r -> "“" + bench.rig().button(r.button()).map(b -> b.name())
                        .orElse(r.button()) + "”")
                .distinct().toList();
        List<String> words = new ArrayList<>();
        if (triggers() > 0) {
            words.add(next == Mode.BUILD ? "Triggers no longer press." : "Triggers press on twins only.");
        }
        if (!running.isEmpty()) {
            words.add((next == Mode.BUILD ? "Still running: " : "Stops: ") + String.join(", ", running) + ".");
        }
        String unapplied = parts.onAir().unapplied();
        if (!unapplied.isEmpty()) {
            words.add(unapplied);
        }
        return words.isEmpty() ? "Nothing is running." : String.join(" ", words);
    }

    private void changed() {
        if (bench.lives() == 0) {
            answered = false; // Another board.
        }
        if (bench.mode() == shown) {
            return;
        }
        boolean rehearsed = shown == Mode.REHEARSE;
        shown = bench.mode();
        parts.page().hand().letGo();
        if (trial) {
            trial = false;
            player.tryOnTwins(null);
        }
        player.mode(shown, shown != Mode.LIVE || starts || bench.lives() == 1);
        armed &= shown == Mode.BUILD;
        if (armed) {
            player.arm(true);
        }
        if (shown == Mode.LIVE) {
            wentLive();
        }
        arrange();
        if (rehearsed) {
            parts.rehearsal().ended(layout);
        }
    }

    private void arrange() {
        desk.overlay().close();
        parts.page().hand().letGo();
        boolean build = shown == Mode.BUILD;
        boolean twins = shown == Mode.REHEARSE;
        if (trial) {
            parts.rehearsal().trial(this::endTrial);
        } else if (twins) {
            parts.rehearsal().begin();
        }
        List<Node> top = new ArrayList<>(List.of(parts.masthead()));
        if (trial || twins) {
            top.add(parts.rehearsal());
        }
        if (!build) {
            top.add(parts.strips().airStrip());
        } else if (armed) {
            top.add(armedBand());
        }
        top.add(parts.notices());
        top.add(parts.hints().of(Hint.PRESS));
        VBox middle = new VBox(parts.onAir().node());
        if (build) {
            middle.getChildren().addAll(parts.hints().of(Hint.BUTTON), parts.score());
        }
        layout.setTop(new VBox(top.toArray(Node[]::new)));
        layout.setLeft(shown == Mode.LIVE ? null : parts.rack());
        layout.setBottom(build ? null : parts.strips().runStrip());
        layout.setCenter(middle);
        layout.getStyleClass().remove("rehearsing");
        if (twins) {
            layout.getStyleClass().add("rehearsing");
        }
        Platform.runLater(parts.ask()::open);
    }

    private Node armedBand() {
        Label word = Styles.label("TRIGGERS ARMED", "rehearsal-word");
        word.setMinWidth(Region.USE_PREF_SIZE);
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        Button disarm = Fields.plain("Disarm", "");
        disarm.setId("disarm");
        disarm.setMinWidth(Region.USE_PREF_SIZE);
        disarm.setOnAction(_ -> disarm());
        HBox band = new HBox(word,
                Styles.label("Global keys, controllers, clocks and readings still press buttons.",
                        "read"),
                space, disarm);
        band.setId("armed");
        band.getStyleClass().add("edit-band");
        return band;
    }

    /** Runs a chain on twins; the window shows them until it has ended. */
    void tryOnTwins(Event.Try tried) {
        trial = true;
        trialQuiet = 0;
        player.tryOnTwins(tried);
        arrange();
    }

    /** Shows the gear again after a trial on twins; whether there was one. */
    boolean endTrial() {
        boolean was = trial;
        if (trial) {
            trial = false;
            player.tryOnTwins(null);
            arrange();
        }
        return was;
    }

    /** Whether something is tried on twins. */
    boolean tries() {
        return trial;
    }

    /** Ends a trial some time after what was tried has ended. */
    void pulse() {
        if (trial) {
            trialQuiet = desk.model().state().running().isEmpty() ? trialQuiet + 1 : 0;
            if (trialQuiet > TRIAL_PULSES) {
                endTrial();
            }
        }
    }

    /** What stands in the way of a show is said as it begins. */
    private void wentLive() {
        List<String> missing = new ArrayList<>();
        bench.rig().twins().values().forEach(t -> {
            if (desk.model().state().status(t.gear()).phase() == Status.Phase.OFF) {
                missing.add(t.title() + " is off");
            }
        });
        tellMissing(missing);
        Rig live = bench.rig();
        Known known = player.known();
        Thread.startVirtualThread(() -> { // A large board takes longer than a frame.
            int findings = Check.of(live, new Checking(g -> known.readings().getOrDefault(g, Map.of())::get)).size();
            if (findings > 0) {
                Platform.runLater(() -> {
                    missing.add("the check found " + (Figures.count(findings, "problem"))
                            + " (F8 in Build)");
                    tellMissing(missing);
                });
            }
        });
    }

    private void tellMissing(List<String> missing) {
        if (!missing.isEmpty() && bench.mode() == Mode.LIVE) {
            parts.strips().missing(String.join("; ", missing) + ".");
        }
    }
}
