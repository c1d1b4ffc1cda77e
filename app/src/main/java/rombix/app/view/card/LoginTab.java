package rombix.app.view.card;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.CardEdits;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.board.Gear;
import rombix.core.card.Card;
import rombix.core.card.Packet;
import rombix.core.card.Protocol;
import rombix.core.listen.CardMaking;
import rombix.core.listen.HeardValue;
import rombix.core.listen.Listening;
import rombix.core.listen.LoginMessage;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.traffic.Traffic;
import rombix.core.twin.Twin;
import rombix.running.Player;

/**
 * The messages that are exchanged when gear is connected: what it sends first, what is computed from that, and what is
 * answered. They take effect together, when they are applied. The interface's thread's.
 */
@OwnedBy(Owner.INTERFACE)
final class LoginTab {
    private static final double LIST_WIDTH = 380;
    /** Protocols over which gear can speak first. */
    private static final List<String> WAITING = List.of("websocket", "line");

    /**
     * A message in the list.
     *
     * @param typed null where the card says more than can be typed here
     */
    private record Entry(Packet packet, @Nullable LoginMessage typed) {
        static Entry of(Packet packet) {
            return new Entry(packet, LoginMessage.of(packet).orElse(null));
        }

        String words() {
            LoginMessage m = typed;
            if (m != null && m.to().equals(LoginMessage.WAIT)) {
                return "Wait for a message" + (m.accepted().isBlank() ? "" : ": " + m.accepted());
            }
            String text = m == null ? packet.to() + " (edit in the card file)" : m.to() + " " + m.text();
            return "Send " + (text.isBlank() ? "…" : text.strip());
        }
    }

    private final Player player;
    private final CardEdits edits;
    private final ObservableList<Entry> entries = FXCollections.observableArrayList();
    private final ListView<Entry> list = new ListView<>(entries);
    private final LoginForm form = new LoginForm(this::changed);
    private final Label trouble = Fields.read("");
    private final Button apply = new Button("Apply login");
    private final Map<String, HeardValue> heard = new LinkedHashMap<>();
    private final HBox node;
    private String gear = "";
    private List<Packet> onCard = List.of();
    private @Nullable Protocol protocol;
    private long seen = -1;
    private boolean filling;

    LoginTab(Player player, CardEdits edits) {
        this.player = player;
        this.edits = edits;
        list.setId("login-messages");
        list.setPlaceholder(Fields.read("No login: the gear is ready as soon as it is connected."));
        list.setCellFactory(_ -> new ListCell<>() {
            @Override
            protected void updateItem(@Nullable Entry entry, boolean empty) {
                super.updateItem(entry, empty);
                setText(empty || entry == null ? null : getIndex() + 1 + "  " + entry.words());
                setPrefWidth(0); // As wide as the list; what is longer ends in an ellipsis.
            }
        });
        list.getSelectionModel().selectedIndexProperty().addListener((_, _, _) -> {
            if (!filling) {
                show();
            }
        });
        Button add = Fields.plain("Add message", "");
        add.setId("login-add");
        add.setOnAction(_ -> add());
        Button up = Fields.plain("Move up", "");
        up.setId("login-up");
        up.setOnAction(_ -> moveUp());
        Button gone = Fields.plain("Remove", "");
        gone.setId("login-gone");
        gone.setOnAction(_ -> remove());
        up.disableProperty().bind(list.getSelectionModel().selectedIndexProperty().lessThan(1));
        gone.disableProperty().bind(list.getSelectionModel().selectedIndexProperty().lessThan(0));
        apply.setId("login-apply");
        apply.setDefaultButton(true);
        apply.setOnAction(_ -> apply());
        trouble.setId("login-trouble");
        Styles.set(trouble, "label", "read", "trouble");
        trouble.managedProperty().bind(trouble.textProperty().isNotEmpty());
        HBox ways = new HBox(Space.S8, add, up, gone);
        ways.setAlignment(Pos.CENTER_LEFT);
        VBox left = new VBox(Space.S8, Fields.read(
                "Messages exchanged after connecting, in order"), list,
                ways, trouble, apply);
        VBox.setVgrow(list, Priority.ALWAYS);
        left.setMinWidth(LIST_WIDTH);
        left.setPrefWidth(LIST_WIDTH);
        left.setMaxWidth(LIST_WIDTH);
        ScrollPane scroll = new ScrollPane(form.node());
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("popover-scroll");
        HBox.setHgrow(scroll, Priority.ALWAYS);
        node = new HBox(Space.S16, left, scroll);
    }

