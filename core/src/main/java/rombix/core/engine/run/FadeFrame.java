package rombix.core.engine.run;

import org.jspecify.annotations.Nullable;
import rombix.core.engine.op.Op;
import rombix.core.event.Glide;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.thread.OwnedBy;
import rombix.core.time.Agenda;
import rombix.core.twin.Ramp;
import rombix.core.value.FormulaFault;
import rombix.core.value.Value;

/**
 * A level on its way. Either its gear's link renders it, or it is sent from here at the rate of the protocol, each time
 * where it should be by then; at the end it is sent exactly on the target. What sets the same reading meanwhile, another
 * fade or a command, takes over.
 */
@OwnedBy(Owner.CONDUCTOR)
final class FadeFrame implements Glides.Moving, Run.Activity {
    private final SeqFrame frame;
    private final Op.Fade op;
    private final RunContext context;
    private double to;
    private long startNanos;
    private long tick;
    private long periodNanos;
    private boolean rendered;
    private @Nullable Ramp ramp;
    private @Nullable Glide glide;
    private Orders.@Nullable Key key;
    private Agenda.@Nullable Entry timer;

    FadeFrame(SeqFrame frame, Op.Fade op) {
        this.frame = frame;
        this.op = op;
        this.context = frame.run.context;
    }

    void start(long due) throws FormulaFault {
        startNanos = due;
        to = context.situation.value(op.to(), frame.scope).asNumber();
        Orders.Ramped ramped = context.orders.ramp(frame, op.command(), op.param());
        ramp = ramped.ramp();
        key = ramped.key();
        Value now = op.from() != null
                ? context.situation.value(op.from(), frame.scope)
                : key == null ? null : context.orders.presently(key);
        // Where it is now may not be known: then it can only go there at once.
        double from = now == null || Double.isNaN(now.asNumber()) ? to : now.asNumber();
        if (Double.isNaN(to)) {
            throw new FormulaFault(0, "the target of the fade isn't a number");
        }
        frame.doing(this);
        if (key != null) {
            context.orders.takeOver(key, this);
        }
        String fault = context.orders.send(this, frame, ramp.at(op.nanos() == 0 ? to : from), due);
        if (fault != null || op.nanos() == 0) {
            finish(due, fault);
            return;
        }
        if (from == to) { // It is there; what comes after it comes when it was to be over all the same.
            timer = context.agenda.at(startNanos + op.nanos(), end -> finish(end, null));
            return;
        }
        glide = new Glide(ramp, from, to, startNanos, op.nanos(), op.curve());
        rendered = context.orders.glide(this, glide);
        periodNanos = 1_000_000_000L / op.command().twin.protocol().descriptor().rate();
        timer = context.agenda.at(rendered ? startNanos + op.nanos() : due + periodNanos, this::tick);
    }

    private void tick(long due) {
        tick += 1 + context.missedBeats(due, periodNanos);
        long end = startNanos + op.nanos();
        if (due - end >= 0) {
            finish(end, ramp == null ? null : context.orders.send(this, frame, ramp.at(to), end));
            return;
        }
        if (ramp != null && glide != null) {
            context.orders.pass(this, ramp.passing(glide.at(due)));
        }
        long next = startNanos + (tick + 1) * periodNanos;
        timer = context.agenda.at(next - end < 0 ? next : end, this::tick);
    }

    /** Where it is by now, told for those who watch the reading. */
    @Override
    public void progress() {
        if (ramp != null && glide != null) {
            context.orders.assumed(ramp.passing(glide.at(context.now())));
        }
    }

    private void finish(long due, @Nullable String fault) {
        letGo();
        frame.done(due, fault);
    }

    private void letGo() {
        if (timer != null) {
            timer.cancel();
        }
        if (key != null) {
            context.orders.letGo(key, this);
        }
        if (rendered && glide != null) {
            context.orders.halt(this, glide);
        }
    }

    /** Something else moves the reading now: this one's step is done. */
    void yielded() {
        letGo();
        if (!frame.stopped()) {
            frame.done(context.now(), null);
        }
    }

    @Override
    public void stop() {
        letGo();
        if (rendered) {
            progress();
        }
    }
}
