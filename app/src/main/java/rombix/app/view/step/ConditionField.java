package rombix.app.view.step;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.scene.control.ComboBox;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.Conditions.Offered;
import rombix.app.edit.Conditions;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.form.Fields;
import rombix.core.board.StepWords;
import rombix.core.chain.Condition;

/** Something about a reading, picked from a list, or a formula. */
public final class ConditionField extends VBox {
    private static final Offered NONE = new Offered("always", new Condition.Computed(""));
    private static final Offered FORMULA = new Offered("a formula…", new Condition.Computed("true"));

    private final Desk desk;
    private final String name;
    private final VBox detail = new VBox();
    private final Consumer<@Nullable Condition> changed;

    /** @param optional whether it may be absent: then null is told */
    public ConditionField(Desk desk, String id, @Nullable Condition now, boolean optional,
            Consumer<@Nullable Condition> changed) {
        super(Space.S4);
        this.desk = desk;
        this.name = id;
        this.changed = changed;
        List<Offered> all = new ArrayList<>();
        if (optional) {
            all.add(NONE);
        }
        all.add(FORMULA);
        all.addAll(Conditions.all(desk.bench().rig(), g -> desk.model().state().readings(g)));
        Offered chosen = now == null
                ? optional ? NONE : null
                : now instanceof Condition.Computed
                        ? FORMULA
                        : Conditions.of(now, all,
                                new StepWords(desk.bench().rig(), g -> desk.model().state().readings(g)));
        if (chosen != null && !all.contains(chosen)) {
            all.add(1, chosen);
        }
        ComboBox<Offered> choice = Fields.choice(id, all, chosen, Offered::words, o -> {
            Condition test = o == NONE ? null : o.test();
            changed.accept(test);
            detail(test);
        });
        choice.setAccessibleText("Condition");
        getChildren().addAll(choice, detail);
        detail(now);
    }

    private void detail(@Nullable Condition test) {
        detail.getChildren().clear();
        if (test instanceof Condition.Computed c) {
            detail.getChildren().add(new FormulaField(desk, name + "-formula", c.formula(), List.of(),
                    f -> changed.accept(new Condition.Computed(f))));
        } else if (test instanceof Condition.OnReading c && (c.above() != null || c.below() != null)) {
            Double over = c.above();
            Double under = c.below();
            boolean above = over != null;
            String unit = desk.bench().rig().twin(c.gear())
                    .flatMap(t -> t.reading(c.reading(), desk.model().state().readings(c.gear())))
                    .map(k -> k.spec().unit()).orElse(null);
            double limit = over != null ? over : under != null ? under : 0;
            detail.getChildren()
                    .add(Fields.number(name + "-limit", limit, unit, n -> changed.accept(new Condition.OnReading(c
                            .gear(), c.reading(), null, above ? n : null, above ? null : n, c.extra()))));
        }
    }
}
