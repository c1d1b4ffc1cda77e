package rombix.core.check;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.card.Card;
import rombix.core.chain.Chain;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.twin.Order;
import rombix.core.twin.Twin;
import rombix.core.value.Value;

/** What a press sets and the release of the same hold leaves as it is. */
final class Holds {
    private final Rig rig;

    Holds(Rig rig) {
        this.rig = rig;
    }

    /** The yes/no readings, {@code gear:reading}, that are left, and what the press sets them to. */
    Map<String, Value> left(State state) {
        Chain press = state.chain(Gesture.PRESS);
        Chain release = state.chain(Gesture.RELEASE);
        Map<String, Value> left = new LinkedHashMap<>();
        if (press.isEmpty() || release.isEmpty()) {
            return left;
        }
        Map<String, Value> pressed = new LinkedHashMap<>();
        Map<String, Value> released = new HashMap<>();
        flags(press, pressed);
        flags(release, released);
        pressed.forEach((reading, value) -> {
            if (!released.containsKey(reading) || released.get(reading).equals(value)) {
                left.put(reading, value);
            }
        });
        return left;
    }

    /** The yes/no readings that a chain's commands set, and to what. */
    private void flags(Chain chain, Map<String, Value> to) {
        for (List<Step> part : List.of(chain.steps(), chain.always())) {
            for (Step step : part) {
                if (step instanceof GearStep.Do d && !d.how().off()) {
                    order(d).ifPresent(o -> o.changes().forEach((reading, value) -> {
                        if (value instanceof Value.Flag) {
                            to.put(o.gear() + ":" + reading, value);
                        }
                    }));
                } else if (!(step instanceof Step.ForAWhile) && !step.how().off()) {
                    step.inner().forEach(c -> flags(c, to));
                }
            }
        }
    }

    private Optional<Order> order(GearStep.Do d) {
        Twin twin = rig.twins().get(d.gear());
        Card.Command command = twin == null ? null : twin.card().command(d.command()).orElse(null);
        if (twin == null || command == null) {
            return Optional.empty();
        }
        Map<String, Value> args = new HashMap<>();
        d.args().forEach((k, v) -> args.put(k, v.shown()));
        try {
            return Optional.of(twin.order(command, args, Twin.Readings.NONE));
        } catch (IllegalArgumentException e) {
            return Optional.empty(); // What it names is not listed yet, or is computed.
        }
    }
}
