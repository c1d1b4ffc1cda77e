package rombix.app.view;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.Paths;
import rombix.core.board.Board;
import rombix.core.board.Page;
import rombix.core.board.State;
import rombix.core.card.Card.Command;
import rombix.core.card.Card.Param;
import rombix.core.card.Twin;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.value.Kind;
import rombix.core.value.Value;

/** What of a step can be set, each kind with controls of its own. A change goes to the step as it is by then. */
final class StepForm {
    private final Desk desk;
    private final List<Integer> path;
    private final Runnable anew;
    private final List<Node> nodes = new ArrayList<>();

    /** @param anew builds the form again, after a change of what there is to set */
    StepForm(Desk desk, List<Integer> path, Runnable anew) {
        this.desk = desk;
        this.path = path;
        this.anew = anew;
    }

    List<Node> of(Step step) {
        switch (step) {
            case Step.Do d -> doing(d);
            case Step.Wait w -> waiting(w);
            case Step.Together t -> together(t);
            case Step.Pick p -> pick(p);
            case Step.If i -> add("Condition", new TestField(desk, "if-test", i.condition(), false, test -> {
                if (test != null) {
                    edit(Step.If.class, s -> new Step.If(test, s.then(), s.otherwise(), s.how(), s.extra()));
                }
            }));
            case Step.Repeat r -> repeat(r);
            case Step.Fade f -> fade(f);
            case Step.ForAWhile f -> add("How long, before it is put back", Fields.span("arg-ms", f.ms(), ms -> edit(
                    Step.ForAWhile.class, s -> new Step.ForAWhile(s.chain(), ms, s.how(), s.extra()))));
            case Step.Nudge n -> nudge(n);
            case Step.Ask a -> ask(a);
            case Step.Use u -> use(u);
            case Step.Set s -> set(s);
            case Step.Show s -> show(s);
            case Step.Say s -> say(s);
            case Step.Stop s -> stop(s);
        }
        return nodes;
    }

    private void add(String name, Node control) {
        nodes.add(Fields.named(name, control));
    }

    private <T extends Step> void edit(Class<T> kind, Function<T, Step> change) {
        desk.bench().editChain("change a step", c -> Paths.changed(c, path,
                s -> kind.isInstance(s) ? change.apply(kind.cast(s)) : s));
    }

    private <T extends Step> void editAnew(Class<T> kind, Function<T, Step> change) {
        edit(kind, change);
        anew.run();
    }

    private @Nullable Twin twin(String gear) {
        return desk.bench().rig().twins().get(gear);
    }

    private static Map<String, Arg> with(Map<String, Arg> args, String name, Arg value) {
        Map<String, Arg> all = new LinkedHashMap<>(args);
        all.put(name, value);
        return all;
    }

    /** A field for each parameter but the one that the step moves by itself. */
    private void params(String gear, String id, Map<String, Arg> args, @Nullable String moving,
            java.util.function.BiConsumer<String, Arg> changed) {
        Twin twin = twin(gear);
        Command command = twin == null ? null : twin.card().command(id).orElse(null);
        if (twin == null || command == null) {
            nodes.add(Fields.read("This board has no gear that can do it any more."));
            return;
        }
        for (Param p : command.params()) {
            if (!p.id().equals(moving)) {
                Arg now = args.getOrDefault(p.id(), Arg.of(p.usual() == null ? Value.of("") : p.usual()));
                add(p.label(), new ArgField(desk, "arg-" + p.id(), twin, p, now, inner(), a -> changed.accept(p.id(),
                        a)));
            }
        }
    }

    /** The names that formulas know where this step stands: counts of the repeats around it, and the turn of a dial. */
    private List<String> inner() {
        List<String> names = new ArrayList<>();
        for (int i = 2; i < path.size(); i += 2) {
            Paths.step(desk.bench().chain(), path.subList(0, i - 1)).ifPresent(s -> {
                if (s instanceof Step.Repeat r) {
                    names.add(r.count());
                } else if (s instanceof Step.Ask) {
                    names.add("answer");
                }
            });
        }
        Gesture gesture = desk.bench().part().gesture();
        if (gesture == Gesture.TURN || gesture == Gesture.TURN_FINE) {
            names.add("turn");
        }
        String chain = desk.bench().part().chain();
        if (chain != null) {
            desk.bench().board().chain(chain).ifPresent(c -> names.addAll(c.params()));
        }
        return names;
    }

