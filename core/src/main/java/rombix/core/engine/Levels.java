package rombix.core.engine;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Control.Axis;
import rombix.core.board.Control;
import rombix.core.card.Card;
import rombix.core.engine.run.ButtonPlay;
import rombix.core.engine.run.Orders;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.thread.OwnedBy;
import rombix.core.time.Agenda;
import rombix.core.twin.Order;
import rombix.core.twin.Ramp;
import rombix.core.twin.Scale;
import rombix.core.twin.Twin;
import rombix.core.value.Value;

/**
 * Levels under a hand: dials, faders and pads. Owned by the conductor's thread. However often a hand or a controller
 * moves, a level goes out at the rate of its gear's protocol at most, and always to where it was moved last; when it
 * has come to rest, one line is told for the whole ride.
 */
@OwnedBy(Owner.CONDUCTOR)
final class Levels {
    private static final long REST_NANOS = 500_000_000L;
    private static final int FINER = 10;

    private final Deck deck;
    private final Map<Key, Ride> rides = new HashMap<>();

    private record Key(String button, int axis) {
    }

    /** A level, where it was moved to last, and when it may be sent again. */
    private final class Ride {
        private final ButtonPlay b;
        private final Scale scale;
        private final Ramp ramp;
        private final Orders.@Nullable Key key;
        private final boolean reported;
        private final long periodNanos;
        private double target = Double.NaN;
        private boolean sentYet;
        private long nextNanos;
        private String source = "";
        private Agenda.@Nullable Entry owed;
        private Agenda.@Nullable Entry rest;

        Ride(ButtonPlay b, Twin twin, Twin.Call call, Card.Param param, Scale scale) {
            this.b = b;
            this.scale = scale;
            this.ramp = twin.ramp(call.command(), param, call.args(), deck.situation.readingsOf(twin.gear()));
            String reading = ramp.moves();
            this.key = reading == null ? null : new Orders.Key(twin.gear(), reading);
            this.reported = reading != null && twin.reports(reading);
            this.periodNanos = 1_000_000_000L / twin.protocol().descriptor().rate();
        }

        private void to(double value, long at, String by) {
            target = Math.clamp(value, scale.min(), scale.max());
            source = by;
            if (!sentYet || at - nextNanos >= 0) {
                send(at);
            } else if (owed == null) {
                owed = deck.agenda.at(nextNanos, this::send);
            }
            Agenda.cancel(rest);
            rest = deck.agenda.at(at + REST_NANOS, this::rest);
        }

        private void send(long at) {
            Agenda.cancel(owed);
            owed = null;
            sentYet = true;
            nextNanos = at + periodNanos;
            Order order = ramp.passing(target);
            String refusal = deck.orders.pass(order);
            if (refusal == null) {
                deck.telling.clearFault(b);
            } else if (!b.faulted) {
                deck.telling.moved(b, ramp.at(target), source, at, refusal);
                deck.telling.fault(b, order.gear(), refusal);
            }
        }

        private void rest(long at) {
            if (!b.faulted) {
                deck.telling.moved(b, ramp.at(target), source, at - REST_NANOS, null);
            }
            target = Double.NaN;
        }

        /**
         * Where it is, or is going; not a number where that is not known. Gear that never says where a level is starts
         * from the low end, as a fader does.
         */
        private double presently() {
            Value now = key == null ? null : deck.orders.presently(key);
            double unknown = reported ? Double.NaN : scale.min();
            return Double.isNaN(target) ? now == null ? unknown : now.asNumber() : target;
        }
    }

    Levels(Deck deck) {
        this.deck = deck;
    }

    /** What was known of the board is no longer so. A ride goes on with what comes next. */
    void forget() {
        rides.values().forEach(r -> {
            Agenda.cancel(r.owed);
            Agenda.cancel(r.rest);
        });
        rides.clear();
    }

    /** A level is moved to a value, in its unit. */
    void move(ButtonPlay b, int axis, double value, long at, String source) {
        Ride ride = ride(b, axis);
        if (ride != null && !Double.isNaN(value)) {
            ride.to(value, at, source);
        }
    }

    /** A dial without a chain for it, or what is else on an encoder, is turned: its level moves. */
    void turn(ButtonPlay b, int detents, boolean fine, long at, String source) {
        Ride ride = ride(b, 0);
        if (ride == null) {
            return;
        }
        Control.Dial dial = b.button.control() instanceof Control.Dial d ? d : new Control.Dial(null, 0, 0);
        double from = ride.presently();
        if (Double.isNaN(from)) {
            deck.telling.fault(b, null, "its present level is unknown, so it can't be turned");
            return;
        }
        double coarse = dial.coarse() > 0 ? dial.coarse() : ride.scale.detent();
        double by = !fine ? coarse : dial.fine() > 0 ? dial.fine() : coarse / FINER;
        ride.to(Math.rint((from + detents * by) * 1e9) / 1e9, at, source);
    }

    /** A hold has ended: what springs goes back to the middle. */
    void letGo(ButtonPlay b, long at, String source) {
        if (b.button.control() instanceof Control.Pad pad && pad.springs()) {
            for (int i = 0; i < pad.axes().size(); i++) {
                Ride ride = ride(b, i);
                if (ride != null) {
                    ride.to((ride.scale.min() + ride.scale.max()) / 2, at, source);
                }
            }
        }
    }

    private @Nullable Ride ride(ButtonPlay b, int axis) {
        return rides.computeIfAbsent(new Key(b.button.id(), axis), _ -> made(b, axis));
    }

    private @Nullable Ride made(ButtonPlay b, int axis) {
        Control control = b.button.control();
        List<Axis> axes = control == null ? List.of() : control.axes();
        Axis level = axis < axes.size() ? axes.get(axis) : null;
        Twin twin = level == null ? null : deck.situation.twin(level.gear());
        Scale scale = twin == null || level == null ? null : Scale.of(twin, level.reading()).orElse(null);
        if (twin == null || level == null || scale == null) {
            return null;
        }
        Twin.Call call = twin.toReach(level.reading(), Value.of(scale.min())).orElseThrow();
        return new Ride(b, twin, call, call.command().param(String.valueOf(call.moving())).orElseThrow(), scale);
    }
}
