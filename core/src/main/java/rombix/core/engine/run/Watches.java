package rombix.core.engine.run;

import java.util.ArrayDeque;
import java.util.Collection;
import java.util.Deque;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.BooleanSupplier;
import java.util.function.LongConsumer;
import org.jspecify.annotations.Nullable;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.thread.OwnedBy;
import rombix.core.time.Agenda;
import rombix.core.value.Formula;

/**
 * Steps that wait until something is so. Each is looked at again only when one of the names that it depends on has
 * changed, after whatever changed it is done. Owned by the conductor's thread.
 */
@OwnedBy(Owner.CONDUCTOR)
public final class Watches {
    private static final long SECOND = 1_000_000_000L;

    private final RunContext context;
    private final Map<String, Set<Watch>> byName = new HashMap<>();
    private final Deque<Watch> touched = new ArrayDeque<>();

    private final class Watch implements Run.Activity {
        private final SeqFrame frame;
        private final Collection<String> names;
        private final BooleanSupplier holds;
        private final Runnable met;
        private Agenda.@Nullable Entry timer;
        private Agenda.@Nullable Entry second;
        private boolean over;

        Watch(SeqFrame frame, Collection<String> names, BooleanSupplier holds, Runnable met) {
            this.met = met;
            this.frame = frame;
            this.names = names;
            this.holds = holds;
        }

        @Override
        public void stop() {
            over = true;
            if (timer != null) {
                timer.cancel();
            }
            if (second != null) {
                second.cancel();
            }
            for (String name : names) {
                Set<Watch> of = byName.get(name);
                if (of != null && of.remove(this) && of.isEmpty()) {
                    byName.remove(name);
                }
            }
        }
    }

    Watches(RunContext context) {
        this.context = context;
    }

    /**
     * Ends a frame's step when something holds, at once if it does.
     *
     * @param names of the readings and values that it depends on
     * @param timeoutNanos how long to wait; for ever when negative
     * @param late told when the time is over; it ends the step
     * @param met told when it holds, before the step ends
     */
    void watch(SeqFrame frame, Collection<String> names, long timeoutNanos, long due, BooleanSupplier holds,
            LongConsumer late, Runnable met) {
        if (holds.getAsBoolean()) {
            met.run();
            frame.done(due, null);
            return;
        }
        Watch watch = new Watch(frame, List.copyOf(names), holds, met);
        for (String name : names) {
            byName.computeIfAbsent(name, _ -> new LinkedHashSet<>()).add(watch);
        }
        if (timeoutNanos >= 0) {
            watch.timer = context.agenda.at(due + timeoutNanos, at -> {
                watch.stop();
                late.accept(at);
            });
        }
        if (names.contains(Formula.CLOCK)) {
            tick(watch, due);
        }
        frame.doing(watch);
    }

    /** Looks again each second, as what it depends on changes with the time. */
    private void tick(Watch watch, long due) {
        watch.second = context.agenda.at(due + SECOND, at -> {
            touched.add(watch);
            if (!watch.over) {
                tick(watch, at);
            }
        });
    }

    /** A reading, {@code gear:reading}, or a value has changed. */
    public void changed(String name) {
        touched.addAll(byName.getOrDefault(name, Set.of()));
    }

    public boolean any() {
        return !byName.isEmpty();
    }

    /** Goes on with what no longer has to wait. */
    public void settle() {
        for (Watch w = touched.poll(); w != null; w = touched.poll()) {
            if (!w.over && w.holds.getAsBoolean()) {
                w.stop();
                w.met.run();
                w.frame.done(context.now(), null);
            }
        }
    }
}
