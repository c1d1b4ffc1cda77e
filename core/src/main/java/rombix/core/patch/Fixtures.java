package rombix.core.patch;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.UnaryOperator;
import rombix.core.card.Card;

/** Edits of a list of fixtures, as functions from list to list. */
public final class Fixtures {
    private Fixtures() {
    }

    static String id(String name, List<Fixture> others) {
        String base = name.toLowerCase(Locale.ROOT).replaceAll("[^\\p{L}\\p{N}]+", "-").replaceAll("^-|-$", "");
        String stem = base.isEmpty() ? "fixture" : base;
        String id = stem;
        for (int n = 2; taken(id, others); n++) {
            id = stem + "-" + n;
        }
        return id;
    }

    private static boolean taken(String id, List<Fixture> others) {
        return others.stream().anyMatch(f -> f.id().equals(id));
    }

    /**
     * Adds fixtures one behind the other from a slot on, whatever stands there already.
     *
     * @param count how many; where there are several they are numbered
     */
    public static List<Fixture> add(List<Fixture> fixtures, Map<String, Card> cards, String name, String personality,
            int universe, int slot, int count) {
        List<Fixture> all = new ArrayList<>(fixtures);
        int next = slot;
        for (int i = 1; i <= count; i++) {
            String called = count == 1 ? name : name + " " + i;
            Fixture added = new Fixture(id(called, all), called, personality, universe, Math.max(1, next));
            all.add(added);
            next += new Universes(List.of(added), cards).width(added);
        }
        return all;
    }

    public static List<Fixture> change(List<Fixture> fixtures, String id, UnaryOperator<Fixture> change) {
        return fixtures.stream().map(f -> f.id().equals(id) ? change.apply(f) : f).toList();
    }

    public static List<Fixture> without(List<Fixture> fixtures, String id) {
        return fixtures.stream().filter(f -> !f.id().equals(id)).toList();
    }

    /** Fixtures that were read in place of those there are: who is called the same stays the same for all that names it. */
    public static List<Fixture> replaced(List<Fixture> now, List<Fixture> read) {
        Map<String, Fixture> known = Universes.byName(now);
        List<Fixture> all = new ArrayList<>();
        for (Fixture f : read) {
            Fixture before = known.remove(f.name());
            String id = before == null ? f.id() : before.id();
            boolean free = all.stream().noneMatch(o -> o.id().equals(id)) && (before != null || now.stream().noneMatch(
                    o -> o.id().equals(id)));
            all.add(f.withId(free ? id : id(f.name(), concat(now, all))));
        }
        return all;
    }

    private static List<Fixture> concat(List<Fixture> a, List<Fixture> b) {
        List<Fixture> both = new ArrayList<>(a);
        both.addAll(b);
        return both;
    }
}