    private @Nullable Param param(String gear, String command, String id) {
        Twin twin = twin(gear);
        return twin == null ? null : twin.card().command(command).flatMap(c -> c.param(id)).orElse(null);
    }

    private void doing(Step.Do d) {
        params(d.gear(), d.command(), d.with(), null, (name, arg) -> edit(Step.Do.class, s -> s.with(name, arg)));
        HBox answer = new HBox(8,
                Fields.check("arg-answer", "Wait until the gear shows it, at most", d.answer() != null,
                        on -> editAnew(Step.Do.class,
                                s -> new Step.Do(s.gear(), s.command(), s.with(), on ? 2000L : null, s
                                        .how(), s.extra()))));
        answer.setAlignment(Pos.CENTER_LEFT);
        if (d.answer() != null) {
            answer.getChildren().add(Fields.span("arg-answer-ms", d.answer(), ms -> edit(Step.Do.class,
                    s -> new Step.Do(s.gear(), s.command(), s.with(), ms, s.how(), s.extra()))));
        }
        nodes.add(answer);
    }

    private enum Waits {
        TIME("a time"), RANDOM("a random time between two"), CLOCK("until a time of day"), UNTIL(
                "until something is so");

        private final String words;

        Waits(String words) {
            this.words = words;
        }

        static Waits of(Step.Wait w) {
            return w.clock() != null ? CLOCK : w.condition() != null ? UNTIL : w.most() != null ? RANDOM : TIME;
        }

        Step.Wait step(Step.Wait was, Desk desk) {
            long ms = was.ms() == 0 ? 1000 : was.ms();
            return switch (this) {
                case TIME -> new Step.Wait(ms, null, null, null, null, was.how(), was.extra());
                case RANDOM -> new Step.Wait(ms, ms * 2, null, null, null, was.how(), was.extra());
                case CLOCK -> new Step.Wait(0, null, "21:00", null, null, was.how(), was.extra());
                case UNTIL -> new Step.Wait(0, null, null, rombix.app.edit.Tests.all(desk.bench().rig(), g -> desk
                        .model().readings(g)).getFirst().test(), null, was.how(), was.extra());
            };
        }
    }

    private void waiting(Step.Wait w) {
        add("Wait", Fields.choice("arg-wait", List.of(Waits.values()), Waits.of(w), x -> x.words,
                kind -> editAnew(Step.Wait.class, s -> kind.step(s, desk))));
        switch (Waits.of(w)) {
            case TIME -> add("How long: 700 ms, 1.5 s, 2 min", Fields.span("arg-ms", w.ms(), ms -> edit(
                    Step.Wait.class, s -> new Step.Wait(ms, null, null, null, null, s.how(), s.extra()))));
            case RANDOM -> {
                add("At least", Fields.span("arg-ms", w.ms(), ms -> editAnew(Step.Wait.class, s -> new Step.Wait(ms,
                        Math.max(ms, s.most() == null ? ms : s.most()), null, null, null, s.how(), s.extra()))));
                add("At most", Fields.span("arg-most", w.most() == null ? w.ms() : w.most(), ms -> editAnew(
                        Step.Wait.class, s -> new Step.Wait(Math.min(ms, s.ms()), ms, null, null, null, s.how(), s
                                .extra()))));
            }
            case CLOCK -> add("Time of day: 21:30 or 21:30:15", Fields.text("arg-clock", String.valueOf(w.clock()),
                    text -> {
                        if (text.strip().matches(Step.Wait.CLOCK_FORM)) {
                            edit(Step.Wait.class, s -> new Step.Wait(0, null, text.strip(), null, null, s.how(), s
                                    .extra()));
                        }
                    }));
            case UNTIL -> {
                add("Until", new TestField(desk, "wait-test", w.condition(), false, test -> {
                    if (test != null) {
                        edit(Step.Wait.class, s -> new Step.Wait(0, null, null, test, s.timeout(), s.how(), s.extra()));
                    }
                }));
                optionalSpan("At most, then the step fails", "arg-timeout", w.timeout(), 10_000, ms -> edit(
                        Step.Wait.class, s -> new Step.Wait(0, null, null, s.condition(), ms, s.how(), s.extra())));
            }
        }
    }

