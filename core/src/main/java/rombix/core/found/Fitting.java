package rombix.core.found;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import rombix.core.card.Arrival;
import rombix.core.card.Card;
import rombix.core.card.Card.Item;
import rombix.core.card.Protocol;
import rombix.core.found.FoundGear.How;
import rombix.core.value.Template;

/** Which cards may describe what was found. */
public final class Fitting {
    /** No more groups of topics are told apart than can be looked through. */
    private static final int MOST_GROUPS = 12;

    private Fitting() {
    }

    /** What may be added of what was found; several where a broker keeps topics of several. */
    public static List<Proposal> proposals(FoundGear found, Collection<Card> cards) {
        List<Card> speaking = cards.stream().filter(c -> c.protocols().contains(found.protocol())).toList();
        return found.topics().isEmpty() ? List.of(byName(found, speaking)) : byTopics(found, speaking);
    }

    private static Proposal byName(FoundGear found, List<Card> speaking) {
        Set<String> said = words(found.how() == How.PORT ? found.name() : found.name() + " " + found.about());
        List<Card> best = speaking.stream().sorted(Comparator.comparingInt((Card c) -> -score(c, said))).toList();
        Card fits = best.isEmpty() || score(best.getFirst(), said) == 0 ? null : best.getFirst();
        return new Proposal(found, found.name(), best, fits, Map.of(), List.of());
    }

    /** How many words of a card's title are said; none counts where not the longest of them is. */
    private static int score(Card card, Set<String> said) {
        Set<String> title = words(card.title());
        String longest = title.stream().max(Comparator.comparingInt(String::length)).orElse("");
        return said.contains(longest) ? (int) title.stream().filter(said::contains).count() : 0;
    }

    private static Set<String> words(String text) {
        Set<String> all = new TreeSet<>();
        for (String word : text.toLowerCase(Locale.ROOT).split("[^\\p{L}]+")) {
            if (word.length() > 2) {
                all.add(word);
            }
        }
        return all;
    }

    private static List<Proposal> byTopics(FoundGear found, List<Card> speaking) {
        Set<String> left = new TreeSet<>(found.topics());
        List<Proposal> all = new ArrayList<>();
        List<Card> best = speaking.stream().sorted(Comparator.comparingInt((Card c) -> -taken(c, found).size()))
                .toList();
        for (Card card : best) {
            List<String> topics = taken(card, found).stream().filter(left::remove).toList();
            if (!topics.isEmpty()) {
                all.add(new Proposal(found, card.title(), first(card, speaking), card, lists(card, found.protocol(),
                        topics), topics));
            }
        }
        groups(left).forEach((group, topics) -> all.add(new Proposal(found, group, speaking, null, Map.of(), topics)));
        return all;
    }

    private static List<Card> first(Card first, List<Card> all) {
        Set<Card> ordered = new LinkedHashSet<>(List.of(first));
        ordered.addAll(all);
        return List.copyOf(ordered);
    }

    /** The topics that a card reads. */
    private static List<String> taken(Card card, FoundGear found) {
        List<Template> forms = forms(card, found.protocol());
        return found.topics().stream().filter(t -> forms.stream().anyMatch(f -> f.match(t).isPresent())).sorted()
                .toList();
    }

    private static List<Template> forms(Card card, Protocol protocol) {
        return card.readings().stream().flatMap(r -> r.arrives().getOrDefault(protocol, List.of()).stream()).map(
                Arrival::from).filter(Objects::nonNull).filter(t -> t.solePlace().isEmpty()).toList();
    }

    /** What stands in the topics in place of items, as items. */
    private static Map<String, List<Item>> lists(Card card, Protocol protocol, List<String> topics) {
        Map<String, Map<String, Item>> lists = new LinkedHashMap<>();
        forms(card, protocol).forEach(form -> topics.forEach(topic -> form.match(topic).ifPresent(places -> places
                .forEach((list, id) -> {
                    if (card.lists().containsKey(list)) {
                        lists.computeIfAbsent(list, _ -> new LinkedHashMap<>()).computeIfAbsent(id, _ -> item(card,
                                list, id));
                    }
                }))));
        Map<String, List<Item>> all = new LinkedHashMap<>();
        lists.forEach((list, items) -> all.put(list, List.copyOf(items.values())));
        return all;
    }

    /** As the card knows it, or called as it is. */
    private static Item item(Card card, String list, String id) {
        return card.lists().getOrDefault(list, List.of()).stream().filter(i -> i.id().equals(id)).findFirst().orElseGet(
                () -> new Item(id, named(id), Map.of()));
    }

    private static String named(String id) {
        String words = id.replaceAll("[-_.]+", " ").strip();
        return words.isEmpty() ? id : Character.toUpperCase(words.charAt(0)) + words.substring(1);
    }

    /** Topics by what stands before their last level; by their first level where that would be too many. */
    private static Map<String, List<String>> groups(Set<String> topics) {
        Map<String, List<String>> all = new TreeMap<>();
        topics.forEach(t -> all.computeIfAbsent(before(t, t.lastIndexOf('/')), _ -> new ArrayList<>()).add(t));
        if (all.size() <= MOST_GROUPS) {
            return all;
        }
        Map<String, List<String>> few = new TreeMap<>();
        topics.forEach(t -> few.computeIfAbsent(before(t, t.indexOf('/')), _ -> new ArrayList<>()).add(t));
        return few;
    }

    private static String before(String topic, int slash) {
        return slash <= 0 ? topic : topic.substring(0, slash);
    }
}
