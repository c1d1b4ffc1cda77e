package rombix.app.view.sheet;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.function.BooleanSupplier;
import java.util.function.Supplier;
import javafx.animation.KeyFrame;
import javafx.animation.PauseTransition;
import javafx.animation.Timeline;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TableRow;
import javafx.scene.control.TableView;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.Duration;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.Conditions;
import rombix.app.edit.TriggerEdits;
import rombix.app.edit.TriggerEdits.Row;
import rombix.app.view.button.TriggerForm;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.board.MessageTrigger;
import rombix.core.board.Schedule;
import rombix.core.board.Trigger;
import rombix.core.event.Status;
import rombix.core.touch.Learning;
import rombix.core.touch.Switchboard;
import rombix.core.touch.Touch;
import rombix.running.input.Touches;

/**
 * All that presses buttons beside the hand on them, in one list: what it is, which button it presses, whether it can be
 * had here, and what is wrong with it. In Build they are edited beside the list, and learnt by touching.
 */
public final class TriggersView {
    private static final double WIDTH = 1160;
    private static final double HEIGHT = 600;
    private static final double FORM = 340;
    private static final Duration QUIET = Duration.millis(900);

    private final Desk desk;
    private final Touches touches;
    private final Supplier<Node> smallKey;
    private final TriggerEdits edits;
    private final TableView<Row> table = new TableView<>();
    private final VBox form = new VBox(Space.S8);
    private final HBox from = new HBox(Space.S22);
    private final Label told = Fields.read("");
    private final Button learn = Fields.plain("Learn a trigger", "");
    private final Timeline timer = new Timeline(new KeyFrame(Duration.seconds(1), _ -> sources()));
    private final PauseTransition quiet = new PauseTransition(QUIET);
    private @Nullable Learning learning;
    private BooleanSupplier hooks = () -> false;
    private boolean filling;
    private Touches.Sources now = Touches.Sources.NONE;

    /** @param smallKey where the key of the small window is chosen */
    public TriggersView(Desk desk, Touches touches, Supplier<Node> smallKey) {
        this.desk = desk;
        this.smallKey = smallKey;
        this.touches = touches;
        this.edits = new TriggerEdits(desk.bench());
        timer.setCycleCount(Timeline.INDEFINITE);
        table.setId("triggers");
        table.setColumnResizePolicy(TableView.CONSTRAINED_RESIZE_POLICY_FLEX_NEXT_COLUMN);
        table.setPlaceholder(Fields.read("No triggers yet."));
        table.getColumns()
                .setAll(List.of(Fields.<Row>column("Type", 88, r -> TriggerEdits.kind(r.trigger())),
                        Fields.<Row>column("Trigger", 258,
                                this::words),
                        Fields.<Row>column("Button", 146, r -> r.button().name()),
                        Fields.<Row>column("Page", 92, Row::page),
                        Fields.<Row>column(
                                "Status", 104, this::here)));
        table.setRowFactory(_ -> new TableRow<>() {
            @Override
            protected void updateItem(@Nullable Row row, boolean empty) {
                super.updateItem(row, empty);
                Styles.set(this, "cell", "indexed-cell", "table-row-cell", row != null && !row.trouble().isEmpty()
                        ? "fault-row"
                        : "plain-row");
            }
        });
        table.getSelectionModel().selectedItemProperty().addListener((_, _, row) -> {
            if (!filling) {
                fill(row);
            }
        });
        form.setPrefWidth(FORM);
        form.setMinWidth(FORM);
        form.setId("trigger-form");
        from.getStyleClass().add("sources");
        learn.setId("trigger-learn");
        learn.setOnAction(_ -> learn(learning == null));
        quiet.setOnFinished(_ -> learnt());
        desk.bench().watch(() -> {
            if (table.getScene() != null) {
                rows();
            }
        });
    }

    /** @param on whether calls of programs are heard now */
    public void whenHooked(BooleanSupplier on) {
        hooks = on;
    }

