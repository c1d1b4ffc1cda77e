package rombix.core.engine.run;

import java.util.Map;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import rombix.core.engine.op.Situation;
import rombix.core.event.AsRun;
import rombix.core.event.Event;
import rombix.core.event.Happening;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.thread.OwnedBy;
import rombix.core.twin.Order;
import rombix.core.value.Value;

/** What the deck tells of what happens. Owned by the conductor's thread. */
@OwnedBy(Owner.CONDUCTOR)
public final class Telling {
    private static final Logger LOG = LoggerFactory.getLogger(Telling.class);

    private final RunContext context;
    private final Consumer<Happening> watcher;

    Telling(RunContext context, Consumer<Happening> watcher) {
        this.context = context;
        this.watcher = watcher;
    }

    public void ran(@Nullable Run run, String place, Order order, long due, long at, AsRun.Outcome outcome,
            String message) {
        if (run != null && run.quiet && outcome == AsRun.Outcome.SENT) {
            return;
        }
        tell(new Happening.Ran(new AsRun(due, at, run == null ? 0 : run.id, run == null ? "" : run.buttonId(), place,
                run == null ? AsRun.RACK : "", order.gear(), order.command().id(), order.args(), order.title(), outcome,
                message)));
    }

    /** A level was moved by hand to where an order takes it, or could not be, and why. */
    public void moved(ButtonPlay b, Order order, String source, long at, @Nullable String fault) {
        tell(new Happening.Ran(new AsRun(at, context.clock.nanos(), 0, b.button.id(), "", source, order.gear(),
                order.command()
                        .id(),
                order.args(), order.title(), fault == null ? AsRun.Outcome.SENT : AsRun.Outcome.FAULT,
                fault == null ? "" : fault)));
    }

    /**
     * A step that commands no gear could not be done, and why; gives the reason back.
     *
     * @param args what names stood for where the step is
     */
    public String faulted(Run run, String place, Map<String, Value> args, String why) {
        tell(new Happening.Ran(
                new AsRun(context.now(), context.clock.nanos(), run.id, run.buttonId(), place, "", "", "", args, place,
                        AsRun.Outcome.FAULT, why)));
        fault(run, null, why);
        return why;
    }

    /** A step has succeeded after so many tries that failed: a face whose faults were those alone is well again. */
    public void recovered(Run run, int tries) {
        run.faults -= tries;
        if (run.faults <= 0 && run.button != null) {
            clearFault(run.button);
        }
    }

    public void fault(@Nullable Run run, @Nullable String gear, String message) {
        if (run != null) {
            run.faults++;
            if (run.button != null) {
                fault(run.button, gear, message);
                context.failed(run.button, gear);
            }
        }
    }

    public void fault(ButtonPlay b, @Nullable String gear, String message) {
        b.faulted = true;
        tell(new Happening.Faulted(b.button.id(), gear, message));
    }

    public void clearFault(ButtonPlay b) {
        if (b.faulted) {
            b.faulted = false;
            tell(new Happening.Faulted(b.button.id(), null, null));
        }
    }

    public void shows(ButtonPlay b) {
        tell(new Happening.Shows(b.button.id(), b.shown, b.onItsWay, context.held(b)));
    }

    public void tell(Happening happening) {
        try {
            watcher.accept(happening);
        } catch (RuntimeException | Error e) {
            LOG.error("a watcher failed on {}", happening, e);
        }
    }

    public void value(Situation.Owned name, Value value) {
        tell(new Happening.ValueSet(name.owner().isEmpty() ? null : name.owner(), name.id(), value));
    }

    /** Takes over what another deck has, and tells of it. */
    public void resume(Event.Resume from) {
        from.values().forEach(v -> {
            if (context.situation.resume(v)) {
                tell(v);
            }
        });
        from.states().forEach((id, state) -> context.on(id, b -> {
            if (!b.button.follows() && state < b.button.states().size()) {
                b.shown = state;
                shows(b);
            }
        }));
    }
}
