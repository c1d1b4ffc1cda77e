package rombix.links.desktop.machine;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.TimeUnit;

/** Keys that Rombix itself sends; global key triggers ignore them. Safe to use from any thread. */
public final class SentKeys {
    /** After this nobody listens any more who would hear it. */
    private static final long HEARD_NANOS = TimeUnit.SECONDS.toNanos(1);
    private static final int MOST = 256;

    private static final Map<String, Deque<Long>> SENT = new HashMap<>();

    private SentKeys() {
    }

    private static String of(String key, boolean down) {
        return (down ? "+" : "-") + key.toUpperCase(Locale.ROOT);
    }

    /** A key is about to be sent. */
    public static synchronized void sent(String key, boolean down) {
        Deque<Long> times = SENT.computeIfAbsent(of(key, down), _ -> new ArrayDeque<>());
        if (times.size() >= MOST) {
            times.removeFirst();
        }
        times.addLast(System.nanoTime());
    }

    /** The wheel is about to be turned; only across it could be a trigger. */
    static void wheel(String way) {
        if (way.equals("left") || way.equals("right")) {
            String name = way.equals("left") ? "Wheel Left" : "Wheel Right";
            sent(name, true);
            sent(name, false);
        }
    }

    /** Whether an observed key was sent by Rombix. Each sent key matches once. */
    public static synchronized boolean consume(String key, boolean down) {
        Deque<Long> times = SENT.get(of(key, down));
        while (times != null && !times.isEmpty()) {
            if (System.nanoTime() - times.removeFirst() < HEARD_NANOS) {
                return true;
            }
        }
        return false;
    }
}
