package rombix.app.view.common;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.BiConsumer;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import java.util.function.LongSupplier;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import rombix.core.event.Happening;
import rombix.core.thread.OneThread;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.value.Value;
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
    /**
     * What changed since the last pulse.
     *
     * @param gear ids of all gear with changes
     * @param whole ids of gear to show anew in full: its status, its lists or its card changed
     * @param readings other readings that changed, each {@code gear:reading}
     * @param talk whether there is something to be said, asked or confirmed
     * @param happened what happened in between, oldest first
     */
    public record Changes(Set<String> gear, Set<String> whole, Set<String> readings, Set<String> buttons, boolean runs,
            boolean talk, List<Happening> happened) {
        boolean any() {
            return runs || talk || !gear.isEmpty() || !buttons.isEmpty() || !happened.isEmpty();
        }

        /** Whether a reading may have changed. */
        public boolean touches(String gearId, String reading) {
            return whole.contains(gearId) || readings.contains(gearId + ":" + reading);
        }
    }

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
            tell(changes(new Seen(state, List.of(), false), state));
        }
    }

    private void see(Seen seen) {
        DeckState before = state;
        state = seen.state();
        tell(changes(seen, before));
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
            Changes passed = new Changes(Set.of(), Set.of(), Set.of(), buttons, false, false, List.of());
            List.copyOf(watchers).forEach(w -> w.accept(passed));
        }
    }

    private Changes changes(Seen seen, DeckState before) {
        Set<String> gear = new HashSet<>();
        Set<String> whole = new HashSet<>();
        Set<String> readings = new HashSet<>();
        Set<String> buttons = new HashSet<>();
        boolean runs = moved || state.moves() || seen.whole();
        boolean talk = seen.whole();
        if (seen.whole()) {
            for (DeckState s : List.of(before, state)) {
                whole.addAll(s.readings().keySet());
                whole.addAll(s.statuses().keySet());
                Stream.of(s.plays(), s.lastRuns(), s.guarded()).forEach(m -> buttons.addAll(m.keySet()));
                s.faults().values().forEach(f -> buttons.add(f.button()));
            }
        }
        for (Happening h : seen.since()) {
            switch (h) {
                case Happening.Loaded l -> whole.addAll(l.rig().twins().keySet());
                case Happening.Linked l -> whole.add(l.gear());
                case Happening.Came c when c.value() instanceof Value.Choices -> whole.add(c.gear());
                case Happening.Came c -> {
                    gear.add(c.gear());
                    readings.add(c.gear() + ":" + c.reading());
                }
                case Happening.Shows s -> buttons.add(s.button());
                case Happening.Guarded g -> buttons.add(g.button());
                case Happening.Started s -> buttons.add(s.button());
                case Happening.Lasts l -> buttons.add(l.button());
                case Happening.Ended e -> buttons.add(e.button());
                case Happening.Faulted f -> buttons.add(f.button());
                case Happening.ValueSet _ -> buttons.addAll(state.plays().keySet());
                default -> {
                    // No face shows it.
                }
            }
            runs |= h instanceof Happening.Started || h instanceof Happening.Lasts || h instanceof Happening.Ended
                    || h instanceof Happening.Faulted;
            talk |= h instanceof Happening.Guarded || h instanceof Happening.Asked || h instanceof Happening.AskClosed
                    || h instanceof Happening.Said;
        }
        gear.addAll(whole);
        return new Changes(gear, whole, readings, buttons, runs, talk, seen.since());
    }

    /** The window goes. */
    @Override
    public void close() {
        subscription.close();
    }
}
