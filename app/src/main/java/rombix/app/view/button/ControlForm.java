package rombix.app.view.button;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.Controls;
import rombix.app.view.common.Desk;
import rombix.app.view.form.Fields;
import rombix.core.board.Control;
import rombix.core.board.Control.Axis;
import rombix.core.edit.Edits;
import rombix.core.twin.Scale;
import rombix.core.twin.Twin;
import rombix.core.value.ValueType;

/** What a button is: something pushed, or a dial, a fader or a pad, and the levels that it moves. */
final class ControlForm {
    private final Desk desk;
    private final Runnable anew;

    /** @param anew shows all of it once more */
    ControlForm(Desk desk, Runnable anew) {
        this.desk = desk;
        this.anew = anew;
    }

    private record Level(Axis axis, String words, Scale scale) {
    }

    private enum Sort {
        PUSH("push button"), DIAL("dial"), FADER("fader"), PAD("two-axis pad"), ROW(
                "row: slide to choose a state"), LIST("run-down: a scrolling list"), POINTER(
                        "pointer pad"), STRIP("scroll strip"), KEYS("direction pad");

        private final String words;

        Sort(String words) {
            this.words = words;
        }

        String words() {
            return words;
        }

        static Sort of(@Nullable Control control) {
            return switch (control) {
                case null -> PUSH;
                case Control.Dial _ -> DIAL;
                case Control.Fader _ -> FADER;
                case Control.Pad _ -> PAD;
                case Control.Row _ -> ROW;
                case Control.Items _ -> LIST;
                case Control.PointerField _ -> POINTER;
                case Control.WheelStrip _ -> STRIP;
                case Control.KeyPad _ -> KEYS;
            };
        }
    }

    void addTo(VBox content) {
        rombix.core.board.Button b = desk.bench().button().orElseThrow();
        List<Level> levels = levels();
        content.getChildren()
                .add(Fields.named("Control type", Fields.choice("control-sort", List.of(Sort.values()), Sort
                        .of(b.control()), Sort::words, s -> set(made(s, b.control(), levels)))));
        switch (b.control()) {
            case null -> {
            }
            case Control.Dial d -> {
                content.getChildren().add(level("control-level", "Level",
                        levels, d.level(), x -> set(d.withLevel(x).withCoarse(0).withFine(0))));
                Level level = of(levels, d.level());
                if (level != null) {
                    String unit = level.scale().unit() == null ? "" : ", in " + level.scale().unit();
                    content.getChildren().addAll(Fields.row(
                            Fields.named("Per detent" + unit, step("control-coarse", d.coarse(), level.scale()
                                    .detent(), x -> set(d.withCoarse(x)))),
                            Fields.named("Per fine detent" + unit, step("control-fine", d.fine(),
                                    (d.coarse() > 0 ? d.coarse() : level.scale().detent()) / 10,
                                    x -> set(d.withFine(x))))),
                            Fields.help("Hold Shift while turning for fine detents"));
                }
            }
            case Control.Row _ -> content.getChildren().add(Fields.help(
                    "Each state is a choice with its own press chain. Make the button wide or tall."));
            case Control.Items i ->
                content.getChildren().add(new RunDownForm(desk, i.list(), id -> set(i.withList(id))));
            case Control.PointerField p -> content.getChildren().addAll(
                    Fields.named("Pointer speed", Fields.number("control-pace", p.pace(), null,
                            x -> set(p.withPace(x)))),
                    Fields.check("control-holds", "Mouse button held while sliding", p.holds(), on -> set(
                            p.withHolds(on))),
                    Fields.help("Sliding runs the turn chain; a tap runs the press chain."));
            case Control.WheelStrip s -> content.getChildren().addAll(
                    Fields.check("control-both", "Also scroll sideways", s.both(), on -> set(
                            s.withBoth(on))),
                    Fields.help("Sliding runs the turn chain with the number of notches."));
            case Control.KeyPad p -> content.getChildren().addAll(
                    Fields.check("control-eight", "Eight directions", p.eight(), on -> set(
                            p.withEight(on))),
                    Fields.help("Each state is a direction with its own press and release chains."
                            + (p.eight() ? "" : " A diagonal presses both neighbours.")));
            case Control.Fader f -> content.getChildren().add(level("control-level", "Level", levels, f
                    .level(), x -> set(f.withLevel(x))));
            case Control.Pad p -> content.getChildren().addAll(
                    level("control-across", "Horizontal level", levels, p.across(),
                            x -> set(p.withAcross(x))),
                    level("control-up", "Vertical level", levels, p.up(), x -> set(p.withUp(x))),
                    Fields.check("control-springs", "Return to the centre on release", p.springs(),
                            on -> set(p.withSprings(on))));
        }
    }

    private javafx.scene.Node step(String id, double now, double preset, Consumer<Double> to) {
        return Fields.number(id, now > 0 ? now : preset, null, to);
    }

    private javafx.scene.Node level(String id, String title, List<Level> levels, @Nullable Axis now,
            Consumer<Axis> to) {
        return Fields.named(title, Fields.choice(id, levels, of(levels, now), Level::words, l -> to.accept(l.axis())));
    }

    private static @Nullable Level of(List<Level> levels, @Nullable Axis axis) {
        return levels.stream().filter(l -> l.axis().equals(axis)).findFirst().orElse(null);
    }

    /** A control of this sort; what the one before moved, it moves too. */
    private @Nullable Control made(Sort sort, @Nullable Control before, List<Level> levels) {
        List<Axis> had = before == null ? List.of() : before.axes();
        Axis first = !had.isEmpty() ? had.getFirst() : levels.isEmpty() ? null : levels.getFirst().axis();
        Axis second = had.size() > 1 ? had.get(1) : levels.size() > 1 ? levels.get(1).axis() : first;
        return switch (sort) {
            case PUSH -> null;
            case ROW -> new Control.Row();
            case LIST -> new Control.Items(RunDownForm.any(desk));
            case POINTER -> new Control.PointerField(0, false);
            case STRIP -> new Control.WheelStrip(false);
            case KEYS -> new Control.KeyPad(false);
            case DIAL -> new Control.Dial(first, 0, 0);
            case FADER -> first == null ? before : new Control.Fader(first);
            case PAD -> first == null || second == null ? before : new Control.Pad(first, second, false);
        };
    }

    private void set(@Nullable Control control) {
        desk.bench().button().ifPresent(b -> desk.bench().edit("change the type of “" + b.name() + "”",
                board -> Edits.button(board, b.id(), x -> Controls.become(desk.bench().rig(), x, control))));
        anew.run();
    }

    /** Every level of the gear that can be moved. */
    private List<Level> levels() {
        List<Level> all = new ArrayList<>();
        for (Twin twin : desk.bench().rig().twins().values()) {
            for (Twin.Reading known : twin.readings(desk.model().state().readings(twin.gear()))) {
                if (known.spec().type() == ValueType.NUMBER) {
                    Scale.of(twin, known.id()).ifPresent(s -> all.add(new Level(new Axis(twin.gear(), known.id()), twin
                            .title() + ": " + known.title(), s)));
                }
            }
        }
        return all;
    }
}
