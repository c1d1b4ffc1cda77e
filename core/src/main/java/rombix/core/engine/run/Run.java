package rombix.core.engine.run;

import java.util.HashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rombix.core.engine.op.Op;
import rombix.core.engine.op.Scope;
import rombix.core.engine.run.Orders.Key;
import rombix.core.event.Happening;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.thread.OwnedBy;
import rombix.core.value.Value;

/** A chain that runs. Owned by the conductor's thread. Over once; after that nothing of it does anything. */
@OwnedBy(Owner.CONDUCTOR)
public final class Run {
    /** How many steps may run at one moment before a chain is taken to be endless. */
    static final long BUDGET = 250_000;

    public final long id;
    final RunContext context;
    public final @Nullable ButtonPlay button;
    public final Op.Seq chain;
    private final SeqFrame root;
    /** What is inherited and not taken up yet; most runs inherit nothing. */
    private Map<Op.ForAWhile, Map<Key, Value>> inherited;
    private @Nullable Map<Op.ForAWhile, Map<Key, Value>> handed;
    /** Who started it, as the log names it. */
    public String source = "";
    public boolean over;
    /** Whether it is what a hold or a chain says at its end: that is heard out. */
    boolean last;
    /** Whether nothing of it is told but what goes wrong. */
    boolean quiet;
    int faults;
    /** How many of its orders no link has yet said to have sent. */
    int awaited;
    private long budgetOf = Long.MIN_VALUE;
    private long spent;

    /** @param inherited what an earlier run of the same chain has still to put back */
    Run(long id, RunContext context, @Nullable ButtonPlay button, Op.Seq chain, Scope scope,
            Map<Op.ForAWhile, Map<Key, Value>> inherited) {
        this.id = id;
        this.context = context;
        this.button = button;
        this.chain = chain;
        this.inherited = inherited;
        this.root = new SeqFrame(this, null, chain, scope);
    }

    /** The id of its button; empty where it has none. */
    public String buttonId() {
        return button == null ? "" : button.button.id();
    }

    void start(long due) {
        root.start(due);
    }

    /** Counts a step; false when the chain has run too many without time passing, and must end. */
    boolean spend(long due) {
        if (due != budgetOf) {
            budgetOf = due;
            spent = 0;
        }
        return ++spent <= BUDGET;
    }

    void ended(long due) {
        if (!over) {
            over = true;
            putBackInherited(due);
            context.runs.ended(this, due, faults > 0 ? Happening.End.FAILED : Happening.End.DONE);
        }
    }

    public void stop(Happening.End how) {
        if (!over) {
            over = true;
            root.stop();
            putBackInherited(context.now());
            context.runs.ended(this, context.now(), how);
        }
    }

    /** Stops it for a new run of the same chain, and gives what that one inherits. */
    Map<Op.ForAWhile, Map<Key, Value>> stopForAnother() {
        Map<Op.ForAWhile, Map<Key, Value>> mine = new HashMap<>(inherited);
        inherited = Map.of();
        handed = mine;
        stop(Happening.End.STOPPED);
        return mine;
    }

    boolean handsOver() {
        return handed != null;
    }

    void hand(Op.ForAWhile step, Map<Key, Value> before) {
        if (handed != null) {
            handed.put(step, before);
        }
    }

    Map<Key, Value> inherit(Op.ForAWhile step) {
        Map<Key, Value> before = inherited.isEmpty() ? null : inherited.remove(step);
        return before == null ? Map.of() : before;
    }

    private void putBackInherited(long due) {
        Map<Op.ForAWhile, Map<Key, Value>> left = inherited;
        inherited = Map.of();
        left.values().forEach(before -> context.orders.putBack(this, "", before, due));
    }

    /** Something that is going on in a chain and can be stopped. */
    interface Activity {
        void stop();
    }

    /** Something that runs chains of its own, and is told when one has ended. */
    interface Parent {
        void childEnded(SeqFrame child, long due);
    }
}
