package rombix.core.check;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Board.BoardValue;
import rombix.core.board.Button;
import rombix.core.board.MessageTrigger;
import rombix.core.board.Rig;
import rombix.core.board.Trigger;
import rombix.core.board.Walk;
import rombix.core.chain.Condition;
import rombix.core.chain.DeckStep;
import rombix.core.chain.Step;
import rombix.core.find.Nearest;
import rombix.core.touch.Touch;
import rombix.core.twin.Twin;

/** What names in braces may stand for on a board, in formulas and in texts: readings, values, and what chains know. */
final class Names {
    /** What chains know without anybody having said so. */
    private static final Set<String> ALWAYS = Set.of("turn", "across", "up", "answer", "value", "says");

    private final Rig rig;
    private final Function<String, Twin.Readings> now;
    private final Set<String> values = new LinkedHashSet<>();
    /** What some chain may know at some time: counts of repeats, answers, arguments. */
    private final Set<String> chains = new LinkedHashSet<>(ALWAYS);
    private final Map<String, List<String>> readings = new HashMap<>();

    /** @param now what is known of a gear's readings */
    Names(Rig rig, Function<String, Twin.Readings> now) {
        this.rig = rig;
        this.now = now;
        rig.board().values().forEach(v -> values.add(v.id()));
        rig.board().runDowns().forEach(r -> values.addAll(r.names()));
        rig.board().chains().forEach(c -> chains.addAll(c.params()));
        rig.board().buttons().flatMap(b -> b.triggers().stream()).forEach(this::addTextNames);
        Walk.steps(rig.board(), spot -> {
            switch (spot.step()) {
                case Step.Repeat r -> chains.add(String.valueOf(r.count()));
                case DeckStep.Ask a -> chains.add(String.valueOf(a.into()));
                case DeckStep.Use u -> chains.addAll(u.args().keySet());
                default -> {
                    // It gives nothing a name.
                }
            }
        });
    }

    /** What the chain of a trigger knows of a text that was said. */
    private void addTextNames(Trigger trigger) {
        if (trigger instanceof Trigger.Becomes b) {
            Condition.readings(b.condition()).forEach(r -> chains.addAll(r.that().names()));
        }
        if (trigger instanceof MessageTrigger.Http h) {
            chains.addAll(h.values());
        }
        if (trigger instanceof MessageTrigger.Mqtt) {
            chains.addAll(Touch.Mqtt.NAMES);
        }
    }

    /**
     * What is wrong with a name, to be read behind it: {@code is no value here; the nearest are …}; null where nothing is.
     *
     * @param of the button whose own values count, too
     * @param inChain whether it stands where a chain's arguments and counts are known
     */
    @Nullable
    String wrong(String name, @Nullable Button of, boolean inChain) {
        int colon = name.indexOf(':');
        if (colon >= 0) {
            return reading(name.substring(0, colon), name.substring(colon + 1));
        }
        Set<String> known = new LinkedHashSet<>(values);
        if (of != null) {
            of.values().stream().map(BoardValue::id).forEach(known::add);
        }
        if (known.contains(name) || inChain && chains.contains(name)) {
            return null;
        }
        if (inChain) {
            known.addAll(chains);
            known.removeAll(ALWAYS);
            known.remove("null");
        }
        return "isn't a value here" + (known.isEmpty() ? "" : "; " + Nearest.words(name, known));
    }

    private @Nullable String reading(String gear, String reading) {
        Twin twin = rig.twins().get(gear);
        if (twin == null) {
            return "isn't gear on this board; " + Nearest.words(gear, rig.twins().keySet());
        }
        if (twin.reading(reading, now.apply(gear)).isPresent() || twin.reading(reading, Twin.Readings.NONE)
                .isPresent()) {
            return null;
        }
        List<String> all = readings.computeIfAbsent(gear, _ -> new ArrayList<>(twin.readings(now.apply(gear)).stream()
                .map(Twin.Reading::id).toList()));
        return "isn't a reading of %s; %s".formatted(twin.title(), Nearest.words(reading, all));
    }
}
