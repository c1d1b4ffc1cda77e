package rombix.app.view.common;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.BiConsumer;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import java.util.function.LongSupplier;
import org.jspecify.annotations.Nullable;
import rombix.core.event.Happening;
import rombix.core.thread.OneThread;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.running.state.Changes;
import rombix.running.state.DeckFeed;
import rombix.running.state.DeckState;
import rombix.running.state.Seen;
import rombix.running.state.Subscription;

/**
 * The deck as the window shows it: its state as of the last pulse, and what has changed with that. Follows a
 * {@link DeckFeed}; belongs to the interface's thread.
 */
@OwnedBy(Owner.INTERFACE)
public final class DeckModel implements AutoCloseable {
    private final OneThread thread = new OneThread();
    private final AtomicReference<@Nullable Runnable> waiting = new AtomicReference<>();
    private final LongSupplier clock;
    private final List<Consumer<Changes>> watchers = new ArrayList<>();
    private final Subscription subscription;
    private volatile Runnable wake = () -> {
    };
    private DeckState state = DeckState.NOTHING;
    private @Nullable BiConsumer<Happening.Came, Long> heard;
    private boolean moved;

    /** @param clock the moment on the clock of what plays: in a rehearsal it may go faster */
    public DeckModel(DeckFeed feed, LongSupplier clock) {
        this.clock = clock;
        subscription = feed.subscribe(look -> {
            waiting.set(look);
            wake.run();
        }, this::see);
    }

    /** Has something run, on any thread, when something has changed: a pulse is wanted. */
    public void whenFed(Runnable wanted) {
        wake = wanted;
        wanted.run(); // Something may be there already.
    }

    /** The deck as of the last pulse. */
    public DeckState state() {
        return state;
    }

    /** The moment on the clock of what plays. */
    public long now() {
        return clock.getAsLong();
    }

    /** Has a listener told of each reading that comes in, with when it was taken in; null has nobody told. */
    public void listen(@Nullable BiConsumer<Happening.Came, Long> listener) {
        heard = listener;
    }

    /** Has a watcher told of the changes of each pulse. */
    public void watch(Consumer<Changes> watcher) {
        watchers.add(watcher);
    }

    /** Has a watcher told for as long as something holds. */
    public void watchWhile(Consumer<Changes> watcher, BooleanSupplier holds) {
        AtomicReference<@Nullable Consumer<Changes>> self = new AtomicReference<>();
        self.set(changes -> {
            if (holds.getAsBoolean()) {
                watcher.accept(changes);
            } else {
                watchers.remove(self.get());
            }
        });
        watchers.add(Objects.requireNonNull(self.get()));
    }

    /** Takes in what has changed since the last pulse, and tells the watchers once. */
    public void pulse() {
        assert thread.entered() : thread;
        Runnable look = waiting.getAndSet(null);
        if (look != null) {
            look.run();
        } else if (moved) {
            tell(Changes.of(new Seen(state, List.of(), false), state));
        }
    }

    private void see(Seen seen) {
        DeckState before = state;
        state = seen.state();
        tell(Changes.of(seen, before));
        BiConsumer<Happening.Came, Long> listener = heard;
        if (listener != null) {
            seen.since().forEach(h -> {
                if (h instanceof Happening.Came came) {
                    listener.accept(came, System.nanoTime());
                }
            });
        }
    }

    private void tell(Changes changes) {
        moved = state.moves();
        if (changes.any()) {
            List.copyOf(watchers).forEach(w -> w.accept(changes));
        }
    }

    /** Shows buttons anew whose faces change as time passes. */
    public void tick(Set<String> buttons) {
        if (!buttons.isEmpty()) {
            Changes passed = Changes.ofButtons(buttons);
            List.copyOf(watchers).forEach(w -> w.accept(passed));
        }
    }

    /** The window goes. */
    @Override
    public void close() {
        subscription.close();
    }
}
