package rombix.app.view.gear;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Control;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.board.Board;
import rombix.core.board.Gear;
import rombix.core.card.Setting;
import rombix.core.edit.GearEdits;
import rombix.core.twin.Twin;
import rombix.core.value.Value;

/** What is set for a gear beside its address: its protocol's settings and its card's, each with what it is for. */
final class GearSettings {
    private static final double NAME_WIDTH = 170;
    private static final double FIELD_WIDTH = 170;

    private final BiConsumer<String, UnaryOperator<Board>> edit;
    private final Consumer<String> shown;
    /** The gear whose fields are shown. */
    private final Set<String> opened = new HashSet<>();

    /** @param shown shows all anew, with the hand on what has this id */
    GearSettings(BiConsumer<String, UnaryOperator<Board>> edit, Consumer<String> shown) {
        this.edit = edit;
        this.shown = shown;
    }

    void fold() {
        opened.clear();
    }

    /** Adds a gear's fields below it. */
    void show(Gear g, @Nullable Twin twin, VBox to) {
        List<Setting> settings = twin == null ? List.of() : twin.settings();
        if (settings.isEmpty()) {
            return;
        }
        boolean open = opened.contains(g.id());
        Button fold = Fields.plain((open ? "▾ " : "▸ ") + words(g, settings), "");
        fold.setId("gear-settings-" + g.id());
        fold.setOnAction(_ -> {
            if (!opened.remove(g.id())) {
                opened.add(g.id());
            }
            shown.accept(fold.getId());
        });
        to.getChildren().add(fold);
        if (open) {
            GridPane fields = new GridPane(Space.S8, Space.S4);
            fields.getStyleClass().add("gear-security");
            for (Setting s : settings.stream().filter(s -> s.counts(settings, g.link().settings())).toList()) {
                Label name = Styles.label(s.label() + (s.unit() == null ? "" : " (" + s.unit() + ")"), "field-name");
                name.setPrefWidth(NAME_WIDTH);
                name.setMinWidth(NAME_WIDTH);
                Label help = Styles.label(s.help() == null ? "" : s.help(), "read", "quiet");
                help.setWrapText(true);
                fields.addRow(fields.getRowCount(), name, field(g, s), help);
            }
            to.getChildren().add(fields);
        }
    }

    /** What is set, in a line. */
    private static String words(Gear g, List<Setting> settings) {
        String set = settings.stream().filter(s -> g.link().settings().containsKey(s.id())).map(s -> s.label() + " "
                + g.link().settings().get(s.id())).collect(Collectors.joining(", "));
        return "Settings: " + (set.isEmpty() ? "all default" : set);
    }

    private Node field(Gear g, Setting s) {
        Value now = g.link().settings().get(s.id());
        String id = "gear-set-" + s.id() + "-" + g.id();
        Node field = switch (s.type()) {
            case CHOICE -> Fields.choice(id, s.choices(), now == null ? preset(s) : now.toString(), c -> c, to -> set(g,
                    s, Value.of(to)));
            case FLAG -> Fields.check(id, "yes", (now == null ? s.preset() : now) instanceof Value.Flag f && f.on(),
                    to -> set(g, s, Value.of(to)));
            default -> {
                TextField text = Fields.text(id, now == null ? "" : now.toString(), to -> typed(g, s, to.strip()));
                text.setPromptText(preset(s));
                yield text;
            }
        };
        field.setAccessibleText(s.label() + " of " + g.name());
        if (field instanceof Control control) {
            control.setPrefWidth(FIELD_WIDTH);
            control.setMinWidth(FIELD_WIDTH);
            if (s.help() != null) {
                control.setTooltip(new Tooltip(s.help()));
            }
        }
        return field;
    }

    private static String preset(Setting s) {
        return s.preset() == null ? "" : s.preset().toString();
    }

    private void typed(Gear g, Setting s, String text) {
        Value value = switch (s.type()) {
            case NUMBER -> Value.of(Fields.parsed(text, Double.NaN));
            default -> Value.of(text);
        };
        if (text.isEmpty()) {
            set(g, s, null);
        } else if (s.wrong(value) == null) {
            set(g, s, value);
        } else {
            shown.accept("gear-set-" + s.id() + "-" + g.id()); // As it was.
        }
    }

    private void set(Gear g, Setting s, @Nullable Value to) {
        Value kept = to != null && s.preset() != null && s.preset().matches(to) ? null : to;
        edit.accept("set “" + s.label() + "” of “" + g.name() + "”", b -> GearEdits.change(b, g.id(), x -> x.withLink(x
                .link().withSetting(s.id(), kept))));
    }
}
