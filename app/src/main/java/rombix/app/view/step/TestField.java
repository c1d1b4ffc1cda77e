package rombix.app.view.step;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.scene.control.ComboBox;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.Tests;
import rombix.app.edit.Tests.Offered;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Fields;
import rombix.core.board.StepWords;
import rombix.core.chain.Condition;
import rombix.core.chain.Test;

/** Something about a reading, picked from a list, or a formula. */
public final class TestField extends VBox {
    private static final Offered NONE = new Offered("always", new Test.Computed(""));
    private static final Offered FORMULA = new Offered("a formula…", new Test.Computed("true"));

    private final Desk desk;
    private final String name;
    private final VBox detail = new VBox();
    private final Consumer<@Nullable Test> changed;

    /** @param optional whether it may be absent: then null is told */
    public TestField(Desk desk, String id, @Nullable Test now, boolean optional, Consumer<@Nullable Test> changed) {
        super(4);
        this.desk = desk;
        this.name = id;
        this.changed = changed;
        List<Offered> all = new ArrayList<>();
        if (optional) {
            all.add(NONE);
        }
        all.add(FORMULA);
        all.addAll(Tests.all(desk.bench().rig(), g -> desk.model().readings(g)));
        Offered chosen = now == null
                ? optional ? NONE : null
                : now instanceof Test.Computed
                        ? FORMULA
                        : Tests.of(now, all, new StepWords(desk.bench().rig(), g -> desk.model().readings(g)));
        if (chosen != null && !all.contains(chosen)) {
            all.add(1, chosen);
        }
        ComboBox<Offered> choice = Fields.choice(id, all, chosen, Offered::words, o -> {
            Test test = o == NONE ? null : o.test();
            changed.accept(test);
            detail(test);
        });
        choice.setAccessibleText("What must be so");
        getChildren().addAll(choice, detail);
        detail(now);
    }

    private void detail(@Nullable Test test) {
        detail.getChildren().clear();
        if (test instanceof Test.Computed c) {
            detail.getChildren().add(new FormulaField(desk, name + "-formula", c.formula(), List.of(),
                    f -> changed.accept(new Test.Computed(f))));
        } else if (test instanceof Condition c && (c.above() != null || c.below() != null)) {
            Double over = c.above();
            Double under = c.below();
            boolean above = over != null;
            String unit = desk.bench().rig().twin(c.gear())
                    .flatMap(t -> t.reading(c.reading(), desk.model().readings(c.gear())))
                    .map(k -> k.spec().unit()).orElse(null);
            double limit = over != null ? over : under != null ? under : 0;
            detail.getChildren().add(Fields.number(name + "-limit", limit, unit, n -> changed.accept(new Condition(c
                    .gear(), c.reading(), null, above ? n : null, above ? null : n, c.extra()))));
        }
    }
}
