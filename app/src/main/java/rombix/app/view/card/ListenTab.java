package rombix.app.view.card;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.Comparator;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import javafx.scene.Node;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TableRow;
import javafx.scene.control.TableView;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.CardEdits;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.board.Gear;
import rombix.core.listen.HeardValue;
import rombix.core.listen.Listening;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.traffic.Traffic;
import rombix.core.traffic.TrafficPacket;
import rombix.core.twin.Twin;
import rombix.core.value.Value;

/** What a gear says, grouped by what changes; one of it is chosen and made a reading. The interface's thread's. */
@OwnedBy(Owner.INTERFACE)
final class ListenTab {
    private static final double FORM_WIDTH = 380;
    private static final Duration LATELY = Duration.ofMillis(1500);
    private static final int SHOWN = 6;
    private static final int LONGEST = 18;

    private final Supplier<Traffic> traffic;
    private final TableView<HeardValue> table = new TableView<>();
    private final HeardForm form;
    private final HBox node;
    private String gear = "";
    /** The keys of what is shown, the newest on top. */
    private final Deque<String> order = new ArrayDeque<>();
    /** What was heard since it was opened, though the packets of other gear may have pushed it out since. */
    private final Map<String, HeardValue> heard = new HashMap<>();
    private String chosen = "";
    private Instant last = Instant.EPOCH;
    private boolean filling;
    private long seen = -1;
    private @Nullable Twin twin;

    ListenTab(Supplier<Traffic> traffic, CardEdits edits) {
        this.traffic = traffic;
        this.form = new HeardForm(edits);
        table.setId("voices");
        table.setColumnResizePolicy(TableView.CONSTRAINED_RESIZE_POLICY_FLEX_LAST_COLUMN);
        table.setPlaceholder(Fields.read("Nothing received yet. Operate the device by hand."));
        table.getColumns().setAll(List.of(Fields.<HeardValue>column("Message", 270, HeardValue::where),
                Fields.<HeardValue>column("Values", 240, ListenTab::was),
                Fields.<HeardValue>column("Count", 60, v -> String.valueOf(v
                        .count())),
                Fields.<HeardValue>column("On card", 150, this::known)));
        table.setRowFactory(_ -> new TableRow<>() {
            @Override
            protected void updateItem(@Nullable HeardValue voice, boolean empty) {
                super.updateItem(voice, empty);
                Styles.set(this, "cell", "indexed-cell", "table-row-cell",
                        voice != null && voice.changes() && voice.at().isAfter(last.minus(LATELY))
                                ? "press-row"
                                : "plain-row");
            }
        });
        table.getSelectionModel().selectedItemProperty().addListener((_, _, voice) -> {
            if (!filling && voice != null) {
                chosen = voice.key();
                form.show(gear, voice);
            }
        });
        ScrollPane scroll = new ScrollPane(form.node());
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("popover-scroll");
        scroll.setMinWidth(FORM_WIDTH);
        scroll.setPrefWidth(FORM_WIDTH);
        VBox left = new VBox(Space.S6, Fields.read(
                "Operate the device by hand. Everything it sends appears here, newest first."),
                table);
        VBox.setVgrow(table, Priority.ALWAYS);
        HBox.setHgrow(left, Priority.ALWAYS);
        node = new HBox(Space.S16, left, scroll);
    }

    Node node() {
        return node;
    }

    void begin(String of) {
        gear = of;
        seen = -1;
        order.clear();
        heard.clear();
        chosen = "";
        table.getItems().clear();
        form.clear();
    }

    void card(Gear g, Twin now) {
        twin = now;
        form.card(g, now);
        table.refresh();
    }

    private static String was(HeardValue v) {
        if (v.arg() == HeardValue.EVENT) {
            return "no value";
        }
        List<Value> last = v.seen().subList(Math.max(0, v.seen().size() - SHOWN), v.seen().size());
        return last.reversed().stream().map(x -> x.toString().length() > LONGEST
                ? x.toString().substring(0, LONGEST) + "…"
                : x.toString()).collect(Collectors.joining(", "));
    }

    /** The readings that the card has of it already. */
    private String known(HeardValue v) {
        Twin now = twin;
        return now == null ? "" : String.join(", ", v.on(now));
    }

    /** Takes in what came since the last look. */
    void look() {
        Traffic.Look look = traffic.get().look(seen);
        if (look == null) {
            return;
        }
        seen = look.changes();
        List<TrafficPacket> mine = look.packets().stream().filter(p -> p.gear().equals(gear)).toList();
        Listening.to(mine).reversed().forEach(v -> {
            if (heard.put(v.key(), v) == null) {
                order.addFirst(v.key());
            }
        });
        last = heard.values().stream().map(HeardValue::at).max(Comparator.naturalOrder()).orElse(Instant.EPOCH);
        filling = true; // What stands where stays there, and so does the choice.
        table.getItems().setAll(order.stream().map(heard::get).toList());
        int at = List.copyOf(order).indexOf(chosen);
        if (at >= 0) {
            table.getSelectionModel().select(at);
            form.update(table.getItems().get(at));
        }
        filling = false;
    }
}