    /** Which of those that the board wants are plugged in. */
    private static Node plugged(String title, List<String> wanted, Set<String> there, String none) {
        List<String> missing = wanted.stream().filter(p -> !there.contains(p)).toList();
        return source(title, wanted.isEmpty()
                ? "none in use"
                : missing.isEmpty()
                        ? String.join(", ", wanted) + " plugged in"
                        : none + " “" + String.join("”, “", missing) + "”",
                missing.isEmpty());
    }

    private String words(Row row) {
        return TriggerEdits.words(row.trigger(), desk.bench(), g -> desk.model().state().readings(g));
    }

    /** Whether what pulls it can be had on this machine now. */
    private String here(Row row) {
        if (!row.trouble().isEmpty()) {
            return "conflict";
        }
        return switch (row.trigger()) {
            case Trigger.Key k when k.everywhere() -> now.keysSeen() ? "seen" : "not seen";
            case Trigger.Midi m -> now.open().contains(m.port()) ? "plugged in" : "missing";
            case Trigger.Gamepad g -> now.gamepads().contains(g.device()) ? "plugged in" : "missing";
            case Trigger.Osc _ -> now.oscPort() >= 0 ? "listening" : "not receiving";
            case MessageTrigger.Http _ -> hooks.getAsBoolean() ? "listening" : "pages are off";
            case MessageTrigger.Mqtt m -> desk.model().state().status(m.gear()).phase() == Status.Phase.READY
                    ? "listening"
                    : "not connected";
            case Trigger.Key _,Trigger.Clock _,Trigger.Becomes _,Trigger.When _ -> "ready";
        };
    }

    /** Opens it; on the triggers of the selected button if it has any. */
    public void open(Node by) {
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox top = new HBox(Space.S10, Styles.label("Triggers", "gear-name"),
                Fields.read("Triggers press in Live and in Rehearse."), gap, smallKey.get());
        top.setAlignment(Pos.CENTER_LEFT);
        ScrollPane scroll = new ScrollPane(form);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("popover-scroll");
        scroll.setMinWidth(FORM + 16);
        HBox middle = new HBox(Space.S14, table, scroll);
        HBox.setHgrow(table, Priority.ALWAYS);
        VBox.setVgrow(middle, Priority.ALWAYS);
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        Button close = Fields.plain("Close", "Esc");
        close.setOnAction(_ -> desk.overlay().close());
        HBox foot = new HBox(Space.S8);
        foot.setAlignment(Pos.CENTER_LEFT);
        if (desk.building()) {
            foot.getChildren().addAll(learn, adder());
        }
        foot.getChildren().addAll(told, space, close);
        VBox box = new VBox(Space.S10, top, from, middle, foot);
        box.setId("triggers-view");
        box.setPrefSize(WIDTH, HEIGHT);
        sources();
        rows();
        desk.bench().button().flatMap(b -> table.getItems().stream().filter(r -> r.button().id().equals(b.id()))
                .findFirst()).or(() -> table.getItems().stream().findFirst()).ifPresent(r -> table.getSelectionModel()
                        .select(r));
        if (table.getItems().isEmpty()) {
            fill(null);
        }
        timer.play();
        desk.overlay().show(box, by, () -> {
            timer.stop();
            learn(false);
        });
        table.requestFocus();
    }

