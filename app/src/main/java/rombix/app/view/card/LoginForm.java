package rombix.app.view.card;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextInputControl;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import rombix.app.view.common.Space;
import rombix.app.view.form.Fields;
import rombix.core.card.Packet;
import rombix.core.card.value.Computed.Form;
import rombix.core.card.value.Computed.Way;
import rombix.core.listen.HeardValue;
import rombix.core.listen.LoginMessage;
import rombix.core.listen.LoginMessage.Calculation;
import rombix.core.listen.LoginMessage.Kept;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.value.Value;

/** One message of a login: what is sent, what is computed for it, which answer counts, and what is kept of that. */
@OwnedBy(Owner.INTERFACE)
final class LoginForm {
    private static final double SHORT = 120;
    private static final double MIDDLE = 150;
    /** Functions that a device may ask for; checksums belong to commands. */
    private static final List<Way> WAYS = List.of(Way.values()).stream().filter(w -> !w.checks()).toList();

    private final VBox box = new VBox(Space.S10);
    private final Consumer<LoginMessage> changed;
    private LoginMessage message = LoginMessage.waiting();
    /** Names that earlier messages have kept. */
    private List<String> known = List.of();
    private List<HeardValue> heard = List.of();
    private boolean waits;

    /** @param changed takes the message after each change */
    LoginForm(Consumer<LoginMessage> changed) {
        this.changed = changed;
    }

    Node node() {
        return box;
    }

    void clear(String words) {
        box.getChildren().setAll(Fields.read(words));
    }

    /**
     * Shows a message.
     *
     * @param kept names that earlier messages have kept
     * @param canWait whether the device can send something first
     */
    void show(LoginMessage shown, List<String> kept, List<HeardValue> from, boolean canWait) {
        message = shown;
        known = kept;
        heard = from;
        waits = canWait;
        fill();
    }

    private void change(UnaryOperator<LoginMessage> edit) {
        message = edit.apply(message);
        changed.accept(message);
    }

    /** After a change of which fields there are. */
    private void rebuilt(UnaryOperator<LoginMessage> edit) {
        change(edit);
        fill();
    }

    private void fill() {
        boolean wait = message.to().equals(LoginMessage.WAIT);
        box.getChildren().clear();
        if (waits) {
            box.getChildren().add(Fields.named("Sent by", Fields.choice("login-kind", List.of(true, false), wait,
                    w -> w ? "The device" : "Rombix", w -> rebuilt(m -> w
                            ? LoginMessage.waiting().withAccepted(m.accepted()).withKept(m.kept())
                            : m.withTo("")))));
        }
        if (!wait) {
            TextInputControl to = typed("login-to", message.to(), t -> change(m -> m.withTo(t)));
            TextInputControl text = typed("login-text", message.text(), t -> change(m -> m.withText(t)));
            to.setPrefWidth(MIDDLE);
            box.getChildren().add(row(Fields.named("Address", to), wide(Fields.named("Content", text)),
                    insert("login-text-insert", text, message.computed().size())));
            box.getChildren().add(computed());
        }
        box.getChildren().add(Fields.check("login-answered", "Wait for an answer", message.answered(),
                on -> rebuilt(m -> m.withAnswered(on))));
        if (message.answered()) {
            box.getChildren().add(row(wide(Fields.named("Accepted if", suggested("login-accepted", message.accepted(),
                    LoginForm::condition, "any answer", t -> change(m -> m.withAccepted(t)))))));
            box.getChildren().add(row(wide(Fields.named("Refused if", suggested("login-refused", message.refused(),
                    LoginForm::condition, "never", t -> change(m -> m.withRefused(t))))),
                    wide(Fields.named("Reason", suggested("login-reason", message.reason(), LoginForm::part,
                            "whole answer", t -> change(m -> m.withReason(t)))))));
            box.getChildren().add(kept());
        }
    }

    private Node computed() {
        VBox rows = new VBox(Space.S6);
        for (int i = 0; i < message.computed().size(); i++) {
            int at = i;
            Calculation c = message.computed().get(i);
            TextInputControl name = typed("login-name-" + i, c.name(), t -> computed(at, x -> x.withName(t)));
            name.setPrefWidth(SHORT);
            TextInputControl over = typed("login-over-" + i, c.over(), t -> computed(at, x -> x.withOver(t)));
            HBox first = row(Fields.named("Name", name), Fields.named("Function", Fields.choice("login-way-" + i, WAYS,
                    c.way(), LoginForm::words, w -> {
                        computed(at, x -> x.withWay(w));
                        fill();
                    })), Fields.named("Encoding", Fields.choice("login-form-" + i, List.of(Form.values()), c.form(),
                            f -> f == Form.HEX ? "hexadecimal" : "Base64", f -> computed(at, x -> x.withForm(f)))),
                    removeButton("login-computed-gone-" + i, "Remove this value",
                            () -> rebuilt(m -> m.withComputed(without(m
                                    .computed(), at)))));
            rows.getChildren().addAll(first, row(wide(Fields.named("Computed from", over)), insert("login-over-insert-"
                    + i, over, i)));
            if (c.way().keyed()) {
                TextInputControl key = typed("login-key-" + i, c.key(), t -> computed(at, x -> x.withKey(t)));
                rows.getChildren().add(row(wide(Fields.named("Key", key)), insert("login-key-insert-" + i, key, i)));
            }
        }
        Button add = Fields.plain("Add computed value", "");
        add.setId("login-compute");
        add.setOnAction(_ -> rebuilt(m -> m.withComputed(with(m.computed(), new Calculation("proof" + (m.computed()
                .isEmpty() ? "" : m.computed().size() + 1), Way.SHA_256, "", place("secret"), Form.HEX)))));
        rows.getChildren().add(add);
        return rows;
    }

