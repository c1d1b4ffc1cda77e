package rombix.core.engine.run;

import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rombix.core.engine.op.Op;
import rombix.core.engine.run.Orders.Key;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.time.Agenda;
import rombix.core.twin.Order;
import rombix.core.twin.Twin;
import rombix.core.value.Value;

/**
 * Does something for a while: remembers what each reading was before the chain within changed it, and puts that back
 * when the time is over or the chain is stopped. When its button is pressed again meanwhile, what it remembers goes to
 * the new run, which goes on from there; that renews the time.
 */
@OwnedBy(Owner.CONDUCTOR)
final class ForAWhileFrame implements Run.Parent, Run.Activity {
    private final SeqFrame frame;
    private final Op.ForAWhile op;
    private final Map<Key, Value> before = new LinkedHashMap<>();
    /** Readings that were not known before, with what was set. */
    private final Map<Key, Value> unknown = new LinkedHashMap<>();
    private long startNanos;
    private boolean over;
    private @Nullable SeqFrame child;
    private Agenda.@Nullable Entry timer;

    ForAWhileFrame(SeqFrame frame, Op.ForAWhile op) {
        this.frame = frame;
        this.op = op;
    }

    void start(long due) {
        startNanos = due;
        Orders orders = frame.run.context.orders;
        before.putAll(frame.run.inherit(op));
        before.putAll(orders.begin(this));
        frame.doing(this);
        SeqFrame inner = frame.child(this, op.chain, frame.scope);
        inner.within = this;
        child = inner;
        inner.start(due);
    }

    /** The one that this one is within. */
    @Nullable
    ForAWhileFrame within() {
        return frame.within;
    }

    boolean same(ForAWhileFrame other) {
        return op == other.op && this != other;
    }

    /** An order of the chain within is about to go out: what it will change is remembered as it is. */
    void about(Order order) {
        order.changes().forEach((reading, to) -> {
            Key key = new Key(order.gear(), reading);
            Value now = frame.run.context.orders.presently(key);
            if (now != null && !unknown.containsKey(key)) {
                before.putIfAbsent(key, now);
            } else if (now == null) {
                unknown.putIfAbsent(key, to);
            }
        });
    }

    boolean remembers(Key key) {
        return before.containsKey(key);
    }

    void remember(Key key, Value value) {
        before.put(key, value);
    }

    @Override
    public void childEnded(SeqFrame ended, long due) {
        child = null;
        if (op.nanos == Op.ForAWhile.UNLESS_STOPPED) {
            end();
            frame.done(due, null);
            return;
        }
        long end = startNanos + op.nanos;
        timer = frame.run.context.agenda.at(end - due > 0 ? end : due, at -> {
            putBack(at);
            frame.done(at, null);
        });
    }

    /** A later run of the same step has begun: what is remembered is its business now. */
    Map<Key, Value> giveUp() {
        end();
        long now = frame.run.context.now();
        if (child != null) {
            child.stop();
        }
        frame.done(now, null);
        return before;
    }

    private void putBack(long due) {
        if (!over) {
            end();
            RunContext context = frame.run.context;
            context.orders.putBack(frame.run, frame.place(), before, due);
            unknown.forEach((key, set) -> {
                Twin twin = context.situation.twin(key.gear());
                if (twin != null && twin.toReach(key.reading(), set).isPresent()) {
                    context.trace.unknownAgain(key.gear(), key.reading());
                }
            });
        }
    }

    private void end() {
        over = true;
        if (timer != null) {
            timer.cancel();
        }
        frame.run.context.orders.end(this);
    }

    @Override
    public void stop() {
        if (child != null) {
            child.stop();
        }
        if (!over && frame.run.handsOver()) {
            end();
            frame.run.hand(op, before);
        } else {
            putBack(frame.run.context.now());
        }
    }
}
