package rombix.app.view;

import java.util.List;
import java.util.Locale;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import rombix.app.edit.Rehearsed;
import rombix.app.edit.Workbench.Mode;
import rombix.core.engine.AsRun;

/**
 * The saffron band that says that nothing leaves this machine: in Rehearse with the pace and what the gear would have
 * got, while something is tried on twins with the way back.
 */
final class RehearsalBand extends HBox {
    private static final List<Integer> PACES = List.of(1, 2, 5, 20);
    private static final double WIDTH = 560;
    private static final double HEIGHT = 420;

    private final Desk desk;
    private final Player player;
    private final Rehearsed rehearsed = new Rehearsed();
    private final Button report = new Button("Report");

    RehearsalBand(Desk desk, Player player) {
        this.desk = desk;
        this.player = player;
        getStyleClass().add("rehearsal");
        setId("rehearsal");
        report.getStyleClass().add("band-button");
        report.setId("rehearsal-report");
        report.setOnAction(_ -> report(report));
        desk.model().watch(c -> {
            if (desk.bench().mode() == Mode.REHEARSE && !c.ran().isEmpty()) {
                rehearsed.add(c.ran());
                Styles.text(report, rehearsed.words());
            }
        });
    }

    /** A rehearsal begins. */
    void begin() {
        rehearsed.begin(player.nanos());
        report.setText("nothing sent yet");
        HBox paces = new HBox(2);
        paces.setAlignment(Pos.CENTER);
        ToggleGroup group = new ToggleGroup();
        for (int pace : PACES) {
            ToggleButton b = new ToggleButton(pace + "×");
            b.getStyleClass().setAll("toggle-button", "band-pace");
            b.setId("pace-" + pace);
            b.setAccessibleText(pace == 1 ? "At its own pace" : pace + " times as fast");
            b.setToggleGroup(group);
            b.setSelected(pace == 1);
            b.setFocusTraversable(false);
            b.setOnAction(_ -> {
                b.setSelected(true);
                player.pace(pace);
            });
            paces.getChildren().add(b);
        }
        player.pace(1);
        say("REHEARSAL", "Presses run on twins: nothing leaves this machine.", new Label("Pace"), paces, report);
    }

    /** Something is tried on twins. */
    void trial(Runnable end) {
        Button back = new Button("Back to the gear");
        back.getStyleClass().add("band-button");
        back.setId("end-trial");
        back.setOnAction(_ -> end.run());
        say("ON TWINS", "What you try runs on twins: nothing leaves this machine.", back);
    }

    private void say(String word, String what, Node... more) {
        Label head = new Label(word);
        head.getStyleClass().add("rehearsal-word");
        head.setMinWidth(Region.USE_PREF_SIZE);
        Label words = new Label(what);
        words.getStyleClass().add("read");
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        getChildren().setAll(head, words, space);
        for (Node n : more) {
            if (n instanceof Region r) {
                r.setMinWidth(Region.USE_PREF_SIZE);
            }
            getChildren().add(n);
        }
    }

    /** What the real gear would have got, when the rehearsal has ended and it would have got anything. */
    void ended(Node by) {
        if (!rehearsed.isEmpty()) {
            report(by);
        }
    }

    private void report(Node by) {
        Label title = new Label("What the gear would have got");
        title.getStyleClass().add("gear-name");
        VBox list = new VBox(10);
        for (Rehearsed.Share share : rehearsed.shares()) {
            list.getChildren().add(share(share));
        }
        ScrollPane scroll = new ScrollPane(list);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("popover-scroll");
        VBox.setVgrow(scroll, Priority.ALWAYS);
        Button close = Fields.plain("Close", "Esc");
        close.setOnAction(_ -> desk.overlay().close());
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox foot = new HBox(8, Fields.read("All of it stands in the log, too (Ctrl+L), marked as on twins."), space,
                close);
        foot.setAlignment(Pos.CENTER_LEFT);
        VBox box = new VBox(10, title, Fields.read(rehearsed.isEmpty()
                ? "Nothing: no button was pressed yet."
                : rehearsed.words() + "."), scroll, foot);
        box.setId("rehearsal-view");
        box.setPrefSize(WIDTH, HEIGHT);
        desk.overlay().show(box, by, () -> {
        });
        close.requestFocus();
    }

    private Node share(Rehearsed.Share share) {
        String gear = desk.bench().rig().twin(share.gear()).map(t -> t.title()).orElse("Steps that tell no gear");
        Label name = new Label(gear + " · " + share.lines().size() + (share.faults() == 0
                ? ""
                : ", " + share.faults() + " failed"));
        name.getStyleClass().add("gear-name");
        GridPane grid = new GridPane(12, 2);
        int row = 0;
        for (AsRun line : share.lines()) {
            double seconds = rehearsed.millis(line) / 1000.0;
            Label at = new Label(String.format(Locale.ROOT, "%d:%04.1f", (int) seconds / 60, seconds % 60));
            at.getStyleClass().add("where");
            at.setMinWidth(56);
            Label words = Fields.read(line.title() + (line.outcome() == AsRun.Outcome.FAULT
                    ? ": " + line.message()
                    : ""));
            if (line.outcome() == AsRun.Outcome.FAULT) {
                words.getStyleClass().add("trouble");
            }
            Label by = new Label(desk.bench().board().button(line.button()).map(b -> b.name()).orElse(""));
            by.getStyleClass().add("where");
            grid.addRow(row++, at, words, by);
        }
        return new VBox(2, name, grid);
    }
}
