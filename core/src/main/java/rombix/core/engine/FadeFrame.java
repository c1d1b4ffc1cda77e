package rombix.core.engine;

import org.jspecify.annotations.Nullable;
import rombix.core.card.Order;
import rombix.core.card.Ramp;
import rombix.core.value.FormulaFault;
import rombix.core.value.Value;

/**
 * A level on its way. It is sent at the rate of its gear's protocol, each time where it should be by then, and at the
 * end exactly on the target. A later fade of the same reading takes over from an earlier one.
 */
final class FadeFrame implements Run.Activity {
    private final SeqFrame frame;
    private final Op.Fade op;
    private double from;
    private double to;
    private long startNanos;
    private long tick;
    private long periodNanos;
    private @Nullable Ramp ramp;
    private Orders.@Nullable Key key;
    private Agenda.@Nullable Entry timer;

    FadeFrame(SeqFrame frame, Op.Fade op) {
        this.frame = frame;
        this.op = op;
    }

    void start(long due) throws FormulaFault {
        Deck deck = frame.run.deck;
        startNanos = due;
        to = deck.situation.value(op.to(), frame.scope).asNumber();
        Orders.Ramped ramped = deck.orders.ramp(frame, op.command(), op.param());
        ramp = ramped.ramp();
        key = ramped.key();
        Value now = op.from() != null
                ? deck.situation.value(op.from(), frame.scope)
                : key == null ? null : deck.situation.reading(key.gear(), key.reading());
        if (now == null || Double.isNaN(now.asNumber()) || Double.isNaN(to)) {
            from = to; // Where it is now is not known: it can only go there at once.
        } else {
            from = now.asNumber();
        }
        periodNanos = 1_000_000_000L / op.command().twin.protocol().rate();
        frame.doing(this);
        if (key != null) {
            deck.orders.takeOver(key, this);
        }
        boolean instant = op.nanos() == 0 || from == to;
        String fault = send(due, instant ? to : from, true);
        if (fault != null || instant) {
            finish(instant ? due + op.nanos() : due, fault);
        } else {
            timer = deck.agenda.at(due + periodNanos, this::tick);
        }
    }

    private void tick(long due) {
        tick++;
        long gone = due - startNanos;
        if (gone >= op.nanos()) {
            finish(startNanos + op.nanos(), send(startNanos + op.nanos(), to, true));
            return;
        }
        send(due, at((double) gone / op.nanos()), false);
        long next = Math.min(startNanos + (tick + 1) * periodNanos, startNanos + op.nanos());
        timer = frame.run.deck.agenda.at(next, this::tick);
    }

    private double at(double t) {
        return switch (op.curve()) {
            case LINEAR -> from + (to - from) * t;
            case S_CURVE -> from + (to - from) * t * t * (3 - 2 * t);
            case EQUAL_POWER -> from + (to - from)
                    * (to > from ? Math.sin(t * Math.PI / 2) : 1 - Math.cos(t * Math.PI / 2));
            case DECIBEL -> from > 0 && to > 0 ? from * Math.pow(to / from, t) : from + (to - from) * t;
        };
    }

    private @Nullable String send(long due, double value, boolean logged) {
        Order order = ramp == null ? null : logged ? ramp.at(value) : ramp.passing(value);
        return order == null ? null : frame.run.deck.orders.send(this, frame, order, due, logged);
    }

    private void finish(long due, @Nullable String fault) {
        if (key != null) {
            frame.run.deck.orders.letGo(key, this);
        }
        frame.done(due, fault);
    }

    /** A later fade has taken over: this one's step is done. */
    void yielded() {
        if (timer != null) {
            timer.cancel();
        }
        if (!frame.stopped()) {
            frame.done(frame.run.deck.now(), null);
        }
    }

    @Override
    public void stop() {
        if (timer != null) {
            timer.cancel();
        }
        if (key != null) {
            frame.run.deck.orders.letGo(key, this);
        }
    }

}
