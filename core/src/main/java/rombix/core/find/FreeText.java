package rombix.core.find;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Card.Command;
import rombix.core.card.Card.Item;
import rombix.core.card.Card.Param;
import rombix.core.chain.GearStep;
import rombix.core.computer.Keys;
import rombix.core.twin.Twin;
import rombix.core.twin.Twin.Readings;
import rombix.core.value.Value;
import rombix.core.value.ValueType;

/**
 * Steps whose argument is what was typed behind the command: a text, a file or address, keys. {@code open
 * https://example.org/x}, {@code tell star-night back in five}, {@code press ctrl+shift+m}.
 */
final class FreeText {
    /** Better than any match of words alone. */
    private static final double CERTAIN = 3;
    /** A word that a command can also be found by is less than its title. */
    private static final double SYNONYM = -0.8;
    private static final Set<String> ARTICLES = Set.of("the", "on", "to");
    private static final Pattern PLACE = Pattern.compile("\\{([^}]+)}");
    private static final Pattern NUMBER = Pattern.compile("[-\u2212]?[\\d.,]+(,? whole)?");
    /** A file that looks like none may as well be a name of something else. */
    private static final double DOUBTFUL = -0.5;
    private static final Pattern FILE = Pattern.compile("\\S*[/\\\\.:~]\\S*.*");

    private final Twin twin;
    private final Readings now;
    /** All that was typed. */
    private final String whole;
    /** The same without the gear's name before it. */
    private final String query;

    private FreeText(Twin twin, Readings now, String whole, String query) {
        this.whole = whole;
        this.twin = twin;
        this.now = now;
        this.query = query.strip();
    }

    /** What a gear can do with the words as they were typed; of its commands, those with most of the words in their title. */
    static List<Offer> of(Twin twin, Readings now, String query) {
        String title = twin.title().toLowerCase(Locale.ROOT) + " ";
        boolean its = query.strip().toLowerCase(Locale.ROOT).startsWith(title);
        FreeText typed = new FreeText(twin, now, query, its ? query.strip().substring(title.length()) : query);
        List<String> words = Offer.words(typed.query);
        int most = twin.card().commands().stream().map(c -> literal(c.title().toString())).filter(words::containsAll)
                .mapToInt(List::size).max().orElse(0);
        List<Offer> offers = new ArrayList<>();
        twin.card().commands().stream().filter(c -> literal(c.title().toString()).size() >= most || !words.containsAll(
                literal(c.title().toString()))).forEach(c -> typed.offer(c, its ? 1 : 0).ifPresent(offers::add));
        return offers;
    }

    /** The words of a title beside its places; articles are left out by those who type. */
    private static List<String> literal(String title) {
        return Offer.words(title.replaceAll("\\{[^}]*}", " ")).stream().filter(w -> !ARTICLES.contains(w)).toList();
    }

    private static boolean free(Param p) {
        return p.type() == ValueType.TEXT || p.type() == ValueType.PATH || p.type() == ValueType.KEYS;
    }

    /** Takes the words of a part of the title from the beginning of the text; null where they aren't there. */
    private static @Nullable String without(List<String> words, String text) {
        String rest = text;
        for (String word : words) {
            rest = bare(rest);
            if (!(rest + " ").toLowerCase(Locale.ROOT).startsWith(word + " ")) {
                return null;
            }
            rest = rest.substring(word.length()).strip();
        }
        return rest;
    }

    private static String bare(String text) {
        return text.replaceFirst("(?i)^(the|on|to) ", "");
    }

