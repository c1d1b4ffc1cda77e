package rombix.core.value;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * A text with places to fill: {@code /mixer/{channel}/mute}. A place names a parameter ({@code {channel}}) or a field
 * of the list item that the parameter chose ({@code {channel.number}}). Filled one way it makes a text; matched the
 * other way it finds what stood in each place.
 */
public final class Template {
    private static final Pattern PLACE = Pattern.compile("\\{([a-zA-Z][\\w-]*(?:\\.[\\w-]+)?)}");

    /** More places than that are only ever filled. */
    private static final int MOST_MATCHED = 16;

    private final String source;
    private final List<String> literals = new ArrayList<>();
    private final List<String> places = new ArrayList<>();
    /** Only where there are several places: else it is easy to see whether a text is of this form. */
    private final com.google.re2j.@Nullable Pattern matcher;

    @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
    public Template(String source) {
        this.source = source;
        Matcher m = PLACE.matcher(source);
        StringBuilder regex = new StringBuilder();
        int from = 0;
        while (m.find()) {
            literals.add(source.substring(from, m.start()));
            places.add(m.group(1));
            regex.append(TextPattern.quote(source.substring(from, m.start()))).append("([^/ ]+)");
            from = m.end();
        }
        literals.add(source.substring(from));
        regex.append(TextPattern.quote(source.substring(from)));
        matcher = places.size() < 2 || places.size() > MOST_MATCHED
                ? null
                : com.google.re2j.Pattern.compile(regex.toString());
    }

    /** The names of the places, in order. */
    public List<String> places() {
        return List.copyOf(places);
    }

    /** The one place that is the whole text, if it is. */
    public Optional<String> solePlace() {
        return places.size() == 1 && literals.getFirst().isEmpty() && literals.getLast().isEmpty()
                ? Optional.of(places.getFirst())
                : Optional.empty();
    }

    /**
     * The text with each place filled; a place that nothing fills stays as written.
     *
     * @throws IllegalArgumentException in plain words, where it becomes longer than {@link Limits#MADE_TEXT}
     */
    public String fill(Function<String, @Nullable Value> values) {
        if (places.isEmpty()) {
            return source;
        }
        StringBuilder out = new StringBuilder(literals.getFirst());
        for (int i = 0; i < places.size(); i++) {
            Limits.made(out.length());
            Value v = values.apply(places.get(i));
            out.append(v == null ? "{" + places.get(i) + "}" : v.toString()).append(literals.get(i + 1));
        }
        Limits.made(out.length());
        return out.toString();
    }

    /** What stands in each place of {@code text}, or empty if the text is not of this form. */
    public Optional<Map<String, String>> match(String text) {
        if (places.isEmpty()) {
            return text.equals(source) ? Optional.of(Map.of()) : Optional.empty();
        }
        if (matcher == null) {
            return places.size() == 1 ? sole(text) : Optional.empty();
        }
        com.google.re2j.Matcher m = matcher.matcher(text);
        if (!m.matches()) {
            return Optional.empty();
        }
        Map<String, String> found = new LinkedHashMap<>();
        for (int i = 0; i < places.size(); i++) {
            found.put(places.get(i), m.group(i + 1));
        }
        return Optional.of(found);
    }

    private Optional<Map<String, String>> sole(String text) {
        String before = literals.getFirst();
        String behind = literals.getLast();
        if (text.length() <= before.length() + behind.length() || !text.startsWith(before) || !text.endsWith(behind)) {
            return Optional.empty();
        }
        String between = text.substring(before.length(), text.length() - behind.length());
        return between.indexOf('/') >= 0 || between.indexOf(' ') >= 0
                ? Optional.empty()
                : Optional.of(Map.of(places.getFirst(), between));
    }

    @JsonValue
    @Override
    public String toString() {
        return source;
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Template t && t.source.equals(source);
    }

    @Override
    public int hashCode() {
        return source.hashCode();
    }
}
