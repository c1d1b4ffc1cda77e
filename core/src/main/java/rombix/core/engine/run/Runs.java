package rombix.core.engine.run;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.LongFunction;
import rombix.core.board.Board.NamedChain;
import rombix.core.chain.Gesture;
import rombix.core.engine.op.Op;
import rombix.core.engine.op.Scope;
import rombix.core.event.Happening;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.thread.OwnedBy;
import rombix.core.value.FormulaFault;
import rombix.core.value.Value;

/** The chains that run, and the questions that they ask. Owned by the conductor's thread. */
@OwnedBy(Owner.CONDUCTOR)
public final class Runs {
    private final RunContext context;
    private final Map<String, Op.Seq> named = new HashMap<>();
    private final Map<Long, Run> running = new LinkedHashMap<>();
    private final Map<Long, AskFrame> asks = new LinkedHashMap<>();
    private long lastRun;
    private long lastAsk;

    Runs(RunContext context) {
        this.context = context;
    }

    public boolean isEmpty() {
        return running.isEmpty();
    }

    /** The chains of the board may be others from now on. */
    public void forgetChains() {
        named.clear();
    }

    public void answer(long question, Value answer, long at) {
        AskFrame ask = asks.get(question);
        if (ask != null) {
            ask.answer(answer, at);
        }
    }

    /** Stops one chain; nothing where it has ended. */
    public void stop(long id) {
        Run run = running.get(id);
        if (run != null) {
            run.stop(Happening.End.STOPPED);
        }
    }

    /** Stops what runs, but for what is a last word already: a release, or what always runs. */
    public void end() {
        List.copyOf(running.values()).stream().filter(r -> !r.last).forEach(r -> r.stop(Happening.End.STOPPED));
    }

    public void stopAll() {
        List.copyOf(running.values()).forEach(r -> r.stop(Happening.End.STOPPED));
    }

    public void stopAll(ButtonPlay b) {
        List.copyOf(b.running).forEach(r -> r.stop(Happening.End.STOPPED));
    }

    /** Stops what runs for a button before it runs a chain anew; gives what runs of the same chain have to put back. */
    public Map<Op.ForAWhile, Map<Orders.Key, Value>> stopForAnother(ButtonPlay b, Op.Seq chain) {
        Map<Op.ForAWhile, Map<Orders.Key, Value>> inherited = new HashMap<>();
        for (Run run : List.copyOf(b.running)) {
            if (run.chain == chain) {
                inherited.putAll(run.stopForAnother());
            } else {
                run.stop(Happening.End.STOPPED);
            }
        }
        return inherited;
    }

    public Run start(ButtonPlay b, String what, Op.Seq chain, Scope scope, long at, String source) {
        return start(b, what, chain, scope, at, source, Map.of());
    }

    /** @param inherited what the run has to put back for one before it */
    public Run start(ButtonPlay b, String what, Op.Seq chain, Scope scope, long at, String source,
            Map<Op.ForAWhile, Map<Orders.Key, Value>> inherited) {
        Run run = new Run(++lastRun, context, b, chain, scope, inherited);
        run.last = what.equals(Gesture.RELEASE.id());
        b.running.add(run);
        begin(run, what, source, at);
        return run;
    }

    /** Runs a chain of which nothing is told but what goes wrong. */
    public void quietly(ButtonPlay b, Op.Seq chain, Scope scope, long at, String source) {
        Run run = new Run(++lastRun, context, b, chain, scope, Map.of());
        run.quiet = true;
        b.running.add(run);
        begin(run, Gesture.TURN.id(), source, at);
    }

    private void begin(Run run, String what, String source, long at) {
        context.stir();
        run.source = source;
        running.put(run.id, run);
        if (!run.quiet) {
            context.telling.tell(new Happening.Started(run.id, run.buttonId(), what, source, at, run.chain
                    .expectedNanos()));
        }
        run.start(at);
    }

    /** Runs the always part of a chain that was stopped. */
    void detached(Run of, Op.Seq chain, Scope scope) {
        Run run = new Run(++lastRun, context, of.button, chain, scope, Map.of());
        run.last = true;
        begin(run, "always", "stopped", context.now());
    }

    void ended(Run run, long due, Happening.End end) {
        running.remove(run.id);
        if (!run.quiet) {
            context.telling.tell(new Happening.Ended(run.id, run.buttonId(), end, due));
        }
        settle(run);
        ButtonPlay b = run.button;
        if (b == null) {
            return;
        }
        b.running.remove(run);
        if (b.awaited == run) {
            context.awaitedEnded(b, end, due);
        }
        if (b.running.isEmpty() && end != Happening.End.STOPPED) {
            context.rested(b, due);
        }
    }

    /** Tells of a chain that has ended and all of whose orders are done. */
    void settle(Run run) {
        if (run.over && run.awaited == 0) {
            context.telling.tell(new Happening.Settled(run.id));
        }
    }

    /** The chain that a use step names. */
    Op.Seq chainOf(Op.Use use) throws FormulaFault {
        String chain = use.chain();
        Op.Seq found = null;
        if (chain != null) {
            found = named.get(chain);
            NamedChain source = context.board().chain(chain).orElse(null);
            if (found == null && source != null) {
                found = context.compiler().seq(source.chain(), "chain");
                named.put(chain, found);
            }
        } else {
            ButtonPlay b = context.button(use.button());
            if (b != null) {
                found = b.chain(use.state() == null ? b.shown : b.state(use.state()), use.gesture());
            }
        }
        if (found == null) {
            throw new FormulaFault(0, chain != null
                    ? "there is no chain “" + chain + "” on this board"
                    : "“" + use.button() + "” has no chain for " + use.gesture().words());
        }
        return found;
    }

    long asked(AskFrame ask, LongFunction<Happening.Asked> told) {
        long id = ++lastAsk;
        asks.put(id, ask);
        Happening.Asked happening = told.apply(id);
        context.telling.tell(happening);
        return id;
    }

    void closed(long question) {
        asks.remove(question);
        context.telling.tell(new Happening.AskClosed(question));
    }
}
