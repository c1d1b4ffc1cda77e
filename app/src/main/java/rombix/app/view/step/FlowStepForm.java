package rombix.app.view.step;

import java.util.ArrayList;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.form.Fields;
import rombix.core.board.Board;
import rombix.core.board.Paths;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.DeckStep;
import rombix.core.chain.Step;
import rombix.core.value.Value;

/** Form of steps that wait, ask, or contain chains. */
final class FlowStepForm extends StepFields {
    FlowStepForm(Desk desk, List<Integer> path, Runnable anew) {
        super(desk, path, anew);
    }

    List<Node> of(Step step) {
        switch (step) {
            case Step.Wait w -> waiting(w);
            case Step.Together t -> together(t);
            case Step.Pick p -> pick(p);
            case Step.If i ->
                add("Condition", new ConditionField(desk, "if-test", i.condition(), (String) null, test -> {
                    if (test != null) {
                        edit(Step.If.class, s -> s.withCondition(test));
                    }
                }));
            case Step.Repeat r -> repeat(r);
            case Step.ForAWhile f -> time("Put back after", "arg-ms", "ms", f.ms(), ms -> edit(
                    Step.ForAWhile.class, s -> s.withMs(ms)));
            case DeckStep.Ask a -> ask(a);
            default -> throw new IllegalArgumentException("no step of the flow: " + step);
        }
        return nodes;
    }

    private enum Waits {
        TIME("a time"), RANDOM("a random time between two"), CLOCK("until a time of day"), UNTIL(
                "until a condition is true");

        private final String words;

        Waits(String words) {
            this.words = words;
        }

        static Waits of(Step.Wait w) {
            return w.clock() != null ? CLOCK : w.condition() != null ? UNTIL : w.max() != null ? RANDOM : TIME;
        }

        Step.Wait step(Step.Wait was, Desk desk) {
            long ms = was.ms() == 0 ? 1000 : was.ms();
            return switch (this) {
                case TIME -> new Step.Wait(ms, null, null, null, null, was.how(), was.extra());
                case RANDOM -> new Step.Wait(ms, ms * 2, null, null, null, was.how(), was.extra());
                case CLOCK -> new Step.Wait(0, null, "21:00", null, null, was.how(), was.extra());
                case UNTIL ->
                    new Step.Wait(0, null, null, rombix.app.edit.Conditions.first(desk.bench().rig(), g -> desk
                            .model().state().readings(g)), null, was.how(), was.extra());
            };
        }
    }

    private void waiting(Step.Wait w) {
        add("Wait", Fields.choice("arg-wait", List.of(Waits.values()), Waits.of(w), x -> x.words,
                kind -> editAnew(Step.Wait.class, s -> kind.step(s, desk))));
        switch (Waits.of(w)) {
            case TIME -> time("Time", "arg-ms", "ms", w.ms(), ms -> edit(
                    Step.Wait.class, s -> new Step.Wait(ms, null, null, null, null, s.how(), s.extra())));
            case RANDOM -> {
                nodes.add(Fields.row(Fields.named("At least", Fields.span("arg-ms", w.ms(), ms -> editAnew(
                        Step.Wait.class, s -> new Step.Wait(ms, Math.max(ms, s.max() == null ? ms : s.max()), null,
                                null, null, s.how(), s.extra())))),
                        Fields.named("At most", Fields.span("arg-most", w.max() == null ? w.ms() : w.max(),
                                ms -> editAnew(Step.Wait.class, s -> new Step.Wait(Math.min(ms, s.ms()), ms, null,
                                        null, null, s.how(), s.extra()))))));
            }
            case CLOCK -> computable("Time of day", "arg-clock", "clock", "\"" + w.clock() + "\"",
                    "Time of day from a formula", Fields.text("arg-clock", String.valueOf(w.clock()), text -> {
                        if (text.strip().matches(Step.Wait.CLOCK_FORM)) {
                            edit(Step.Wait.class, s -> new Step.Wait(0, null, text.strip(), null, null, s.how(), s
                                    .extra()));
                        }
                    }), "Such as 21:30 or 21:30:15");
            case UNTIL -> {
                add("Until", new ConditionField(desk, "wait-test", w.condition(), (String) null, test -> {
                    if (test != null) {
                        edit(Step.Wait.class, s -> new Step.Wait(0, null, null, test, s.timeout(), s.how(), s.extra()));
                    }
                }));
                optionalSpan("Limit the wait", "Fail after", "arg-timeout", "timeout", w.timeout(), 10_000, ms -> edit(
                        Step.Wait.class, s -> new Step.Wait(0, null, null, s.condition(), ms, s.how(), s.extra())));
            }
        }
    }

