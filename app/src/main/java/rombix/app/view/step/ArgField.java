package rombix.app.view.step;

import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.stream.Stream;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.form.ColourField;
import rombix.app.view.form.Fields;
import rombix.core.card.Card.Item;
import rombix.core.card.Card.Param;
import rombix.core.chain.Arg;
import rombix.core.twin.Twin;
import rombix.core.value.Value;
import rombix.core.value.ValueType;

/** An argument: a control of its own kind for a value, or at a toggle a formula. */
final class ArgField extends HBox {
    private final Desk desk;
    private final String name;
    private final VBox place = new VBox();
    private final Consumer<Arg> changed;

    /**
     * @param twin whose lists a choice is made from; null where the argument is no gear's
     * @param more names that formulas know in this place
     */
    ArgField(Desk desk, String id, @Nullable Twin twin, Param param, Arg now, List<String> more,
            Consumer<Arg> changed) {
        super(Space.S6);
        this.desk = desk;
        this.name = id;
        this.changed = changed;
        HBox.setHgrow(place, Priority.ALWAYS);
        ToggleButton computed = toggle(id + "-formula-toggle", param.label(), "Use a formula",
                now instanceof Arg.Computed, on -> {
                    Value plain = now instanceof Arg.Constant c
                            ? c.value()
                            : param.preset() == null
                                    ? Value.of(0)
                                    : param.preset();
                    Arg next = on ? new Arg.Computed(text(plain)) : Arg.of(plain);
                    changed.accept(next);
                    show(twin, param, next, more);
                });
        getChildren().addAll(place, computed);
        show(twin, param, now, more);
    }

    /** The toggle beside a field that takes its value from a formula. */
    static ToggleButton toggle(String id, String field, String hint, boolean on, Consumer<Boolean> changed) {
        ToggleButton computed = new ToggleButton("ƒ");
        computed.getStyleClass().setAll("toggle-button", "tab");
        computed.setId(id);
        computed.setTooltip(new Tooltip(hint));
        computed.setAccessibleText(field + ", from a formula");
        computed.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
        computed.setSelected(on);
        computed.setOnAction(_ -> changed.accept(computed.isSelected()));
        return computed;
    }

    private static String text(Value plain) {
        return plain instanceof Value.Text t ? "\"" + t.text().replace("\"", "") + "\"" : plain.toString();
    }

    private void show(@Nullable Twin twin, Param param, Arg arg, List<String> more) {
        Node control = switch (arg) {
            case Arg.Computed c -> new FormulaField(desk, name, c.formula(), more, f -> changed.accept(
                    new Arg.Computed(f)));
            case Arg.Constant c -> control(twin, param, c.value());
        };
        if (control.getId() == null) {
            control.setId(name);
        }
        control.setAccessibleText(param.label());
        place.getChildren().setAll(control);
    }

    private void value(Value v) {
        changed.accept(Arg.of(v));
    }

    private Node control(@Nullable Twin twin, Param p, Value v) {
        return switch (p.type()) {
            case CHOICE -> choice(twin, p, v);
            case NUMBER -> {
                double n = Double.isNaN(v.asNumber()) ? 0 : v.asNumber();
                yield p.min() != null && p.max() != null
                        ? Fields.slider(p.label(), p.min(), p.max(), n, p.unit(), x -> value(Value.of(x)))
                        : Fields.number(name, n, p.unit(), x -> value(Value.of(x)));
            }
            case FLAG -> {
                CheckBox box = Fields.check(name, p.label(), v.asFlag(), on -> value(Value.of(on)));
                yield box;
            }
            case COLOUR -> new ColourField(v.toString(), to -> value(Value.of(to))).withCode();
            case KEYS -> new KeysField(name, v.toString(), keys -> value(Value.of(keys)));
            case PLACE -> new PlaceField(desk, name, twin, v.toString(), to -> value(Value.of(to)));
            case PATH -> new PathField(name, v.toString(), path -> value(Value.of(path)));
            case SECRET -> new SecretField(name, v.toString(), secret -> value(Value.of(secret)));
            case TEXT, LIST -> Fields.text(name, v.toString(), t -> value(plain(t, p.type())));
        };
    }

    /** What is typed where no kind is known: a number where it is one. */
    private static Value plain(String text, ValueType kind) {
        return kind == ValueType.LIST && text.strip().matches("[-\u2212]?\\d+([.,]\\d+)?")
                ? Value.of(Fields.parsed(text, 0))
                : Value.of(text);
    }

    private Node choice(@Nullable Twin twin, Param p, Value v) {
        List<Item> items = twin == null ? List.of() : twin.items(p.list(), desk.model().state().readings(twin.gear()));
        if (p.preset() != null && p.preset().toString().isEmpty()) {
            items = Stream.concat(Stream.of(new Item("", "none", Map.of())), items.stream()).toList();
        }
        Item chosen = items.stream().filter(i -> i.id().equals(v.toString())).findFirst().orElse(null);
        ComboBox<Item> box = Fields.choice(name, items, chosen, Item::name, i -> value(Value.of(i.id())));
        box.setPromptText(v + " (not available now)");
        return box;
    }
}
