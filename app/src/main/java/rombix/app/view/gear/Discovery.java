package rombix.app.view.gear;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.application.Platform;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Protocol;
import rombix.core.found.FoundGear;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.running.Player.Searching;

/** Gear that was found here; it is looked for as long as somebody wants to see it. The interface's thread's. */
@OwnedBy(Owner.INTERFACE)
public final class Discovery {
    private final Function<Consumer<FoundGear>, Searching> search;
    private final Map<String, FoundGear> found = new LinkedHashMap<>();
    private final List<Runnable> watchers = new ArrayList<>();
    private @Nullable Searching searching;

    /** @param search begins to look, and tells of each on any thread */
    public Discovery(Function<Consumer<FoundGear>, Searching> search) {
        this.search = search;
    }

    /** Begins to look anew; what was found before stays in sight. */
    void begin(Runnable watcher) {
        watchers.add(watcher);
        again();
    }

    /** Looks anew. */
    void again() {
        if (searching != null) {
            searching.close();
        }
        searching = search.apply(g -> Platform.runLater(() -> take(g)));
    }

    /** Ends what {@link #begin} began. */
    void end(Runnable watcher) {
        watchers.remove(watcher);
        if (watchers.isEmpty() && searching != null) {
            searching.close();
            searching = null;
        }
    }

    private void take(FoundGear gear) {
        if (!gear.equals(found.put(gear.key(), gear))) {
            List.copyOf(watchers).forEach(Runnable::run);
        }
    }

    Collection<FoundGear> all() {
        return List.copyOf(found.values());
    }

    /** Where gear of a protocol was found. */
    List<String> addresses(Protocol protocol) {
        return found.values().stream().filter(g -> g.protocol().equals(protocol)).map(FoundGear::address).distinct()
                .toList();
    }
}
