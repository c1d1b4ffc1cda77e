package rombix.core.card;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import rombix.core.card.value.ColourPart;
import rombix.core.card.value.Meaning;
import rombix.core.card.value.WireValue;
import rombix.core.value.InOrder;
import rombix.core.value.Template;
import rombix.core.value.TextPattern;
import rombix.core.value.Value;
import tools.jackson.core.JsonPointer;

/**
 * Which message something arrives with, and where in it it stands.
 *
 * @param from the message's address, with places for the items of families; any where none is given
 * @param arg which argument of the message is looked at, counted from 0
 * @param where what else has to be so: by JSON pointer, or by the number of an argument, what has to stand there
 * @param at where in JSON the value stands, as a pointer
 * @param pattern what the text looks like; the value is its group {@code value}, else the first, else all of it
 * @param group which group it is, counted from 1
 * @param first which of the bytes is the first that counts, from 0; bytes come as hexadecimal digits
 * @param bytes how many of them, the highest first; one when absent
 * @param bits which bits of them, from and to, 0 being the lowest
 * @param list how the items of a list stand there, where it is one
 * @param value how the value is carried; as it is when absent
 * @param each where in JSON several items stand, as a pointer to their list; one that ends with a place, such as
 *            {@code /lamps/{lamp}}, takes the members of an object, by their names. {@code where} and {@code at} then
 *            point from each item
 * @param parts where the parts of a colour stand, each like an arrival; the value is made of them
 */
@JsonInclude(JsonInclude.Include.NON_EMPTY)
public record Arrival(@Nullable Template from, int arg, Map<String, Meaning> where, @Nullable Template at,
        @Nullable Template pattern, @Nullable Integer group, @JsonProperty("byte") @Nullable Integer first,
        @Nullable Integer bytes, @Nullable List<Integer> bits, @Nullable Listed list, @Nullable WireValue value,
        @Nullable Template each, Map<ColourPart, Arrival> parts) {
    private static final int MOST_BYTES = 8;
    private static final Template ANY = new Template("");

    /**
     * Items in JSON: in a list of objects, of texts, or in an object by their ids.
     *
     * @param id where in each its id stands, as a pointer; the item itself, or its name in the object, when absent
     * @param name where its name for people stands; the id when absent
     */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    public record Listed(@Nullable String id, @Nullable String name) {
        public Listed {
            pointer(id);
            pointer(name);
        }
    }

    /** One message, one value. */
    public Arrival(@Nullable Template from, int arg, Map<String, Meaning> where, @Nullable Template at,
            @Nullable Template pattern, @Nullable Integer group, @Nullable Integer first, @Nullable Integer bytes,
            @Nullable List<Integer> bits, @Nullable Listed list, @Nullable WireValue value) {
        this(from, arg, where, at, pattern, group, first, bytes, bits, list, value, null, Map.of());
    }

    public Arrival {
        parts = InOrder.of(parts);
        if (!parts.isEmpty()) {
            ColourPart.together(parts.keySet());
        }
        pointer(each == null ? null : each.fill(_ -> Value.of("x")));
        where = InOrder.of(where);
        if (arg < 0) {
            throw new IllegalArgumentException("\"arg\" counts from 0, so it can't be " + arg);
        }
        if (first != null && first < 0 || bytes != null && (bytes < 1 || bytes > MOST_BYTES)) {
            throw new IllegalArgumentException("\"byte\" counts from 0, and \"bytes\" are from 1 to " + MOST_BYTES);
        }
        if (bits != null && (first == null || bits.size() != 2 || bits.get(0) < 0 || bits.get(1) < bits.get(0)
                || bits.get(1) > 63)) {
            throw new IllegalArgumentException("\"bits\" are two numbers, the lowest and the highest that count, of a"
                    + " \"byte\"");
        }
        where.keySet().stream().filter(k -> !k.matches("\\d{1,4}")).forEach(Arrival::pointer);
        pointer(at == null ? null : at.fill(_ -> Value.of("x")));
        compile(pattern);
    }

    private static void pointer(@Nullable String pointer) {
        try {
            if (pointer != null) {
                JsonPointer.compile(pointer.replaceAll("\\{[^}]*}", "x"));
            }
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException("“" + pointer + "” isn't a JSON pointer such as /state/power", e);
        }
    }

    private static void compile(@Nullable Template pattern) {
        if (pattern != null) {
            var readable = new TextPattern(pattern.fill(_ -> Value.of("x")));
            Objects.requireNonNull(readable);
        }
    }

    /** The address that a reading has to come from. */
    public Template address() {
        return from == null ? ANY : from;
    }

    /** Whether it is just an argument of whatever comes from an address. */
    public boolean plain() {
        return where.isEmpty() && at == null && pattern == null && first == null && each == null && parts.isEmpty();
    }

    /** All places in it. */
    public Set<String> places() {
        Set<String> all = new HashSet<>();
        for (Template t : new Template[]{from, at, pattern, each}) {
            if (t != null) {
                all.addAll(t.places());
            }
        }
        parts.values().forEach(p -> all.addAll(p.places()));
        where.forEach((pointer, meaning) -> {
            all.addAll(new Template(pointer).places());
            meaning.any().forEach(v -> all.addAll(new Template(v.toString()).places()));
        });
        return all;
    }

    /** With its places filled; what nothing fills stays. */
    public Arrival filled(Function<String, @Nullable Value> places) {
        if (places().isEmpty()) {
            return this;
        }
        Map<String, Meaning> so = new LinkedHashMap<>();
        where.forEach((pointer, meaning) -> so.put(new Template(pointer).fill(as(places, Arrival::inPointer)), meaning
                .filled(places)));
        return new Arrival(filled(from, places), arg, so, filled(at, as(places, Arrival::inPointer)), filled(pattern,
                as(places, TextPattern::quote)), group, first, bytes, bits, list, value, each, filled(parts, places));
    }

    private static Map<ColourPart, Arrival> filled(Map<ColourPart, Arrival> parts,
            Function<String, @Nullable Value> places) {
        Map<ColourPart, Arrival> so = new LinkedHashMap<>();
        parts.forEach((part, where) -> so.put(part, where.filled(places)));
        return so;
    }

    private static @Nullable Template filled(@Nullable Template text, Function<String, @Nullable Value> places) {
        return text == null || text.places().isEmpty() ? text : new Template(text.fill(places));
    }

    private static Function<String, @Nullable Value> as(Function<String, @Nullable Value> places,
            Function<String, String> written) {
        return name -> {
            Value v = places.apply(name);
            return v == null ? null : Value.of(written.apply(v.toString()));
        };
    }

    private static String inPointer(String text) {
        return text.replace("~", "~0").replace("/", "~1");
    }
}
