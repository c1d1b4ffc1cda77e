package rombix.app.show;

import java.util.Map;
import java.util.SplittableRandom;
import java.util.concurrent.CompletableFuture;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import rombix.app.view.Player;
import rombix.core.board.Rig;
import rombix.core.engine.Clock;
import rombix.core.engine.Conductor;
import rombix.core.engine.Event;
import rombix.core.engine.Happening;
import rombix.core.engine.Knowledge;
import rombix.core.engine.Known;
import rombix.core.engine.Status;
import rombix.core.engine.TwinGears;
import rombix.links.Links;
import rombix.links.MachineClock;

/**
 * A board in play with its real gear; in rehearsal a second conductor plays it on twins, and the first one only
 * listens. Safe to use from any thread.
 */
public final class Show implements Player, AutoCloseable {
    /** The machine's own clock. */
    public static final Clock CLOCK = new MachineClock();

    private final Consumer<Happening> watcher;
    private final Conductor conductor;
    private final Links links;
    private final Map<String, String> addresses;
    private final Knowledge knowledge = new Knowledge();
    private volatile @Nullable Rig rig;
    private volatile @Nullable Conductor rehearsal;

    /**
     * @param addresses addresses that take the place of the board's, by gear
     * @param watcher told of everything that happens, on the conductor's thread
     */
    public Show(Map<String, String> addresses, Consumer<Happening> watcher) {
        this.addresses = Map.copyOf(addresses);
        this.watcher = watcher;
        CompletableFuture<Links> made = new CompletableFuture<>();
        conductor = new Conductor(CLOCK, new SplittableRandom(), post -> {
            Links wired = new Links(CLOCK, post);
            made.complete(wired);
            return wired;
        }, this::happened);
        links = made.join();
    }

    private void happened(Happening happening) {
        knowledge.accept(happening);
        if (rehearsal == null) {
            watcher.accept(happening);
        }
    }

    @Override
    public void load(Rig next) {
        rig = next;
        Event load = new Event.Load(next);
        conductor.post(load);
        links.connect(next, addresses);
        Conductor now = rehearsal;
        if (now != null) {
            now.post(load);
            reachable(next, now);
        }
    }

    @Override
    public void post(Event event) {
        Conductor now = rehearsal;
        (now == null ? conductor : now).post(event);
    }

    @Override
    public synchronized void rehearse(boolean on) {
        Conductor now = rehearsal;
        Rig played = rig;
        if (on == (now != null) || played == null) {
            return;
        }
        if (now != null) {
            rehearsal = null;
            now.close();
            conductor.post(new Event.Recite());
            return;
        }
        conductor.post(new Event.StopAll());
        Known known = knowledge.now();
        Conductor twins = new Conductor(CLOCK, new SplittableRandom(), post -> new TwinGears(CLOCK, post), h -> {
            if (rehearsal != null) {
                watcher.accept(h);
            }
        });
        rehearsal = twins;
        watcher.accept(new Happening.Anew());
        twins.post(new Event.Load(played));
        reachable(played, twins);
        known.readings().forEach((gear, of) -> of
                .forEach((reading, value) -> twins.post(new Event.Came(gear, reading, value))));
    }

    private static void reachable(Rig rig, Conductor twins) {
        rig.twins().keySet().forEach(gear -> twins.post(new Event.Linked(gear, Status.TWIN)));
    }

    @Override
    public Known known() {
        return knowledge.now();
    }

    @Override
    public void close() {
        Conductor now = rehearsal;
        if (now != null) {
            now.close();
        }
        conductor.close();
        links.close();
    }
}
