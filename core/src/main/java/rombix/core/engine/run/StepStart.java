package rombix.core.engine.run;

import java.time.Duration;
import java.time.ZonedDateTime;
import java.util.HashMap;
import java.util.Map;
import rombix.core.chain.DeckStep;
import rombix.core.engine.op.Op;
import rombix.core.engine.op.Scope;
import rombix.core.engine.op.Times;
import rombix.core.event.Happening;
import rombix.core.time.Agenda;
import rombix.core.value.FormulaFault;
import rombix.core.value.Value;

/** Starts each kind of step. Whatever it is, it ends by telling its frame when it was due to end. */
public final class StepStart {
    private StepStart() {
    }

    static void start(SeqFrame frame, Op.Item item, long due) {
        RunContext context = frame.run.context;
        try {
            switch (Times.now(item, f -> context.situation.value(new Op.Input(null, f), frame.scope))) {
                case Op.Do d -> context.orders.perform(frame, d, due);
                case Op.Wait w -> {
                    long more = w.mostNanos() > w.nanos() ? context.chance.nextLong(w.mostNanos() - w.nanos() + 1) : 0;
                    until(frame, due + w.nanos() + more);
                    lasts(frame, item, due, w.nanos() + more);
                }
                case Op.WaitClock w -> {
                    long nanos = untilClock(context.clock.wall(), w);
                    until(frame, due + nanos);
                    context.telling.tell(new Happening.Lasts(frame.run.id, frame.run.buttonId(), due, nanos));
                }
                case Op.WaitUntil w -> context.watches.watch(frame, w.check().names(), w.timeoutNanos(), due,
                        () -> context.situation.now(w.check(), frame.scope),
                        late -> frame.done(late, frame.faulted("what it waited for didn't happen in time")),
                        () -> {
                        });
                case Op.Together t -> new TogetherFrame(frame, t).start(due);
                case Op.Pick p -> one(frame, p.chains.length == 0
                        ? Op.Seq.NOTHING
                        : p.chains[context.picker.pick(p, frame.run, frame.place())], frame.scope, due);
                case Op.If i -> {
                    boolean holds = context.situation.holds(i.check(), frame.scope);
                    context.telling.tell(
                            new Happening.Picked(frame.run.id, frame.place(), holds ? 0 : 1, holds ? "then" : "else"));
                    one(frame, holds ? i.then() : i.otherwise(), frame.scope, due);
                }
                case Op.Repeat r -> new RepeatFrame(frame, r).start(due);
                case Op.Fade f -> new FadeFrame(frame, f).start(due);
                case Op.ForAWhile w -> new ForAWhileFrame(frame, w).start(due);
                case Op.Nudge n -> context.orders.nudge(frame, n, due);
                case Op.Ask a -> new AskFrame(frame, a).start(due);
                case Op.Use u -> {
                    Op.Seq chain = context.runs.chainOf(u);
                    Map<String, Value> args = new HashMap<>();
                    for (Map.Entry<String, Op.Input> e : u.args().entrySet()) {
                        args.put(e.getKey(), context.situation.value(e.getValue(), frame.scope));
                    }
                    SeqFrame child = frame.child((_, end) -> frame.done(end, null), chain, frame.scope.with(args));
                    child.within(frame.place(), u);
                    frame.doing(child::stop);
                    child.start(due);
                }
                case Op.Set s -> {
                    context.set(frame.scope, s.value(), context.situation.value(s.to(), frame.scope));
                    frame.done(due, null);
                }
                case Op.Go g -> {
                    context.go(g.list(), context.situation.value(g.to(), frame.scope));
                    frame.done(due, null);
                }
                case Op.Show s -> {
                    context.show(frame.run, s.step());
                    frame.done(due, null);
                }
                case Op.Written w -> {
                    String text = context.filled(w.step().text(), frame.scope);
                    context.telling.tell(switch (w.step()) {
                        case DeckStep.Say _ -> new Happening.Said(frame.run.buttonId(), text);
                        case DeckStep.Note _ -> new Happening.Noted(frame.run.id, frame.run.buttonId(), frame.place(),
                                text, due);
                    });
                    frame.done(due, null);
                }
                case Op.Stop s -> {
                    context.stop(frame.run, s.step());
                    frame.done(due, null);
                }
                case Op.Broken b -> frame.done(due, frame.faulted(b.why()));
            }
        } catch (FormulaFault e) {
            frame.done(due, frame.faulted(at(e) + e.getMessage()));
        } catch (IllegalArgumentException e) {
            frame.done(due, frame.faulted(String.valueOf(e.getMessage())));
        }
    }

    private static String at(FormulaFault e) {
        return e.position() > 0 ? "formula, character " + e.position() + ": " : "";
    }

    /** How long until the clock next shows a time; a time that a change to summer time leaves out comes an hour later. */
    public static long untilClock(ZonedDateTime now, Op.WaitClock wait) {
        ZonedDateTime next = now.with(wait.time());
        if (!next.isAfter(now)) {
            next = now.toLocalDate().plusDays(1).atTime(wait.time()).atZone(now.getZone());
        }
        return Duration.between(now, next).toNanos();
    }

    /** Tells how long a wait is that was not known beforehand. */
    private static void lasts(SeqFrame frame, Op.Item item, long due, long nanos) {
        if (!item.times().isEmpty()) {
            frame.run.context.telling.tell(new Happening.Lasts(frame.run.id, frame.run.buttonId(), due, nanos));
        }
    }

    private static void until(SeqFrame frame, long end) {
        Agenda.Entry entry = frame.run.context.agenda.at(end, at -> frame.done(at, null));
        frame.doing(entry::cancel);
    }

    /** Runs one chain in the step's place. */
    static void one(SeqFrame frame, Op.Seq chain, Scope scope, long due) {
        SeqFrame child = frame.child((_, end) -> frame.done(end, null), chain, scope);
        frame.doing(child::stop);
        child.start(due);
    }
}
