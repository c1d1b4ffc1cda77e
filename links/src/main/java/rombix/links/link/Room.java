package rombix.links.link;

import java.util.HashMap;
import java.util.Map;
import rombix.core.value.Limits;
import rombix.core.value.Value;

/** How much one gear has told that is kept: its readings, by their number and their size. Not safe across threads. */
final class Room {
    private final Map<String, Integer> sizes = new HashMap<>();
    private long all;

    /** Whether a reading can be kept; what came before stays where it cannot. */
    boolean takes(String reading, Value value) {
        int size = reading.length() + size(value);
        Integer before = sizes.get(reading);
        if (before == null && sizes.size() >= Limits.READINGS
                || all + size - (before == null ? 0 : before) > Limits.READINGS_TEXT) {
            return false;
        }
        sizes.put(reading, size);
        all += size - (before == null ? 0 : before);
        return true;
    }

    private static int size(Value value) {
        return switch (value) {
            case Value.Text t -> t.text().length();
            case Value.Choices c -> c.choices().stream().mapToInt(i -> i.id().length() + i.name().length() + i.fields()
                    .entrySet().stream().mapToInt(f -> f.getKey().length() + size(f.getValue())).sum()).sum();
            default -> 0;
        };
    }
}