    private void optionalSpan(String name, String id, @Nullable Long now, long usual,
            java.util.function.Consumer<@Nullable Long> changed) {
        HBox row = new HBox(8, Fields.check(id + "-on", name, now != null, on -> {
            changed.accept(on ? (Long) usual : null);
            anew.run();
        }));
        row.setAlignment(Pos.CENTER_LEFT);
        if (now != null) {
            row.getChildren().add(Fields.span(id, now, changed::accept));
        }
        nodes.add(row);
    }

    private void together(Step.Together t) {
        add("It ends", Fields.choice("arg-ends", List.of(Step.Together.Ends.values()), t.ends(),
                e -> e == Step.Together.Ends.LAST ? "with the last chain" : "with the first; the others are stopped",
                e -> edit(Step.Together.class, s -> new Step.Together(s.chains(), e, s.how(), s.extra()))));
        for (int i = 0; i < t.chains().size(); i++) {
            int at = i;
            nodes.add(chainRow("Chain " + (i + 1), i, t.chains().get(i), t.chains().size() < 2
                    ? null
                    : () -> editAnew(
                            Step.Together.class,
                            s -> new Step.Together(without(s.chains(), at), s.ends(), s.how(), s.extra())),
                    null));
        }
        nodes.add(button("+ chain", () -> editAnew(Step.Together.class, s -> new Step.Together(plus(s.chains(),
                Chain.EMPTY), s.ends(), s.how(), s.extra()))));
    }

    private Button button(String text, Runnable action) {
        Button b = Fields.plain(text, "");
        b.setId(text.replaceAll("\\W+", "-").replaceAll("^-|-$", ""));
        b.setOnAction(_ -> action.run());
        return b;
    }

    private static <T> List<T> plus(List<T> list, T item) {
        List<T> all = new ArrayList<>(list);
        all.add(item);
        return all;
    }

    private static <T> List<T> without(List<T> list, int at) {
        List<T> all = new ArrayList<>(list);
        all.remove(at);
        return all;
    }

    private static <T> List<T> at(List<T> list, int at, T item) {
        List<T> all = new ArrayList<>(list);
        all.set(at, item);
        return all;
    }

    /** One of the chains within: its name, how many steps it has, and where the next step is put. */
    private HBox chainRow(String name, int index, Chain chain, @Nullable Runnable remove, @Nullable Node more) {
        HBox row = new HBox(6);
        row.setAlignment(Pos.CENTER_LEFT);
        if (more == null) {
            row.getChildren().add(Fields.read(name));
        } else {
            row.getChildren().add(more);
        }
        javafx.scene.layout.Region space = new javafx.scene.layout.Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        Button into = button(chain.steps().isEmpty()
                ? "add steps"
                : chain.steps().size() + (chain.steps().size() == 1
                        ? " step, add more"
                        : " steps, add more"),
                () -> {
                    desk.overlay().close();
                    desk.bench().cursor(Paths.within(path, index, chain.steps().size()));
                });
        into.setId("into-" + index);
        row.getChildren().addAll(space, into);
        if (remove != null) {
            Button gone = button("×", remove);
            gone.setAccessibleText("Remove " + name);
            row.getChildren().add(gone);
        }
        return row;
    }

    private void pick(Step.Pick p) {
        add("Which one", Fields.choice("arg-way", List.of(Step.Pick.Way.values()), p.way(), w -> switch (w) {
            case RANDOM -> "at random, by weight";
            case NO_REPEAT -> "at random, never the same twice running";
            case SHUFFLED -> "shuffled: all before any comes again";
            case IN_TURN -> "one after another";
        }, w -> editAnew(Step.Pick.class, s -> new Step.Pick(w, s.choices(), s.how(), s.extra()))));
        boolean weighs = p.way() == Step.Pick.Way.RANDOM || p.way() == Step.Pick.Way.NO_REPEAT;
        choices(p.choices(), weighs, 1, (cs) -> edit(Step.Pick.class, s -> new Step.Pick(s.way(), cs, s.how(), s
                .extra())), () -> Paths.step(desk.bench().chain(), path).map(s -> ((Step.Pick) s).choices()).orElse(
                        List.of()));
    }

