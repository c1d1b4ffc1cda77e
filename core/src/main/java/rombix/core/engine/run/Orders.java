package rombix.core.engine.run;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import rombix.core.card.Card.Param;
import rombix.core.chain.StepOptions;
import rombix.core.engine.op.Op;
import rombix.core.engine.op.Scope;
import rombix.core.event.AsRun;
import rombix.core.event.Event;
import rombix.core.event.Gears;
import rombix.core.event.Glide;
import rombix.core.event.Happening;
import rombix.core.event.Status;
import rombix.core.event.Trouble;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.twin.Order;
import rombix.core.twin.Ramp;
import rombix.core.twin.Twin;
import rombix.core.twin.WireSteps;
import rombix.core.value.FormulaFault;
import rombix.core.value.Value;

/**
 * What goes out to the gear, and what becomes of it. Owned by the conductor's thread. Of each reading at most one fade
 * is on its way; whatever else sets that reading takes over from it.
 */
@OwnedBy(Owner.CONDUCTOR)
public final class Orders {
    private static final Logger LOG = LoggerFactory.getLogger(Orders.class);

    /** A reading of a gear. */
    public record Key(String gear, String reading) {
    }

    /** A command that moves, and the reading that its movement shows in. */
    record Ramped(Ramp ramp, @Nullable Key key) {
    }

    private record Pending(@Nullable Run run, @Nullable SeqFrame frame, String place, Order order, long dueNanos,
            long answerNanos) {
    }

    private final RunContext context;
    private final Gears gears;
    private final Map<Long, Pending> pending = new HashMap<>();
    private final Map<Key, FadeFrame> fading = new HashMap<>();
    private final Echoes echoes = new Echoes();
    private final Glides glides;
    private final Set<ForAWhileFrame> holding = new LinkedHashSet<>();
    private long lastTicket = Gears.NO_ANSWER;

    Orders(RunContext context, Gears gears) {
        this.context = context;
        this.gears = gears;
        this.glides = new Glides(context.agenda);
    }

    public void stop() {
        gears.stop();
    }

    public boolean idle() {
        return pending.isEmpty();
    }

    /** Does a command as a step; the step goes on at once, or waits as its manner says. */
    void perform(SeqFrame frame, Op.Do d, long due) throws FormulaFault {
        go(frame, orderOf(d, frame.scope), due, d.answerNanos);
    }

    private void go(SeqFrame frame, Order order, long due, long answerNanos) {
        boolean waits = answerNanos >= 0 || order.waits() || frame.options().fail() != StepOptions.Fail.GO_ON;
        String fault = send(frame.run, frame, frame.place(), order, due, waits ? answerNanos : Long.MIN_VALUE,
                null);
        if (fault != null || !waits) {
            frame.done(due, fault);
        } else {
            long ticket = lastTicket;
            if (order.going() != null && order.going().millis() > 0) {
                context.telling.tell(new Happening.Lasts(frame.run.id, frame.run.buttonId(), context.clock.nanos(), Math
                        .round(order.going().millis() * 1e6)));
            }
            frame.doing(() -> gears.cancel(ticket, order));
        }
    }

    /** Sends what was told by hand. */
    public void tell(Twin twin, Op.Do op, long due) {
        try {
            send(null, null, "", orderOf(op, Scope.of("")), due, Long.MIN_VALUE, null);
        } catch (IllegalArgumentException | FormulaFault e) {
            failed(null, "", new Order(twin.gear(), op.command, Map.of(), op.command.id(), java.util.List.of(),
                    Map.of(), Set.of()), due, context.clock.nanos(), String.valueOf(e.getMessage()));
        }
    }

    /** Makes a command's order out beforehand, as far as it is constant and the gear has listed what it names. */
    public void prepare(Op.Do op) {
        if (op.constant) {
            try {
                orderOf(op, Scope.of(""));
            } catch (IllegalArgumentException | FormulaFault e) {
                // It is made out, or fails in plain words, when it is run.
            }
        }
    }

    private Order orderOf(Op.Do op, Scope scope) throws FormulaFault {
        String gear = op.twin.gear();
        if (!op.constant) {
            return op.twin.order(op.command, values(op, scope), context.situation.readingsOf(gear));
        }
        long listing = context.situation.listing(gear);
        Order order = op.order;
        if (order == null || op.orderOf != listing) {
            order = op.twin.order(op.command, values(op, scope), context.situation.readingsOf(gear));
            op.order = order;
            op.orderOf = listing;
        }
        return order;
    }

    private Map<String, Value> values(Op.Do op, Scope scope) throws FormulaFault {
        Map<String, Value> args = new LinkedHashMap<>();
        for (Map.Entry<String, Op.Input> e : op.args.entrySet()) {
            args.put(e.getKey(), context.situation.value(e.getValue(), scope));
        }
        return args;
    }