    private Optional<Offer> offer(Command command, double sure) {
        Param text = command.params().stream().filter(FreeText::free).findFirst().orElse(null);
        if (text == null || !query.contains(" ")) {
            return Optional.empty();
        }
        String title = command.title().toString();
        Matcher places = PLACE.matcher(title);
        List<String> literal = literal(title);
        double bonus = sure + (title.startsWith("{") ? 0 : CERTAIN + 0.3 * literal.size());
        Map<String, Value> args = new LinkedHashMap<>();
        String rest = query;
        int at = 0;
        boolean met = false; // Whether something of the title stands at the beginning of what was typed.
        while (places.find()) {
            String without = without(literal(title.substring(at, places.start())), rest);
            at = places.end();
            if (without == null) {
                if (met || !command.words().contains(verb())) {
                    return Optional.empty();
                }
                without = query.substring(query.indexOf(' ') + 1).strip();
                bonus = sure + SYNONYM;
            }
            met |= !without.equals(rest);
            rest = without;
            Param p = command.param(places.group(1)).orElse(null);
            if (p != null && p.type() == ValueType.CHOICE) {
                List<Item> items = twin.items(p.list(), now);
                Optional<Item> chosen = beginning(items, rest);
                if (chosen.isEmpty() && (items.isEmpty() || !met)) {
                    return Optional.empty();
                }
                args.put(p.id(), Value.of(chosen.orElseGet(items::getFirst).id()));
                rest = chosen.isPresent() ? after(rest, chosen.get()) : rest;
                bonus += chosen.isPresent() ? 0.5 : 0;
                met |= chosen.isPresent();
            } else if (p == text) {
                break;
            } else if (p != null) {
                return Optional.empty(); // A number or a place stands before the text: that is found by its words.
            }
        }
        for (String word : literal(title.substring(title.lastIndexOf('}') + 1)).reversed()) { // “put … on the clipboard”
            if (!rest.toLowerCase(Locale.ROOT).endsWith(" " + word)) {
                return Optional.empty();
            }
            rest = rest.substring(0, rest.length() - word.length()).strip().replaceFirst("(?i)( on)?( to)?( the)?$",
                    "");
        }
        rest = rest.replaceAll("^[“\"]|[”\"]$", "");
        return !met || rest.isBlank() || command.params().stream().anyMatch(p -> p.type() == ValueType.CHOICE && !args
                .containsKey(p.id()) && p.preset() == null) ? Optional.empty() : with(command, text, args, rest, bonus);
    }

    private String verb() {
        return query.substring(0, query.indexOf(' ')).toLowerCase(Locale.ROOT);
    }

    /** The item that the text begins with, by name or id; the longest where several fit. */
    private static Optional<Item> beginning(List<Item> items, String text) {
        String lower = text.toLowerCase(Locale.ROOT) + " ";
        return items.stream()
                .filter(i -> lower.startsWith(i.name().toLowerCase(Locale.ROOT) + " ") || lower.startsWith(i
                        .id().toLowerCase(Locale.ROOT) + " "))
                .max(java.util.Comparator.comparingInt(i -> i.name().length()));
    }

    private static String after(String text, Item item) {
        boolean name = text.toLowerCase(Locale.ROOT).startsWith(item.name().toLowerCase(Locale.ROOT));
        return text.substring(name ? item.name().length() : item.id().length()).strip();
    }

    private Optional<Offer> with(Command command, Param text, Map<String, Value> args, String rest, double bonus) {
        String value = rest;
        double sure = bonus;
        switch (text.type()) {
            case KEYS -> {
                Optional<String> keys = keys(rest);
                if (keys.isEmpty()) {
                    return Optional.empty();
                }
                value = keys.get();
            }
            case PATH -> {
                if (!FILE.matcher(rest).matches()) { // It may as well be a name of something else.
                    if (bonus < CERTAIN) {
                        return Optional.empty();
                    }
                    sure = DOUBTFUL;
                }
                int space = rest.indexOf(' ');
                Optional<Param> more = command.params().stream().filter(p -> p != text && free(p)).findFirst();
                if (space > 0 && more.isPresent()) { // A program's arguments.
                    value = rest.substring(0, space);
                    args.put(more.get().id(), Value.of(rest.substring(space + 1).strip()));
                }
            }
            default -> sure = NUMBER.matcher(rest).matches() ? bonus - 2 : bonus; // It may be a value.
        }
        command.params().stream().filter(p -> !free(p) && p.preset() == null).forEach(p -> args.putIfAbsent(p.id(),
                GearOffers.start(p)));
        args.put(text.id(), Value.of(value));
        Map<String, Value> all = new LinkedHashMap<>();
        command.params().forEach(p -> all.put(p.id(), args.getOrDefault(p.id(), p.preset() == null
                ? Value.of("")
                : p
                        .preset())));
        return Optional.of(new Offer(twin.title(), Offer.words(whole), figures -> {
            figures.clear();
            return new GearStep.Do(twin.gear(), command.id(), all);
        }, sure - Finder.WHOLE * Offer.words(rest).size(), false)); // What is typed freely fits anything.
    }

    /** Keys as they are written on a board, from how people type them; empty where one of them is none. */
    private static Optional<String> keys(String typed) {
        try {
            return Optional.of(String.join("+", Keys.chord(typed)));
        } catch (IllegalArgumentException e) {
            return Optional.empty();
        }
    }
}
