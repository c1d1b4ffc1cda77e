package rombix.running.face;

import java.util.Map;
import java.util.Queue;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Consumer;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import rombix.core.engine.Happening;

/**
 * What happened and was not taken in yet. Of each reading only the last one waits, so that however long nobody takes
 * anything in, readings take no more room than there are of them. Fed from any thread, taken by one.
 */
final class Fed {
    /** A reading that waits. */
    private record Waiting(int times, String gear, String reading) {
    }

    private final Queue<Supplier<@Nullable Happening>> queue = new ConcurrentLinkedQueue<>();
    private final Map<Waiting, Happening.Came> waiting = new ConcurrentHashMap<>();
    private final AtomicInteger times = new AtomicInteger();

    /** @param each whether each reading counts, not only the last */
    void add(Happening happening, boolean each) {
        if (happening instanceof Happening.Anew) {
            times.incrementAndGet(); // What comes from now on is not what waited before.
        }
        if (happening instanceof Happening.Came came && !each) {
            Waiting as = new Waiting(times.get(), came.gear(), came.reading());
            if (waiting.put(as, came) == null) {
                queue.add(() -> waiting.remove(as));
            }
        } else {
            queue.add(() -> happening);
        }
    }

    /** Hands over all that waits. */
    void drain(Consumer<Happening> to) {
        for (Supplier<@Nullable Happening> next = queue.poll(); next != null; next = queue.poll()) {
            Happening h = next.get();
            if (h != null) {
                to.accept(h);
            }
        }
    }
}
