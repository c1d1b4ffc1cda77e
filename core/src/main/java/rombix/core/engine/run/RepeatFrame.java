package rombix.core.engine.run;

import org.jspecify.annotations.Nullable;
import rombix.core.engine.op.Op;
import rombix.core.engine.op.Scope;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.thread.OwnedBy;
import rombix.core.time.Agenda;
import rombix.core.value.FormulaFault;
import rombix.core.value.Value;

/** A chain again and again. Rounds that end at once are looped over, not recursed into. */
@OwnedBy(Owner.CONDUCTOR)
final class RepeatFrame implements Run.Parent, Run.Activity {
    private final SeqFrame frame;
    private final Op.Repeat repeat;
    private double times = Double.POSITIVE_INFINITY;
    private long round;
    private long startNanos;
    private long dueNanos;
    private boolean going;
    private boolean goOn;
    private boolean over;
    private @Nullable SeqFrame child;
    private Agenda.@Nullable Entry timer;

    RepeatFrame(SeqFrame frame, Op.Repeat repeat) {
        this.frame = frame;
        this.repeat = repeat;
    }

    void start(long due) throws FormulaFault {
        if (repeat.times() != null) {
            times = frame.run.context.situation.value(repeat.times(), frame.scope).asNumber();
        }
        frame.doing(this);
        startNanos = due;
        go(due);
    }

    private void go(long due) {
        dueNanos = due;
        goOn = true;
        if (going) {
            return;
        }
        going = true;
        while (goOn && !over) {
            goOn = false;
            round();
        }
        going = false;
    }

    private void round() {
        Scope inner = frame.scope.with(repeat.count(), Value.of(round));
        try {
            boolean more = round < times
                    && (repeat.check() == null || frame.run.context.situation.holds(repeat.check(), inner));
            if (!more) {
                end(null);
                return;
            }
        } catch (FormulaFault e) {
            end(frame.faulted("its condition: " + e.getMessage()));
            return;
        }
        if (!frame.run.spend(dueNanos)) {
            end(frame.faulted("was stopped, as it repeated without a wait"));
            return;
        }
        round++;
        SeqFrame next = frame.child(this, repeat.chain(), inner);
        child = next;
        next.start(dueNanos);
    }

    private void end(@Nullable String fault) {
        over = true;
        frame.done(dueNanos, fault);
    }

    @Override
    public void childEnded(SeqFrame ended, long due) {
        child = null;
        long next = repeat.everyNanos() < 0 ? due : startNanos + round * repeat.everyNanos();
        long missed = repeat.everyNanos() < 0 ? 0 : frame.run.context.missedBeats(next, repeat.everyNanos());
        startNanos += missed * repeat.everyNanos();
        next += missed * repeat.everyNanos();
        if (next - due > 0 && round < times) {
            timer = frame.run.context.agenda.at(next, this::go);
        } else {
            go(due);
        }
    }

    @Override
    public void stop() {
        over = true;
        if (timer != null) {
            timer.cancel();
        }
        if (child != null) {
            child.stop();
        }
    }
}
