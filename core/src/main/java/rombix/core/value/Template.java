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

    private final String source;
    private final List<String> literals = new ArrayList<>();
    private final List<String> places = new ArrayList<>();
    private final Pattern matcher;

    @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
    public Template(String source) {
        this.source = source;
        Matcher m = PLACE.matcher(source);
        StringBuilder regex = new StringBuilder();
        int from = 0;
        while (m.find()) {
            literals.add(source.substring(from, m.start()));
            places.add(m.group(1));
            regex.append(Pattern.quote(source.substring(from, m.start()))).append("([^/ ]+)");
            from = m.end();
        }
        literals.add(source.substring(from));
        regex.append(Pattern.quote(source.substring(from)));
        matcher = Pattern.compile(regex.toString());
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

    /** The text with each place filled; a place that nothing fills stays as written. */
    public String fill(Function<String, @Nullable Value> values) {
        if (places.isEmpty()) {
            return source;
        }
        StringBuilder out = new StringBuilder(literals.getFirst());
        for (int i = 0; i < places.size(); i++) {
            Value v = values.apply(places.get(i));
            out.append(v == null ? "{" + places.get(i) + "}" : v.toString()).append(literals.get(i + 1));
        }
        return out.toString();
    }

    /** What stands in each place of {@code text}, or empty if the text is not of this form. */
    public Optional<Map<String, String>> match(String text) {
        Matcher m = matcher.matcher(text);
        if (!m.matches()) {
            return Optional.empty();
        }
        Map<String, String> found = new LinkedHashMap<>();
        for (int i = 0; i < places.size(); i++) {
            found.put(places.get(i), m.group(i + 1));
        }
        return Optional.of(found);
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
