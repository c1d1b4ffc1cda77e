package rombix.core.board;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import rombix.core.chain.Chain;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;

/**
 * Finds a step by its place as the log and forecasts write it: {@code press/3/0/1}, and for a step of a chain that
 * another uses, behind the place of that one, {@code press/0 > dim-desk/chain/2}.
 */
public final class StepPlaces {
    private static final String USED = " > ";

    private StepPlaces() {
    }

    /** The step at a place of a button's; where its states differ, the first that has one there. */
    public static Optional<Step> step(Rig rig, String button, String place) {
        int used = place.lastIndexOf(USED);
        if (used < 0) {
            return rig.button(button).flatMap(b -> step(b.states(), b, place));
        }
        String whole = place.substring(used + USED.length());
        String owner = whole.substring(0, Math.max(0, whole.indexOf('/')));
        String within = whole.substring(whole.indexOf('/') + 1);
        Optional<Board.NamedChain> named = rig.board().chain(owner);
        return named.isPresent()
                ? Paths.ofPlace(within).flatMap(path -> Paths.step(named.get().chain(), path))
                : rig.button(owner).flatMap(b -> step(b.states(), b, within));
    }

    /** The step at a place of one state of a button. */
    public static Optional<Step> step(Rig rig, Button button, State state, String place) {
        return place.contains(USED) ? step(rig, button.id(), place) : step(List.of(state), button, place);
    }

    private static Optional<Step> step(List<State> states, Button button, String place) {
        Optional<List<Integer>> path = Paths.ofPlace(place);
        if (path.isEmpty()) {
            return Optional.empty();
        }
        String part = place.substring(0, Math.max(0, place.indexOf('/')));
        List<Chain> chains = new ArrayList<>();
        for (Gesture g : Gesture.values()) {
            if (g.id().equals(part)) {
                states.forEach(s -> chains.add(s.chain(g)));
            }
        }
        if (part.equals("on-start")) {
            chains.add(button.onStart());
        }
        return chains.stream().flatMap(c -> Paths.step(c, path.get()).stream()).findFirst();
    }
}
