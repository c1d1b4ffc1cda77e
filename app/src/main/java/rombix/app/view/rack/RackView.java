package rombix.app.view.rack;

import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import javafx.animation.Animation;
import javafx.animation.PauseTransition;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.util.Duration;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.Shadow;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Shapes;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.app.view.gear.GearSheet;
import rombix.app.view.page.PageView;
import rombix.core.chain.Step;
import rombix.core.forecast.Snapshot;
import rombix.core.twin.Twin;
import rombix.running.input.Touches;
import rombix.running.owner.Settings;

/** All gear, live, at the left. What the gear's cards can change is worked here by hand. */
public final class RackView extends ScrollPane {

    private final Desk desk;
    private final VBox gears = new VBox();
    private final VBox pins = new VBox();
    private final TextField filter = new TextField();
    private final RackMemory memory;
    private final Map<String, GearBox> boxes = new LinkedHashMap<>();
    /** The pinned readings, by gear. */
    private final Map<String, GearRows> pinned = new LinkedHashMap<>();
    private final PageView page;
    private final GearSheet gear;
    private final Button edit = Fields.plain("Manage gear…", "Alt+R");
    /** The readings that changed and are not shown yet. */
    private final Set<String> changed = new LinkedHashSet<>();
    /** No figure is read more often. */
    private final PauseTransition rest = new PauseTransition(Duration.millis(100));
    private Map<String, Twin> shownGear = Map.of();
    private @Nullable Shadow shadow;
    private final InputRecording hands;
    private final Button snapshot = Fields.plain("Snapshot", "Alt+N");
    private final ToggleButton shadowMe = new ToggleButton("Shadow me");

    /**
     * @param hint shown above the gear when it is due
     * @param touches what tells of the hands at this computer
     */
    public RackView(Desk desk, Supplier<rombix.core.event.Known> known, PageView page, GearSheet gear,
            Node hint, Touches touches) {
        this.desk = desk;
        this.hands = new InputRecording(desk, touches);
        this.page = page;
        this.gear = gear;
        this.memory = new RackMemory(new Settings(), desk.bench()::file);
        setId("rack");
        edit.setId("edit-gear");
        edit.setMinHeight(32);
        edit.setOnAction(_ -> gear.show(edit, null));
        VBox foot = new VBox(edit);
        foot.setPadding(new javafx.geometry.Insets(0, Space.S12, Space.S16, Space.S12));
        desk.bench().watch(() -> {
            foot.setVisible(desk.building());
            foot.setManaged(desk.building());
        });
        setContent(new VBox(tools(known), hint, filter(), pins, gears, foot));
        setFitToWidth(true);
        setHbarPolicy(ScrollBarPolicy.NEVER);
        setPrefWidth(276);
        setMinWidth(276);
        getStyleClass().add("rack-scroll");
        gears.getStyleClass().add("rack");
        pins.getStyleClass().add("rack");
        memory.watch(this::pins);
        desk.bench().watch(this::rebuild);
        desk.bench().watch(() -> desk.bench().lookedFor().map(boxes::get).ifPresent(this::reveal));
        desk.model().watch(c -> {
            boxes.forEach((id, box) -> {
                if (c.whole().contains(id)) {
                    box.refresh();
                }
            });
            pinned.forEach((id, rows) -> {
                if (c.whole().contains(id)) {
                    rows.refresh();
                }
            });
            changed.addAll(c.readings());
            if (rest.getStatus() != Animation.Status.RUNNING) {
                refresh();
            }
        });
        rest.setOnFinished(_ -> refresh());
        vvalueProperty().subscribe(this::catchUp);
        viewportBoundsProperty().subscribe(this::catchUp);
        getContent().layoutBoundsProperty().subscribe(this::catchUp);
        skinProperty().subscribe(() -> {
            if (lookup(".viewport") instanceof Node viewport) {
                viewport.setCache(false); // As a picture, all of it would be painted for each reading.
            }
        });
        Platform.runLater(this::rebuild); // The page is shown before it.
    }

