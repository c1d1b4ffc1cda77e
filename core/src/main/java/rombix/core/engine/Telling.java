package rombix.core.engine;

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
final class Telling {
    private static final Logger LOG = LoggerFactory.getLogger(Telling.class);

    private final Deck deck;
    private final Consumer<Happening> watcher;

    Telling(Deck deck, Consumer<Happening> watcher) {
        this.deck = deck;
        this.watcher = watcher;
    }

    void ran(@Nullable Run run, String place, Order order, long due, long at, AsRun.Outcome outcome, String message) {
        if (run != null && run.quiet && outcome == AsRun.Outcome.SENT) {
            return;
        }
        tell(new Happening.Ran(new AsRun(due, at, run == null ? 0 : run.id, run == null ? "" : run.buttonId(), place,
                run == null ? AsRun.RACK : "", order.gear(), order.command().id(), order.args(), order.title(), outcome,
                message)));
    }

    /** A level was moved by hand to where an order takes it, or could not be, and why. */
    void moved(ButtonPlay b, Order order, String source, long at, @Nullable String fault) {
        tell(new Happening.Ran(new AsRun(at, deck.clock.nanos(), 0, b.button.id(), "", source, order.gear(),
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
    String faulted(Run run, String place, Map<String, Value> args, String why) {
        tell(new Happening.Ran(
                new AsRun(deck.now(), deck.clock.nanos(), run.id, run.buttonId(), place, "", "", "", args, place,
                        AsRun.Outcome.FAULT, why)));
        fault(run, null, why);
        return why;
    }

    /** A step has succeeded after so many tries that failed: a face whose faults were those alone is well again. */
    void recovered(Run run, int tries) {
        run.faults -= tries;
        if (run.faults <= 0 && run.button != null) {
            clearFault(run.button);
        }
    }

    void fault(@Nullable Run run, @Nullable String gear, String message) {
        if (run != null) {
            run.faults++;
            if (run.button != null) {
                fault(run.button, gear, message);
                deck.hands.gearFailed(run.button, gear);
            }
        }
    }

    void fault(ButtonPlay b, @Nullable String gear, String message) {
        b.faulted = true;
        tell(new Happening.Faulted(b.button.id(), gear, message));
    }

    void clearFault(ButtonPlay b) {
        if (b.faulted) {
            b.faulted = false;
            tell(new Happening.Faulted(b.button.id(), null, null));
        }
    }

    void shows(ButtonPlay b) {
        tell(new Happening.Shows(b.button.id(), b.shown, b.onItsWay, b.held() || deck.ways.held(b)));
    }

    void tell(Happening happening) {
        try {
            watcher.accept(happening);
        } catch (RuntimeException | Error e) {
            LOG.error("a watcher failed on {}", happening, e);
        }
    }

    void value(Situation.Owned name, Value value) {
        tell(new Happening.ValueSet(name.owner().isEmpty() ? null : name.owner(), name.id(), value));
    }

    /** Takes over what another deck has, and tells of it. */
    void resume(Event.Resume from) {
        from.values().forEach(v -> {
            if (deck.situation.resume(v)) {
                tell(v);
            }
        });
        from.states().forEach((id, state) -> deck.on(id, b -> {
            if (!b.button.follows() && state < b.button.states().size()) {
                b.shown = state;
                shows(b);
            }
        }));
    }
}