    private void choices(List<Step.Choice> choices, boolean weighs, int least,
            java.util.function.Consumer<List<Step.Choice>> changed,
            java.util.function.Supplier<List<Step.Choice>> now) {
        for (int i = 0; i < choices.size(); i++) {
            int at = i;
            Step.Choice c = choices.get(i);
            TextField name = Fields.text("choice-" + i, c.name() == null ? "" : c.name(), text -> {
                Step.Choice was = now.get().get(at);
                changed.accept(at(now.get(), at, new Step.Choice(text.isBlank() ? null : text, was.weight(), was
                        .chain())));
            });
            name.setPromptText("choice " + (i + 1));
            name.setPrefColumnCount(9);
            name.setAccessibleText("Name of choice " + (i + 1));
            HBox more = new HBox(6, name);
            more.setAlignment(Pos.CENTER_LEFT);
            if (weighs) {
                TextField weight = Fields.number("weight-" + i, c.weight(), null, w -> {
                    Step.Choice was = now.get().get(at);
                    changed.accept(at(now.get(), at, new Step.Choice(was.name(), Math.max(0.001, w), was.chain())));
                });
                weight.setMinWidth(46);
                weight.setPrefColumnCount(3);
                weight.setAccessibleText("Weight of choice " + (i + 1));
                weight.setTooltip(new javafx.scene.control.Tooltip("Its weight against the others"));
                more.getChildren().add(weight);
            }
            nodes.add(chainRow("choice " + (i + 1), i, c.chain(), choices.size() <= least ? null : () -> {
                changed.accept(without(now.get(), at));
                anew.run();
            }, more));
        }
        nodes.add(button("+ choice", () -> {
            changed.accept(plus(now.get(), new Step.Choice(null, 1, Chain.EMPTY)));
            anew.run();
        }));
    }

    private void repeat(Step.Repeat r) {
        HBox times = new HBox(8, Fields.check("arg-times-on", "So many times", r.times() != null, on -> editAnew(
                Step.Repeat.class, s -> new Step.Repeat(on ? Arg.of(3) : null, s.condition(), s.every(), s.count(), s
                        .chain(), s.how(), s.extra()))));
        times.setAlignment(Pos.CENTER_LEFT);
        if (r.times() != null) {
            ArgField field = new ArgField(desk, "arg-times", null, number("times"), r.times(), inner(), a -> edit(
                    Step.Repeat.class, s -> new Step.Repeat(a, s.condition(), s.every(), s.count(), s.chain(), s.how(),
                            s.extra())));
            HBox.setHgrow(field, Priority.ALWAYS);
            times.getChildren().add(field);
        }
        nodes.add(times);
        add("While", new TestField(desk, "repeat-test", r.condition(), true, test -> edit(Step.Repeat.class,
                s -> new Step.Repeat(s.times(), test, s.every(), s.count(), s.chain(), s.how(), s.extra()))));
        optionalSpan("Every so often", "arg-every", r.every(), 1000, ms -> edit(Step.Repeat.class,
                s -> new Step.Repeat(s.times(), s.condition(), ms, s.count(), s.chain(), s.how(), s.extra())));
        nodes.add(chainRow("What is repeated", 0, r.chain(), null, null));
    }

    private static Param number(String title) {
        return new Param("number", title, Kind.NUMBER, null, null, null, Value.of(1), null);
    }

