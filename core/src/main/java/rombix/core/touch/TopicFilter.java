package rombix.core.touch;

import java.util.Set;
import java.util.TreeSet;

/** Topic filters of MQTT: {@code +} stands for one level, {@code #} for all that follows. */
public final class TopicFilter {
    private TopicFilter() {
    }

    /** Whether a filter takes a topic, or all that another filter takes. */
    public static boolean covers(String filter, String topic) {
        if (topic.startsWith("$") && !filter.startsWith("$")) {
            return false; // What a broker says of itself has to be asked for by name.
        }
        String[] wide = filter.split("/", -1);
        String[] narrow = topic.split("/", -1);
        for (int i = 0; i < wide.length; i++) {
            if (wide[i].equals("#")) {
                return true;
            }
            if (i == narrow.length) {
                return false;
            }
            if (narrow[i].equals("#") || !wide[i].equals("+") && !wide[i].equals(narrow[i])) {
                return false;
            }
        }
        return wide.length == narrow.length;
    }

    /** Those that no other covers: of what is followed twice a broker may send each message twice. */
    public static Set<String> widest(Set<String> filters) {
        Set<String> left = new TreeSet<>(filters);
        left.removeIf(f -> filters.stream().anyMatch(o -> !o.equals(f) && covers(o, f)));
        return left;
    }
}
