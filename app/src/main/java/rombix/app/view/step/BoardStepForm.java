package rombix.app.view.step;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.TextField;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Desk;
import rombix.app.view.form.Fields;
import rombix.core.board.Board;
import rombix.core.board.Page;
import rombix.core.board.RunDown;
import rombix.core.board.State;
import rombix.core.card.Card.Param;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.DeckStep;
import rombix.core.chain.DeckStep.Show.Way;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.value.Value;
import rombix.core.value.ValueType;

/** Form of steps about the board itself. */
final class BoardStepForm extends StepFields {
    BoardStepForm(Desk desk, List<Integer> path, Runnable anew) {
        super(desk, path, anew);
    }

    List<Node> of(Step step) {
        switch (step) {
            case DeckStep.Use u -> use(u);
            case DeckStep.Set s -> set(s);
            case DeckStep.Go g -> go(g);
            case DeckStep.Show s -> show(s);
            case DeckStep.Written w -> written(w);
            case DeckStep.Stop s -> stop(s);
            default -> throw new IllegalArgumentException("no step of the board: " + step);
        }
        return nodes;
    }

    /** A chain that can be used: a named one, or what a button does. */
    private record Usable(String words, @Nullable String chain, @Nullable String button, Gesture gesture) {
    }

    private void use(DeckStep.Use u) {
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
        add("Chain", Fields.choice("arg-use", all, now, Usable::words, x -> editAnew(DeckStep.Use.class,
                s -> new DeckStep.Use(x.button(), null, x.gesture(), x.chain(), Map.of(), s.how(), s.extra()))));
        if (u.chain() != null) {
            desk.bench().board().chain(u.chain()).ifPresent(c -> {
                for (String p : c.params()) {
                    Param any = new Param(p, p, ValueType.LIST, null, null, null, null, Value.of(""), null);
                    add(p, new ArgField(desk, "arg-" + p, null, any, u.args().getOrDefault(p, Arg.of("")), inner(),
                            a -> edit(DeckStep.Use.class,
                                    s -> s.withArgs(with(s.args(), p, a)))));
                }
            });
            String chain = u.chain();
            nodes.add(button("Open this chain", () -> {
                desk.overlay().close();
                desk.bench().selectPart(new rombix.app.edit.Part(null, chain));
            }));
        }
    }

    private void set(DeckStep.Set set) {
        List<Board.BoardValue> values = desk.bench().board().values();
        add("Value", Fields.choice("arg-value", values, values.stream().filter(v -> v.id().equals(set.value()))
                .findFirst().orElse(null), Board.BoardValue::name,
                v -> editAnew(DeckStep.Set.class, s -> s.withValue(v
                        .id()))));
        ValueType kind = values.stream().filter(v -> v.id().equals(set.value())).findFirst()
                .map(v -> switch (v.initial()) {
                    case Value.Num _ -> ValueType.NUMBER;
                    case Value.Flag _ -> ValueType.FLAG;
                    case Value.Text _,Value.Choices _ -> ValueType.TEXT;
                }).orElse(ValueType.TEXT);
        add("To",
                new ArgField(desk, "arg-to", null, new Param("to", "to", kind, null, null, null, null, null, null), set
                        .to(), inner(),
                        a -> edit(DeckStep.Set.class, s -> s.withTo(a))));
    }

    /** Where a step goes in a run-down, in words. */
    private record Where(String words, Arg to) {
    }

    private void go(DeckStep.Go go) {
        List<RunDown> all = desk.bench().board().runDowns();
        RunDown list = desk.bench().board().runDown(go.list()).orElse(null);
        add("Run-down", Fields.choice("arg-list", all, list, RunDown::name, r -> editAnew(DeckStep.Go.class,
                s -> s.withList(r.id()))));
        List<Where> places = new ArrayList<>(List.of(new Where("the next item", Arg.of(Value.of("next"))), new Where(
                "the item before", Arg.of(Value.of("back"))), new Where("the first item", Arg.of(Value.of("first"))),
                new Where("the last item", Arg.of(Value.of("last"))), new Where("before the first", Arg.of(0)),
                new Where(
                        "a formula…", new Arg.Computed("{" + go.list() + "} + 1"))));
        if (list != null) {
            list.items().forEach(i -> places.add(new Where(i.name(), Arg.of(Value.of(i.name())))));
        }
        add("Go to", Fields.choice("arg-where", places, places.stream().filter(p -> p.to().equals(go.to()) || p
                .to() instanceof Arg.Computed && go.to() instanceof Arg.Computed).findFirst().orElse(null),
                Where::words,
                w -> editAnew(DeckStep.Go.class, s -> s.withTo(w.to()))));
        if (go.to() instanceof Arg.Computed c) {
            nodes.add(new FormulaField(desk, "arg-where-formula", c.formula(), inner(), f -> edit(DeckStep.Go.class,
                    s -> s.withTo(new Arg.Computed(f)))));
        }
    }