    private void together(Step.Together t) {
        add("Ends", Fields.choice("arg-ends", List.of(Step.Together.Ends.values()), t.ends(),
                e -> e == Step.Together.Ends.LAST ? "with the last chain" : "with the first (the others are stopped)",
                e -> edit(Step.Together.class, s -> s.withEnds(e))));
        for (int i = 0; i < t.chains().size(); i++) {
            int at = i;
            nodes.add(chainRow("Chain " + (i + 1), i, t.chains().get(i), t.chains().size() < 2
                    ? null
                    : () -> editAnew(
                            Step.Together.class,
                            s -> s.withChains(without(s.chains(), at))),
                    null));
        }
        nodes.add(button("Add a chain", () -> editAnew(Step.Together.class, s -> s.withChains(plus(s.chains(),
                Chain.EMPTY)))));
    }

    private void pick(Step.Pick p) {
        add("Which one", Fields.choice("arg-way", List.of(Step.Pick.Way.values()), p.way(), w -> switch (w) {
            case RANDOM -> "random, weighted";
            case NO_REPEAT -> "random, never twice in a row";
            case SHUFFLED -> "shuffled (all before any repeats)";
            case IN_TURN -> "in order";
        }, w -> editAnew(Step.Pick.class, s -> s.withWay(w))));
        boolean weighs = p.way() == Step.Pick.Way.RANDOM || p.way() == Step.Pick.Way.NO_REPEAT;
        choices(p.choices(), weighs, 1, (cs) -> edit(Step.Pick.class, s -> s.withChoices(cs)),
                () -> Paths.step(desk.bench().chain(), path).map(s -> ((Step.Pick) s).choices()).orElse(
                        List.of()));
    }

    private void choices(List<Step.Choice> choices, boolean weighs, int min,
            java.util.function.Consumer<List<Step.Choice>> changed,
            java.util.function.Supplier<List<Step.Choice>> now) {
        for (int i = 0; i < choices.size(); i++) {
            int at = i;
            Step.Choice c = choices.get(i);
            TextField name = Fields.text("choice-" + i, c.name() == null ? "" : c.name(), text -> {
                Step.Choice was = now.get().get(at);
                changed.accept(at(now.get(), at, was.withName(text.isBlank() ? null : text)));
            });
            name.setPromptText("choice " + (i + 1));
            name.setPrefColumnCount(9);
            name.setAccessibleText("Name of choice " + (i + 1));
            HBox more = new HBox(Space.S6, name);
            more.setAlignment(Pos.CENTER_LEFT);
            if (weighs) {
                TextField weight = Fields.number("weight-" + i, c.weight(), null, w -> {
                    Step.Choice was = now.get().get(at);
                    changed.accept(at(now.get(), at, was.withWeight(Math.max(0.001, w))));
                });
                weight.setMinWidth(46);
                weight.setPrefColumnCount(3);
                weight.setAccessibleText("Weight of choice " + (i + 1));
                weight.setTooltip(new javafx.scene.control.Tooltip("Weight"));
                more.getChildren().add(weight);
            }
            nodes.add(chainRow("choice " + (i + 1), i, c.chain(), choices.size() <= min ? null : () -> {
                changed.accept(without(now.get(), at));
                anew.run();
            }, more));
        }
        nodes.add(button("Add a choice", () -> {
            changed.accept(plus(now.get(), new Step.Choice(null, 1, Chain.EMPTY)));
            anew.run();
        }));
    }