    /** Shows what changed; what changes again at once, such as a meter, a moment later, and then what it is by then. */
    private void refresh() {
        if (changed.isEmpty()) {
            return;
        }
        changed.forEach(name -> {
            String of = name.substring(0, name.indexOf(':'));
            String reading = name.substring(name.indexOf(':') + 1);
            GearBox box = boxes.get(of);
            if (box != null) {
                box.refresh(reading);
            }
            if (pinned.get(of) instanceof GearRows rows && memory.pinned(of, reading)) {
                rows.refresh(reading);
            }
        });
        changed.clear();
        rest.playFromStart();
    }

    private void catchUp() {
        boxes.values().forEach(GearBox::catchUp);
        pinned.values().forEach(GearRows::catchUp);
    }

    /** Scrolls to a gear and puts the hand on the first of its controls. */
    private void reveal(GearBox box) {
        double room = getContent().getBoundsInLocal().getHeight() - getViewportBounds().getHeight();
        double top = box.localToScene(0, 0).getY() - getContent().localToScene(0, 0).getY();
        setVvalue(room <= 0 ? 0 : Math.clamp(top / room, 0, 1));
        box.lookupAll(".button").stream().findFirst().ifPresent(javafx.scene.Node::requestFocus);
    }

    /** What the rack keeps for this board. */
    RackMemory memory() {
        return memory;
    }

    /** Asks whose present readings are to be written as steps. */
    public void takeSnapshot() {
        snapshot.fire();
    }

    /** Begins or ends writing what the hand does as steps. */
    public void shadow() {
        shadowMe.fire();
    }

    /** Writes steps from the gear: as it is now, or as it is worked from now on. */
    private HBox tools(Supplier<rombix.core.event.Known> known) {
        snapshot.setId("snapshot");
        snapshot.setTooltip(new Tooltip("Add the gear's present readings to the chain below, as steps"));
        snapshot.setOnAction(_ -> snapshots(known.get(), snapshot));
        shadowMe.setId("shadow");
        shadowMe.getStyleClass().setAll("button", "plain");
        shadowMe.setTooltip(
                new Tooltip("Operate the gear by hand. When you stop, your actions become steps with their timing."));
        shadowMe.setOnAction(_ -> {
            if (shadowMe.isSelected()) {
                Shadow started = new Shadow(desk.bench(), known.get());
                shadow = started;
                hands.begin(shadowMe::fire);
                desk.model().listen((came, at) -> {
                    if (!hands.records(came.gear())) {
                        started.record(came, at);
                    }
                });
            } else {
                desk.model().listen(null);
                List<Step> steps = shadow == null ? List.of() : shadow.steps();
                shadow = null;
                if (!steps.isEmpty() && desk.bench().hasChain()) {
                    desk.bench().add("shadow " + steps.size() + " steps", steps);
                }
                hands.end(shadowMe);
            }
            shadowMe.setText(!shadowMe.isSelected()
                    ? "Shadow me"
                    : hands.recording()
                            ? "Stop (" + InputRecording.END + ")"
                            : "Stop shadowing");
        });
        HBox tools = new HBox(Space.S4,
                history("undo", "mdi2u-undo", "Ctrl+Z", desk.bench()::undo, () -> desk.bench().undoName()),
                history("redo", "mdi2r-redo", "Ctrl+Shift+Z", desk.bench()::redo, () -> desk.bench().redoName()),
                snapshot, shadowMe);
        tools.setPadding(new javafx.geometry.Insets(Space.S10, Space.S12, 0, Space.S12));
        desk.bench().watch(() -> {
            tools.setVisible(desk.building());
            tools.setManaged(desk.building());
            snapshot.setDisable(!desk.bench().hasChain());
            shadowMe.setDisable(!desk.bench().hasChain());
        });
        snapshot.setDisable(true);
        shadowMe.setDisable(true);
        return tools;
    }

