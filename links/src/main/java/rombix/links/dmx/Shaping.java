package rombix.links.dmx;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import rombix.core.twin.Output;
import rombix.wire.dmx.SacnPacket;

/**
 * What goes out for the levels that were set: as the patch of the gear says, and over it what is lit so that it can be
 * found. Immutable.
 */
final class Shaping {
    static final Shaping NONE = new Shaping(List.of(), Map.of());
    private static final double FULL = 255;
    private static final double WORD = 65_535;

    private final List<Output> outputs;
    private final Map<Integer, List<Output>> byUniverse = new HashMap<>();
    private final Map<Integer, Map<Integer, Integer>> lit;

    /** @param lit levels from 0 to 255 by universe and slot, whatever was set there */
    Shaping(List<Output> outputs, Map<Integer, Map<Integer, Integer>> lit) {
        this.outputs = outputs;
        this.lit = lit;
        outputs.stream().filter(o -> o.slot() <= SacnPacket.SLOTS && o.fine() <= SacnPacket.SLOTS).forEach(
                o -> byUniverse.computeIfAbsent(o.universe(), _ -> new ArrayList<>()).add(o));
    }

    Shaping lighting(Map<Integer, Map<Integer, Integer>> slots) {
        return slots.equals(lit) ? this : new Shaping(outputs, slots);
    }

    Shaping shaped(List<Output> others) {
        return others.equals(outputs) ? this : new Shaping(others, lit);
    }

    /** The universes in which something is lit. */
    Set<Integer> lit() {
        return lit.keySet();
    }

    /** What goes out of a universe; the same array where that is what was set. */
    byte[] out(int universe, byte[] levels) {
        List<Output> here = byUniverse.getOrDefault(universe, List.of());
        Map<Integer, Integer> shown = lit.getOrDefault(universe, Map.of());
        if (here.isEmpty() && shown.isEmpty()) {
            return levels;
        }
        byte[] out = levels.clone();
        for (Output o : here) {
            if (o.fixed() >= 0) {
                out[o.slot() - 1] = (byte) o.fixed();
            } else {
                put(out, o, o.out(share(levels, o)));
            }
        }
        shown.forEach((slot, level) -> out[slot - 1] = (byte) (int) level);
        return out;
    }

    /** What was set where this came from. */
    byte[] in(int universe, byte[] levels) {
        List<Output> here = byUniverse.getOrDefault(universe, List.of());
        if (here.isEmpty()) {
            return levels;
        }
        byte[] in = levels.clone();
        here.stream().filter(o -> o.fixed() < 0 && o.slot() <= levels.length && o.fine() <= levels.length).forEach(
                o -> put(in, o, o.in(share(levels, o))));
        return in;
    }

    private static double share(byte[] levels, Output o) {
        int coarse = levels[o.slot() - 1] & 0xFF;
        return o.fine() == 0 ? coarse / FULL : (coarse << 8 | levels[o.fine() - 1] & 0xFF) / WORD;
    }

    private static void put(byte[] levels, Output o, double share) {
        if (o.fine() == 0) {
            levels[o.slot() - 1] = (byte) Math.round(share * FULL);
        } else {
            int word = (int) Math.round(share * WORD);
            levels[o.slot() - 1] = (byte) (word >> 8);
            levels[o.fine() - 1] = (byte) word;
        }
    }
}
