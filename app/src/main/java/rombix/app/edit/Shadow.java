package rombix.app.edit;

import java.util.List;
import rombix.core.chain.Step;
import rombix.core.event.Happening;
import rombix.core.event.Known;
import rombix.core.forecast.Shadowing;

/** Follows what the operator does by hand until it is stopped, and gives it as steps. One thread's. */
public final class Shadow {
    private final Shadowing shadowing;

    public Shadow(Workbench bench, Known known) {
        shadowing = new Shadowing(bench.rig());
        known.readings().forEach((gear, of) -> of.forEach((reading, value) -> shadowing.at(gear, reading, value)));
    }

    /** A reading has changed, at a moment of the machine's clock. */
    public void record(Happening.Came came, long atNanos) {
        shadowing.changed(came.gear(), came.reading(), came.value(), atNanos);
    }

    public List<Step> steps() {
        return shadowing.steps();
    }
}
