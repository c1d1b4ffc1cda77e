package rombix.app.view.rack;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import javafx.animation.PauseTransition;
import javafx.css.PseudoClass;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.Label;
import javafx.scene.control.MenuItem;
import javafx.scene.control.Slider;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.Duration;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.common.TimeLabel;
import rombix.app.view.form.ColourField;
import rombix.app.view.form.Fields;
import rombix.app.view.page.PageView;
import rombix.core.card.Card.Item;
import rombix.core.card.Card.Tone;
import rombix.core.card.Card.Word;
import rombix.core.twin.Twin;
import rombix.core.twin.Twin.Reading;
import rombix.core.twin.Twin.Readings;
import rombix.core.value.Value;
import rombix.core.value.ValueType;
import rombix.running.face.FaceNow;

/** The readings of a gear as rows, each with what changes it: all of them, or those that are pinned. */
final class GearRows extends VBox {
    /** More readings of one gear are not shown: nobody reads so many, and each is a row of nodes. */
    private static final int MOST = 400;
    private static final Duration PAUSE = Duration.millis(250);

    private static final double NAME = 74;
    private static final String VALUE = "rack-value";
    private static final PseudoClass AIR = PseudoClass.getPseudoClass("air");
    private static final PseudoClass READY = PseudoClass.getPseudoClass("ready");
    private static final PseudoClass FIRES = PseudoClass.getPseudoClass("fires");
    private static final PseudoClass CHOSEN = PseudoClass.getPseudoClass("chosen");

    private final Desk desk;
    private final Twin twin;
    private final RackMemory memory;
    private final boolean pinned;
    private final Grabbing grabbing;
    private final Map<String, Runnable> refreshers = new LinkedHashMap<>();
    private List<String> shown = List.of();
    /** The readings that changed while they were out of sight. */
    private final Set<String> late = new HashSet<>();
    /** Whether it was built anew just now: gear that tells ever new readings must not take all of the interface's time. */
    private boolean pausing;
    private boolean missed;
    private String sought = "";

    /** @param pinned whether only the pinned readings are shown */
    GearRows(Desk desk, PageView page, Twin twin, RackMemory memory, boolean pinned) {
        this.desk = desk;
        this.twin = twin;
        this.memory = memory;
        this.pinned = pinned;
        this.grabbing = new Grabbing(desk, page, twin);
    }

    private Readings now() {
        return desk.model().state().readings(twin.gear());
    }

    private String id(Reading k) {
        return (pinned ? "pinned-" : "rack-") + twin.gear() + "-" + k.id();
    }

    /** Shows all readings as they are by now. */
    void refresh() {
        List<Reading> all = twin.readings(now()).stream().filter(k -> !pinned || memory.pinned(twin.gear(), k.id()))
                .toList();
        List<Reading> known = all.subList(0, Math.min(all.size(), MOST));
        List<String> ids = new ArrayList<>(known.stream().map(k -> k.id() + choices(k)).toList());
        ids.add(String.valueOf(all.size()));
        if (!ids.equals(shown)) {
            shown = ids;
            build(known, all.size() - known.size());
            filter(sought);
        }
        refreshers.values().forEach(Runnable::run);
    }

    /** One reading changed; one that was not there yet is given its place. */
    void refresh(String reading) {
        Runnable refresher = refreshers.get(reading);
        if (refresher != null) {
            refresher.run();
        } else if (pausing) {
            missed = true;
        } else {
            pausing = true;
            refresh();
            PauseTransition pause = new PauseTransition(PAUSE);
            pause.setOnFinished(_ -> {
                pausing = false;
                if (missed) {
                    missed = false;
                    refresh();
                }
            });
            pause.play();
        }
    }

    private String choices(Reading k) {
        return k.spec().type() == ValueType.CHOICE ? twin.items(list(k), now()).toString() : "";
    }

    private static String list(Reading k) {
        return k.spec().choices() == null ? k.id() : k.spec().choices();
    }

    /** @param hidden how many readings there are beside those that are shown */
    private void build(List<Reading> known, int hidden) {
        getChildren().clear();
        refreshers.clear();
        Map<String, HBox> byItem = new LinkedHashMap<>();
        for (Reading k : known) {
            switch (k.spec().type()) {
                case CHOICE -> choice(k);
                case FLAG -> flag(k, row(byItem, k));
                case NUMBER -> number(k, row(byItem, k));
                case COLOUR -> colour(k, row(byItem, k));
                case TEXT, KEYS, PLACE, PATH, SECRET -> text(k, row(byItem, k));
                case LIST -> {
                }
            }
        }
        if (hidden > 0) {
            getChildren().add(Styles.label("%,d more readings, not shown here".formatted(hidden), "quiet"));
        }
        for (AimRows.Row row : AimRows.of(twin, id -> now().apply(id), this::tell)) {
            getChildren().add(row.node());
            row.readings().forEach(id -> refreshers.merge(id, row.refresh(), (one, more) -> () -> {
                one.run();
                more.run();
            }));
        }
    }