    /** A command whose one parameter is going to move. */
    Ramped ramp(SeqFrame frame, Op.Do op, Param param) throws FormulaFault {
        String gear = op.twin.gear();
        Ramp ramp = op.twin.ramp(op.command, param, values(op, frame.scope), context.situation.readingsOf(gear));
        String reading = ramp.moves();
        return new Ramped(ramp, reading == null ? null : new Key(gear, reading));
    }

    /** Sends the first or the last order of a fade; its step does not wait. Says what keeps it from going out. */
    @Nullable
    String send(FadeFrame fade, SeqFrame frame, Order order, long due) {
        return send(frame.run, frame, frame.place(), order, due, Long.MIN_VALUE, fade);
    }

    /** Sends one of the many orders of a fade on its way. */
    public void pass(FadeFrame fade, Order order) {
        if (refusal(order) == null) {
            hand(Gears.NO_ANSWER, order, fade);
            assumed(order);
        }
    }

    /** Sends one of the many orders of a level under a hand. Says what keeps it from going out. */
    @Nullable
    public String pass(Order order) {
        String refusal = refusal(order);
        if (refusal == null) {
            hand(Gears.NO_ANSWER, order, null);
            assumed(order);
        }
        return refusal;
    }

    /** Has the gear's link render a fade; false where it does not, and the fade is to be sent step by step. */
    boolean glide(FadeFrame fade, Glide glide) {
        boolean taken = gears.glide(glide);
        if (taken) {
            glides.add(fade, context.now());
        }
        return taken;
    }

    /** A fade that the link renders stays where it is. */
    void halt(FadeFrame fade, Glide glide) {
        if (glides.remove(fade)) {
            gears.halt(glide);
        }
    }

    /**
     * @param answerNanos how long the frame waits for the gear to show the change; negative when it waits only to learn
     *            that it was sent; least of all when it does not wait
     * @return why it could not be sent, already told
     */
    private @Nullable String send(@Nullable Run run, @Nullable SeqFrame frame, String place, Order order, long due,
            long answerNanos, @Nullable FadeFrame by) {
        String refusal = refusal(order);
        if (refusal != null) {
            gears.refused(order, refusal);
            failed(run, place, order, due, context.clock.nanos(), refusal);
            return refusal;
        }
        for (ForAWhileFrame w = frame == null ? null : frame.within; w != null; w = w.within()) {
            w.about(order);
        }
        long ticket = ++lastTicket;
        pending.put(ticket, new Pending(run, answerNanos == Long.MIN_VALUE ? null : frame, place, order, due,
                answerNanos));
        context.stir();
        if (run != null) {
            run.awaited++;
            context.trace.sent(run.id, place, order, due);
        }
        hand(ticket, order, by);
        return null;
    }

    private void hand(long ticket, Order order, @Nullable FadeFrame by) {
        for (Map.Entry<String, Value> change : order.changes().entrySet()) {
            Key key = new Key(order.gear(), change.getKey());
            FadeFrame fade = fading.isEmpty() ? null : fading.get(key);
            if (fade != null && fade != by) {
                fading.remove(key);
                fade.yielded();
            }
            echoes.sent(key, change.getValue(), context.clock.nanos());
        }
        try {
            gears.send(ticket, order);
        } catch (RuntimeException | Error e) { // A link that throws has not sent it: its step is told so.
            LOG.error("the link of {} threw on “{}”", order.gear(), order.title(), e);
            if (ticket != Gears.NO_ANSWER) {
                context.take(
                        new Event.OrderDone(ticket, context.clock.nanos(), titled(order) + ": " + Trouble.words(e)),
                        context.now());
            }
        }
    }

    private @Nullable String refusal(Order order) {
        Status status = context.situation.status(order.gear());
        return status.sends()
                ? null
                : "%s: %s. %s".formatted(titled(order), status.words(), status.hint()).strip();
    }

    private String titled(Order order) {
        Twin twin = context.situation.twin(order.gear());
        return twin == null ? order.gear() : twin.title();
    }

    public void answered(Event.OrderDone a) {
        Pending p = pending.remove(a.ticket());
        if (p == null) {
            return;
        }
        answered(p, a);
        if (p.run() != null) {
            p.run().awaited--;
            context.runs.settle(p.run());
        }
    }

    private void answered(Pending p, Event.OrderDone a) {
        SeqFrame frame = p.frame();
        if (a.fault() != null) {
            failed(p.run(), p.place(), p.order(), p.dueNanos(), a.atNanos(), a.fault());
            if (frame != null) {
                frame.done(p.dueNanos(), a.fault());
            }
            return;
        }
        context.telling.ran(p.run(), p.place(), p.order(), p.dueNanos(), a.wiredNanos(), AsRun.Outcome.SENT, a
                .behind());
        assumed(p.order());
        if (frame != null && p.answerNanos() < 0) { // What takes its time ends when it ends, not when it was due to begin.
            frame.done(p.order().waits() ? Math.max(p.dueNanos(), a.atNanos()) : p.dueNanos(), null);
        } else if (frame != null && !frame.stopped()) {
            awaitAnswer(frame, p);
        }
    }

