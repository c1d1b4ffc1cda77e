package rombix.core.board;

import com.fasterxml.jackson.annotation.JsonAnyGetter;
import com.fasterxml.jackson.annotation.JsonAnySetter;
import com.fasterxml.jackson.annotation.JsonInclude;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import rombix.core.value.Extra;
import rombix.core.value.Ids;
import rombix.core.value.Value;
import rombix.core.value.Visible;

/**
 * What a show goes through, item by item: one is on, one comes next. Where it is, formulas and texts have under names
 * that begin with its id: {@code {night}} is the number of the item that is on, 0 before the first; see {@link #values}.
 */
@RecordBuilder
@JsonInclude(JsonInclude.Include.NON_EMPTY)
public record RunDown(String id, String name, List<Item> items,
        @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) implements RunDownBuilder.With {
    /** The most items that one has. */
    public static final int MOST = 1000;
    private static final int DAY = 86_400;
    private static final Pattern CELL = Pattern.compile("\\s*[\\t|;]\\s*");
    private static final Pattern TIME = Pattern.compile("(?:(\\d+):)?(\\d+):(\\d\\d)|(\\d+(?:\\.\\d+)?)\\s*(s|min|h)");

    /**
     * One item.
     *
     * @param text what is to be said or done; empty where nothing is noted
     * @param seconds how long it is planned to take; 0 where nothing is planned
     */
    @JsonInclude(JsonInclude.Include.NON_DEFAULT)
    public record Item(String name, String text, long seconds,
            @JsonAnySetter @JsonAnyGetter Map<String, Object> extra) {
        public Item {
            name = Visible.text(Objects.requireNonNull(name, "an item needs a \"name\""));
            text = Objects.requireNonNullElse(text, "");
            extra = Extra.kept(extra);
        }

        public Item(String name, String text, long seconds) {
            this(name, text, seconds, Map.of());
        }
    }

    public RunDown {
        id = Ids.checked(Objects.requireNonNull(id, "a run-down needs an \"id\""));
        name = Visible.text(Objects.requireNonNullElse(name, id));
        items = List.copyOf(Objects.requireNonNullElse(items, List.of()));
        if (items.size() > MOST) {
            throw new IllegalArgumentException("a run-down has at most " + MOST + " items");
        }
        extra = Extra.kept(extra);
    }

    public RunDown(String id, String name, List<Item> items) {
        this(id, name, items, Map.of());
    }

    /**
     * The values that say where it is: the number of the item that is on, its name and text, the next one's name, how
     * many there are, and when by plan it ends, in seconds since midnight; an empty text where nothing is planned.
     *
     * @param at the number of the item that is on, from 1; 0 before the first
     * @param now when it came on, in seconds since midnight
     */
    public Map<String, Value> values(int at, double now) {
        Item on = at < 1 || at > items.size() ? null : items.get(at - 1);
        Map<String, Value> all = new LinkedHashMap<>();
        all.put(id, Value.of(at));
        all.put(id + ".item", Value.of(on == null ? "" : on.name()));
        all.put(id + ".text", Value.of(on == null ? "" : on.text()));
        all.put(id + ".next", Value.of(at >= items.size() ? "" : items.get(at).name()));
        all.put(id + ".count", Value.of(items.size()));
        all.put(id + ".ends", on == null || on.seconds() == 0 ? Value.of("") : Value.of((now + on.seconds()) % DAY));
        return all;
    }

    /** The names of {@link #values}. */
    public List<String> names() {
        return List.copyOf(values(0, 0).keySet());
    }

    /**
     * The number of the item that is meant: {@code next}, {@code back}, {@code first}, {@code last}, a number from 0, or
     * an item's name.
     *
     * @throws IllegalArgumentException in plain words, where there is none
     */
    public int number(Value to, int at) {
        String meant = to.toString().strip();
        int number = switch (meant.toLowerCase(Locale.ROOT)) {
            case "next" -> Math.min(at + 1, items.size());
            case "back" -> Math.max(at - 1, 0);
            case "first" -> Math.min(1, items.size());
            case "last" -> items.size();
            default -> to instanceof Value.Num n ? (int) n.number() : named(meant);
        };
        if (number < 0 || number > items.size()) {
            throw new IllegalArgumentException("“%s” has no item “%s”; it has %d".formatted(name, meant, items.size()));
        }
        return number;
    }

    private int named(String meant) {
        for (int i = 0; i < items.size(); i++) {
            if (items.get(i).name().equalsIgnoreCase(meant)) {
                return i + 1;
            }
        }
        return meant.matches("\\d{1,4}") ? Integer.parseInt(meant) : -1;
    }

    /**
     * Items from a text or a table: a line each, with the name, the text and the time in columns that tabs, semicolons or
     * bars part. A time is {@code 5:00}, {@code 1:05:00}, {@code 90 s} or {@code 5 min}; it may stand in any column.
     */
    public static List<Item> items(String lines) {
        List<Item> all = new ArrayList<>();
        for (String line : lines.split("\\R")) {
            List<String> cells = new ArrayList<>(List.of(CELL.split(line.strip())));
            long seconds = 0;
            for (int i = cells.size() - 1; i > 0 && seconds == 0; i--) {
                Long time = seconds(cells.get(i));
                if (time != null) {
                    seconds = time;
                    cells.remove(i);
                }
            }
            if (!cells.getFirst().isBlank()) {
                all.add(new Item(cells.getFirst(), String.join(" · ", cells.subList(1, cells.size())), seconds));
            }
        }
        return all;
    }

    private static @Nullable Long seconds(String cell) {
        Matcher m = TIME.matcher(cell.strip());
        if (!m.matches()) {
            return null;
        }
        if (m.group(4) != null) {
            double unit = switch (m.group(5)) {
                case "h" -> 3600;
                case "min" -> 60;
                default -> 1;
            };
            return Math.round(Double.parseDouble(m.group(4)) * unit);
        }
        long hours = m.group(1) == null ? 0 : Long.parseLong(m.group(1));
        return hours * 3600 + Long.parseLong(m.group(2)) * 60 + Long.parseLong(m.group(3));
    }

    /** Its items as lines of a table, as {@link #items} reads them. */
    public String lines() {
        StringBuilder lines = new StringBuilder();
        for (Item item : items) {
            lines.append(item.name());
            if (!item.text().isEmpty()) {
                lines.append(" | ").append(item.text().replace('\n', ' '));
            }
            if (item.seconds() > 0) {
                lines.append(" | ").append(time(item.seconds()));
            }
            lines.append('\n');
        }
        return lines.toString();
    }

    /** A time as people write it: {@code 5:00}, {@code 1:05:00}; below zero with a sign. */
    public static String time(long seconds) {
        long of = Math.abs(seconds);
        return (seconds < 0 ? "-" : "") + (of >= 3600
                ? "%d:%02d:%02d".formatted(of / 3600, of / 60 % 60, of % 60)
                : "%d:%02d".formatted(of / 60, of % 60));
    }

    /** How long until a time of day, in seconds; below zero for twelve hours after it. */
    public static long left(double ends, double now) {
        double rest = ends - now;
        return (long) (rest > DAY / 2.0 ? rest - DAY : rest <= -DAY / 2.0 ? rest + DAY : rest);
    }
}
