package rombix.core.engine.run;

import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import rombix.core.board.Question;
import rombix.core.chain.StepOptions;
import rombix.core.engine.op.Op;
import rombix.core.engine.op.Scope;
import rombix.core.event.Happening;
import rombix.core.event.Trouble;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.time.Agenda;
import rombix.core.value.FormulaFault;

/**
 * One chain on its way through its steps. Each step tells when it was due to end, so lateness never adds up; steps that
 * end at once are looped over, not recursed into. Owned by the conductor's thread.
 */
@OwnedBy(Owner.CONDUCTOR)
final class SeqFrame {
    /** How deep chains may use each other before they are taken to do so without end. */
    private static final int DEEPEST = 3000;

    private static final Logger LOG = LoggerFactory.getLogger(SeqFrame.class);
    private static final int LONGEST_PREFIX = 200;

    final Run run;
    final Scope scope;
    private final Run.@Nullable Parent parent;
    private final Op.Seq chain;
    private final int depth;
    private Op.Item[] items;
    private int index;
    private int attempt;
    private boolean going;
    private boolean goOn;
    private boolean stopped;
    private boolean inAlways;
    private long dueNanos;
    private Run.@Nullable Activity activity;
    private String prefix = "";
    /** The innermost for-a-while step that this chain is within. */
    @Nullable
    ForAWhileFrame within;

    SeqFrame(Run run, Run.@Nullable Parent parent, Op.Seq chain, Scope scope) {
        this(run, parent, chain, scope, 0);
    }

    private SeqFrame(Run run, Run.@Nullable Parent parent, Op.Seq chain, Scope scope, int depth) {
        this.run = run;
        this.parent = parent;
        this.chain = chain;
        this.scope = scope;
        this.depth = depth;
        this.items = chain.items();
    }

    /** A frame for a chain within this one. */
    SeqFrame child(Run.Parent parentOf, Op.Seq inner, Scope innerScope) {
        SeqFrame child = new SeqFrame(run, parentOf, inner, innerScope, depth + 1);
        child.within = within;
        child.prefix = prefix;
        return child;
    }

    /** Says that this is a chain from elsewhere, used by a step, so that its places can be told from the user's. */
    void within(String place, Op.Use use) {
        if (prefix.length() < LONGEST_PREFIX) {
            prefix = place + " > " + (use.chain() == null ? use.button() : use.chain()) + "/";
        }
    }

    void start(long due) {
        if (depth > DEEPEST) {
            faulted("was stopped, as chains use each other endlessly");
            run.stop(Happening.End.FAILED);
            return;
        }
        go(due);
    }

    private void go(long due) {
        dueNanos = due;
        goOn = true;
        if (going) {
            return;
        }
        going = true;
        while (goOn && !stopped && index < items.length) {
            goOn = false;
            if (run.spend(dueNanos)) {
                safely(() -> begin(items[index]));
            } else {
                faulted("ran " + Run.BUDGET + " steps without a wait and was stopped");
                run.stop(Happening.End.FAILED);
            }
        }
        going = false;
        if (goOn && !stopped) {
            ended();
        }
    }

    /** What a step throws is a fault of that step, and the chain ends or goes on as its rule says. */
    private void safely(Runnable step) {
        int at = index;
        run.context.at(run, at < items.length ? items[at].place() : "");
        try {
            step.run();
        } catch (RuntimeException e) {
            LOG.error("the step {} of {} threw", place(), run.buttonId(), e);
            if (at == index) {
                done(dueNanos, faulted(Trouble.words(e)));
            }
        } catch (StackOverflowError | OutOfMemoryError e) {
            faulted(Trouble.words(e));
            run.stop(Happening.End.FAILED);
        }
    }

    private void begin(Op.Item item) {
        Question condition = item.condition();
        run.context.trace.began(run.id, place(), dueNanos);
        try {
            if (condition != null && !run.context.situation.holds(condition, scope)) {
                done(dueNanos, null);
                return;
            }
        } catch (FormulaFault e) {
            done(dueNanos, faulted("its condition: " + e.getMessage()));
            return;
        }
        StepStart.start(this, item, dueNanos);
    }

    String place() {
        String here = index < items.length ? items[index].place() : "";
        return prefix.isEmpty() ? here : prefix + here;
    }

    StepOptions options() {
        return index < items.length ? items[index].how() : StepOptions.PLAIN;
    }

    /** What goes on now, so that it can be stopped. */
    void doing(Run.@Nullable Activity now) {
        activity = now;
        if (now != null) {
            run.context.telling.tell(new Happening.AtStep(run.id, place()));
        }
    }

    boolean stopped() {
        return stopped;
    }

    /**
     * The present step has ended.
     *
     * @param due when it was due to
     * @param fault why it failed, already told; null when it did not
     */
    void done(long due, @Nullable String fault) {
        if (stopped) {
            return;
        }
        activity = null;
        Op.Item item = items[index];
        if (fault == null && attempt > 0) {
            run.context.telling.recovered(run, attempt);
        }
        if (fault != null) {
            switch (item.how().fail()) {
                case GO_ON -> {
                }
                case STOP -> {
                    run.context.trace.ended(run.id, place(), due, true);
                    run.stop(Happening.End.FAILED);
                    return;
                }
                case RETRY -> {
                    if (attempt < item.how().tries()) {
                        long wait = item.how().backOff() * 1_000_000L << Math.min(attempt++, 20);
                        Agenda.Entry again = run.context.agenda.at(due + wait, at -> {
                            dueNanos = at;
                            safely(() -> StepStart.start(this, item, at));
                        });
                        activity = again::cancel;
                        return;
                    }
                    if (instead(item, due)) {
                        return;
                    }
                }
                case INSTEAD -> {
                    if (instead(item, due)) {
                        return;
                    }
                }
            }
        }
        next(due, fault != null);
    }

    /** Runs what is to run in place of a step that failed; whether there is anything. */
    private boolean instead(Op.Item item, long due) {
        Op.Seq instead = item.instead();
        if (instead != null) {
            attempt = 0;
            SeqFrame other = child((_, end) -> next(end, false), instead, scope);
            activity = other::stop;
            other.start(due);
        }
        return instead != null;
    }

    /** The present step, which commands no gear, could not be done, and why; gives the reason back. */
    String faulted(String why) {
        return run.context.telling.faulted(run, place(), scope.shown(), why);
    }

    private void next(long due, boolean failed) {
        if (stopped) {
            return;
        }
        run.context.trace.ended(run.id, place(), due, failed);
        activity = null;
        attempt = 0;
        index++;
        go(due);
    }

    private void ended() {
        if (!inAlways && chain.always().length > 0) {
            inAlways = true;
            items = chain.always();
            index = 0;
            go(dueNanos);
            return;
        }
        stopped = true;
        if (parent != null) {
            parent.childEnded(this, dueNanos);
        } else {
            run.ended(dueNanos);
        }
    }

    /** Stops what goes on, innermost first, and runs the always part if it has not begun. */
    void stop() {
        if (stopped) {
            return;
        }
        stopped = true;
        Run.Activity now = activity;
        activity = null;
        if (now != null) {
            now.stop();
        }
        if (!inAlways && chain.always().length > 0) {
            run.context.runs.detached(run, new Op.Seq(chain.always(), new Op.Item[0], 0), scope);
        }
    }
}