    /**
     * The row of the item that a reading is about; a level takes a row of its own where there is one already, and so does
     * a figure that nothing sets.
     */
    private HBox row(Map<String, HBox> byItem, Reading k) {
        String item = k.spec().id().match(k.id()).filter(p -> !p.isEmpty())
                .map(p -> p.values().iterator().next()).orElse(k.id());
        HBox row = byItem.get(item);
        if (row != null && k.spec().type() == ValueType.NUMBER && (!worked(k) || row.getChildren().stream()
                .anyMatch(Slider.class::isInstance))) {
            return newRow(k.title(), k);
        }
        if (row == null) {
            String title = k.spec().id().match(k.id()).filter(p -> !p.isEmpty())
                    .flatMap(p -> twin.item(p.keySet().iterator().next(), item, now())).map(Item::name)
                    .orElse(k.title());
            row = newRow(title, k);
            byItem.put(item, row);
        }
        return row;
    }

    private HBox newRow(String title, Reading k) {
        HBox row = new HBox();
        row.getStyleClass().add("rack-row");
        Label name = new Label(title);
        name.getStyleClass().add("rack-name");
        name.setMinWidth(NAME);
        row.getChildren().add(name);
        row.setUserData(title.toLowerCase(Locale.ROOT));
        pinnable(row, k);
        getChildren().add(row);
        return row;
    }

    /** The row's menu pins its reading to the top of the rack, or takes it from there. */
    private void pinnable(Node row, Reading k) {
        row.setOnContextMenuRequested(e -> { // Made only now: a menu is a window, and each row has one.
            boolean now = memory.pinned(twin.gear(), k.id());
            MenuItem pin = new MenuItem(now ? "Unpin" : "Pin to the top of the rack");
            pin.setId("pin");
            pin.setOnAction(_ -> memory.pin(twin.gear(), k.id(), !now));
            new ContextMenu(pin).show(row, e.getScreenX(), e.getScreenY());
            e.consume();
        });
    }

    /** Shows only rows with these words, in small letters; returns whether there are any. */
    boolean filter(String words) {
        sought = words;
        boolean any = false;
        for (Node row : getChildren()) {
            boolean fits = words.isEmpty() || row.getUserData() instanceof String title && title.contains(words);
            row.setVisible(fits);
            row.setManaged(fits);
            any |= fits;
        }
        return any;
    }

    private void choice(Reading k) {
        List<Item> items = twin.items(list(k), now());
        GridPane grid = new GridPane(Space.S4, Space.S4);
        ColumnConstraints half = new ColumnConstraints();
        half.setPercentWidth(50);
        grid.getColumnConstraints().addAll(half, half);
        Map<String, Button> buttons = new HashMap<>();
        boolean lead = k.spec().id().toString().equals("scene");
        for (int i = 0; i < items.size(); i++) {
            Item item = items.get(i);
            Button b = new Button(item.name());
            b.getStyleClass().add("rack-choice");
            b.setMaxWidth(Double.MAX_VALUE);
            b.setId(id(k) + "-" + item.id());
            Optional<Twin.Call> call = twin.toReach(k.id(), Value.of(item.id()));
            b.setDisable(call.isEmpty());
            b.setOnAction(_ -> call.ifPresent(this::tell));
            buttons.put(item.id(), b);
            grabbing.on(b, k, () -> Value.of(item.id()));
            grid.add(b, i % 2, i / 2);
        }
        VBox box = new VBox(grid);
        if (!k.spec().id().places().isEmpty()) { // One of several: whose it is has to be said.
            box.getChildren().addFirst(Styles.label(k.title(), "rack-name"));
        }
        box.setPadding(new javafx.geometry.Insets(Space.S2, 0, Space.S4, 0));
        box.setUserData((k.title() + " " + items.stream().map(Item::name).collect(Collectors.joining(" "))).toLowerCase(
                Locale.ROOT));
        pinnable(box, k);
        getChildren().add(box);
        refreshers.put(k.id(), () -> {
            Value v = now().apply(k.id());
            buttons.forEach((id, b) -> {
                boolean chosen = v != null && v.toString().equals(id);
                b.pseudoClassStateChanged(CHOSEN, chosen);
                boolean last = chosen && desk.model().state().lastKnown(twin.gear());
                String name = twin.item(list(k), id, now()).map(Item::name).orElse(id);
                Styles.text(b, last ? FaceNow.lastKnown(name) : name);
                b.pseudoClassStateChanged(AIR, chosen && lead && !last);
                b.setAccessibleText(name + (last ? ", last known" : chosen ? ", now" : ""));
            });
        });
    }

    private void tell(Twin.Call call) {
        desk.tell(twin.gear(), call.command().id(), call.args());
    }

