package rombix.core.check;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Button;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.board.Trigger;
import rombix.core.board.Walk;
import rombix.core.chain.Arg;
import rombix.core.chain.Condition;
import rombix.core.chain.Step;
import rombix.core.check.Finding.Kind;
import rombix.core.value.Formula;
import rombix.core.value.FormulaFault;

/** Formulas of steps, and those that pages follow: whether they can be read, and whether what they name is there. */
final class Formulas {
    private final Rig rig;
    private final Names names;
    private final List<Finding> findings = new ArrayList<>();

    private Formulas(Rig rig, Names names) {
        this.rig = rig;
        this.names = names;
    }

    static List<Finding> of(Rig rig, Names names) {
        Formulas formulas = new Formulas(rig, names);
        Walk.steps(rig.board(), formulas::formulas);
        formulas.conditions();
        return formulas.findings;
    }

    private void formulas(Walk.Spot spot) {
        if (spot.step().how().off()) {
            return; // What is switched off does no harm.
        }
        for (String source : formulas(spot.step())) {
            try {
                for (String name : new Formula(source).names()) {
                    named(spot, name);
                }
            } catch (FormulaFault e) {
                findings.add(Finding.of(Kind.FORMULA, spot.owner(), spot.pointer(),
                        "the formula “%s” has an error%s: %s"
                                .formatted(source, e.position() > 0 ? " at character " + e.position() : "",
                                        e.getMessage())));
            }
        }
    }

    /** What a formula names must be a reading, a value, or something that a chain knows. */
    private void named(Walk.Spot spot, String name) {
        String wrong = names.wrong(name, spot.owner().button(), true);
        if (wrong != null) {
            findings.add(Finding.of(Kind.DEAD_REFERENCE, spot.owner(), spot.pointer(),
                    "a formula names “%s”, which %s".formatted(name, wrong)));
        }
    }

    /** The conditions of pages, states, lamps and triggers. */
    private void conditions() {
        for (int p = 0; p < rig.board().pages().size(); p++) {
            Page page = rig.board().pages().get(p);
            String at = "/pages/" + p;
            condition(page.follows(), at + "/follows", null, "page “" + page.name() + "”");
            for (int b = 0; b < page.buttons().size(); b++) {
                button(page.buttons().get(b), at + "/buttons/" + b);
            }
        }
    }

    private void button(Button button, String at) {
        String where = "“" + button.name() + "”";
        for (int i = 0; i < button.states().size(); i++) {
            State state = button.states().get(i);
            condition(state.when(), at + "/states/" + i + "/when", button, where);
            for (int t = 0; t < state.face().tally().size(); t++) {
                condition(state.face().tally().get(t).when(), at + "/states/" + i + "/face/tally/" + t + "/when",
                        button, where);
            }
        }
        for (int t = 0; t < button.triggers().size(); t++) {
            if (button.triggers().get(t) instanceof Trigger.Becomes b) {
                condition(b.condition(), at + "/triggers/" + t + "/condition", button, where);
            }
        }
    }

    private void condition(@Nullable Condition condition, String at, @Nullable Button of, String where) {
        if (condition == null) {
            return;
        }
        condition.each(at, (pointer, part) -> {
            try {
                for (String name : named(part)) {
                    String wrong = names.wrong(name, of, false);
                    if (wrong != null) {
                        findings.add(new Finding(Kind.DEAD_REFERENCE, pointer, where,
                                "a condition names “%s”, which %s".formatted(name, wrong), ""));
                    }
                }
            } catch (FormulaFault e) {
                findings.add(new Finding(Kind.FORMULA, pointer, where, "the formula “%s” has an error: %s"
                        .formatted(part instanceof Condition.Computed c ? c.formula() : "", e.getMessage()), ""));
            }
        });
    }

    /** What a condition names beside readings, whose references are looked at elsewhere. */
    private static List<String> named(Condition part) throws FormulaFault {
        return switch (part) {
            case Condition.Computed c -> new Formula(c.formula()).names();
            case Condition.OnValue v -> List.of(v.value());
            default -> List.of();
        };
    }

    private static List<String> formulas(Step step) {
        List<String> all = new ArrayList<>();
        test(step.how().condition(), all);
        test(step.condition(), all);
        all.addAll(step.how().times().values());
        step.inputs().forEach(a -> arg(a, all));
        return all;
    }

    private static void test(@Nullable Condition test, List<String> to) {
        if (test != null) {
            test.each("", (_, part) -> {
                if (part instanceof Condition.Computed c) {
                    to.add(c.formula());
                } else if (part instanceof Condition.OnValue v) {
                    to.add("{" + v.value() + "}");
                }
            });
        }
    }

    private static void arg(Arg arg, List<String> to) {
        if (arg instanceof Arg.Computed c) {
            to.add(c.formula());
        }
    }
}
