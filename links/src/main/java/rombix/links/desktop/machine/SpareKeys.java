package rombix.links.desktop.machine;

import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;

/**
 * Keys of a keyboard layout that write nothing by themselves, and are lent to symbols that have no key. A program looks
 * up what a key writes when it reads the event, so a key keeps its symbol until the program has had the time to.
 */
final class SpareKeys {
    /** How long a program may take to read a key, in nanoseconds. */
    private static final long READ_NANOS = TimeUnit.MILLISECONDS.toNanos(500);

    /** Tells the X server which symbol a key writes. */
    interface Layout {
        void map(int code, long symbol);
    }

    private record Lent(long symbol, long usedNanos) {
    }

    private static final Lent NEVER = new Lent(0, 0);

    private final Layout layout;
    /** What is lent to each key; the longest unused one first. */
    private final LinkedHashMap<Integer, Lent> lent = new LinkedHashMap<>();

    SpareKeys(Layout layout) {
        this.layout = layout;
    }

    boolean has(int code) {
        return lent.containsKey(code);
    }

    void add(int code) {
        lent.putIfAbsent(code, NEVER);
    }

    /** Keys that write something now. */
    List<Integer> lent() {
        return lent.entrySet().stream().filter(l -> l.getValue().symbol() != 0).map(Map.Entry::getKey).toList();
    }

    /** The key that writes a symbol: the one that does already, else the longest unused one that is not down. */
    int lend(long symbol, Collection<Integer> down, long nowNanos) throws Unable {
        Integer code = lent.entrySet().stream().filter(l -> l.getValue().symbol() == symbol).map(Map.Entry::getKey)
                .findFirst().orElse(null);
        if (code == null) {
            code = lent.keySet().stream().filter(c -> !down.contains(c)).findFirst().orElseThrow(() -> new Unable(
                    "the keyboard layout has no key for it and none free"));
            layout.map(code, symbol);
        }
        lent.remove(code);
        lent.put(code, new Lent(symbol, nowNanos)); // It is the last to be lent anew.
        return code;
    }

    /** In how many milliseconds the longest unused key can be lent anew; 0 where one can be now. */
    long readyIn(long nowNanos) {
        Lent first = lent.isEmpty() ? NEVER : lent.firstEntry().getValue();
        return first.symbol() == 0
                ? 0
                : Math.max(0, TimeUnit.NANOSECONDS.toMillis(first.usedNanos() + READ_NANOS - nowNanos));
    }
}
