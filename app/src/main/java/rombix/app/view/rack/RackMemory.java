package rombix.app.view.rack;

import java.nio.file.Path;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;
import rombix.running.owner.Settings;

/** What the rack keeps for each board on this computer: gear that is folded, and readings that are pinned to its top. */
final class RackMemory {
    private static final String FOLDED = "rack.folded.";
    private static final String PINNED = "rack.pinned.";

    private final Settings settings;
    private final Supplier<Path> board;
    private final Map<String, Set<String>> kept = new HashMap<>();
    private Runnable watcher = () -> {
    };

    /** @param board the file of the board that is open */
    RackMemory(Settings settings, Supplier<Path> board) {
        this.settings = settings;
        this.board = board;
    }

    /** @param changed told when other readings are pinned */
    void watch(Runnable changed) {
        watcher = changed;
    }

    boolean folded(String gear) {
        return all(FOLDED).contains(gear);
    }

    void fold(String gear, boolean on) {
        change(FOLDED, gear, on);
    }

    boolean pinned(String gear, String reading) {
        return all(PINNED).contains(gear + ":" + reading);
    }

    /** Whether any reading of a gear is pinned. */
    boolean pins(String gear) {
        return all(PINNED).stream().anyMatch(p -> p.startsWith(gear + ":"));
    }

    void pin(String gear, String reading, boolean on) {
        change(PINNED, gear + ":" + reading, on);
        watcher.run();
    }

    /** What is kept for the board that is open; read from the file once. */
    private Set<String> all(String key) {
        return new LinkedHashSet<>(kept.computeIfAbsent(key + board.get(), k -> settings.get(k).map(s -> Set.of(s.split(
                "\n"))).orElse(Set.of())));
    }

    private void change(String key, String name, boolean on) {
        Set<String> now = all(key);
        if (on) {
            now.add(name);
        } else {
            now.remove(name);
        }
        now.remove("");
        kept.put(key + board.get(), Set.copyOf(now));
        settings.set(Map.of(key + board.get(), String.join("\n", now)));
    }
}
