package rombix.core.check;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Page;
import rombix.core.board.Rig;
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
        formulas.follows();
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
                findings.add(Finding.of(Kind.FORMULA, spot.owner(), spot.pointer(), "the formula “%s” is wrong%s: %s"
                        .formatted(source, e.position() > 0 ? " at character " + e.position() : "", e.getMessage())));
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

    /** The conditions that pages follow. */
    private void follows() {
        for (int p = 0; p < rig.board().pages().size(); p++) {
            Page page = rig.board().pages().get(p);
            if (page.follows() instanceof Condition.Computed c) {
                String at = "/pages/" + p + "/follows";
                try {
                    for (String name : new Formula(c.formula()).names()) {
                        String wrong = names.wrong(name, null, false);
                        if (wrong != null) {
                            findings.add(new Finding(Kind.DEAD_REFERENCE, at, "page “" + page.name() + "”",
                                    "what it follows names “%s”, which %s".formatted(name, wrong), ""));
                        }
                    }
                } catch (FormulaFault e) {
                    findings.add(
                            new Finding(Kind.FORMULA, at, "page “" + page.name() + "”", "the formula “%s” is wrong: %s"
                                    .formatted(c.formula(), e.getMessage()), ""));
                }
            }
        }
    }

    private static List<String> formulas(Step step) {
        List<String> all = new ArrayList<>();
        test(step.how().condition(), all);
        test(step.condition(), all);
        step.inputs().forEach(a -> arg(a, all));
        return all;
    }

    private static void test(@Nullable Condition test, List<String> to) {
        if (test instanceof Condition.Computed c) {
            to.add(c.formula());
        }
    }

    private static void arg(Arg arg, List<String> to) {
        if (arg instanceof Arg.Computed c) {
            to.add(c.formula());
        }
    }
}
