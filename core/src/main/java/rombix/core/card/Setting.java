package rombix.core.card;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rombix.core.value.InOrder;
import rombix.core.value.Value;
import rombix.core.value.ValueType;

/**
 * Something that is set for a gear beside its address.
 *
 * @param type a number, a text, a flag or a choice
 * @param choices what can be chosen, where it is a choice
 * @param preset what holds where nothing is set
 * @param help in a sentence what it is for
 * @param when what other settings have to be, by their ids, for this one to count; always where it is empty
 */
@JsonInclude(JsonInclude.Include.NON_EMPTY)
public record Setting(String id, @Nullable String title, ValueType type, @Nullable String unit, @Nullable Double min,
        @Nullable Double max, List<String> choices, @JsonProperty("default") @Nullable Value preset,
        @Nullable String help, Map<String, String> when) {
    /** One that always counts. */
    public Setting(String id, @Nullable String title, ValueType type, @Nullable String unit, @Nullable Double min,
            @Nullable Double max, List<String> choices, @Nullable Value preset, @Nullable String help) {
        this(id, title, type, unit, min, max, choices, preset, help, Map.of());
    }

    public Setting {
        when = InOrder.of(when);
        Objects.requireNonNull(id, "a setting needs an \"id\"");
        type = Objects.requireNonNullElse(type, ValueType.TEXT);
        choices = List.copyOf(Objects.requireNonNullElse(choices, List.of()));
    }

    /** What is wrong with what is set, each in a sentence, by the settings that there are. */
    public static List<String> wrong(List<Setting> all, Map<String, Value> set) {
        Map<String, Setting> known = new HashMap<>();
        all.forEach(s -> known.put(s.id(), s));
        List<String> wrong = new ArrayList<>();
        set.forEach((id, value) -> {
            Setting setting = known.get(id);
            String why = setting == null
                    ? "it has no setting “%s”".formatted(id)
                    : setting.wrong(value);
            if (why != null) {
                wrong.add(why);
            }
        });
        return wrong;
    }

    /** A number within limits. */
    public static Setting number(String id, String title, String unit, double min, double max, @Nullable Double preset,
            String help) {
        return new Setting(id, title, ValueType.NUMBER, unit, min, max, List.of(), preset == null
                ? null
                : Value.of(preset), help);
    }

    /** A text. */
    public static Setting text(String id, String title, String help) {
        return new Setting(id, title, ValueType.TEXT, null, null, null, List.of(), null, help);
    }

    /** One of several; the first where nothing is set. */
    public static Setting choice(String id, String title, List<String> choices, String help) {
        return new Setting(id, title, ValueType.CHOICE, null, null, null, choices, Value.of(choices.getFirst()), help);
    }

    /** The same, which counts only where another setting has a value. */
    public Setting when(String other, String value) {
        return new Setting(id, title, type, unit, min, max, choices, preset, help, Map.of(other, value));
    }

    /** Whether it counts, by what is set and what holds where nothing is. */
    public boolean counts(List<Setting> all, Map<String, Value> set) {
        return when.entrySet().stream()
                .allMatch(e -> all.stream().filter(s -> s.id().equals(e.getKey())).allMatch(s -> {
                    Value now = set.getOrDefault(s.id(), s.preset());
                    return now != null && now.toString().equals(e.getValue())
                            && s.counts(all.stream().filter(o -> o != s).toList(),
                                    set);
                }));
    }

    /** What people call it. */
    public String label() {
        return title == null ? id : title;
    }

    /** Why it cannot be set to a value, in plain words; null where it can. */
    public @Nullable String wrong(Value value) {
        double n = value.asNumber();
        if (type == ValueType.NUMBER && !Double.isFinite(n)) {
            return "“%s” takes a number, not “%s”".formatted(label(), value);
        }
        if (type == ValueType.NUMBER && (min != null && n < min || max != null && n > max)) {
            return "“%s” is from %s to %s%s, not %s".formatted(label(), plain(min), plain(max), unit == null
                    ? ""
                    : " " + unit, value);
        }
        if (type == ValueType.CHOICE && !choices.contains(value.toString())) {
            return "“%s” is one of %s, not “%s”".formatted(label(), String.join(", ", choices), value);
        }
        return type == ValueType.FLAG && !(value instanceof Value.Flag)
                ? "“%s” takes true or false, not “%s”".formatted(label(), value)
                : null;
    }

    private static String plain(@Nullable Double limit) {
        return limit == null ? "…" : Value.of(limit).toString();
    }
}
