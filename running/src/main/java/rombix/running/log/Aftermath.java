package rombix.running.log;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import rombix.core.board.Button;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.chain.Chain;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.event.Event;
import rombix.core.event.Known;
import rombix.core.forecast.Opposite;

/** What was held or ran when Rombix was killed: in words, and what ends it now. Immutable. */
public record Aftermath(List<Left> left) {
    /** What a hold is called among what goes on. */
    public static final String HOLD = "hold";
    private static final String SOURCE = "after a crash";

    /** Something that goes on with a button: {@link #HOLD}, or the gesture whose chain runs. */
    public record Left(String button, String what) {
    }

    public Aftermath {
        left = List.copyOf(left);
    }

    /** What of it the board still has, and has something to say at its end. */
    public Aftermath of(Rig rig) {
        return new Aftermath(left.stream().filter(l -> !ends(rig, Known.NOTHING, l).isEmpty()).toList());
    }

    public boolean isEmpty() {
        return left.isEmpty();
    }

    /** Which buttons, by their names: {@code Host talk was held; Gate was running}. */
    public String words(Rig rig) {
        Set<String> words = new LinkedHashSet<>();
        left.forEach(l -> words.add("“" + rig.button(l.button()).map(Button::name).orElse(l.button()) + "” was " + (l
                .what().equals(HOLD) ? "held" : "running")));
        return String.join("; ", words);
    }

    /** What ends all of it: releases, what always runs at the end, and the opposite of what was put on for a while. */
    public List<Event.Try> ends(Rig rig, Known known) {
        return left.stream().flatMap(l -> ends(rig, known, l).stream()).toList();
    }

    private static List<Event.Try> ends(Rig rig, Known known, Left l) {
        Button button = rig.button(l.button()).orElse(null);
        if (button == null) {
            return List.of();
        }
        boolean held = l.what().equals(HOLD);
        Gesture gesture = held
                ? Gesture.RELEASE
                : Arrays.stream(Gesture.values()).filter(g -> g.id()
                        .equals(l.what())).findFirst().orElse(null);
        Chain chain = gesture == null
                ? Chain.EMPTY
                : button.states().stream().map((State s) -> s.chain(gesture)).filter(c -> !c.isEmpty()).findFirst()
                        .orElse(Chain.EMPTY);
        if (chain.isEmpty()) {
            return List.of();
        }
        if (held) {
            return List.of(new Event.Try(button.id(), chain, SOURCE));
        }
        List<Step> steps = new ArrayList<>();
        putBack(rig, known, chain, steps);
        steps.addAll(chain.always());
        return steps.isEmpty() ? List.of() : List.of(new Event.Try(button.id(), new Chain(steps, List.of()), SOURCE));
    }

    private static void putBack(Rig rig, Known known, Chain chain, List<Step> to) {
        for (Step step : chain.steps()) {
            if (step instanceof Step.ForAWhile w) {
                to.addAll(Opposite.of(rig, known, w.chain(), "").chain().steps());
            }
            step.inner().forEach(c -> putBack(rig, known, c, to));
        }
    }
}
