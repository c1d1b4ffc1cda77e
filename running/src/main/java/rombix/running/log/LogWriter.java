package rombix.running.log;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Consumer;
import java.util.function.LongSupplier;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.event.AsRun;
import rombix.core.event.Happening;
import rombix.core.thread.Bounded;
import rombix.core.time.Clock;
import rombix.running.log.LogRow.Kind;

/**
 * Writes what happens to the log, on a thread of its own: the conductor only puts it into a queue. Rows are kept a few
 * times a second, each lot in one transaction, so that a crash loses less than a second. What finds the queue full is
 * counted, and the count is kept as a row.
 */
public final class LogWriter implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(LogWriter.class);
    private static final int MAX_WAITING = 1 << 20;
    static final int MAX_UNKEPT = 50_000;
    private static final int MAX_RUNS = 4096;
    private static final long LOT_MILLIS = 250;
    private static final long TIDY_MILLIS = TimeUnit.HOURS.toMillis(1);

    /** A run: those on twins are counted apart from those on the gear. */
    private record Which(boolean rehearsed, long run) {
    }

    private record Pressed(long press, String what) {
    }

    /** @param ahead how far its clock was before the engine's, in nanoseconds */
    private record Told(Happening happening, boolean rehearsed, long ahead) {
    }

    private final LogStore store;
    private final Clock clock;
    private final LongSupplier wallMillis;
    private final Bounded<Told> queue = new Bounded<>(MAX_WAITING, Bounded.Full.REFUSE);
    private final AtomicLong lost = new AtomicLong();
    /** What could not be written yet; the writer's own. */
    private final ArrayDeque<LogRow> unkept = new ArrayDeque<>();
    private final Map<String, Optional<Aftermath.Left>> going = new LinkedHashMap<>();
    /** Those that ended stay a while: what they sent may be answered later. */
    private final Map<Which, Pressed> running = new LinkedHashMap<>() {
        private static final long serialVersionUID = 1L;

        @Override
        protected boolean removeEldestEntry(Map.Entry<Which, Pressed> eldest) {
            return size() > MAX_RUNS;
        }
    };
    private long lastPress;
    private final Thread thread;
    private Map<String, String> names = Map.of();
    private @Nullable Board named;
    /** The buttons that are held. */
    private final Set<String> holds = ConcurrentHashMap.newKeySet();
    private volatile boolean closing;
    private volatile long kept;
    private volatile Consumer<String> troubled = _ -> {
    };

    /**
     * @param clock the engine's clock, by which happenings are stamped
     * @param wallMillis the wall's clock, in milliseconds since 1970
     */
    public LogWriter(LogStore store, Clock clock, LongSupplier wallMillis) {
        this.store = store;
        this.clock = clock;
        this.wallMillis = wallMillis;
        // Where the log can't be read yet, presses are numbered from the time on: no two of a log have the same number.
        this.lastPress = store.lastPress().orElseGet(wallMillis);
        this.thread = Thread.ofPlatform().daemon().name("as-run log").start(this::write);
    }

    /**
     * Takes a happening, from any thread; never waits.
     *
     * @param by the clock by which it is stamped
     */
    public void accept(Happening happening, boolean rehearsed, Clock by) {
        switch (happening) {
            case Happening.Started _,Happening.Ended _,Happening.Ran _,Happening.Answered _,Happening.Noted _,Happening.Faulted _,Happening.Loaded _ -> {
                if (!queue.offer(new Told(happening, rehearsed, by.nanos() - clock.nanos()))) {
                    lost.incrementAndGet();
                }
            }
            case Happening.Shows s -> {
                if (!rehearsed && (s.held() ? holds.add(s.button()) : holds.remove(s.button()))
                        && !queue.offer(new Told(
                                happening, false, 0))) {
                    lost.incrementAndGet();
                }
            }
            default -> {
                // Readings, faces and talk are not what was run.
            }
        }
    }

    /** Has somebody told, on the writer's thread, why rows cannot be kept, and with an empty text that they can; each once. */
    public void whenTroubled(Consumer<String> another) {
        String[] last = {""};
        troubled = why -> {
            if (!why.equals(last[0])) {
                last[0] = why;
                another.accept(why);
            }
        };
    }

    /** How many rows were kept so far. */
    public long kept() {
        return kept;
    }

    private void write() {
        long tidied = wallMillis.getAsLong();
        store.tidy(tidied);
        try {
            while (!closing || !queue.isEmpty()) {
                Told first = queue.poll(LOT_MILLIS, TimeUnit.MILLISECONDS);
                List<Told> lot = new ArrayList<>();
                if (first != null) {
                    lot.add(first);
                    lot.addAll(queue.drain());
                }
                if (first != null || !unkept.isEmpty() || !going.isEmpty()) {
                    keep(lot);
                }
                long now = wallMillis.getAsLong();
                if (now - tidied > TIDY_MILLIS) {
                    tidied = now;
                    store.tidy(now);
                }
            }
            if (!unkept.isEmpty() || !going.isEmpty()) { // Once more, as nobody tries after this.
                keep(List.of());
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /** Keeps a lot, with all that could not be kept before it. */
    private void keep(List<Told> lot) {
        long wall = wallMillis.getAsLong();
        long nanos = clock.nanos();
        for (Told t : lot) {
            going(t, going);
            LogRow row = row(t, at -> wall - (nanos - (at - t.ahead())) / 1_000_000);
            if (row != null) {
                unkept.add(row);
            }
        }
        while (unkept.size() > MAX_UNKEPT) {
            unkept.removeFirst();
            lost.incrementAndGet();
        }
        long gone = lost.get();
        List<LogRow> rows = new ArrayList<>(unkept);
        if (gone > 0) {
            rows.addFirst(new LogRow(0, wall, Kind.FAULT, 0, "", "", "", "", "", "the log", 0, gone
                    + (gone == 1 ? " row" : " rows") + " couldn't be written, and " + (gone == 1 ? "is" : "are")
                    + " lost", false));
        }
        try {
            if (!going.isEmpty()) {
                store.going(going);
                going.clear();
            }
            if (!rows.isEmpty()) {
                store.add(rows);
                lost.addAndGet(-gone);
                unkept.clear();
                kept += rows.size();
            }
            troubled.accept("");
        } catch (LogStore.Trouble e) {
            troubled.accept(String.valueOf(e.getMessage()));
            LOG.warn("{} rows of the as-run log wait, as they can't be written: {}", rows.size(), e.getMessage());
        }
    }

    /** What has begun and what has ended on the gear, so that after a kill it is known what was held and what ran. */
    private static void going(Told told, Map<String, Optional<Aftermath.Left>> to) {
        if (told.rehearsed()) {
            return;
        }
        switch (told.happening()) {
            case Happening.Started s -> to.put("run " + s.run(), Optional.of(new Aftermath.Left(s.button(), s.what())));
            case Happening.Ended e -> to.put("run " + e.run(), Optional.empty());
            case Happening.Shows s -> to.put("hold " + s.button(), s.held()
                    ? Optional.of(new Aftermath.Left(s.button(), Aftermath.HOLD))
                    : Optional.empty());
            default -> {
                // The rest neither begins nor ends anything.
            }
        }
    }

    private interface Wall {
        long millis(long nanos);
    }

    private @Nullable LogRow row(Told told, Wall wall) {
        return switch (told.happening()) {
            case Happening.Loaded l -> {
                named(l.rig().board());
                yield null;
            }
            case Happening.Started s -> {
                Pressed pressed = new Pressed(++lastPress, s.what());
                running.put(new Which(told.rehearsed(), s.run()), pressed);
                yield new LogRow(0, wall.millis(s.atNanos()), Kind.PRESS, pressed.press(), s.button(), name(s.button()),
                        s
                                .source(),
                        s.what(), "", s.what(), 0, "", told.rehearsed());
            }
            case Happening.Ended e -> {
                Pressed pressed = running.get(new Which(told.rehearsed(), e.run()));
                String what = pressed == null ? "" : pressed.what();
                yield new LogRow(0, wall.millis(e.atNanos()), e.end() == Happening.End.STOPPED ? Kind.STOP : Kind.END,
                        pressed == null ? 0 : pressed.press(), e.button(), name(e.button()), "", what, "",
                        switch (e.end()) {
                            case DONE -> "done";
                            case FAILED -> "done, with faults";
                            case STOPPED -> "stopped";
                        }, 0, "", told.rehearsed());
            }
            case Happening.Answered a -> {
                Pressed pressed = running.get(new Which(told.rehearsed(), a.run()));
                yield new LogRow(0, wall.millis(a.atNanos()), Kind.ANSWER, pressed == null ? 0 : pressed.press(), a
                        .button(), name(a.button()), a.gear().isEmpty() ? "person" : "", a.step(), a.gear(), a.words(),
                        (a.atNanos() - a.dueNanos()) / 1000, "", told.rehearsed());
            }
            case Happening.Noted n -> {
                Pressed pressed = running.get(new Which(told.rehearsed(), n.run()));
                yield new LogRow(0, wall.millis(n.atNanos()), Kind.NOTE, pressed == null ? 0 : pressed.press(), n
                        .button(), name(n.button()), "", n.step(), "", n.text(), 0, "", told.rehearsed());
            }
            case Happening.Ran r -> ran(r.line(), wall, told.rehearsed());
            case Happening.Faulted f -> f.message() == null || f.gear() != null
                    ? null
                    : new LogRow(0, wall.millis(clock.nanos() + told.ahead()), Kind.FAULT, 0, f.button(),
                            name(f.button()), "", "", "",
                            "the face", 0, f.message(), told.rehearsed());
            default -> null;
        };
    }

    private LogRow ran(AsRun line, Wall wall, boolean rehearsed) {
        boolean fault = line.outcome() == AsRun.Outcome.FAULT;
        Pressed pressed = running.get(new Which(rehearsed, line.run()));
        return new LogRow(0, wall.millis(line.atNanos()), fault ? Kind.FAULT : Kind.STEP,
                pressed == null ? 0 : pressed.press(), line.button(), name(line.button()),
                line.who(), line.step(), line.gear(), line.title(), line.lateMicros(), line.message(), rehearsed);
    }

    private void named(Board board) {
        if (board != named) {
            named = board;
            Map<String, String> all = new HashMap<>();
            board.buttons().forEach((Button b) -> all.put(b.id(), b.name()));
            names = all;
        }
    }

    private String name(String button) {
        return names.getOrDefault(button, button);
    }

    /** Keeps what waits, and ends. */
    @Override
    public void close() {
        closing = true;
        try {
            thread.join(TimeUnit.SECONDS.toMillis(5));
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        store.close();
    }
}
