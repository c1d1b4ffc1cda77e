package rombix.core.forecast;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import rombix.core.board.Rig;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;
import rombix.core.event.Known;
import rombix.core.twin.Twin;
import rombix.core.value.Value;

/**
 * The gear's present readings as the steps that would bring them about.
 *
 * @param left readings, {@code gear:reading}, that no command brings about
 */
public record Snapshot(List<Step> steps, List<String> left) {
    public Snapshot {
        steps = List.copyOf(steps);
        left = List.copyOf(left);
    }

    /** Of all readings of some gear. Readings that no command sets, as temperatures and counts, are left. */
    public static Snapshot ofGear(Rig rig, Known known, Collection<String> gear) {
        List<String> names = new ArrayList<>();
        for (String g : gear) {
            Twin twin = rig.twins().get(g);
            Map<String, Value> now = known.readings().getOrDefault(g, Map.of());
            if (twin != null) {
                twin.readings(now::get).forEach(r -> names.add(g + ":" + r.id()));
            }
        }
        return of(rig, known, names);
    }

    /** Of some readings, by their full names, {@code gear:reading}, in that order. */
    public static Snapshot of(Rig rig, Known known, Collection<String> readings) {
        List<Step> steps = new ArrayList<>();
        List<String> left = new ArrayList<>();
        for (String name : readings) {
            int colon = name.indexOf(':');
            String gear = name.substring(0, colon);
            String reading = name.substring(colon + 1);
            Twin twin = rig.twins().get(gear);
            Value value = known.readings().getOrDefault(gear, Map.of()).get(reading);
            if (twin != null && value != null) {
                twin.toReach(reading, value).ifPresentOrElse(
                        call -> steps.add(new GearStep.Do(gear, call.command().id(), call.args())),
                        () -> left.add(name));
            }
        }
        return new Snapshot(steps, left);
    }
}
