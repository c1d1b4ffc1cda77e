package rombix.core.patch;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import rombix.core.card.Card;
import rombix.core.card.Card.Item;
import rombix.core.card.Channel;
import rombix.core.card.Channel.Kind;
import rombix.core.card.Personality;
import rombix.core.card.Personality.Ability;
import rombix.core.twin.Output;

/**
 * What a patch makes of a gear's card: its fixtures as items of the card's lists, and readings and commands for what
 * they can do beyond that.
 *
 * @param card the card, with what is added for these fixtures
 * @param lists the gear's own lists, with the fixtures
 * @param outputs the levels that go out otherwise than they are set
 */
public record Patching(Card card, Map<String, List<Item>> lists, List<Output> outputs) {

    /**
     * @param own the gear's own lists
     * @param cards where the fixtures' personalities are found; fixtures without one are left out
     */
    public static Patching of(Card card, Map<String, List<Item>> own, List<Fixture> fixtures, Map<String, Card> cards) {
        return fixtures.isEmpty() ? new Patching(card, own, List.of()) : new Making(card, own).all(fixtures, cards);
    }

    private static final class Making {
        private final Card card;
        private final Map<String, Map<String, Map<String, Object>>> items = new TreeMap<>();
        private final Map<String, String> names = new LinkedHashMap<>();
        private final Map<String, Ability> added = new LinkedHashMap<>();
        private final Map<String, Ability[]> aiming = new LinkedHashMap<>();
        private final List<Output> outputs = new ArrayList<>();

        Making(Card card, Map<String, List<Item>> own) {
            this.card = card;
            own.forEach((list, all) -> all.forEach(i -> {
                fields(list, i.id()).putAll(i.fields());
                names.put(i.id(), i.name());
            }));
        }

        Patching all(List<Fixture> fixtures, Map<String, Card> cards) {
            for (Fixture f : fixtures) {
                Card personality = cards.get(f.personality());
                if (personality != null) {
                    names.put(f.id(), f.name());
                    List<Ability> abilities = Personality.abilities(personality);
                    abilities.forEach(a -> stands(f, a));
                    abilities.stream().filter(a -> a.kind() == Kind.PAN).findFirst().ifPresent(pan -> abilities.stream()
                            .filter(a -> a.kind() == Kind.TILT).findFirst().ifPresent(tilt -> aims(f, pan, tilt)));
                    outputs(f, personality);
                }
            }
            Card made = card;
            for (Ability a : added.values()) {
                made = FixtureFamilies.with(made, a);
            }
            for (Ability[] both : aiming.values()) {
                made = FixtureFamilies.aiming(made, both[0], both[1]);
            }
            Map<String, List<Item>> lists = new LinkedHashMap<>();
            items.forEach((list, all) -> lists.put(list, all.entrySet().stream().map(e -> new Item(e.getKey(), names
                    .getOrDefault(e.getKey(), e.getKey()), e.getValue())).toList()));
            return new Patching(made, lists, outputs);
        }

        private Map<String, Object> fields(String list, String item) {
            return items.computeIfAbsent(list, _ -> new LinkedHashMap<>()).computeIfAbsent(item,
                    _ -> new LinkedHashMap<>());
        }

        /** Gives the fixture its place in the list of all that can do this. */
        private void stands(Fixture f, Ability a) {
            String place = card.patch().get(a.key());
            int dot = place == null ? -1 : place.indexOf('.');
            String list = place == null || dot < 0 ? a.key() : place.substring(0, dot);
            Map<String, Object> fields = fields(list, f.id());
            fields.put("universe", f.universe());
            if (place != null && dot >= 0) {
                fields.put(place.substring(dot + 1), f.slot() + a.slots().getFirst());
            } else {
                added.putIfAbsent(a.key(), a);
                for (int i = 0; i < a.slots().size(); i++) {
                    fields.put(FixtureFamilies.field(i), f.slot() + a.slots().get(i));
                }
            }
        }

        private void aims(Fixture f, Ability pan, Ability tilt) {
            if (!added.containsKey(pan.key()) || !added.containsKey(tilt.key())) {
                return; // The card itself says how it is told.
            }
            String list = FixtureFamilies.aims(pan, tilt);
            aiming.putIfAbsent(list, new Ability[]{pan, tilt});
            Map<String, Object> fields = fields(list, f.id());
            fields.put("universe", f.universe());
            for (int i = 0; i < pan.slots().size(); i++) {
                fields.put(FixtureFamilies.field(i), f.slot() + pan.slots().get(i));
            }
            for (int i = 0; i < tilt.slots().size(); i++) {
                fields.put(FixtureFamilies.tiltField(i), f.slot() + tilt.slots().get(i));
            }
        }

        private void outputs(Fixture f, Card personality) {
            List<Channel> all = personality.channels();
            for (int i = 0; i < all.size(); i++) {
                Channel c = all.get(i);
                boolean dims = c.is() == Kind.DIMMER;
                boolean other = f.invert().contains(c.is()) || dims && (f.limit() != null || f.curve() != null);
                int fine = Personality.fine(all, i);
                Integer limit = f.limit();
                Integer fixed = c.value();
                if (c.is() == Kind.FIXED) {
                    outputs.add(new Output(f.universe(), f.slot() + i, 0, false, 1, null, fixed == null ? 0 : fixed));
                } else if (other && !c.fine()) {
                    outputs.add(new Output(f.universe(), f.slot() + i, fine < 0 ? 0 : f.slot() + fine, f.invert()
                            .contains(c.is()), dims && limit != null ? limit / 100.0 : 1, dims ? f.curve() : null, -1));
                }
            }
        }
    }
}
