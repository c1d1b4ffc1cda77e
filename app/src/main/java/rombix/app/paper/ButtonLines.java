package rombix.app.paper;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import rombix.core.board.Button;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.board.StepWords;
import rombix.core.board.Trigger;
import rombix.core.chain.Chain;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.twin.Figures;
import rombix.core.twin.Twin;

/** What a button does, in lines of words: its guard, its triggers, and its chains by state and gesture. */
final class ButtonLines {
    private final StepWords words;

    ButtonLines(Rig rig, Function<String, Twin.Readings> readings) {
        this.words = new StepWords(rig, readings);
    }

    List<String> of(Button button) {
        List<String> lines = new ArrayList<>();
        Button.Guard guard = button.guard();
        if (guard != null) {
            lines.add(guard.kind() == Button.Guard.Kind.HOLD
                    ? "Hold for " + Figures.span(guard.ms()) + "."
                    : "Press twice within " + Figures.span(guard.ms()) + ".");
        }
        for (State s : button.states()) {
            for (Gesture g : Gesture.values()) {
                Chain chain = s.chain(g);
                if (!chain.steps().isEmpty() || !chain.always().isEmpty()) {
                    lines.add(Figures.capitalized((button.states().size() > 1 ? s.name() + ", " : "") + g.words())
                            + ": " + chain(chain));
                }
            }
        }
        if (button.control() != null) {
            List<String> levels = button.control().axes().stream().map(a -> words.reading(a.gear() + ":" + a.reading()))
                    .toList();
            if (!levels.isEmpty()) {
                lines.add("Moves " + String.join(" and ", levels) + ".");
            }
        }
        if (!button.triggers().isEmpty()) {
            lines.add("Also: " + String.join("; ", button.triggers().stream().map(Trigger::words).toList()) + ".");
        }
        return lines.isEmpty() ? List.of("Does nothing.") : lines;
    }

    private String chain(Chain chain) {
        List<String> steps = new ArrayList<>();
        chain.steps().stream().filter(s -> !s.how().off()).forEach(s -> steps.add(step(s)));
        chain.always().stream().filter(s -> !s.how().off()).forEach(s -> steps.add("always " + step(s)));
        String all = String.join("; ", steps);
        return all.matches("(?s).*[.!?…]”") ? all : all + "."; // What is said has its full stop.
    }

    private String step(Step step) {
        List<String> inner = step.inner().stream().filter(c -> !c.steps().isEmpty())
                .map(c -> String.join(", ", c.steps()
                        .stream().filter(s -> !s.how().off()).map(this::step).toList()))
                .toList();
        return words.of(step) + (inner.isEmpty() ? "" : " (" + String.join(" | ", inner) + ")");
    }

    StepWords words() {
        return words;
    }
}
