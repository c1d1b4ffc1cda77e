package rombix.core.time;

import java.util.PriorityQueue;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.thread.OwnedBy;

/** What is due when. Owned by the conductor's thread. Of things due at the same moment, the first entered is first. */
@OwnedBy(Owner.CONDUCTOR)
public final class Agenda {
    /** Something to be done at a time. */
    public interface Task {
        void due(long dueNanos);
    }

    /** An entry; cancelling it keeps it from being done. */
    public static final class Entry implements Comparable<Entry> {
        private final long dueNanos;
        private final long order;
        private @org.jspecify.annotations.Nullable Task task;
        private boolean cancelled;

        Entry(long dueNanos, long order, Task task) {
            this.dueNanos = dueNanos;
            this.order = order;
            this.task = task;
        }

        public long dueNanos() {
            return dueNanos;
        }

        /** What it was to do is let go of at once: it may be due in hours. */
        public void cancel() {
            cancelled = true;
            task = null;
        }

        @Override
        public int compareTo(Entry other) {
            long d = dueNanos - other.dueNanos;
            return d != 0 ? Long.signum(d) : Long.signum(order - other.order);
        }
    }

    private final PriorityQueue<Entry> entries = new PriorityQueue<>();
    private long entered;

    public Entry at(long dueNanos, Task task) {
        Entry entry = new Entry(dueNanos, entered++, task);
        entries.add(entry);
        return entry;
    }

    /** The next entry that is due by now, taken out; null if none is. */
    @org.jspecify.annotations.Nullable
    public Entry poll(long nowNanos) {
        skip();
        Entry first = entries.peek();
        return first != null && first.dueNanos - nowNanos <= 0 ? entries.poll() : null;
    }

    public static void run(Entry entry) {
        Task task = entry.task;
        if (task != null) {
            task.due(entry.dueNanos);
        }
    }

    /** How long until the next entry; {@link Long#MAX_VALUE} if there is none. */
    public long untilNext(long nowNanos) {
        skip();
        Entry first = entries.peek();
        return first == null ? Long.MAX_VALUE : Math.max(0, first.dueNanos - nowNanos);
    }

    private void skip() {
        while (!entries.isEmpty() && entries.peek().cancelled) {
            entries.poll();
        }
    }

    /** Cancels an entry, where there is one. */
    public static void cancel(@org.jspecify.annotations.Nullable Entry entry) {
        if (entry != null) {
            entry.cancel();
        }
    }
}