    private void awaitAnswer(SeqFrame frame, Pending p) {
        Order order = p.order();
        context.watches.watch(frame, order.changes().keySet().stream().map(r -> order.gear() + ":" + r).toList(),
                p.answerNanos(), p.dueNanos(), () -> shown(order), late -> {
                    String why = "“%s” was sent, but the gear didn't confirm it within %s".formatted(order.title(),
                            rombix.core.twin.Figures.span(p.answerNanos() / 1e6));
                    failed(p.run(), p.place(), order, p.dueNanos(), late, why);
                    frame.done(late, why);
                },
                () -> context.telling
                        .tell(new Happening.Answered(frame.run.id, frame.run.buttonId(), p.place(), order.gear(),
                                order.title(), p.dueNanos(), context.now())));
    }

    private boolean shown(Order order) {
        Twin twin = context.situation.twin(order.gear());
        return order.changes().entrySet().stream().allMatch(e -> {
            Value now = context.situation.reading(order.gear(), e.getKey());
            return now != null
                    && (e.getValue().matches(now) || twin != null && WireSteps.show(twin, order, e.getKey(), now));
        });
    }

    /** What a gear will never report is taken to be as sent. */
    void assumed(Order order) {
        for (String reading : order.assumed()) {
            Value value = order.changes().get(reading);
            if (value != null) {
                context.changed(order.gear(), reading, value, false);
            }
        }
    }

    private void failed(@Nullable Run run, String place, Order order, long due, long at, String message) {
        context.telling.ran(run, place, order, due, at, AsRun.Outcome.FAULT, message);
        context.telling.fault(run, order.gear(), message);
    }

    /** A gear has reported. */
    public void reported(Key key, Value value) {
        echoes.reported(key, value);
    }

    /** Up or down from where it is, or where it was just sent. */
    void nudge(SeqFrame frame, Op.Nudge n, long due) throws FormulaFault {
        Ramped ramped = ramp(frame, n.command(), n.param());
        Key key = ramped.key();
        Value now = key == null ? null : presently(key);
        double by = context.situation.value(n.by(), frame.scope).asNumber();
        if (now == null || Double.isNaN(now.asNumber()) || Double.isNaN(by)) {
            throw new FormulaFault(0,
                    "the present “%s” is unknown, so it can't be changed relatively".formatted(n.param()
                            .label()));
        }
        Param p = n.param();
        double to = Math.rint((now.asNumber() + by) * 1e9) / 1e9;
        if (n.wrap() && p.min() != null && p.max() != null) {
            to = to > p.max() ? p.min() : to < p.min() ? p.max() : to;
        }
        go(frame, ramped.ramp().at(to), due, -1);
    }

    /** Where a reading is, or where it was just sent. */
    @Nullable
    public Value presently(Key key) {
        Value lately = echoes.lately(key, context.clock.nanos());
        return lately != null ? lately : context.situation.reading(key.gear(), key.reading());
    }

    /** A fade begins to move a reading; one that moves it already gives way. */
    void takeOver(Key key, FadeFrame fade) {
        FadeFrame old = fading.put(key, fade);
        if (old != null && old != fade) {
            old.yielded();
        }
    }

    void letGo(Key key, FadeFrame fade) {
        fading.remove(key, fade);
    }

    /** What an earlier run of the same step still has to put back; that run's part is over. */
    Map<Key, Value> begin(ForAWhileFrame frame) {
        Map<Key, Value> before = new LinkedHashMap<>();
        for (ForAWhileFrame old : java.util.List.copyOf(holding)) {
            if (old.same(frame)) {
                before.putAll(old.giveUp());
            }
        }
        holding.add(frame);
        return before;
    }

    void end(ForAWhileFrame frame) {
        holding.remove(frame);
    }

    /** Puts readings back; what a later step still holds is handed to that step, which puts it back in its turn. */
    void putBack(Run run, String place, Map<Key, Value> before, long due) {
        before.forEach((key, value) -> {
            ForAWhileFrame later = holding.stream().filter(w -> w.remembers(key)).findFirst().orElse(null);
            if (later != null) {
                later.remember(key, value);
                return;
            }
            Twin twin = context.situation.twin(key.gear());
            Twin.Call call = twin == null ? null : twin.toReach(key.reading(), value).orElse(null);
            if (twin == null || call == null) {
                context.telling.faulted(run, place, Map.of(),
                        "“%s” can't be put back, as the card has no command for it".formatted(key
                                .reading()));
                return;
            }
            send(run, null, place, twin.order(call.command(), call.args(), context.situation.readingsOf(key.gear())),
                    due,
                    Long.MIN_VALUE, null);
        });
    }
}
