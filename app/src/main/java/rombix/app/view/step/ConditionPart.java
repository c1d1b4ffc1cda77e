package rombix.app.view.step;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.Conditions;
import rombix.app.edit.Conditions.Offered;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.form.Fields;
import rombix.core.board.Question;
import rombix.core.board.StepWords;
import rombix.core.chain.Comparison;
import rombix.core.chain.Condition;
import rombix.core.twin.Twin;
import rombix.core.value.Value;

/** One part of a condition: whether it is so now, what it asks, and what that is compared with. */
final class ConditionPart extends VBox {
    /** Stands for no condition. */
    static final Condition NONE = new Condition.Computed("");
    /** Stands for a part that is still to be chosen. */
    static final Condition UNCHOSEN = new Condition.Computed("?");

    /** Makes what edits a group within. */
    interface Groups {
        Node of(String id, Condition group, Consumer<@Nullable Condition> changed);
    }

    private final Groups groups;
    private final Desk desk;
    private final String name;
    private final Consumer<Condition> changed;
    private final Label now = new Label();
    private final VBox detail = new VBox(Space.S4);
    private final CheckBox not;
    private Condition test;

    /**
     * @param more what can be chosen besides what is offered everywhere
     * @param removed takes the part away; null where it is the only one
     */
    ConditionPart(Desk desk, Groups groups, String id, Condition condition, List<Offered> more,
            Consumer<Condition> changed, @Nullable Runnable removed) {
        super(Space.S4);
        this.groups = groups;
        this.desk = desk;
        this.name = id;
        this.changed = changed;
        test = condition instanceof Condition.Not n ? n.part() : condition;
        not = Fields.check(id + "-not", "not", condition instanceof Condition.Not, _ -> tell());
        not.setTooltip(new Tooltip("Not: true while this is false"));
        not.setMinWidth(USE_PREF_SIZE);
        now.getStyleClass().add("so-now");
        now.setMinWidth(18);
        HBox row = new HBox(Space.S6, now, not, choice(more));
        row.setAlignment(Pos.CENTER_LEFT);
        if (removed != null) {
            Button remove = Fields.plain("×", "");
            remove.setId(id + "-remove");
            remove.setTooltip(new Tooltip("Remove this condition"));
            remove.setAccessibleText("Remove this condition");
            remove.setOnAction(_ -> removed.run());
            remove.setMinWidth(USE_PREF_SIZE);
            row.getChildren().add(remove);
        }
        VBox.setMargin(detail, new Insets(0, 0, 0, Space.S22));
        getChildren().addAll(row, detail);
        detail();
    }

    private Node choice(List<Offered> more) {
        List<Offered> all = new ArrayList<>(more);
        all.addAll(Conditions.all(desk.bench().rig(), desk.bench().button().orElse(null), g -> desk.model().state()
                .readings(g)));
        Offered chosen = test == UNCHOSEN
                ? null
                : more.stream().filter(o -> o.test().equals(test)).findFirst().orElseGet(() -> Conditions.of(test, all,
                        new StepWords(desk.bench().rig(), g -> desk.model().state().readings(g))));
        if (chosen != null && !all.contains(chosen)) {
            all.add(more.size(), chosen);
        }
        ComboBox<Offered> box = Fields.choice(name, all, chosen, Offered::words, o -> {
            test = o.test();
            tell();
            detail();
        });
        box.setPromptText("Choose a condition…");
        box.setAccessibleText("Condition");
        box.setMinWidth(80);
        box.setPrefWidth(240);
        HBox.setHgrow(box, Priority.ALWAYS);
        return box;
    }

    private void tell() {
        detail.getChildren().removeIf(n -> n.getStyleClass().contains("trouble"));
        changed.accept(condition());
        look();
    }

    private void tell(Condition next) {
        test = next;
        tell();
    }

    private Condition condition() {
        return asks() && not.isSelected() ? new Condition.Not(test) : test;
    }

    /** Whether it asks something that is so or not. */
    private boolean asks() {
        return test != NONE && test != UNCHOSEN && !(test instanceof Condition.Otherwise);
    }

