package rombix.running;

import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Predicate;
import java.util.function.Supplier;
import rombix.core.board.Rig;
import rombix.core.event.Status;
import rombix.running.state.DeckFeed;
import rombix.running.state.DeckState;
import rombix.running.state.Subscription;

/** Runs an action once, when all gear of a board has answered or failed, or after a timeout. */
final class GearReady {
    private static final int LONGEST_SECONDS = 5;

    private GearReady() {
    }

    /**
     * @param gear what is known of the gear; {@code changes} calls when that may be otherwise
     * @param what done at once where all is reached, else on a thread of its own
     */
    static void when(Rig rig, Supplier<DeckState> gear, DeckFeed changes, Runnable what) {
        Predicate<DeckState> reached = s -> rig.twins().keySet().stream().allMatch(g -> s.status(g)
                .phase() != Status.Phase.CONNECTING);
        if (reached.test(gear.get())) {
            what.run();
            return;
        }
        AtomicBoolean done = new AtomicBoolean();
        CompletableFuture<Subscription> waits = new CompletableFuture<>();
        Runnable once = () -> {
            if (!done.getAndSet(true)) {
                waits.thenAccept(Subscription::close);
                what.run();
            }
        };
        waits.complete(changes.subscribe(Thread::startVirtualThread, _ -> {
            if (reached.test(gear.get())) {
                once.run();
            }
        }));
        CompletableFuture.delayedExecutor(LONGEST_SECONDS, TimeUnit.SECONDS).execute(once);
    }
}
