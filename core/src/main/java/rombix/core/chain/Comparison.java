package rombix.core.chain;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.google.re2j.Matcher;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rombix.core.value.TextPattern;
import rombix.core.value.Value;

/**
 * What a value is to be: that it {@code is} another, {@code above} or {@code below} a number, or a text that
 * {@code contains} another, small letters or capitals, or in which a {@code pattern} is found. Where nothing is given,
 * that it is yes. Where several are given, all of them.
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record Comparison(@Nullable Value is, @Nullable Double above, @Nullable Double below,
        @Nullable String contains, @Nullable TextPattern pattern) {
    /** That it is yes. */
    public static final Comparison YES = new Comparison(null, null, null, null, null);

    public static Comparison is(Value value) {
        return new Comparison(value, null, null, null, null);
    }

    public static Comparison above(double limit) {
        return new Comparison(null, limit, null, null, null);
    }

    public static Comparison below(double limit) {
        return new Comparison(null, null, limit, null, null);
    }

    public static Comparison contains(String text) {
        return new Comparison(null, null, null, text, null);
    }

    /** @throws IllegalArgumentException in plain words, where the pattern can't be used */
    public static Comparison pattern(String regex) {
        return new Comparison(null, null, null, null, new TextPattern(regex));
    }

    /** Whether it holds for a value; one that never came makes nothing true. */
    public boolean holds(@Nullable Value now) {
        if (now == null) {
            return false;
        }
        if (equals(YES)) {
            return now.asFlag();
        }
        return (is == null || is.matches(now)) && (above == null || now.asNumber() > above)
                && (below == null || now.asNumber() < below)
                && (contains == null || now.toString().toLowerCase(Locale.ROOT).contains(contains.toLowerCase(
                        Locale.ROOT)))
                && (pattern == null || pattern.in(now.toString()).find());
    }

    /** A value for which it holds, as far as one can be made up; null where none can. */
    public @Nullable Value meeting() {
        if (is != null || contains != null) {
            return is != null ? is : Value.of(String.valueOf(contains));
        }
        if (pattern != null) {
            return null;
        }
        return above != null && below != null
                ? Value.of((above + below) / 2)
                : above != null ? Value.of(above + 1) : below != null ? Value.of(below - 1) : Value.of(true);
    }

    /** The names of {@link #parts}. */
    public Set<String> names() {
        Set<String> names = new LinkedHashSet<>(List.of("says"));
        if (pattern != null) {
            for (int i = 1; i <= pattern.in("").groupCount(); i++) {
                names.add("part" + i);
            }
            names.addAll(pattern.groups().keySet());
        }
        return names;
    }

    /**
     * What a text says, by the names under which chains have it: {@code says}, all of it; and what stands in the groups
     * of the pattern, {@code part1}, {@code part2} and so on, or by the names that they have.
     */
    public Map<String, Value> parts(Value said) {
        Map<String, Value> parts = new LinkedHashMap<>();
        parts.put("says", said);
        Matcher found = pattern == null ? null : pattern.in(said.toString());
        if (pattern != null && found != null && found.find()) {
            for (int i = 1; i <= found.groupCount(); i++) {
                String part = found.group(i);
                parts.put("part" + i, Value.of(part == null ? "" : part));
            }
            pattern.groups().forEach((name, i) -> {
                String part = found.group(i);
                parts.put(name, Value.of(part == null ? "" : part));
            });
        }
        return parts;
    }
}