    private void fade(Step.Fade f) {
        params(f.gear(), f.command(), f.with(), f.param(), (name, arg) -> edit(Step.Fade.class, s -> new Step.Fade(s
                .gear(), s.command(), with(s.with(), name, arg), s.param(), s.from(), s.to(), s.ms(), s.curve(),
                s
                        .how(),
                s.extra())));
        Param p = param(f.gear(), f.command(), f.param());
        if (p == null) {
            return;
        }
        nodes.add(Fields.check("arg-from-on", "From a given value, not from where it is", f.from() != null,
                on -> editAnew(Step.Fade.class, s -> new Step.Fade(s.gear(), s.command(), s.with(), s.param(), on
                        ? Arg.of(p.min() == null ? 0 : p.min())
                        : null, s.to(), s.ms(), s.curve(), s.how(), s.extra()))));
        if (f.from() != null) {
            add("From", new ArgField(desk, "arg-from", twin(f.gear()), p, f.from(), inner(), a -> edit(Step.Fade.class,
                    s -> new Step.Fade(s.gear(), s.command(), s.with(), s.param(), a, s.to(), s.ms(), s.curve(), s
                            .how(), s.extra()))));
        }
        add("To", new ArgField(desk, "arg-to", twin(f.gear()), p, f.to(), inner(), a -> edit(Step.Fade.class,
                s -> new Step.Fade(s.gear(), s.command(), s.with(), s.param(), s.from(), a, s.ms(), s.curve(), s.how(),
                        s.extra()))));
        add("In: 700 ms, 1.5 s, 2 min", Fields.span("arg-ms", f.ms(), ms -> edit(Step.Fade.class, s -> new Step.Fade(s
                .gear(), s.command(), s.with(), s.param(), s.from(), s.to(), ms, s.curve(), s.how(), s.extra()))));
        add("Curve", Fields.choice("arg-curve", List.of(Step.Fade.Curve.values()), f.curve(), c -> switch (c) {
            case LINEAR -> "linear";
            case S_CURVE -> "S-curve: slow at both ends";
            case EQUAL_POWER -> "equal power: for two that cross";
            case DECIBEL -> "even in decibels";
        }, c -> edit(Step.Fade.class, s -> new Step.Fade(s.gear(), s.command(), s.with(), s.param(), s.from(), s.to(), s
                .ms(), c, s.how(), s.extra()))));
    }

    private void nudge(Step.Nudge n) {
        params(n.gear(), n.command(), n.with(), n.param(), (name, arg) -> edit(Step.Nudge.class, s -> new Step.Nudge(s
                .gear(), s.command(), with(s.with(), name, arg), s.param(), s.by(), s.wrap(), s.how(), s.extra())));
        Param p = param(n.gear(), n.command(), n.param());
        Param by = new Param("by", "by", Kind.NUMBER, p == null ? null : p.unit(), null, null, Value.of(1), null);
        add("By how much; less than 0 is down", new ArgField(desk, "arg-by", null, by, n.by(), inner(), a -> edit(
                Step.Nudge.class, s -> new Step.Nudge(s.gear(), s.command(), s.with(), s.param(), a, s.wrap(), s.how(),
                        s.extra()))));
        nodes.add(Fields.check("arg-wrap", "Past an end it goes on from the other", n.wrap(), on -> edit(
                Step.Nudge.class, s -> new Step.Nudge(s.gear(), s.command(), s.with(), s.param(), s.by(), on, s.how(),
                        s.extra()))));
    }

