package rombix.core.engine.run;

import java.util.function.Consumer;
import java.util.random.RandomGenerator;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Board;
import rombix.core.board.RunDown;
import rombix.core.chain.DeckStep;
import rombix.core.engine.op.Compiler;
import rombix.core.engine.op.Scope;
import rombix.core.engine.op.Situation;
import rombix.core.event.Event;
import rombix.core.event.Gears;
import rombix.core.event.Happening;
import rombix.core.event.Trace;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.time.Agenda;
import rombix.core.time.Clock;
import rombix.core.value.Formula;
import rombix.core.value.FormulaFault;
import rombix.core.value.Value;

/**
 * What running chains need around them: what is due, what is known, the orders, the questions, and who is told. The
 * deck is one; it adds the hands. Owned by the conductor's thread.
 */
@OwnedBy(Owner.CONDUCTOR)
public abstract class RunContext {
    private static final long ASLEEP_NANOS = 1_000_000_000L;

    public final Agenda agenda = new Agenda();
    public final Clock clock;
    public final RandomGenerator chance;
    public final Trace trace;
    public final Telling telling;
    public final Situation situation;
    public final Orders orders;
    public final Runs runs = new Runs(this);
    final Picker picker;
    public final Watches watches = new Watches(this);

    /**
     * @param chance where random times and picks come from
     * @param watcher told of everything that happens
     * @param trace watches each step
     */
    protected RunContext(Clock clock, RandomGenerator chance, Gears gears, Consumer<Happening> watcher, Trace trace) {
        this.clock = clock;
        this.situation = new Situation(clock);
        this.chance = chance;
        this.trace = trace;
        this.telling = new Telling(this, watcher);
        this.orders = new Orders(this, gears);
        this.picker = new Picker(chance, this);
    }

    /** The moment of what is being taken: when it was posted, or when it was due. */
    public abstract long now();

    /** Takes an event, after what is being taken. */
    public abstract void take(Event event, long postedNanos);

    /** A step begins; for those who see that it does not end. */
    protected abstract void at(Run run, String place);

    /** There is something to do: rest is told of when it is done. */
    protected abstract void stir();

    public abstract @Nullable ButtonPlay button(@Nullable String id);

    public abstract Board board();

    protected abstract Compiler compiler();

    /** Sets a value of the scope's button, or of the board. */
    protected abstract void set(Scope scope, String value, Value to) throws FormulaFault;

    /** Goes to an item of a run-down. Throws IllegalArgumentException in plain words, where there is none. */
    protected abstract void go(RunDown list, Value to) throws FormulaFault;

    protected abstract void show(Run run, DeckStep.Show step) throws FormulaFault;

    protected abstract void stop(Run run, DeckStep.Stop step);

    /** A reading has come in, or is taken to be as sent. */
    protected abstract void changed(String gear, String reading, Value value, boolean moment);

    /** The run that a button waited for has ended. */
    protected abstract void awaitedEnded(ButtonPlay b, Happening.End end, long due);

    /** The last run of a button has ended, and was not stopped. */
    protected abstract void rested(ButtonPlay b, long due);

    /** A step of a button failed, or the gear that it commands. */
    protected abstract void failed(ButtonPlay b, @Nullable String gear);

    /** Whether a button is held by anything. */
    protected abstract boolean held(ButtonPlay b);

    public final void on(String button, Consumer<ButtonPlay> what) {
        ButtonPlay b = button(button);
        if (b != null) {
            what.accept(b);
        }
    }

    final String filled(String text, Scope scope) {
        return Formula.fill(text, n -> situation.named(n, scope), n -> situation.spoken(n, scope));
    }

    /**
     * Whole beats of a length that have gone by since a moment, unseen: the machine was asleep, or far too busy. What
     * comes at intervals leaves them out, where it would else come all at once. 0 when all is well.
     */
    public final long missedBeats(long sinceNanos, long beatNanos) {
        long behind = clock.nanos() - sinceNanos;
        return behind > ASLEEP_NANOS && beatNanos > 0 ? behind / beatNanos : 0;
    }
}
