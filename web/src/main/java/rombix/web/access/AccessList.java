package rombix.web.access;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

import rombix.running.owner.NamedLines;
import rombix.web.json.WebJson;
import tools.jackson.core.JacksonException;

/**
 * Who was let in, kept in a file that only its owner may read. Tokens are not in it, only their hashes. Thread-safe.
 */
public final class AccessList {
    /** How many devices and programs there may be. */
    public static final int MOST = 200;
    private static final Logger LOG = LoggerFactory.getLogger(AccessList.class);

    private final NamedLines file;
    private final Map<String, Access> byHash = new ConcurrentHashMap<>();
    private final List<Runnable> watchers = new CopyOnWriteArrayList<>();

    /** Those whom this user let in. */
    public AccessList() {
        this(NamedLines.beside("devices"));
    }

    public AccessList(Path file) {
        this(new NamedLines(file));
    }

    private AccessList(NamedLines file) {
        this.file = file;
        file.all().forEach((id, text) -> {
            try {
                Access read = WebJson.MAPPER.readValue(text, Access.class);
                byHash.put(read.hash(), read);
            } catch (JacksonException e) {
                LOG.warn("what is kept of device {} can't be read; let it in again", id);
            }
        });
    }

    /** Has another told, on any thread, that somebody was let in, changed or thrown out. */
    public void watch(Runnable watcher) {
        watchers.add(watcher);
    }

    public void unwatch(Runnable watcher) {
        watchers.remove(watcher);
    }

    /** All of them, the oldest first. */
    public List<Access> all() {
        return byHash.values().stream().sorted(Comparator.comparingLong(Access::sinceMillis).thenComparing(Access::id))
                .toList();
    }

    /** Who has this token. */
    public Optional<Access> holder(String token) {
        return Optional.ofNullable(byHash.get(AccessToken.hash(token)));
    }

    public Optional<Access> get(String id) {
        return byHash.values().stream().filter(a -> a.id().equals(id)).findFirst();
    }

    /**
     * Lets somebody in.
     *
     * @return its token, which is kept nowhere here
     * @throws IOException where there are {@link #MOST} already, or it can't be kept
     */
    public synchronized String add(String name, Access.Kind kind, Set<String> pages, Set<Right> rights, long nowMillis)
            throws IOException {
        if (byHash.size() >= MOST) {
            throw new IOException("There are already " + MOST + " devices. Remove one first.");
        }
        String token = AccessToken.next();
        String hash = AccessToken.hash(token);
        put(new Access(hash.substring(0, 12), name, kind, hash, pages, rights, nowMillis));
        return token;
    }

    /** Changes the name, the pages or the rights of one that is there; of others it says nothing. */
    public synchronized void change(Access changed) throws IOException {
        if (byHash.containsKey(changed.hash())) {
            put(changed);
        }
    }

    private void put(Access access) throws IOException {
        file.set(access.id(), WebJson.MAPPER.writeValueAsString(access));
        byHash.put(access.hash(), access);
        watchers.forEach(Runnable::run);
    }

    /** Throws one out: its token is worth nothing from now on, even where that can't be kept. */
    public synchronized void remove(String id) throws IOException {
        byHash.values().removeIf(a -> a.id().equals(id));
        watchers.forEach(Runnable::run);
        file.set(id, null);
    }
}
