package rombix.core.listen;

import java.time.Instant;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Arrival;
import rombix.core.card.value.JsonTree;
import rombix.core.twin.Twin;
import rombix.core.value.Template;
import rombix.core.value.Value;
import tools.jackson.databind.JsonNode;

/**
 * A changing value in a gear's messages: where it is, and which values it has had. Immutable.
 *
 * @param address the message's, in its protocol's form
 * @param arg the number of the argument that it stands in; {@link #EVENT} where the message carries nothing
 * @param pointer where it stands in the JSON of that; null where that isn't JSON
 * @param before what the text begins with, before it; null where the text is not taken apart
 * @param items the list whose items have it; null where it does not stand in a list
 * @param slice which byte of a message in hexadecimal digits it is; null where it is none
 * @param seen what it was, each once, the last at the end
 * @param others the message's arguments when it came last
 * @param count how often it came
 */
public record HeardValue(String address, int arg, @Nullable String pointer, @Nullable String before,
        @Nullable Items items,
        @Nullable Slice slice, List<Value> seen, List<Value> others, long count, Instant at) {
    /**
     * A list of objects in JSON, each of which has a thing that changes.
     *
     * @param list where it stands, as a pointer
     * @param id the member that tells its items apart
     */
    public record Items(String list, String id) {
    }

    /**
     * A byte among others.
     *
     * @param first its number, from 0
     * @param like what such messages look like: the bytes that are always the same, and dots for others
     */
    public record Slice(int first, String like) {
    }

    /** In place of an argument: nothing is carried. */
    public static final int EVENT = -1;
    /** Stands before what is found among others in a line. */
    static final String INSIDE = "…";
    private static final int MOST_SEEN = 24;
    private static final Set<String> WORDS = Set.of("on", "off", "true", "false", "yes", "no", "open", "closed",
            "mute", "muted", "unmuted", "locked", "unlocked");
    private static final int LONGEST_CHOICE = 24;
    private static final String COLOUR = "#[0-9A-Fa-f]{6}";

    /** What it may be taken for. */
    public enum Kind {
        MUTE("a mute"), SWITCH("something on or off"), LEVEL("a level"), CHOICE("one of several"), TEXT(
                "a text"), LIST("a list"), COLOUR("a colour");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** What tells it from others. */
    public String key() {
        return address + "\n" + arg + "\n" + pointer + "\n" + before + "\n" + items + "\n" + (slice == null
                ? ""
                : slice.first() + " of " + slice.like().length());
    }

    /** It came once more. */
    HeardValue again(Value value, List<Value> now, Instant when) {
        Set<Value> all = new LinkedHashSet<>(seen);
        all.remove(value);
        all.add(value);
        List<Value> kept = List.copyOf(all);
        return new HeardValue(address, arg, pointer, before, items, slice,
                kept.subList(Math.max(0, kept.size() - MOST_SEEN), kept.size()),
                now, count + 1, when);
    }

    public Value last() {
        return seen.getLast();
    }

    /** Where it stands, as people can read it. */
    public String where() {
        String inside = slice != null
                ? "byte " + slice.first()
                : pointer != null ? pointer : before != null ? before.strip() : "";
        inside = items == null ? inside : (items.list() + " each " + inside).strip();
        return (address + " " + inside + (arg > 0 ? " (" + (arg + 1) + ")" : "")).strip();
    }

    /** Whether it is what it was heard to be at least twice, and another thing in between. */
    public boolean changes() {
        return seen.size() > 1;
    }

    /** What it most likely is. */
    public Kind likely() {
        if (seen.stream().anyMatch(HeardValue::isList)) {
            return Kind.LIST;
        }
        if (ColourFormat.of(seen) != null || seen.stream().allMatch(v -> v.toString().matches(COLOUR))) {
            return Kind.COLOUR;
        }
        boolean flags = seen.stream().allMatch(v -> v instanceof Value.Flag || WORDS.contains(v.toString()
                .toLowerCase(Locale.ROOT)));
        boolean numbers = seen.stream().allMatch(v -> v instanceof Value.Num || numeric(v));
        if (flags || numbers && seen.size() <= 2 && seen.stream().allMatch(v -> v.asNumber() == 0 || seen
                .size() == 2 && seen.stream().anyMatch(o -> o.asNumber() == 0)
                || v.asNumber() == 1)) {
            return address.toLowerCase(Locale.ROOT).contains("mute") || String.valueOf(pointer).contains(
                    "mute") ? Kind.MUTE : Kind.SWITCH;
        }
        if (numbers) {
            return Kind.LEVEL;
        }
        return seen.size() > 1 && seen.stream().allMatch(v -> v.toString().length() <= LONGEST_CHOICE)
                ? Kind.CHOICE
                : Kind.TEXT;
    }

    private static boolean isList(Value v) {
        JsonNode tree = v instanceof Value.Text ? JsonTree.read(v.toString()) : null;
        return tree != null && tree.isArray();
    }

    static boolean numeric(Value v) {
        return v.toString().matches("-?\\d+(\\.\\d+)?");
    }

    /** What the gear's card reads of it already, by its titles. */
    public List<String> on(Twin twin) {
        Arrival mine = arrival();
        return twin.land(address, others).stream().flatMap(l -> twin.reading(l.reading(), Twin.Readings.NONE).stream())
                .filter(r -> r.spec().arrives().getOrDefault(twin.protocol(), List.of()).stream().anyMatch(a -> a
                        .arg() == mine.arg() && Objects.equals(a.at(), mine.at())
                        && Objects.equals(a.each(), mine.each())
                        && Objects.equals(a.first(), mine.first()) && (a.first() != null || Objects.equals(a.pattern(),
                                mine.pattern()))))
                .map(Twin.Reading::title).distinct().toList();
    }

    /** How a card finds it. */
    Arrival arrival() {
        return new Arrival(new Template(address), Math.max(arg, 0), Map.of(), pointer == null || pointer.isEmpty()
                ? null
                : new Template(pointer),
                slice != null
                        ? new Template("^" + slice.like() + "$")
                        : before == null ? null : new Template(pattern(before)),
                null, slice == null
                        ? null
                        : slice.first(),
                null, null, null, null, items == null
                        ? null
                        : new Template(items.list()),
                Map.of());
    }

    private static String pattern(String before) {
        return (before.startsWith(INSIDE) ? "(?:^|\\s)" : "^") + literal(before.replace(INSIDE, ""))
                + "(\\S+)" + (before.startsWith(INSIDE) ? "" : "$");
    }

    /** As it stands, in a pattern. */
    static String literal(String text) {
        return text.replaceAll("[\\\\^$.|?*+()\\[\\]{}]", "\\\\$0");
    }
}
