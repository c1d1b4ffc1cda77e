package rombix.app.view.step;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.Conditions.Offered;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.form.Fields;
import rombix.core.board.Question;
import rombix.core.chain.Condition;

/**
 * A condition: one part, picked from a list, or several of which all or any have to be so; a part can be such a group
 * itself. Beside each part stands whether it is so now.
 */
public final class ConditionField extends VBox {
    private static final String ALL = "All of these are true";
    private static final String ANY = "At least one of these is true";

    private final Desk desk;
    private final String name;
    private final List<Offered> more;
    private final Consumer<@Nullable Condition> changed;
    private final List<Condition> parts = new ArrayList<>();
    private final List<ConditionPart> shown = new ArrayList<>();
    private final Label together = new Label();
    private final Button add = Fields.plain("Add a condition", "");
    private boolean any;

    /**
     * @param now the condition; null for none
     * @param none what no condition is called; null where there has to be one
     * @param changed told of each change; of null where none is chosen
     */
    public ConditionField(Desk desk, String id, @Nullable Condition now, @Nullable String none,
            Consumer<@Nullable Condition> changed) {
        this(desk, id, now, none == null ? List.of() : List.of(none(none)), changed);
    }

    /** @param more what can be chosen besides, as the whole of the condition */
    public ConditionField(Desk desk, String id, @Nullable Condition now, List<Offered> more,
            Consumer<@Nullable Condition> changed) {
        super(Space.S6);
        this.desk = desk;
        this.name = id;
        this.more = more;
        this.changed = changed;
        switch (now) {
            case null -> parts.add(ConditionPart.NONE);
            case Condition.All a -> parts.addAll(a.parts());
            case Condition.Any a -> {
                any = true;
                parts.addAll(a.parts());
            }
            default -> parts.add(now);
        }
        if (parts.isEmpty()) {
            parts.add(ConditionPart.UNCHOSEN);
        }
        add.setId(id + "-add");
        add.setOnAction(_ -> {
            parts.add(ConditionPart.UNCHOSEN);
            fill();
        });
        together.getStyleClass().addAll("read", "quiet");
        fill();
        desk.whileShown(this, this::look);
    }

    /** The choice of no condition, by what it is called. */
    public static Offered none(String words) {
        return new Offered(words, ConditionPart.NONE);
    }

    private void fill() {
        getChildren().clear();
        shown.clear();
        if (parts.size() > 1) {
            var mode = Fields.choice(name + "-mode", List.of(ALL, ANY), any ? ANY : ALL, m -> m, m -> {
                any = m.equals(ANY);
                tell();
            });
            mode.setAccessibleText("Combine with");
            getChildren().add(mode);
        }
        for (int i = 0; i < parts.size(); i++) {
            int at = i;
            ConditionPart part = new ConditionPart(desk,
                    (id, group, told) -> new ConditionField(desk, id, group, List.of(),
                            told),
                    i == 0 ? name : name + "-" + (i + 1), parts.get(i), parts
                            .size() == 1 ? more : List.of(),
                    c -> {
                        parts.set(at, c);
                        tell();
                    }, parts.size() == 1 ? null : () -> {
                        parts.remove(at);
                        tell();
                        fill();
                    });
            shown.add(part);
            getChildren().add(part);
        }
        HBox foot = new HBox(Space.S8, add, together);
        foot.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
        getChildren().add(foot);
        look();
        desk.overlay().requestLayout();
    }

    private void tell() {
        changed.accept(condition());
        look();
    }

    /** What is chosen by now; null for nothing. */
    private @Nullable Condition condition() {
        List<Condition> chosen = parts.stream().filter(p -> p != ConditionPart.UNCHOSEN).toList();
        if (chosen.isEmpty() || chosen.getFirst() == ConditionPart.NONE) {
            return null;
        }
        return chosen.size() == 1
                ? chosen.getFirst()
                : any ? new Condition.Any(chosen) : new Condition.All(chosen);
    }

    /** Shows which parts are so now, and whether all in all it is. */
    private void look() {
        shown.forEach(ConditionPart::look);
        Condition now = condition();
        boolean addable = now != null && !(now instanceof Condition.Otherwise);
        add.setVisible(addable);
        add.setManaged(addable);
        together.setText(parts.size() < 2 || now == null
                ? ""
                : "Together: " + ConditionPart.mark(Question.of(now).map(q -> q.known(n -> ConditionPart.named(desk,
                        n))).orElse(null)));
    }
}
