package rombix.app.edit;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import rombix.core.engine.AsRun;

/** What a rehearsal sent to twins: what the real gear would have got. */
public final class Rehearsed {
    private final List<AsRun> lines = new ArrayList<>();
    private long startNanos;

    /** Begins anew at a moment of the rehearsal's clock. */
    public void begin(long nanos) {
        lines.clear();
        startNanos = nanos;
    }

    public void add(List<AsRun> more) {
        lines.addAll(more);
    }

    /** What one gear would have got, in order; those that failed among it. */
    public record Share(String gear, List<AsRun> lines) {
        public long faults() {
            return lines.stream().filter(l -> l.outcome() == AsRun.Outcome.FAULT).count();
        }
    }

    public boolean isEmpty() {
        return lines.isEmpty();
    }

    /** Gear by gear, in the order in which each was told first; steps that tell none last. */
    public List<Share> shares() {
        Map<String, List<AsRun>> by = new LinkedHashMap<>();
        lines.stream().filter(l -> !l.gear().isEmpty()).forEach(l -> by.computeIfAbsent(l.gear(),
                _ -> new ArrayList<>()).add(l));
        lines.stream().filter(l -> l.gear().isEmpty()).forEach(l -> by.computeIfAbsent("", _ -> new ArrayList<>())
                .add(l));
        return by.entrySet().stream().map(e -> new Share(e.getKey(), List.copyOf(e.getValue()))).toList();
    }

    /** How far into the rehearsal a line was, in milliseconds. */
    public long millis(AsRun line) {
        return (line.dueNanos() - startNanos) / 1_000_000;
    }

    /** All of it in one sentence. */
    public String words() {
        long sent = lines.stream().filter(l -> l.outcome() == AsRun.Outcome.SENT).count();
        long faults = lines.size() - sent;
        long gear = lines.stream().map(AsRun::gear).filter(g -> !g.isEmpty()).distinct().count();
        return "%s to %s%s".formatted(sent == 1 ? "1 command" : sent + " commands", gear == 1
                ? "1 gear"
                : gear
                        + " gears",
                faults == 0 ? "" : faults == 1 ? ", 1 fault" : ", " + faults + " faults");
    }
}