    /** Takes back an edit, or does it again; says which one. */
    private Button history(String id, String icon, String key, Runnable run, Supplier<Optional<String>> what) {
        Button button = Fields.plain("", "");
        button.setId(id);
        button.getStyleClass().add("history");
        Shapes.icon(icon, 16).ifPresent(button::setGraphic);
        button.setOnAction(_ -> run.run());
        Tooltip tip = new Tooltip();
        button.setTooltip(tip);
        Runnable show = () -> {
            String name = what.get().orElse("");
            button.setDisable(name.isEmpty());
            String words = id.equals("undo") ? "Undo: " : "Redo: ";
            tip.setText(words + (name.isEmpty() ? "nothing" : name) + " · " + key);
            button.setAccessibleText(words + (name.isEmpty() ? "nothing" : name));
        };
        desk.bench().watch(show);
        show.run();
        return button;
    }

    /** Which gear the snapshot is of. */
    private void snapshots(rombix.core.event.Known known, Button by) {
        VBox box = new VBox(Space.S6);
        box.setId("snapshot-popover");
        box.getChildren().add(Fields.read("Readings of which gear?"));
        Map<String, javafx.scene.control.CheckBox> of = new LinkedHashMap<>();
        desk.bench().rig().twins().values().forEach(t -> {
            var check = Fields.check("snapshot-" + t.gear(), t.title(), false, _ -> {
            });
            of.put(t.gear(), check);
            box.getChildren().add(check);
        });
        Button write = Fields.plain("Add the steps", "");
        write.setId("snapshot-write");
        write.setOnAction(_ -> {
            List<String> gear = of.entrySet().stream().filter(e -> e.getValue().isSelected()).map(Map.Entry::getKey)
                    .toList();
            List<Step> steps = Snapshot.ofGear(desk.bench().rig(), known, gear).steps();
            desk.overlay().close();
            if (!steps.isEmpty()) {
                desk.bench().add("a snapshot of " + steps.size() + " readings", steps);
            }
        });
        box.getChildren().add(write);
        desk.overlay().show(box, by, () -> {
        });
    }

    private void rebuild() {
        Map<String, Twin> now = desk.bench().rig().twins();
        if (now.equals(shownGear)) {
            return;
        }
        Map<String, GearBox> before = Map.copyOf(boxes);
        boxes.clear();
        now.forEach((id, twin) -> boxes.put(id, before.get(id) instanceof GearBox box && twin.equals(shownGear.get(id))
                ? box
                : new GearBox(desk, page, twin, gear, memory)));
        shownGear = now;
        gears.getChildren().setAll(boxes.values());
        filter.getParent().setVisible(!now.isEmpty());
        pins();
        sift();
    }

    /** Shows the pinned readings above all gear. */
    private void pins() {
        pinned.clear();
        pins.getChildren().clear();
        desk.bench().rig().twins().values().stream().filter(t -> memory.pins(t.gear())).forEach(t -> {
            GearRows rows = new GearRows(desk, page, t, memory, true);
            rows.refresh();
            pinned.put(t.gear(), rows);
            pins.getChildren().addAll(Styles.label(t.title(), "rack-pinned"), rows);
        });
        pins.setVisible(!pinned.isEmpty());
        pins.setManaged(!pinned.isEmpty());
    }

    /** The field that narrows the rack to gear and readings with these words. */
    private Node filter() {
        filter.setId("rack-filter");
        filter.setPromptText("Filter gear and readings");
        filter.setAccessibleText("Filter gear and readings");
        filter.textProperty().addListener((_, _, _) -> sift());
        filter.setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.ESCAPE && !filter.getText().isEmpty()) {
                filter.clear();
                e.consume();
            }
        });
        HBox row = new HBox(filter);
        HBox.setHgrow(filter, Priority.ALWAYS);
        row.getStyleClass().add("rack-filter");
        row.managedProperty().bind(row.visibleProperty());
        return row;
    }

    private void sift() {
        String words = filter.getText().strip().toLowerCase(Locale.ROOT);
        boxes.values().forEach(b -> b.filter(words));
    }
}
