package rombix.app.edit;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Button;
import rombix.core.board.Control;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.twin.Twin;
import rombix.core.value.Value;

/** What a button gets when it becomes another control: the states and chains without which that would do nothing. */
public final class Controls {
    private Controls() {
    }

    /** A button as another control. What it has stays; what is missing is proposed, where the board has a computer. */
    public static Button become(Rig rig, Button button, @Nullable Control control) {
        Button made = button.withControl(control);
        return switch (control) {
            case Control.KeyPad pad -> ways(made, pad.ways());
            case Control.PointerField p -> computer(rig, "move-by").map(c -> pointer(made, c.gear(), p.holds())).orElse(
                    made);
            case Control.WheelStrip s -> computer(rig, "roll").map(c -> with(made, Gesture.TURN, Chain.of(s.both()
                    ? moving(c.gear(), "roll", "across", "up")
                    : new GearStep.Do(c.gear(), "roll", Map.of(), null, rombix.core.chain.StepOptions.PLAIN, Map.of())
                            .withArg("up", new Arg.Computed("{turn}")))))
                    .orElse(made);
            case null, default -> made;
        };
    }

    private static Optional<Twin> computer(Rig rig, String command) {
        return rig.twins().values().stream().filter(t -> t.card().command(command).isPresent()).findFirst();
    }

    private static GearStep.Do moving(String gear, String command, String across, String up) {
        return new GearStep.Do(gear, command, Map.of(), null, rombix.core.chain.StepOptions.PLAIN, Map.of())
                .withArg(across, new Arg.Computed("{across}")).withArg(up, new Arg.Computed("{up}"));
    }

    private static Button pointer(Button button, String gear, boolean holds) {
        Chain click = Chain.of(new GearStep.Do(gear, "click", Map.of("place", Value.of("pointer"))));
        Chain down = Chain.of(new GearStep.Do(gear, "button-down", Map.of("place", Value.of("pointer"))));
        Chain up = Chain.of(new GearStep.Do(gear, "button-up", Map.of("place", Value.of("pointer"))));
        Button turned = with(button, Gesture.TURN, Chain.of(moving(gear, "move-by", "across", "up")));
        State first = turned.states().getFirst();
        boolean ours = first.chain(Gesture.PRESS).isEmpty() || first.chain(Gesture.PRESS).equals(click) || first.chain(
                Gesture.PRESS).equals(down);
        if (!ours) {
            return turned;
        }
        Map<Gesture, Chain> on = new EnumMap<>(first.on());
        on.put(Gesture.PRESS, holds ? down : click);
        on.remove(Gesture.RELEASE);
        if (holds) {
            on.put(Gesture.RELEASE, up);
        }
        return first(turned, first.withOn(on));
    }

    /** Gives its first state a chain for a gesture, where it has none. */
    private static Button with(Button button, Gesture gesture, Chain chain) {
        State first = button.states().getFirst();
        if (!first.chain(gesture).isEmpty()) {
            return button;
        }
        Map<Gesture, Chain> on = new EnumMap<>(Gesture.class);
        on.putAll(first.on());
        on.put(gesture, chain);
        return first(button, first.withOn(on));
    }

    private static Button first(Button button, State state) {
        List<State> states = new ArrayList<>(button.states());
        states.set(0, state);
        return button.withStates(states);
    }

    /** A state for each way; one that was there before keeps what it does. */
    private static Button ways(Button button, List<String> ways) {
        List<State> states = new ArrayList<>();
        for (int i = 0; i < ways.size(); i++) {
            State before = i < button.states().size() ? button.states().get(i) : null;
            String id = ways.get(i).replace(' ', '-');
            states.add(before == null
                    ? State.named(ways.get(i)).withId(id).withThen(State.STAY)
                    : before.withId(id).withName(ways.get(i)).withThen(State.STAY));
        }
        return button.withStates(states);
    }
}
