package rombix.app.show;

import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.function.Consumer;
import rombix.core.board.Rig;
import rombix.core.engine.Clock;
import rombix.core.engine.Conductor;
import rombix.core.engine.Event;
import rombix.core.engine.Happening;
import rombix.links.Links;

/** A board in play with its real gear. Safe to use from any thread. */
public final class Show implements AutoCloseable {
    /** The machine's own clock. */
    public static final Clock CLOCK = System::nanoTime;

    private final Conductor conductor;
    private final Links links;
    private final Map<String, String> addresses;

    /**
     * @param addresses addresses that take the place of the board's, by gear
     * @param watcher told of everything that happens, on the conductor's thread
     */
    public Show(Map<String, String> addresses, Consumer<Happening> watcher) {
        this.addresses = Map.copyOf(addresses);
        CompletableFuture<Links> made = new CompletableFuture<>();
        conductor = new Conductor(CLOCK, post -> {
            Links wired = new Links(CLOCK, post);
            made.complete(wired);
            return wired;
        }, watcher);
        links = made.join();
    }

    /** Plays a board from now on. */
    public void load(Rig rig) {
        conductor.post(new Event.Load(rig));
        links.connect(rig, addresses);
    }

    public void post(Event event) {
        conductor.post(event);
    }

    @Override
    public void close() {
        conductor.close();
        links.close();
    }

}
