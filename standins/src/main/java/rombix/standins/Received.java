package rombix.standins;

import java.time.LocalTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;

/** The last messages that a stand-in received. Safe to use from any thread. */
public final class Received {
    private static final int MOST = 40;
    private static final int LONGEST = 120;
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm:ss");

    private final Deque<String> last = new ArrayDeque<>();
    private long count;

    public void add(String what) {
        String plain = what.replaceAll("\\p{Cntrl}", " ").strip();
        String line = TIME.format(LocalTime.now()) + "  " + (plain.length() > LONGEST
                ? plain.substring(0, LONGEST) + "…"
                : plain);
        synchronized (this) {
            count++;
            last.addFirst(line);
            if (last.size() > MOST) {
                last.removeLast();
            }
        }
    }

    /** The last messages, the newest first, each with its time. */
    public synchronized List<String> lines() {
        return List.copyOf(last);
    }

    /** How many came. */
    public synchronized long count() {
        return count;
    }
}