    Node node() {
        return node;
    }

    void begin(String of) {
        gear = of;
        seen = -1;
        heard.clear();
        onCard = List.of();
        protocol = null;
        entries.clear();
        trouble.setText("");
        show();
    }

    /** What is typed stays while the card's own login is the same. */
    void card(Gear g, Twin twin) {
        List<Packet> now = twin.card().greeting().getOrDefault(twin.protocol(), List.of());
        if (!now.equals(onCard) || !twin.protocol().equals(protocol)) {
            onCard = now;
            protocol = twin.protocol();
            entries.setAll(now.stream().map(Entry::of).toList());
            list.getSelectionModel().select(entries.isEmpty() ? -1 : 0);
            show();
        }
        checked();
    }

    /** Takes in what came since the last look. */
    void look() {
        Traffic.Look look = player.traffic().look(seen);
        if (look != null) {
            seen = look.changes();
            Listening.to(look.packets().stream().filter(p -> p.gear().equals(gear)).toList()).forEach(v -> heard.put(v
                    .key(), v));
        }
    }

    private void show() {
        int at = list.getSelectionModel().getSelectedIndex();
        Entry entry = at < 0 || at >= entries.size() ? null : entries.get(at);
        if (entry == null) {
            form.clear(
                    "Add a message for each step of the login: first what the device sends or is asked for, then the answer with the password.");
        } else if (entry.typed() == null) {
            form.clear("This message uses settings that can only be edited in the card file.");
        } else {
            Protocol over = protocol;
            look();
            form.show(entry.typed(), entries.subList(0, at).stream().map(Entry::packet).flatMap(p -> p.reply() == null
                    ? List.<String>of().stream()
                    : p.reply().keep().keySet().stream()).sorted().toList(), List.copyOf(heard.values()),
                    over != null && WAITING.contains(over.id()));
        }
    }

    private void changed(LoginMessage message) {
        int at = list.getSelectionModel().getSelectedIndex();
        if (at < 0) {
            return;
        }
        filling = true;
        try {
            entries.set(at, new Entry(message.packet(), message));
        } catch (IllegalArgumentException e) {
            entries.set(at, new Entry(entries.get(at).packet(), message)); // Said by the check.
        }
        list.getSelectionModel().select(at);
        filling = false;
        checked();
    }

    private void add() {
        Protocol over = protocol;
        if (over == null) {
            return;
        }
        LoginMessage next = entries.isEmpty() && WAITING.contains(over.id())
                ? LoginMessage.waiting()
                : LoginMessage.waiting().withTo(over.descriptor().usualAddress());
        entries.add(new Entry(next.packet(), next));
        list.getSelectionModel().select(entries.size() - 1);
        show();
        checked();
    }

    private void moveUp() {
        int at = list.getSelectionModel().getSelectedIndex();
        if (at > 0) {
            entries.add(at - 1, entries.remove(at));
            list.getSelectionModel().select(at - 1);
            show();
            checked();
        }
    }

    private void remove() {
        int at = list.getSelectionModel().getSelectedIndex();
        if (at >= 0) {
            entries.remove(at);
            show();
            checked();
        }
    }

    /** The card with what is typed. */
    private Card with(Card card, Protocol over) {
        List<Packet> all = new ArrayList<>();
        for (Entry e : entries) {
            all.add(e.typed() == null ? e.packet() : e.typed().packet());
        }
        return CardMaking.greeting(card, over, all);
    }

    private void checked() {
        Protocol over = protocol;
        Optional<String> wrong = over == null ? Optional.empty() : edits.wrong(gear, card -> with(card, over));
        boolean same = entries.stream().allMatch(e -> e.typed() == null || wrong.isEmpty()) && wrong.isEmpty()
                && entries.stream().map(Entry::packet).toList().equals(onCard);
        trouble.setText(wrong.orElse(""));
        apply.setDisable(same || wrong.isPresent());
    }

    private void apply() {
        Protocol over = protocol;
        if (over != null && !apply.isDisabled()) {
            edits.change("change the login", gear, card -> with(card, over));
        }
    }
}
