package rombix.core.check;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import rombix.core.board.Button;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.board.Walk;
import rombix.core.board.Walk.Owner;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.Condition;
import rombix.core.chain.DeckStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.value.Formula;
import rombix.core.value.FormulaFault;

/** Finds chains that would go round without time passing: repeats, and chains that use each other. */
final class Loops {
    private final Rig rig;
    private final List<Finding> findings = new ArrayList<>();
    /** Chains by what names them, and what each uses before any time has passed. */
    private final Map<String, Walk.Whole> wholes = new LinkedHashMap<>();
    private final Map<String, Set<String>> uses = new HashMap<>();

    Loops(Rig rig) {
        this.rig = rig;
    }

    List<Finding> find() {
        Walk.steps(rig.board(), spot -> {
            if (spot.step() instanceof Step.Repeat r && !r.how().off() && endless(r)) {
                findings.add(Finding.of(Finding.Kind.ENDLESS_LOOP, spot.owner(), spot.pointer(),
                        "repeats forever without a wait; add a wait or a number of times"));
            }
        });
        Walk.chains(rig.board(), whole -> {
            String name = name(whole.owner());
            wholes.put(name, whole);
            Set<String> used = new HashSet<>();
            timeless(whole.chain(), used);
            uses.put(name, used);
        });
        Set<String> told = new HashSet<>();
        wholes.forEach((name, whole) -> {
            if (!told.contains(name) && circle(name, name, new HashSet<>(), told)) {
                findings.add(Finding.of(Finding.Kind.ENDLESS_LOOP, whole.owner(), whole.pointer(),
                        "uses itself, directly or through others, without a wait; remove that step or add a wait before it"));
            }
        });
        return findings;
    }

    private boolean circle(String from, String name, Set<String> seen, Set<String> told) {
        for (String next : uses.getOrDefault(name, Set.of())) {
            if (next.equals(from) || seen.add(next) && circle(from, next, seen, told)) {
                told.add(name);
                return true;
            }
        }
        return false;
    }

    private static String name(Owner owner) {
        Button button = owner.button();
        State state = owner.state();
        Gesture gesture = owner.gesture();
        return button == null
                ? "chain " + owner.chain()
                : button.id() + " " + (state == null ? "" : state.id()) + " " + gesture;
    }

    private Set<String> names(DeckStep.Use u) {
        if (u.chain() != null) {
            return Set.of("chain " + u.chain());
        }
        Set<String> names = new HashSet<>();
        rig.button(String.valueOf(u.button())).ifPresent(b -> b.states().stream()
                .filter(s -> u.state() == null || s.id().equals(u.state()))
                .forEach(s -> names.add(b.id() + " " + s.id() + " " + u.gesture())));
        return names;
    }

    /** Adds what a chain uses before time passes; says whether the whole chain takes no time for certain. */
    private boolean timeless(Chain chain, Set<String> used) {
        for (Step step : chain.steps()) {
            if (!step.how().off() && !timeless(step, used)) {
                return false;
            }
        }
        return true;
    }

    private boolean timeless(Step step, Set<String> used) {
        return switch (step) {
            case DeckStep.Use u -> {
                if (u.how().condition() == null) {
                    used.addAll(names(u));
                }
                yield true;
            }
            case Step.If i -> {
                // A branch may be the way out of the circle.
                Set<String> then = new HashSet<>();
                Set<String> otherwise = new HashSet<>();
                boolean none = timeless(i.then(), then) & timeless(i.otherwise(), otherwise);
                if (!then.isEmpty() && !otherwise.isEmpty()) {
                    used.addAll(then);
                    used.addAll(otherwise);
                }
                yield none;
            }
            case Step.Together t -> {
                boolean none = true;
                for (Chain c : t.chains()) {
                    none &= timeless(c, used);
                }
                yield none;
            }
            case Step.Pick p -> {
                boolean none = true;
                for (Step.Choice c : p.choices()) {
                    none &= timeless(c.chain(), used);
                }
                yield none;
            }
            case Step.Repeat r ->
                r.every() == null && !r.how().times().containsKey("every") | timeless(r.chain(), used);
            default -> !takesTime(step);
        };
    }

    private static boolean takesTime(Step step) {
        return !step.how().off() && (step.takesTime() || switch (step) {
            case Step.Repeat r -> takesTime(r.chain());
            case Step.If i -> takesTime(i.then()) && takesTime(i.otherwise());
            case Step.Pick p -> !p.choices().isEmpty() && p.choices().stream().allMatch(c -> takesTime(c.chain()));
            case Step.Together t -> t.ends() == Step.Together.Ends.FIRST
                    ? !t.chains().isEmpty() && t.chains().stream().allMatch(Loops::takesTime)
                    : t.chains().stream().anyMatch(Loops::takesTime);
            default -> false;
        });
    }

    private static boolean takesTime(Chain chain) {
        return chain.steps().stream().anyMatch(Loops::takesTime);
    }

    private static boolean endless(Step.Repeat r) {
        if (r.times() instanceof Arg.Constant || r.every() != null && r.every() > 0
                || r.how().times().containsKey("every") || takesTime(r.chain())
                || stops(r.chain())) {
            return false;
        }
        if (!(r.condition() instanceof Condition.Computed c)) {
            return r.times() == null;
        }
        try {
            List<String> names = new Formula(c.formula()).names();
            return names.stream().noneMatch(n -> n.equals(r.count()) || sets(r.chain(), n));
        } catch (FormulaFault e) {
            return false;
        }
    }

    private static boolean stops(Chain chain) {
        return chain.steps().stream()
                .anyMatch(s -> s instanceof DeckStep.Stop || s.inner().stream().anyMatch(Loops::stops));
    }

    private static boolean sets(Chain chain, String value) {
        return chain.steps().stream().anyMatch(s -> s instanceof DeckStep.Set set && set.value().equals(value)
                || s.inner().stream().anyMatch(c -> sets(c, value)));
    }
}