    /** Where touches come from, and what cannot be had. */
    private void sources() {
        now = touches.sources();
        List<Node> all = new ArrayList<>();
        all.add(source("Global keys", now.keysSeen()
                ? "seen"
                : now.keys().isEmpty() ? "not used" : now.keys(), now.keys().isEmpty()));
        all.add(plugged("Controllers", Switchboard.ports(desk.bench().board()), now.open(), "no port"));
        List<String> gamepads = Switchboard.gamepads(desk.bench().board());
        if (!gamepads.isEmpty()) {
            all.add(plugged("Gamepads", gamepads, now.gamepads(), "no gamepad"));
        }
        all.add(source("OSC", now.oscPort() >= 0
                ? now.senders().isEmpty()
                        ? "listening on 127.0.0.1:" + now.oscPort()
                        : "listening on port " + now.oscPort() + ", also from " + String.join(", ", now.senders())
                : now.osc().isEmpty() ? "not used" : now.osc(), now.osc().isEmpty()));
        if (now.dropped() > 0) {
            all.add(source("Dropped", now.dropped() + " presses were too fast", false));
        }
        from.getChildren().setAll(all);
        table.refresh();
    }

    private static Node source(String name, String state, boolean well) {
        Label head = new Label(name);
        head.getStyleClass().add("field-name");
        Label words = Fields.read(state);
        words.setMinWidth(Region.USE_PREF_SIZE);
        if (!well) {
            words.getStyleClass().add("trouble");
        }
        return new VBox(Space.S1, head, words);
    }

    private void rows() {
        Row before = table.getSelectionModel().getSelectedItem();
        filling = true;
        table.getItems().setAll(edits.rows());
        Row again = before == null
                ? null
                : table.getItems().stream().filter(r -> r.button().id().equals(before.button().id()) && r
                        .index() == before.index()).findFirst().orElse(null);
        if (again != null) {
            table.getSelectionModel().select(again);
        }
        filling = false;
        if (before == null || again == null || !again.getClass().equals(before.getClass()) || !again.trigger()
                .getClass().equals(before.trigger().getClass()) || !again.trouble().equals(before.trouble())) {
            fill(again);
        }
    }

    private void select(String button, int index) {
        table.getItems().stream().filter(r -> r.button().id().equals(button) && r.index() == index).findFirst()
                .ifPresent(r -> table.getSelectionModel().select(r));
    }

    /** The row that is selected as it is now. */
    private @Nullable Row present(Row row) {
        return table.getItems().stream().filter(r -> r.button().id().equals(row.button().id()) && r.index() == row
                .index()).findFirst().orElse(null);
    }

    private void fill(@Nullable Row row) {
        form.getChildren().clear();
        if (row == null) {
            form.getChildren().add(Fields.read(desk.building()
                    ? "Select a button on the page, then learn or add a trigger for it."
                    : "Switch to Build to change them."));
            return;
        }
        form.getChildren().add(Styles.label(words(row), "gear-name"));
        if (!row.trouble().isEmpty()) {
            Label trouble = Fields.read(row.trouble());
            trouble.getStyleClass().add("trouble");
            trouble.setWrapText(true);
            trouble.setId("trigger-trouble");
            form.getChildren().add(trouble);
        }
        if (!desk.building()) {
            return;
        }
        Button remove = Fields.plain("Remove", "");
        remove.setId("trigger-remove");
        remove.setOnAction(_ -> {
            Row is = present(row);
            if (is != null) {
                edits.remove(is);
            }
        });
        Button go = Fields.plain("Go to the button", "");
        go.setId("trigger-go");
        go.setOnAction(_ -> {
            desk.overlay().close();
            desk.bench().select(row.button().id());
        });
        form.getChildren().add(new HBox(Space.S8, go, remove)); // In sight however long the form is.
        List<rombix.core.board.Button> buttons = desk.bench().board().buttons().toList();
        form.getChildren().add(Fields.named("Presses", Fields.choice("trigger-button", buttons, row.button(),
                b -> b.name(), b -> {
                    Row is = present(row);
                    if (is != null && !b.id().equals(row.button().id())) {
                        int index = b.triggers().size();
                        edits.moveTo(is, b.id());
                        select(b.id(), index);
                    }
                })));
        form.getChildren()
                .addAll(new TriggerForm(desk, now, () -> present(row) instanceof Row is ? is.trigger() : null, t -> {
                    Row is = present(row);
                    if (is != null) {
                        boolean others = t instanceof Trigger.When || t instanceof Trigger.Midi next && is
                                .trigger() instanceof Trigger.Midi before
                                && (next.turns() != before.turns() || next
                                        .message() != before.message());
                        edits.replace(is, t);
                        // Fields that depend on what was chosen come and go.
                        if (others) {
                            javafx.application.Platform.runLater(() -> fill(present(row)));
                        }
                    }
                }).of(row));
    }