    private void repeat(Step.Repeat r) {
        nodes.add(Fields.check("arg-times-on", "Limit the number of times", r.times() != null, on -> editAnew(
                Step.Repeat.class, s -> s.withTimes(on ? Arg.of(3) : null))));
        if (r.times() != null) {
            add("Number of times", new ArgField(desk, "arg-times", null, number("times"), r.times(), inner(),
                    a -> edit(Step.Repeat.class, s -> s.withTimes(a))));
        }
        add("While", new ConditionField(desk, "repeat-test", r.condition(), "always", test -> edit(Step.Repeat.class,
                s -> s.withCondition(test))));
        optionalSpan("Start at a fixed interval", "Interval", "arg-every", "every", r.every(), 1000,
                ms -> edit(Step.Repeat.class,
                        s -> s.withEvery(ms)));
        nodes.add(chainRow("Contents", 0, r.chain(), null, null));
    }

    private void ask(DeckStep.Ask a) {
        add("Question",
                Fields.text("arg-question", a.question(), text -> edit(DeckStep.Ask.class, s -> s.withQuestion(text))));
        add("Answer", Fields.choice("arg-kind", List.of(DeckStep.Ask.AnswerType.values()), a.kind(), k -> switch (k) {
            case CHOICE -> "a choice";
            case NUMBER -> "a number";
            case TEXT -> "a text";
            case SECRET -> "a secret for a step to type";
        }, k -> editAnew(DeckStep.Ask.class,
                s -> s.withKind(k).withPreset(null))));
        if (a.kind() == DeckStep.Ask.AnswerType.CHOICE) {
            choices(a.choices(), false, 1,
                    cs -> edit(DeckStep.Ask.class, s -> s.withChoices(cs)),
                    () -> Paths.step(desk.bench().chain(), path)
                            .map(s -> ((DeckStep.Ask) s).choices()).orElse(List.of()));
        }
        List<Board.BoardValue> values = desk.bench().board().values();
        if (!values.isEmpty()) {
            add("Store the answer in a value", Fields.choice("arg-into", values, values.stream().filter(v -> v.id()
                    .equals(a.into())).findFirst().orElse(null), Board.BoardValue::name, v -> edit(DeckStep.Ask.class,
                            s -> s.withInto(v.id()))));
        }
        optionalSpan("Limit the time to answer", "Time to answer", "arg-timeout", "timeout", a.timeout(), 10_000,
                ms -> edit(DeckStep.Ask.class,
                        s -> s.withTimeout(ms)));
        if (a.timeout() != null && a.kind() == DeckStep.Ask.AnswerType.CHOICE) {
            List<Integer> all = new ArrayList<>();
            for (int i = 0; i < a.choices().size(); i++) {
                all.add(i);
            }
            add("Default answer", Fields.choice("arg-default", all, a.preset() == null
                    ? null
                    : (Integer) (int) a.preset()
                            .asNumber(),
                    i -> a.choices().get(i).label(i), i -> edit(DeckStep.Ask.class, s -> s.withPreset(Value.of(i)))));
        } else if (a.timeout() != null && a.kind() != DeckStep.Ask.AnswerType.SECRET) {
            add("Default answer",
                    Fields.text("arg-default", a.preset() == null ? "" : a.preset().toString(), text -> edit(
                            DeckStep.Ask.class, s -> s.withPreset(text.isBlank()
                                    ? null
                                    : s.kind() == DeckStep.Ask.AnswerType.NUMBER
                                            ? Value.of(Fields.parsed(text, 0))
                                            : Value.of(text)))));
        }
    }
}