    private void ask(Step.Ask a) {
        add("Question", Fields.text("arg-question", a.question(), text -> edit(Step.Ask.class, s -> new Step.Ask(text, s
                .kind(), s.choices(), s.into(), s.usual(), s.timeout(), s.how(), s.extra()))));
        add("Answer", Fields.choice("arg-kind", List.of(Step.Ask.Kind.values()), a.kind(), k -> switch (k) {
            case CHOICE -> "one of these";
            case NUMBER -> "a number";
            case TEXT -> "a text";
        }, k -> editAnew(Step.Ask.class, s -> new Step.Ask(s.question(), k, s.choices(), s.into(), null, s.timeout(), s
                .how(), s.extra()))));
        if (a.kind() == Step.Ask.Kind.CHOICE) {
            choices(a.choices(), false, 1, cs -> edit(Step.Ask.class, s -> new Step.Ask(s.question(), s.kind(), cs, s
                    .into(), s.usual(), s.timeout(), s.how(), s.extra())), () -> Paths.step(desk.bench().chain(), path)
                            .map(s -> ((Step.Ask) s).choices()).orElse(List.of()));
        }
        List<Board.BoardValue> values = desk.bench().board().values();
        if (!values.isEmpty()) {
            add("Keep the answer in a value", Fields.choice("arg-into", values, values.stream().filter(v -> v.id()
                    .equals(a.into())).findFirst().orElse(null), Board.BoardValue::name, v -> edit(Step.Ask.class,
                            s -> new Step.Ask(s.question(), s.kind(), s.choices(), v.id(), s.usual(), s.timeout(), s
                                    .how(), s.extra()))));
        }
        optionalSpan("If nobody answers within", "arg-timeout", a.timeout(), 10_000, ms -> edit(Step.Ask.class,
                s -> new Step.Ask(s.question(), s.kind(), s.choices(), s.into(), s.usual(), ms, s.how(), s.extra())));
        if (a.timeout() != null && a.kind() == Step.Ask.Kind.CHOICE) {
            List<Integer> all = new ArrayList<>();
            for (int i = 0; i < a.choices().size(); i++) {
                all.add(i);
            }
            add("take", Fields.choice("arg-default", all, a.usual() == null
                    ? null
                    : (Integer) (int) a.usual()
                            .asNumber(),
                    i -> a.choices().get(i).label(i), i -> edit(Step.Ask.class, s -> new Step.Ask(s
                            .question(), s.kind(), s.choices(), s.into(), Value.of(i), s.timeout(), s.how(),
                            s
                                    .extra()))));
        } else if (a.timeout() != null) {
            add("take", Fields.text("arg-default", a.usual() == null ? "" : a.usual().toString(), text -> edit(
                    Step.Ask.class, s -> new Step.Ask(s.question(), s.kind(), s.choices(), s.into(), text.isBlank()
                            ? null
                            : s.kind() == Step.Ask.Kind.NUMBER
                                    ? Value.of(Fields.parsed(text, 0))
                                    : Value.of(text),
                            s.timeout(), s.how(), s.extra()))));
        }
    }

    /** A chain that can be used: a named one, or what a button does. */
    private record Usable(String words, @Nullable String chain, @Nullable String button, Gesture gesture) {
    }

    private void use(Step.Use u) {
        List<Usable> all = new ArrayList<>();
        desk.bench().board().chains().forEach(c -> all.add(new Usable("Chain: " + c.name(), c.id(), null,
                Gesture.PRESS)));
        for (Page page : desk.bench().board().pages()) {
            page.buttons().forEach(b -> {
                for (Gesture g : Gesture.values()) {
                    if (b.states().stream().anyMatch(s -> !s.chain(g).isEmpty())) {
                        all.add(new Usable(page.name() + ": " + b.name() + (g == Gesture.PRESS ? "" : ", " + g.words()),
                                null, b.id(), g));
                    }
                }
            });
        }
        Usable now = all.stream().filter(x -> java.util.Objects.equals(x.chain(), u.chain()) && java.util.Objects
                .equals(x.button(), u.button()) && (x.button() == null || x.gesture() == u.gesture())).findFirst()
                .orElse(null);
        add("Which chain", Fields.choice("arg-use", all, now, Usable::words, x -> editAnew(Step.Use.class,
                s -> new Step.Use(x.button(), null, x.gesture(), x.chain(), Map.of(), s.how(), s.extra()))));
        if (u.chain() != null) {
            desk.bench().board().chain(u.chain()).ifPresent(c -> {
                for (String p : c.params()) {
                    Param any = new Param(p, p, Kind.LIST, null, null, null, Value.of(""), null);
                    add(p, new ArgField(desk, "arg-" + p, null, any, u.with().getOrDefault(p, Arg.of("")), inner(),
                            a -> edit(Step.Use.class, s -> new Step.Use(s.button(), s.state(), s.gesture(), s.chain(),
                                    with(s.with(), p, a), s.how(), s.extra()))));
                }
            });
            String chain = u.chain();
            nodes.add(button("Open this chain", () -> {
                desk.overlay().close();
                desk.bench().selectPart(new rombix.app.edit.Workbench.Part(null, chain));
            }));
        }
    }

