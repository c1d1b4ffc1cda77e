package rombix.core.engine;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Consumer;
import rombix.core.value.Value;

/** Keeps what a deck tells of its gear and values, for whoever wants to know it at a moment. Safe for any thread. */
public final class Knowledge implements Consumer<Happening> {
    private final Map<String, Map<String, Value>> readings = new ConcurrentHashMap<>();
    private final Map<String, Status> statuses = new ConcurrentHashMap<>();
    private final Map<String, Value> values = new ConcurrentHashMap<>();
    private final Map<String, Happening.ValueSet> held = new ConcurrentHashMap<>();
    private final Map<String, Integer> states = new ConcurrentHashMap<>();

    @Override
    public void accept(Happening happening) {
        switch (happening) {
            case Happening.Came c -> readings.computeIfAbsent(c.gear(), _ -> new ConcurrentHashMap<>())
                    .put(c.reading(), c.value());
            case Happening.Linked l -> statuses.put(l.gear(), l.status());
            case Happening.ValueSet v -> {
                if (v.button() == null) {
                    values.put(v.value(), v.to());
                }
                held.put(v.button() + "/" + v.value(), v);
            }
            case Happening.Shows s -> states.put(s.button(), s.state());
            case Happening.Loaded l -> {
                statuses.keySet().retainAll(l.rig().twins().keySet());
                states.keySet().removeIf(b -> l.rig().button(b).isEmpty());
            }
            default -> {
                // The rest says nothing of gear or values.
            }
        }
    }

    /** What has a deck that begins to play the same board begin as this one is now: its values and its buttons' states. */
    public Event.Resume resume() {
        return new Event.Resume(new HashMap<>(states), List.copyOf(held.values()));
    }

    /** Whether a gear can be reached. */
    public Status status(String gear) {
        return statuses.getOrDefault(gear, Status.UNTRIED);
    }

    /** All that is known now. */
    public Known now() {
        return new Known(new HashMap<>(readings), new HashMap<>(statuses), new HashMap<>(values),
                new HashMap<>(states));
    }
}
