package rombix.core.sight;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import rombix.core.board.Board;
import rombix.core.board.Walk;
import rombix.core.chain.Arg;
import rombix.core.chain.GearStep;
import rombix.core.computer.Place;

/**
 * What a board has a computer look for.
 *
 * @param pictures pictures of the board by id, as PNG in Base64
 * @param places how each picture that is looked for is looked for, by its id; as the first step has it
 * @param names what each of these is called
 * @param watched the ids of those whose being there is asked for by a condition or a trigger
 */
public record Sights(Map<String, String> pictures, Map<String, Place.OnPicture> places, Map<String, String> names,
        Set<String> watched) {
    public static final Sights NONE = new Sights(Map.of(), Map.of(), Map.of(), Set.of());

    /** What a board has a gear look for, by the gear's id. */
    public static Sights of(Board board, String gear) {
        Map<String, String> pictures = new HashMap<>();
        Map<String, String> names = new HashMap<>();
        board.pictures().forEach(p -> {
            pictures.put(p.id(), p.data());
            names.put(p.id(), p.name());
        });
        Map<String, Place.OnPicture> places = new LinkedHashMap<>();
        Walk.steps(board, spot -> {
            if (spot.step() instanceof GearStep.Do d && d.gear().equals(gear)) {
                d.args().values().stream().filter(Arg.Constant.class::isInstance).map(a -> a.shown().toString()).filter(
                        t -> t.startsWith("picture ")).forEach(t -> Place.parse(t).ifPresent(p -> {
                            if (p instanceof Place.OnPicture o && pictures.containsKey(o.picture())) {
                                places.putIfAbsent(o.picture(), o);
                            }
                        }));
            }
        });
        if (places.isEmpty()) {
            return new Sights(pictures, Map.of(), Map.of(), Set.of());
        }
        String all = board.pages() + " " + board.chains(); // Whatever names the reading: a condition, a trigger, a formula.
        names.keySet().retainAll(places.keySet());
        return new Sights(pictures, places, names, places.keySet().stream().filter(id -> all.contains("seen/" + id))
                .collect(Collectors.toSet()));
    }
}
