package rombix.app.view.step;

import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;
import javafx.scene.Node;
import javafx.scene.control.Button;
import rombix.app.view.common.Desk;
import rombix.app.view.form.Fields;
import rombix.core.board.Paths;
import rombix.core.chain.Chain;
import rombix.core.chain.StepOptions;
import rombix.core.chain.StepOptions.Fail;

/** How a step is run: whether it is on, when, what happens if it fails, and a note. */
public final class StepOptionsForm {
    private final Desk desk;
    private final List<Integer> path;
    private final Runnable anew;

    StepOptionsForm(Desk desk, List<Integer> path, Runnable anew) {
        this.desk = desk;
        this.path = path;
        this.anew = anew;
    }

    /** A one-line summary of options that aren't default; empty if all are. */
    public static String summary(StepOptions how) {
        List<String> parts = new ArrayList<>();
        if (how.condition() != null) {
            parts.add("has a condition");
        }
        switch (how.fail()) {
            case GO_ON -> {
            }
            case STOP -> parts.add("stops the chain if it fails");
            case RETRY -> parts.add("is tried again if it fails");
            case INSTEAD -> parts.add("has another chain if it fails");
        }
        if (how.note() != null) {
            parts.add("has a note");
        }
        return String.join(", ", parts);
    }

    private void edit(UnaryOperator<StepOptions> change) {
        desk.bench().editChain("change the options of a step",
                c -> Paths.changed(c, path, s -> s.withHow(change.apply(s.how()))));
    }

    List<Node> of(StepOptions how) {
        List<Node> nodes = new ArrayList<>();
        nodes.add(Fields.named("Only if", new ConditionField(desk, "manner-test", how.condition(), "always",
                test -> edit(m -> m.withCondition(test)))));
        nodes.add(Fields.named("If it fails", Fields.choice("manner-fail", List.of(Fail.values()), how.fail(),
                f -> switch (f) {
                    case GO_ON -> "show the fault and continue";
                    case STOP -> "stop the chain";
                    case RETRY -> "try again";
                    case INSTEAD -> "run another chain";
                }, f -> {
                    edit(m -> m.withFail(f).withTries(0).withBackOff(0).withInstead(f == Fail.INSTEAD
                            ? m.instead() == null ? Chain.EMPTY : m.instead()
                            : null));
                    anew.run();
                })));
        if (how.fail() == Fail.RETRY) {
            nodes.add(Fields.row(
                    Fields.named("Number of tries", Fields.number("manner-tries", how.tries(), null,
                            n -> edit(m -> m.withTries(Math.max(1, (int) Math.round(n)))))),
                    Fields.named("First retry after", Fields.span("manner-back-off", how.backOff(),
                            ms -> edit(m -> m.withBackOff(ms))))));
            nodes.add(Fields.help("The time doubles with each retry."));
        }
        if (how.fail() == Fail.INSTEAD) {
            int steps = how.instead() == null ? 0 : how.instead().steps().size();
            Button into = Fields.plain(steps == 0 ? "Add steps" : steps + " steps, add more", "");
            into.setId("into-instead");
            into.setOnAction(_ -> {
                desk.overlay().close();
                desk.bench().cursor(Paths.within(path, Paths.INSTEAD, steps));
            });
            nodes.add(into);
        }
        nodes.add(Fields.named("Note", Fields.text("manner-note", how.note() == null ? "" : how.note(),
                text -> edit(
                        m -> m.withNote(text.isBlank() ? null : text)))));
        return nodes;
    }
}