    private void set(Step.Set set) {
        List<Board.BoardValue> values = desk.bench().board().values();
        add("Value", Fields.choice("arg-value", values, values.stream().filter(v -> v.id().equals(set.value()))
                .findFirst().orElse(null), Board.BoardValue::name,
                v -> editAnew(Step.Set.class, s -> new Step.Set(v
                        .id(), s.to(), s.how(), s.extra()))));
        Kind kind = values.stream().filter(v -> v.id().equals(set.value())).findFirst().map(v -> switch (v.initial()) {
            case Value.Num _ -> Kind.NUMBER;
            case Value.Flag _ -> Kind.FLAG;
            case Value.Text _,Value.Choices _ -> Kind.TEXT;
        }).orElse(Kind.TEXT);
        add("To", new ArgField(desk, "arg-to", null, new Param("to", "to", kind, null, null, null, null, null), set
                .to(), inner(), a -> edit(Step.Set.class, s -> new Step.Set(s.value(), a, s.how(), s.extra()))));
    }

    private void show(Step.Show show) {
        List<Page> pages = desk.bench().board().pages();
        if (show.page() != null) {
            add("Page", Fields.choice("arg-page", pages, pages.stream().filter(p -> p.id().equals(show.page()))
                    .findFirst().orElse(null), Page::name,
                    p -> edit(Step.Show.class, s -> new Step.Show(p.id(), s
                            .popUp(), null, null, s.how(), s.extra()))));
            nodes.add(Fields.check("arg-pop-up", "It pops up for one press", show.popUp(), on -> edit(Step.Show.class,
                    s -> new Step.Show(s.page(), on, null, null, s.how(), s.extra()))));
            return;
        }
        List<State> states = desk.bench().board().button(String.valueOf(show.button())).map(b -> b.states()).orElse(
                List.of());
        add("State", Fields.choice("arg-state", states, states.stream().filter(s -> s.id().equals(show.state()))
                .findFirst().orElse(null), State::name,
                x -> edit(Step.Show.class, s -> new Step.Show(null, false, s
                        .button(), x.id(), s.how(), s.extra()))));
    }

    private void say(Step.Say say) {
        TextField field = Fields.text("arg-text", say.text(), text -> edit(Step.Say.class, s -> new Step.Say(text, s
                .how(), s.extra())));
        add("Message; readings stand in braces", field);
        var names = Fields.choice("arg-text-insert", rombix.app.edit.Tests.names(desk.bench().rig(), g -> desk.model()
                .readings(g), inner()), null, rombix.app.edit.Tests.Name::words, n -> {
                    field.insertText(field.getCaretPosition(), "{" + n.name() + "}");
                    edit(Step.Say.class, s -> new Step.Say(field.getText(), s.how(), s.extra()));
                });
        names.setPromptText("Put a reading or a value in");
        nodes.add(names);
    }

    private void stop(Step.Stop stop) {
        add("What", Fields.choice("arg-what", List.of(Step.Stop.What.values()), stop.what(), w -> switch (w) {
            case THIS -> "this chain";
            case BUTTON -> "a button's chains";
            case TAG -> "all buttons with a tag";
            case ALL -> "everything";
        }, w -> editAnew(Step.Stop.class, s -> new Step.Stop(w, s.button(), s.tag(), s.how(), s.extra()))));
        if (stop.what() == Step.Stop.What.BUTTON) {
            List<rombix.core.board.Button> all = desk.bench().board().buttons().toList();
            add("Button", Fields.choice("arg-button", all, all.stream().filter(b -> b.id().equals(stop.button()))
                    .findFirst().orElse(null), rombix.core.board.Button::name,
                    b -> edit(Step.Stop.class,
                            s -> new Step.Stop(s.what(), b.id(), null, s.how(), s.extra()))));
        } else if (stop.what() == Step.Stop.What.TAG) {
            List<String> tags = desk.bench().board().buttons().map(b -> b.tag()).filter(t -> t != null && !t.isBlank())
                    .distinct().toList();
            add("Tag", Fields.choice("arg-tag", tags, stop.tag(), t -> t, t -> edit(Step.Stop.class,
                    s -> new Step.Stop(s.what(), null, t, s.how(), s.extra()))));
        }
    }
}
