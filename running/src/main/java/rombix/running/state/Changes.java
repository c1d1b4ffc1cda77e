package rombix.running.state;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import rombix.core.event.Happening;
import rombix.core.value.Value;

/**
 * What a subscriber has to show anew.
 *
 * @param gear ids of all gear with changes
 * @param whole ids of gear to show anew in full: its status, its lists or its card changed
 * @param readings other readings that changed, each {@code gear:reading}
 * @param runs whether chains began, ended or move on as time passes
 * @param talk whether there is something to be said, asked or confirmed
 * @param happened what happened in between, oldest first
 */
public record Changes(Set<String> gear, Set<String> whole, Set<String> readings, Set<String> buttons, boolean runs,
        boolean talk, List<Happening> happened) {

    /** Buttons alone, as when their faces change with time. */
    public static Changes ofButtons(Set<String> buttons) {
        return new Changes(Set.of(), Set.of(), Set.of(), buttons, false, false, List.of());
    }

    /** @param before the state that was shown last */
    public static Changes of(Seen seen, DeckState before) {
        DeckState state = seen.state();
        Set<String> gear = new HashSet<>();
        Set<String> whole = new HashSet<>();
        Set<String> readings = new HashSet<>();
        Set<String> buttons = new HashSet<>();
        boolean runs = before.moves() || state.moves() || seen.whole();
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

    public boolean any() {
        return runs || talk || !gear.isEmpty() || !buttons.isEmpty() || !happened.isEmpty();
    }

    /** Whether a reading may have changed. */
    public boolean touches(String gearId, String reading) {
        return whole.contains(gearId) || readings.contains(gearId + ":" + reading);
    }
}
