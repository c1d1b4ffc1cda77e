package rombix.web.http;

import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;

/** Who is connected, and who called when. Thread-safe. */
public final class Presence {
    /** @param lastMillis when it last called, in Unix time; 0 where it has not since the start */
    public record Seen(int connections, long lastMillis) {
        static final Seen NEVER = new Seen(0, 0);
    }

    private final Map<String, Seen> seen = new ConcurrentHashMap<>();
    private final List<Runnable> watchers = new CopyOnWriteArrayList<>();

    /** Has another told, on any thread, that somebody came or went. */
    public void watch(Runnable watcher) {
        watchers.add(watcher);
    }

    public void unwatch(Runnable watcher) {
        watchers.remove(watcher);
    }

    public Seen of(String id) {
        return seen.getOrDefault(id, Seen.NEVER);
    }

    void active(String id, long nowMillis) {
        seen.merge(id, new Seen(0, nowMillis), (a, b) -> new Seen(a.connections(), b.lastMillis()));
    }

    void connected(String id, int by, long nowMillis) {
        seen.merge(id, new Seen(Math.max(0, by), nowMillis), (a, _) -> new Seen(a.connections() + by, nowMillis));
        watchers.forEach(Runnable::run);
    }
}