    private void show(DeckStep.Show show) {
        List<Page> pages = desk.bench().board().pages();
        if (show.page() != null) {
            add("Page", Fields.choice("arg-page", pages, pages.stream().filter(p -> p.id().equals(show.page()))
                    .findFirst().orElse(null), Page::name,
                    p -> edit(DeckStep.Show.class,
                            s -> new DeckStep.Show(p.id(), s.way(), null, null, s.how(), s.extra()))));
            add("How", Fields.choice("arg-way", List.of(Way.TURN, Way.POP_UP, Way.WHILE_HELD), show.way(),
                    w -> switch (w) {
                        case TURN, BACK, NEXT, PREVIOUS -> "switch to it";
                        case POP_UP -> "pop up for one press";
                        case WHILE_HELD -> "while the button is held";
                    }, w -> edit(DeckStep.Show.class,
                            s -> new DeckStep.Show(s.page(), w, null, null, s.how(), s.extra()))));
            return;
        }
        if (show.way().alone()) {
            add("Which page",
                    Fields.choice("arg-way", List.of(Way.NEXT, Way.PREVIOUS, Way.BACK), show.way(), w -> switch (w) {
                        case NEXT -> "next in the tabs";
                        case PREVIOUS -> "previous in the tabs";
                        default -> "the previously shown page";
                    }, w -> edit(DeckStep.Show.class, s -> s.withWay(w))));
            return;
        }
        List<State> states = desk.bench().rig().button(String.valueOf(show.button())).map(b -> b.states()).orElse(
                List.of());
        add("State", Fields.choice("arg-state", states, states.stream().filter(s -> s.id().equals(show.state()))
                .findFirst().orElse(null), State::name,
                x -> edit(DeckStep.Show.class, s -> new DeckStep.Show(null, s.way(), s
                        .button(), x.id(), s.how(), s.extra()))));
    }

    private void written(DeckStep.Written now) {
        TextField field = Fields.text("arg-text", now.text(), text -> edit(DeckStep.Written.class, s -> s.withWords(
                text)));
        nodes.add(Fields.named(now.verb().text(), field, "Readings and values go in braces, such as {studio:clips}"));
        var names = Fields.choice("arg-text-insert",
                rombix.app.edit.Conditions.names(desk.bench().rig(), g -> desk.model()
                        .state().readings(g), inner()),
                null, rombix.app.edit.Conditions.Name::words, n -> {
                    field.insertText(field.getCaretPosition(), "{" + n.name() + "}");
                    edit(DeckStep.Written.class, s -> s.withWords(field.getText()));
                });
        names.setPromptText("Insert a reading or value");
        nodes.add(names);
    }

    private void stop(DeckStep.Stop stop) {
        add("Stop", Fields.choice("arg-what", List.of(DeckStep.Stop.What.values()), stop.what(), w -> switch (w) {
            case THIS -> "this chain";
            case BUTTON -> "a button's chains";
            case TAG -> "all buttons with a tag";
            case ALL -> "everything";
        }, w -> editAnew(DeckStep.Stop.class, s -> s.withWhat(w))));
        if (stop.what() == DeckStep.Stop.What.BUTTON) {
            List<rombix.core.board.Button> all = desk.bench().board().buttons().toList();
            add("Button", Fields.choice("arg-button", all, all.stream().filter(b -> b.id().equals(stop.button()))
                    .findFirst().orElse(null), rombix.core.board.Button::name,
                    b -> edit(DeckStep.Stop.class,
                            s -> s.withButton(b.id()).withTag(null))));
        } else if (stop.what() == DeckStep.Stop.What.TAG) {
            List<String> tags = desk.bench().board().buttons().map(b -> b.tag()).filter(t -> t != null && !t.isBlank())
                    .distinct().toList();
            add("Tag", Fields.choice("arg-tag", tags, stop.tag(), t -> t, t -> edit(DeckStep.Stop.class,
                    s -> s.withButton(null).withTag(t))));
        }
    }
}
