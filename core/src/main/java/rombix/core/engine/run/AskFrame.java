package rombix.core.engine.run;

import org.jspecify.annotations.Nullable;
import rombix.core.chain.DeckStep;
import rombix.core.engine.op.Op;
import rombix.core.event.Happening;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.time.Agenda;
import rombix.core.value.FormulaFault;
import rombix.core.value.Value;

/** A question on the context. Answered once: by a person, or by its time-out with the usual answer. */
@OwnedBy(Owner.CONDUCTOR)
final class AskFrame implements Run.Activity {
    private final SeqFrame frame;
    private final Op.Ask op;
    private long id;
    private long asked;
    private boolean answered;
    private Agenda.@Nullable Entry timer;

    AskFrame(SeqFrame frame, Op.Ask op) {
        this.frame = frame;
        this.op = op;
    }

    void start(long due) {
        DeckStep.Ask step = op.step();
        frame.doing(this);
        asked = due;
        RunContext context = frame.run.context;
        id = context.runs.asked(this, question -> new Happening.Asked(question, frame.run.id, frame.run.buttonId(),
                context.filled(step.question(), frame.scope), step.kind(), op.options(), step.preset(),
                step.timeout() == null ? -1 : step.timeout(), due));
        if (step.timeout() != null) {
            timer = context.agenda.at(due + step.timeout() * 1_000_000L, at -> timedOut(step.preset(), at));
        }
    }

    /** Nobody has answered in time: takes the default answer. */
    private void timedOut(@Nullable Value preset, long due) {
        if (preset != null && fits(preset)) {
            answer(preset, due);
        } else {
            close();
            frame.done(due, frame.faulted("no answer to “" + op.step().question() + "”"));
        }
    }

    /** Takes an answer; with what is no answer the question goes on waiting. */
    void answer(Value answer, long due) {
        if (answered || !fits(answer)) {
            return;
        }
        close();
        RunContext context = frame.run.context;
        context.telling.tell(
                new Happening.Answered(frame.run.id, frame.run.buttonId(), frame.place(), "", "“%s”: %s".formatted(op
                        .step().question(), spoken(answer)), asked, due));
        Value given = op.step().kind() == DeckStep.Ask.AnswerType.NUMBER ? Value.of(answer.asNumber()) : answer;
        String fault = null;
        if (op.step().into() != null) {
            try {
                context.set(frame.scope, op.step().into(), given);
            } catch (FormulaFault e) {
                fault = frame.faulted(String.valueOf(e.getMessage()));
            }
        }
        if (fault != null) {
            frame.done(due, fault);
        } else {
            int choice = op.step().kind() == DeckStep.Ask.AnswerType.CHOICE ? index(answer) : -1;
            StepStart.one(frame, choice >= 0 ? op.chains()[choice] : Op.Seq.NOTHING, frame.scope.with("answer", given),
                    due);
        }
    }

    private String spoken(Value answer) {
        int choice = op.step().kind() == DeckStep.Ask.AnswerType.CHOICE ? index(answer) : -1;
        if (op.step().kind() == DeckStep.Ask.AnswerType.SECRET) {
            return "given";
        }
        return choice >= 0 ? op.options().get(choice) : answer.toString();
    }

    private boolean fits(Value answer) {
        return switch (op.step().kind()) {
            case CHOICE -> index(answer) >= 0 && index(answer) < op.chains().length;
            case NUMBER -> !Double.isNaN(answer.asNumber());
            case TEXT, SECRET -> true;
        };
    }

    /** A choice by its place or by its name. */
    private int index(Value answer) {
        int named = op.options().indexOf(answer.toString());
        return named >= 0 ? named : Double.isNaN(answer.asNumber()) ? -1 : (int) answer.asNumber();
    }

    private void close() {
        answered = true;
        if (timer != null) {
            timer.cancel();
        }
        frame.run.context.runs.closed(id);
    }

    @Override
    public void stop() {
        if (!answered) {
            close();
        }
    }
}
