package rombix.core.twin;

import org.jspecify.annotations.Nullable;
import rombix.core.card.value.Mapped.Curve;

/**
 * How a level goes out otherwise than it was set: in the wires that have universes of slots.
 *
 * @param slot counted from 1
 * @param fine the slot of its second part; 0 where it has none
 * @param invert whether it goes the other way round
 * @param limit how far it goes up, from 0 to 1
 * @param curve how it goes up; evenly when null
 * @param fixed the level that it always has; -1 where it has none
 */
public record Output(int universe, int slot, int fine, boolean invert, double limit, @Nullable Curve curve, int fixed) {
    /** What goes out for a share from 0 to 1. */
    public double out(double share) {
        double up = (curve == null ? share : curve.out(share)) * limit;
        return invert ? 1 - up : up;
    }

    /** The share that went out so. */
    public double in(double sent) {
        double up = limit == 0 ? 0 : Math.clamp((invert ? 1 - sent : sent) / limit, 0, 1);
        return curve == null ? up : curve.in(up);
    }
}