    private void detail() {
        not.setVisible(asks());
        not.setManaged(asks());
        detail.getChildren().clear();
        switch (test) {
            case Condition.Computed _ when !asks() -> {
            }
            case Condition.Computed c -> detail.getChildren().add(new FormulaField(desk, name + "-formula", c.formula(),
                    List.of(), f -> tell(new Condition.Computed(f))));
            case Condition.OnReading r -> compared(r.that(), desk.bench().rig().twin(r.gear()).flatMap(t -> t.reading(r
                    .reading(), desk.model().state().readings(r.gear()))).map(Twin.Reading::spec).map(s -> s.unit())
                    .orElse(null), free(r),
                    that -> tell(new Condition.OnReading(r.gear(), r.reading(), that, r
                            .extra())));
            case Condition.OnValue v ->
                compared(v.that(), null, true, that -> tell(new Condition.OnValue(v.value(), that,
                        v.extra())));
            case Condition.Daytime d -> daytime(d);
            case Condition.All _,Condition.Any _ -> {
                Node made = groups.of(name + "-group", test, c -> tell(c instanceof Condition.All
                        || c instanceof Condition.Any ? c : new Condition.All(c == null ? List.of() : List.of(c))));
                made.getStyleClass().add("condition-group");
                detail.getChildren().add(made);
            }
            case Condition.Not _,Condition.Otherwise _ -> {
            }
        }
    }

    /** Whether what a reading is compared with is written, and not chosen from a list. */
    private boolean free(Condition.OnReading r) {
        return desk.bench().rig().twin(r.gear()).flatMap(t -> t.reading(r.reading(), desk.model().state().readings(r
                .gear()))).map(k -> k.spec().type() == rombix.core.value.ValueType.TEXT || k.spec()
                        .type() == rombix.core.value.ValueType.NUMBER)
                .orElse(false);
    }

    private void compared(Comparison that, @Nullable String unit, boolean free, Consumer<Comparison> next) {
        Double above = that.above();
        Double below = that.below();
        if (above != null) {
            detail.getChildren()
                    .add(Fields.number(name + "-limit", above, unit, n -> next.accept(Comparison.above(n))));
        } else if (below != null) {
            detail.getChildren()
                    .add(Fields.number(name + "-limit", below, unit, n -> next.accept(Comparison.below(n))));
        } else if (that.contains() != null) {
            detail.getChildren()
                    .add(text("Text (case is ignored)", that.contains(), t -> next.accept(Comparison.contains(
                            t))));
        } else if (that.pattern() != null) {
            detail.getChildren()
                    .addAll(text("Regular expression; the chain can use its groups as {part1}, {part2}…", that
                            .pattern().toString(), t -> {
                                try {
                                    next.accept(Comparison.pattern(t));
                                } catch (IllegalArgumentException e) {
                                    flawed(e);
                                }
                            }));
        } else if (free && that.is() instanceof Value.Num(double number)) {
            detail.getChildren().add(Fields.number(name + "-is", number, unit, n -> next.accept(Comparison.is(Value.of(
                    n)))));
        } else if (free && that.is() instanceof Value.Text(String text)) {
            detail.getChildren().add(text("Text", text, t -> next.accept(Comparison.is(Value.of(t)))));
        }
    }

    private Node text(String title, String text, Consumer<String> next) {
        return Fields.named(title, Fields.text(name + "-text", text, next));
    }

    private void daytime(Condition.Daytime d) {
        String[] of = {d.from() == null ? "" : d.from(), d.until() == null ? "" : d.until()};
        HBox row = new HBox(Space.S8, time("From", "-from", of, 0), time("Until", "-until", of, 1));
        detail.getChildren().add(row);
    }

    private Node time(String title, String id, String[] of, int at) {
        return Fields.named(title, Fields.wide(Fields.text(name + id, of[at], t -> {
            of[at] = t.strip();
            try {
                tell(new Condition.Daytime(of[0].isEmpty() ? null : of[0], of[1].isEmpty() ? null : of[1]));
            } catch (IllegalArgumentException e) {
                flawed(e);
            }
        }), 90));
    }

    private void flawed(IllegalArgumentException why) {
        detail.getChildren().removeIf(n -> n.getStyleClass().contains("trouble"));
        Label flaw = Fields.read(String.valueOf(why.getMessage()));
        flaw.getStyleClass().add("trouble");
        detail.getChildren().add(flaw);
    }

    /** Shows whether it is so now. */
    void look() {
        Boolean so = asks() ? Question.of(condition()).map(q -> q.known(n -> named(desk, n))).orElse(null) : null;
        now.setText(!asks() ? "" : so == null ? "?" : so ? "✓" : "✗");
        now.setAccessibleText(asks() ? mark(so) : "");
        now.setTooltip(asks() ? new Tooltip(mark(so)) : null);
    }

    static String mark(@Nullable Boolean so) {
        return so == null ? "unknown now" : so ? "true now" : "not true now";
    }

    /** What a name stands for now. */
    static @Nullable Value named(Desk desk, String name) {
        return desk.model().state().named(name, desk.bench().button().map(b -> b.id()).orElse(""), desk.words()::wall);
    }
}