    private void flag(Reading k, HBox row) {
        Button b = new Button();
        b.getStyleClass().add("rack-switch");
        b.setId(id(k));
        row.getChildren().getFirst().setId((pinned ? "pinned-name-" : "rack-name-") + twin.gear() + "-" + k.id());
        grabbing.on(row.getChildren().getFirst(), k, () -> now().apply(k.id()));
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        row.getChildren().addAll(space, b);
        boolean trigger = twin.toReach(k.id(), Value.of(true)).isPresent() && twin.toReach(k.id(), Value.of(false))
                .isEmpty(); // It can be fired and not taken back, such as a sting.
        b.setOnAction(_ -> {
            Value v = now().apply(k.id());
            twin.toReach(k.id(), Value.of(trigger || v == null || !v.asFlag())).ifPresent(this::tell);
        });
        refreshers.put(k.id(), () -> {
            Value v = now().apply(k.id());
            Word word = v == null || desk.model().state().lastKnown(twin.gear())
                    ? null
                    : v.asFlag() ? k.spec().yes() : k.spec().no();
            boolean idle = trigger && (v == null || !v.asFlag());
            Styles.text(b, idle ? "Fire" : spoken(k));
            b.pseudoClassStateChanged(FIRES, idle);
            b.setAccessibleText(k.title() + ", " + (idle
                    ? "fire"
                    : v == null
                            ? "unknown"
                            : (desk.model().state().lastKnown(twin.gear()) ? "last known " : "")
                                    + twin.spoken(k, v, now())));
            b.pseudoClassStateChanged(AIR, word != null && word.tone() == Tone.AIR);
            b.pseudoClassStateChanged(READY, word != null && word.tone() == Tone.READY);
        });
    }

    private boolean worked(Reading k) {
        return k.spec().min() != null && k.spec().max() != null && twin.toReach(k.id(), Value.of(0)).isPresent();
    }

    private void number(Reading k, HBox row) {
        TimeLabel value = new TimeLabel(true);
        boolean worked = worked(k);
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        if (!worked) {
            row.getChildren().addAll(space, value);
            refreshers.put(k.id(), () -> show(k, value));
            return;
        }
        double min = k.spec().min() == null ? 0 : k.spec().min();
        double max = k.spec().max() == null ? 100 : k.spec().max();
        Slider slider = new Slider(min, max, min);
        grabbing.on(value, k, () -> now().apply(k.id()));
        if (row.getChildren().size() == 1) {
            grabbing.on(row.getChildren().getFirst(), k, () -> now().apply(k.id()));
        }
        slider.setId(id(k));
        slider.setMinWidth(36);
        slider.setPrefWidth(48);
        slider.setBlockIncrement((max - min) / 20);
        slider.setAccessibleText(k.title());
        Fields.unit(slider, k.spec().unit());
        HBox.setHgrow(slider, Priority.ALWAYS);
        value.setMinWidth(52);
        // The level stands before the switch, whichever the card names first.
        int at = row.getChildren().size() > 1 ? 1 : row.getChildren().size();
        row.getChildren().removeIf(n -> n.getClass() == Region.class);
        row.getChildren().addAll(at, List.of(slider, value));
        boolean[] following = {false};
        slider.valueProperty().addListener((_, _, v) -> {
            if (!following[0]) {
                double rounded = Math.rint(v.doubleValue() * 10) / 10;
                twin.toReach(k.id(), Value.of(rounded)).ifPresent(this::tell);
            }
        });
        refreshers.put(k.id(), () -> {
            Value v = now().apply(k.id());
            value.show(spoken(k), VALUE);
            if (v != null && !slider.isPressed()) {
                following[0] = true;
                slider.setValue(v.asNumber());
                following[0] = false;
            }
        });
    }

    private void colour(Reading k, HBox row) {
        ColourField field = ColourField.of(id(k), k.title(), null, to -> twin
                .toReach(k.id(), Value.of(to)).ifPresent(this::tell));
        row.getChildren().add(1, field);
        refreshers.put(k.id(), () -> {
            Value v = now().apply(k.id());
            if (v != null) {
                field.show(v.toString());
            }
        });
    }

    private void text(Reading k, HBox row) {
        TimeLabel value = new TimeLabel(true);
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        row.getChildren().addAll(space, value);
        refreshers.put(k.id(), () -> show(k, value));
    }

    /** What is out of sight waits: the toolkit would paint the whole window for it. */
    private void show(Reading k, TimeLabel value) {
        if (value.inSight()) {
            value.show(spoken(k), VALUE);
        } else {
            late.add(k.id());
        }
    }

    void catchUp() {
        List<String> now = List.copyOf(late);
        late.clear();
        now.stream().map(refreshers::get).filter(Objects::nonNull).forEach(Runnable::run);
    }

    private String spoken(Reading k) {
        Value v = now().apply(k.id());
        if (v == null) {
            return "—";
        }
        String words = twin.spoken(k, v, now());
        return desk.model().state().lastKnown(twin.gear()) ? FaceNow.lastKnown(words) : words;
    }
}