    private record Made(String words, Trigger trigger) {
    }

    /** Adds a trigger of a kind to the selected button, to be filled in. */
    private ComboBox<Made> adder() {
        List<Made> kinds = new ArrayList<>(List.of(new Made("a key", new Trigger.Key("F13", true)), new Made(
                "an OSC message", new Trigger.Osc("/go")),
                new Made("an HTTP call", new MessageTrigger.Http(edits.freshHook(), List.of())),
                new Made("a time of day", new Trigger.Clock(Schedule.of(
                        "21:30"), false)),
                new Made("board goes live", new Trigger.When(Trigger.When.What.WENT_LIVE, null)),
                new Made("gear is lost", new Trigger.When(Trigger.When.What.GEAR_LOST, null))));
        kinds.add(4, new Made("a condition", new Trigger.Becomes(Conditions.first(desk.bench().rig(), g -> desk.model()
                .state().readings(g)))));
        desk.bench().rig().twins().values().stream().filter(t -> t.protocol().descriptor().topics()).findFirst()
                .ifPresent(
                        t -> kinds.add(3,
                                new Made("an MQTT message", new MessageTrigger.Mqtt(t.gear(), "show/go", null))));
        touches.sources().ports().stream().findFirst().ifPresent(p -> kinds.add(1, new Made("a controller",
                new Trigger.Midi(p, Trigger.Midi.Message.NOTE, 1, 60, null, java.util.Map.of(), false))));
        touches.sources().gamepads().stream().findFirst().ifPresent(d -> kinds.add(1, new Made("a gamepad",
                new Trigger.Gamepad(d, rombix.core.touch.GamepadParts.BUTTONS.getFirst()))));
        ComboBox<Made> add = Fields.choice("trigger-add", kinds, null, Made::words,
                m -> desk.bench().button().ifPresent(
                        b -> {
                            int index = b.triggers().size();
                            edits.add(b.id(), m.trigger());
                            select(b.id(), index);
                        }));
        String name = desk.bench().button().map(b -> "Add to “" + b.name() + "”…").orElse(
                "Select a button to add a trigger");
        add.setPromptText(name);
        add.setAccessibleText(name);
        add.setDisable(desk.bench().button().isEmpty());
        add.setMaxWidth(320);
        learn.setDisable(desk.bench().button().isEmpty());
        return add;
    }

    private void learn(boolean on) {
        quiet.stop();
        learning = on ? new Learning() : null;
        touches.learn(on ? this::touched : null);
        learn.setText(on ? "Stop learning" : "Learn a trigger");
        told.setText(on
                ? "Press a key or pad, turn a knob both ways, move a fader, or send OSC to 127.0.0.1:" + desk
                        .bench().board().listensAt() + "."
                : "");
    }

    private void touched(Touch touch) {
        Learning now = learning;
        if (now == null) {
            return;
        }
        boolean known = now.add(touch);
        quiet.stop();
        if (known) {
            learnt();
        } else {
            quiet.play(); // More of its values tell how it turns.
        }
    }

    private void learnt() {
        Learning done = Objects.requireNonNull(learning);
        desk.bench().button().ifPresent(b -> done.trigger(b).ifPresent(t -> {
            learn(false);
            int index = b.triggers().size();
            edits.add(b.id(), t);
            select(b.id(), index);
            told.setText("Learnt: " + TriggerEdits.words(t, desk.bench(), g -> desk.model().state().readings(g)));
        }));
    }
}