    private void computed(int at, UnaryOperator<Calculation> edit) {
        change(m -> {
            List<Calculation> all = new ArrayList<>(m.computed());
            all.set(at, edit.apply(all.get(at)));
            return m.withComputed(all);
        });
    }

    private Node kept() {
        VBox rows = new VBox(Space.S6);
        for (int i = 0; i < message.kept().size(); i++) {
            int at = i;
            Kept k = message.kept().get(i);
            TextInputControl name = typed("login-keep-name-" + i, k.name(), t -> kept(at, x -> x.withName(t)));
            name.setPrefWidth(SHORT);
            rows.getChildren().add(row(wide(Fields.named("Part of the answer", suggested("login-keep-" + i, k.part(),
                    LoginForm::part, "whole answer", t -> kept(at, x -> x.withPart(t))))), Fields.named("Stored as",
                            name),
                    removeButton("login-keep-gone-" + i, "Stop using this part",
                            () -> rebuilt(m -> m.withKept(without(m.kept(),
                                    at))))));
        }
        Button add = Fields.plain("Store a part of the answer", "");
        add.setId("login-keep");
        add.setOnAction(_ -> rebuilt(m -> m.withKept(with(m.kept(), new Kept("", "")))));
        rows.getChildren().add(add);
        return rows;
    }

    private void kept(int at, UnaryOperator<Kept> edit) {
        change(m -> {
            List<Kept> all = new ArrayList<>(m.kept());
            all.set(at, edit.apply(all.get(at)));
            return m.withKept(all);
        });
    }

    private static <T> List<T> with(List<T> all, T item) {
        List<T> more = new ArrayList<>(all);
        more.add(item);
        return more;
    }

    private static <T> List<T> without(List<T> all, int at) {
        List<T> fewer = new ArrayList<>(all);
        fewer.remove(at);
        return fewer;
    }

    /** What to insert: the login of the gear, what was kept, and the values computed before this one. */
    private MenuButton insert(String id, TextInputControl into, int before) {
        MenuButton menu = new MenuButton("Insert");
        menu.setId(id);
        menu.setMinWidth(Region.USE_PREF_SIZE);
        menu.setOnShowing(_ -> {
            menu.getItems().clear();
            item(menu, into, "Password", place("secret"));
            item(menu, into, "User", place("user"));
            known.forEach(name -> item(menu, into, name, place(name)));
            message.computed().stream().limit(before).map(Calculation::name).filter(n -> !n.isBlank()).forEach(
                    name -> item(menu, into, name + " (computed)", "{" + name + "}"));
        });
        return menu;
    }

    private static String place(String name) {
        return "{" + Packet.GEAR + "." + name + "}";
    }

    private static void item(MenuButton menu, TextInputControl into, String words, String text) {
        MenuItem item = new MenuItem(words);
        item.setOnAction(_ -> into.insertText(into.getCaretPosition(), text));
        menu.getItems().add(item);
    }

    /** A field with what was heard to choose from. */
    private ComboBox<String> suggested(String id, String value, Function<HeardValue, String> words, String prompt,
            Consumer<String> typed) {
        ComboBox<String> box = new ComboBox<>();
        box.setId(id);
        box.setEditable(true);
        box.setMaxWidth(Double.MAX_VALUE);
        box.getItems().setAll(heard.stream().map(words).filter(w -> !w.isBlank()).distinct().sorted().toList());
        box.getEditor().setText(value);
        box.getEditor().setPromptText(prompt);
        box.getEditor().textProperty().addListener((_, _, text) -> typed.accept(text));
        return box;
    }

    private static String condition(HeardValue voice) {
        Value last = voice.last();
        return voice.pointer() != null && !voice.pointer().isEmpty()
                ? LoginMessage.condition(voice.pointer(), last)
                : voice.before() != null
                        ? voice.before().strip()
                        : voice.address().equals("line") ? last.toString() : "";
    }

    private static String part(HeardValue voice) {
        return voice.pointer() != null && !voice.pointer().isEmpty()
                ? voice.pointer()
                : voice.before() != null ? voice.before() : "";
    }

    private static String words(Way way) {
        return way == Way.TEXT ? "None (encoding only)" : way.name().replace('_', '-');
    }

    private static TextInputControl typed(String id, String value, Consumer<String> changed) {
        return HeardForm.typed(id, value, changed);
    }

    private static Button removeButton(String id, String words, Runnable gone) {
        Button button = Fields.plain("×", "");
        button.setId(id);
        button.setAccessibleText(words);
        button.setTooltip(new Tooltip(words));
        button.setMinWidth(Region.USE_PREF_SIZE);
        button.setOnAction(_ -> gone.run());
        return button;
    }

    private static HBox row(Node... nodes) {
        HBox row = new HBox(Space.S8, nodes);
        row.setAlignment(Pos.BOTTOM_LEFT);
        return row;
    }

    private static Node wide(VBox named) {
        HBox.setHgrow(named, Priority.ALWAYS);
        return named;
    }
}
