package rombix.core.patch;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import rombix.core.card.Card;
import rombix.core.card.Personality;

/** What stands where in the universes of a patch: what clashes, what is free, and what lies beyond the last slot. */
public final class Universes {
    /** How many slots a universe has (DMX512). */
    public static final int SLOTS = 512;

    private final List<Fixture> fixtures;
    private final Map<String, Card> cards;
    /** By universe and slot, from 1: the fixtures that stand there. */
    private final Map<Integer, Map<Integer, List<Fixture>>> taken = new TreeMap<>();

    /**
     * Slots that more than one fixture has.
     *
     * @param fixtures their names
     */
    public record Clash(int universe, int from, int to, Set<String> fixtures) {
        /** In words, for a person. */
        public String words() {
            return String.join(" and ", fixtures) + " share " + (from == to
                    ? "slot " + from
                    : "slots " + from + " to " + to) + " of universe " + universe;
        }
    }

    /** Free slots between fixtures. */
    public record Gap(int universe, int from, int to) {
    }

    /** @param cards where the fixtures' personalities are found */
    public Universes(List<Fixture> fixtures, Map<String, Card> cards) {
        this.fixtures = List.copyOf(fixtures);
        this.cards = cards;
        for (Fixture f : fixtures) {
            Map<Integer, List<Fixture>> slots = taken.computeIfAbsent(f.universe(), _ -> new TreeMap<>());
            for (int i = 0; i < width(f); i++) {
                slots.computeIfAbsent(f.slot() + i, _ -> new ArrayList<>()).add(f);
            }
        }
    }

    /** How many slots a fixture takes; one where its personality is not known. */
    public int width(Fixture f) {
        Card personality = cards.get(f.personality());
        return personality == null ? 1 : Math.max(1, Personality.width(personality));
    }

    /** The universes that something stands in. */
    public Set<Integer> numbers() {
        return new TreeSet<>(taken.keySet());
    }

    /** Those that stand at a slot. */
    public List<Fixture> at(int universe, int slot) {
        return taken.getOrDefault(universe, Map.of()).getOrDefault(slot, List.of());
    }

    /** All clashes, each with neighbouring slots in one. */
    public List<Clash> clashes() {
        List<Clash> all = new ArrayList<>();
        taken.forEach((universe, slots) -> slots.forEach((slot, there) -> {
            if (there.size() > 1) {
                Set<String> names = new TreeSet<>(there.stream().map(Fixture::name).toList());
                Clash last = all.isEmpty() ? null : all.getLast();
                if (last != null && last.universe() == universe && last.to() == slot - 1 && last.fixtures().equals(
                        names)) {
                    all.set(all.size() - 1, new Clash(universe, last.from(), slot, names));
                } else {
                    all.add(new Clash(universe, slot, slot, names));
                }
            }
        }));
        return all;
    }

    /** The fixtures of which a part lies beyond the last slot. */
    public List<Fixture> beyond() {
        return fixtures.stream().filter(f -> f.slot() + width(f) - 1 > SLOTS).toList();
    }

    /** The free slots before the last fixture of each universe. */
    public List<Gap> gaps() {
        List<Gap> all = new ArrayList<>();
        taken.forEach((universe, slots) -> {
            int free = 1;
            for (int slot : slots.keySet()) {
                if (slot > free) {
                    all.add(new Gap(universe, free, slot - 1));
                }
                free = Math.max(free, slot + 1);
            }
        });
        return all;
    }

    /** The first slot from which so many are free; 0 where there is none. */
    public int free(int universe, int width) {
        Map<Integer, List<Fixture>> slots = taken.getOrDefault(universe, Map.of());
        int run = 0;
        for (int slot = 1; slot <= SLOTS; slot++) {
            run = slots.containsKey(slot) ? 0 : run + 1;
            if (run == width) {
                return slot - width + 1;
            }
        }
        return 0;
    }

    /** What is wrong with a fixture, in words; empty where nothing is. */
    public String wrong(Fixture f) {
        List<String> all = new ArrayList<>();
        if (!cards.containsKey(f.personality())) {
            all.add("there is no personality “" + f.personality() + "”");
        }
        if (f.slot() + width(f) - 1 > SLOTS) {
            all.add("lies beyond slot " + SLOTS);
        }
        Set<String> others = new TreeSet<>();
        for (int i = 0; i < width(f); i++) {
            at(f.universe(), f.slot() + i).stream().filter(o -> !o.id().equals(f.id())).map(Fixture::name).forEach(
                    others::add);
        }
        if (!others.isEmpty()) {
            all.add("clashes with " + String.join(", ", others));
        }
        return String.join("; ", all);
    }

    /** Fixtures by their names, in a map that keeps their order. */
    static Map<String, Fixture> byName(List<Fixture> all) {
        Map<String, Fixture> names = new LinkedHashMap<>();
        all.forEach(f -> names.putIfAbsent(f.name(), f));
        return names;
    }
}
