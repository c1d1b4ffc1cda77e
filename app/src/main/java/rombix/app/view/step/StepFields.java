package rombix.app.view.step;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.form.Fields;
import rombix.core.board.Paths;
import rombix.core.card.Card.Param;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.DeckStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.twin.Twin;
import rombix.core.value.Value;
import rombix.core.value.ValueType;

/** Base of the step forms: fields that change the step at a path. */
abstract class StepFields {
    final Desk desk;
    final List<Integer> path;
    final Runnable anew;
    final List<Node> nodes = new ArrayList<>();

    /** @param anew builds the form again, after a change of what there is to set */
    StepFields(Desk desk, List<Integer> path, Runnable anew) {
        this.desk = desk;
        this.path = path;
        this.anew = anew;
    }

    void add(String name, Node control) {
        nodes.add(Fields.named(name, control));
    }

    <T extends Step> void edit(Class<T> kind, Function<T, Step> change) {
        desk.bench().editChain("change a step", c -> Paths.changed(c, path,
                s -> kind.isInstance(s) ? change.apply(kind.cast(s)) : s));
    }

    <T extends Step> void editAnew(Class<T> kind, Function<T, Step> change) {
        edit(kind, change);
        anew.run();
    }

    @Nullable
    Twin twin(String gear) {
        return desk.bench().rig().twins().get(gear);
    }

    static Map<String, Arg> with(Map<String, Arg> args, String name, Arg value) {
        Map<String, Arg> all = new LinkedHashMap<>(args);
        all.put(name, value);
        return all;
    }

    /** The names that formulas know where this step stands: counts of the repeats around it, and the turn of a dial. */
    List<String> inner() {
        List<String> names = new ArrayList<>();
        for (int i = 2; i < path.size(); i += 2) {
            Paths.step(desk.bench().chain(), path.subList(0, i - 1)).ifPresent(s -> {
                if (s instanceof Step.Repeat r) {
                    names.add(r.count());
                } else if (s instanceof DeckStep.Ask) {
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

    /** A time of the step: a fixed one, or the result of a formula, in seconds, when the step is due. */
    void time(String name, String id, String time, long now, java.util.function.Consumer<Long> changed) {
        computable(name, id, time, String.valueOf(now / 1000.0), "Seconds from a formula", Fields.span(id, now,
                changed::accept), "Such as 700 ms, 1.5 s or 2 min");
    }

    /** A field whose value can also be the result of a formula when the step is due. */
    void computable(String name, String id, String time, String preset, String hint, Node field, String help) {
        String formula = Paths.step(desk.bench().chain(), path).map(s -> s.how().times().get(time)).orElse(null);
        Node shown = formula == null
                ? field
                : new FormulaField(desk, id + "-formula", formula, inner(), f -> computed(
                        time, f));
        shown.setAccessibleText(name);
        HBox.setHgrow(shown, Priority.ALWAYS);
        HBox row = new HBox(Space.S6, shown, ArgField.toggle(id + "-computed", name, hint, formula != null, on -> {
            computed(time, on ? preset : null);
            anew.run();
        }));
        nodes.add(formula == null ? Fields.named(name, row, help) : Fields.named(name, row));
    }

    private void computed(String time, @Nullable String formula) {
        edit(Step.class, s -> {
            Map<String, String> all = new LinkedHashMap<>(s.how().times());
            if (formula == null) {
                all.remove(time);
            } else {
                all.put(time, formula);
            }
            return s.withHow(s.how().withTimes(all));
        });
    }

    /** A check box; while it is on, the field for its time follows. */
    void optionalSpan(String check, String name, String id, String time, @Nullable Long now, long preset,
            java.util.function.Consumer<@Nullable Long> changed) {
        nodes.add(Fields.check(id + "-on", check, now != null, on -> {
            changed.accept(on ? (Long) preset : null);
            anew.run();
        }));
        if (now != null) {
            time(name, id, time, now, changed::accept);
        }
    }

    Button button(String text, Runnable action) {
        Button b = Fields.plain(text, "");
        b.setId(text.replaceAll("\\W+", "-").replaceAll("^-|-$", ""));
        b.setOnAction(_ -> action.run());
        return b;
    }

    static <T> List<T> plus(List<T> list, T item) {
        List<T> all = new ArrayList<>(list);
        all.add(item);
        return all;
    }

    static <T> List<T> without(List<T> list, int at) {
        List<T> all = new ArrayList<>(list);
        all.remove(at);
        return all;
    }

    static <T> List<T> at(List<T> list, int at, T item) {
        List<T> all = new ArrayList<>(list);
        all.set(at, item);
        return all;
    }

    /** One of the chains within: its name, how many steps it has, and where the next step is put. */
    HBox chainRow(String name, int index, Chain chain, @Nullable Runnable remove, @Nullable Node more) {
        HBox row = new HBox(Space.S6);
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

    static Param number(String title) {
        return new Param("number", title, ValueType.NUMBER, null, null, null, null, Value.of(1), null);
    }
}
