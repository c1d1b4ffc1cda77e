package rombix.app.view.live;

import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.RehearsalRecord;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.event.AsRun;
import rombix.core.event.Happening;
import rombix.core.event.Mode;
import rombix.running.Player;

/**
 * The saffron band that says that nothing leaves this machine: in Rehearse with the pace and what the gear would have
 * got, while something is tried on twins with the way back.
 */
public final class RehearsalBand extends HBox {
    private static final List<Integer> PACES = List.of(1, 2, 5, 20);
    private static final double WIDTH = 560;
    private static final double HEIGHT = 420;
    private static final double TIME_WIDTH = 56;
    private static final double LINE_HEIGHT = 26;

    private static final Runnable NOTHING = () -> {
    };

    private final Desk desk;
    private final Player player;
    private final RehearsalRecord rehearsed = new RehearsalRecord();
    /** Brings the report up to now while it is open. */
    private Runnable refresh = NOTHING;
    private final Button report = new Button("Report");

    public RehearsalBand(Desk desk, Player player) {
        this.desk = desk;
        this.player = player;
        getStyleClass().add("rehearsal");
        setId("rehearsal");
        report.getStyleClass().add("band-button");
        report.setId("rehearsal-report");
        report.setOnAction(_ -> report(report));
        desk.model().watch(c -> {
            List<AsRun> ran = c.happened().stream().filter(Happening.Ran.class::isInstance).map(h -> ((Happening.Ran) h)
                    .line()).toList();
            if (desk.bench().mode() == Mode.REHEARSE && !ran.isEmpty()) {
                rehearsed.add(ran);
                Styles.text(report, rehearsed.words());
                refresh.run();
            }
        });
    }

    /** A rehearsal begins. */
    public void begin() {
        rehearsed.begin(player.nanos());
        report.setText("nothing sent yet");
        HBox paces = new HBox(Space.S2);
        paces.setAlignment(Pos.CENTER);
        ToggleGroup group = new ToggleGroup();
        for (int pace : PACES) {
            ToggleButton b = new ToggleButton(pace + "×");
            b.getStyleClass().setAll("toggle-button", "band-pace");
            b.setId("pace-" + pace);
            b.setAccessibleText(pace == 1 ? "Normal speed" : pace + "× speed");
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
        say("REHEARSAL", "Presses run on twins: nothing is sent to the gear.", new Label("Speed"), paces, report);
    }

    /** Something is tried on twins. */
    public void trial(Runnable end) {
        Button back = new Button("Back to the gear");
        back.getStyleClass().add("band-button");
        back.setId("end-trial");
        back.setOnAction(_ -> end.run());
        say("ON TWINS", "Trying on twins: nothing is sent to the gear.", back);
    }

    private void say(String word, String what, Node... more) {
        Label head = Styles.label(word, "rehearsal-word");
        head.setMinWidth(Region.USE_PREF_SIZE);
        Label words = Styles.label(what, "read");
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
    public void ended(Node by) {
        if (!rehearsed.isEmpty()) {
            report(by);
        }
    }

    private void report(Node by) {
        Label title = Styles.label("Would have been sent", "gear-name");
        ListView<Row> list = new ListView<>();
        list.setCellFactory(_ -> new RowCell());
        list.getStyleClass().add("lines");
        list.setId("rehearsal-lines");
        list.setFixedCellSize(LINE_HEIGHT);
        list.setAccessibleText("Would have been sent, by gear");
        VBox.setVgrow(list, Priority.ALWAYS);
        Button close = Fields.plain("Close", "Esc");
        close.setOnAction(_ -> desk.overlay().close());
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox foot = new HBox(Space.S8, Fields.read("The log (Ctrl+L) has these too, marked “on twins”."),
                space,
                close);
        foot.setAlignment(Pos.CENTER_LEFT);
        Label words = Fields.read("");
        refresh = () -> {
            words.setText(rehearsed.isEmpty() ? "Nothing yet: no button was pressed." : rehearsed.words() + ".");
            list.getItems().setAll(rehearsed.shares().stream().flatMap(this::rows).toList());
        };
        refresh.run();
        VBox box = new VBox(Space.S10, title, words, list, foot);
        box.setId("rehearsal-view");
        box.setPrefSize(WIDTH, HEIGHT);
        desk.overlay().show(box, by, () -> refresh = NOTHING);
        close.requestFocus();
    }

    /** A line of the report: the head of a gear's share where there is no time. */
    private record Row(String at, String words, boolean fault, String by) {
        boolean head() {
            return at.isEmpty();
        }
    }

    private Stream<Row> rows(RehearsalRecord.Share share) {
        String gear = desk.bench().rig().twin(share.gear()).map(t -> t.title()).orElse("Steps without gear");
        Row head = new Row("", gear + " · " + share.count() + (share.faults() == 0
                ? ""
                : ", " + share.faults() + " failed"), false, "");
        long more = share.count() - share.lines().size();
        Stream<Row> rest = more == 0 ? Stream.of() : Stream.of(new Row("…", more + " more", false, ""));
        return Stream.concat(Stream.concat(Stream.of(head), share.lines().stream().map(this::row)), rest);
    }

    private Row row(AsRun line) {
        double seconds = rehearsed.millis(line) / 1000.0;
        boolean fault = line.outcome() == AsRun.Outcome.FAULT;
        return new Row(String.format(Locale.ROOT, "%d:%04.1f", (int) seconds / 60, seconds % 60), line.title() + (fault
                ? ": " + line.message()
                : ""), fault, desk.bench().rig().button(line.button()).map(b -> b.name()).orElse(""));
    }

    private static final class RowCell extends ListCell<Row> {
        @Override
        protected void updateItem(@Nullable Row row, boolean empty) {
            super.updateItem(row, empty);
            setText(null);
            setGraphic(row == null || empty ? null : row.head() ? Styles.label(row.words(), "gear-name") : line(row));
        }

        private static Node line(Row row) {
            Label at = Styles.label(row.at(), "where");
            at.setMinWidth(TIME_WIDTH);
            Label words = Styles.label(row.words(), "read", row.fault() ? "trouble" : "quiet");
            Region space = new Region();
            HBox.setHgrow(space, Priority.ALWAYS);
            return new HBox(at, words, space, Styles.label(row.by(), "where"));
        }
    }
}
