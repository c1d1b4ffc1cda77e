package rombix.app.edit;

import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import rombix.core.event.AsRun;
import rombix.core.twin.Figures;

/**
 * What a rehearsal sent to twins: what the real gear would have got. It counts everything and keeps the first
 * {@value #MAX} lines of each gear, however long it lasts. Not safe for use from several threads.
 */
public final class RehearsalRecord {
    /** How many lines of a gear are kept. */
    public static final int MAX = 2000;

    private final Map<String, Share> shares = new LinkedHashMap<>();
    private long startNanos;

    /** What one gear would have got; the gear is blank for steps that tell none. */
    public static final class Share {
        private final String gear;
        private final List<AsRun> lines = new ArrayList<>();
        private long sent;
        private long faults;

        private Share(String gear) {
            this.gear = gear;
        }

        private void add(AsRun line) {
            if (line.outcome() == AsRun.Outcome.FAULT) {
                faults++;
            } else {
                sent++;
            }
            if (lines.size() < MAX) {
                lines.add(line);
            }
        }

        public String gear() {
            return gear;
        }

        /** The lines that are kept, in order; those that failed among them. */
        public List<AsRun> lines() {
            return Collections.unmodifiableList(lines);
        }

        public long faults() {
            return faults;
        }

        /** How many lines there were, kept or not. */
        public long count() {
            return sent + faults;
        }
    }

    /** Begins anew at a moment of the rehearsal's clock. */
    public void begin(long nanos) {
        shares.clear();
        startNanos = nanos;
    }

    public void add(List<AsRun> more) {
        more.forEach(line -> shares.computeIfAbsent(line.gear(), Share::new).add(line));
    }

    public boolean isEmpty() {
        return shares.isEmpty();
    }

    /** Gear by gear, in the order in which each was told first; steps that tell none last. */
    public List<Share> shares() {
        return Stream.concat(gears(), shares.values().stream().filter(s -> s.gear().isEmpty())).toList();
    }

    private Stream<Share> gears() {
        return shares.values().stream().filter(s -> !s.gear().isEmpty());
    }

    /** How far into the rehearsal a line was, in milliseconds; 0 for what was due as it began. */
    public long millis(AsRun line) {
        return Math.max(0, (line.dueNanos() - startNanos) / 1_000_000);
    }

    /** All of it in one sentence. */
    public String words() {
        long sent = shares.values().stream().mapToLong(s -> s.sent).sum();
        long faults = shares.values().stream().mapToLong(Share::faults).sum();
        return Figures.count(sent, "command") + " to " + pieces(gears().count()) + (faults == 0
                ? ""
                : ", " + Figures.count(faults, "fault"));
    }

    /** Gear cannot be counted: a piece of it can. */
    private static String pieces(long n) {
        return n == 1 ? "1 piece of gear" : n + " pieces of gear";
    }
}
