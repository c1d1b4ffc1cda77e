package rombix.app.view.step;

import java.util.List;
import java.util.Map;
import javafx.scene.Node;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.AimPad;
import rombix.app.view.common.Desk;
import rombix.app.view.form.Fields;
import rombix.core.board.Paths;
import rombix.core.card.Card.Command;
import rombix.core.card.Card.Param;
import rombix.core.chain.Arg;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;
import rombix.core.twin.Figures;
import rombix.core.twin.Twin;
import rombix.core.value.Value;
import rombix.core.value.ValueType;

/** Form of steps that send to gear. */
final class GearStepForm extends StepFields {
    GearStepForm(Desk desk, List<Integer> path, Runnable anew) {
        super(desk, path, anew);
    }

    List<Node> of(Step step) {
        switch (step) {
            case GearStep.Do d -> doing(d);
            case GearStep.Fade f -> fade(f);
            case GearStep.Nudge n -> nudge(n);
            default -> throw new IllegalArgumentException("no step of a gear: " + step);
        }
        return nodes;
    }

    /** A field for each parameter but the one that the step moves by itself. */
    private void params(String gear, String id, Map<String, Arg> args, @Nullable String moving,
            java.util.function.BiConsumer<String, Arg> changed) {
        Twin twin = twin(gear);
        Command command = twin == null ? null : twin.card().command(id).orElse(null);
        if (twin == null || command == null) {
            nodes.add(Fields.read("No gear on this board can do this now."));
            return;
        }
        aim(command, args, moving, changed);
        for (Param p : command.params()) {
            if (!p.id().equals(moving)) {
                Arg now = args.getOrDefault(p.id(), Arg.of(p.preset() == null ? Value.of("") : p.preset()));
                ArgField field = new ArgField(desk, "arg-" + p.id(), twin, p, now, inner(), a -> changed.accept(p.id(),
                        a));
                if (p.type() == ValueType.FLAG && now instanceof Arg.Constant) {
                    nodes.add(field); // It says its name itself.
                } else {
                    add(Figures.capitalized(p.label()), field);
                }
            }
        }
    }

    /** Pan and tilt that are told together are chosen on a pad; their numbers stand beneath it. */
    private void aim(Command command, Map<String, Arg> args, @Nullable String moving,
            java.util.function.BiConsumer<String, Arg> changed) {
        Param pan = command.param("pan").orElse(null);
        Param tilt = command.param("tilt").orElse(null);
        if (moving != null || pan == null || tilt == null || args.get("pan") instanceof Arg.Computed || args.get(
                "tilt") instanceof Arg.Computed) {
            return;
        }
        nodes.add(new AimPad(pan, tilt, number(args, pan), number(args, tilt), (p, t) -> {
            changed.accept("pan", Arg.of(Value.of(p)));
            changed.accept("tilt", Arg.of(Value.of(t)));
        }));
    }

    private static double number(Map<String, Arg> args, Param p) {
        Value preset = p.preset();
        return args.get(p.id()) instanceof Arg.Constant c
                ? c.value().asNumber()
                : preset == null ? 0 : preset.asNumber();
    }

    private @Nullable Param param(String gear, String command, String id) {
        Twin twin = twin(gear);
        return twin == null ? null : twin.card().command(command).flatMap(c -> c.param(id)).orElse(null);
    }

    private void doing(GearStep.Do d) {
        Twin player = twin(d.gear());
        if (player != null) {
            player.card().command(d.command()).filter(ListenRow::can)
                    .ifPresent(c -> nodes.add(new ListenRow(desk, player,
                            c, () -> Paths.step(desk.bench().chain(), path).map(s -> s instanceof GearStep.Do now
                                    ? now.args()
                                    : null).orElse(d.args()))));
        }
        params(d.gear(), d.command(), d.args(), null,
                (name, arg) -> edit(GearStep.Do.class, s -> s.withArg(name, arg)));
        nodes.add(Fields.check("arg-answer", "Wait for confirmation", d.answer() != null, on -> editAnew(
                GearStep.Do.class, s -> s.withAnswer(on ? 2000L : null))));
        if (d.answer() != null) {
            add("Wait at most", Fields.span("arg-answer-ms", d.answer(), ms -> edit(GearStep.Do.class,
                    s -> s.withAnswer(ms))));
        }
    }

    private void fade(GearStep.Fade f) {
        params(f.gear(), f.command(), f.args(), f.param(),
                (name, arg) -> edit(GearStep.Fade.class, s -> s.withArgs(with(s.args(), name, arg))));
        Param p = param(f.gear(), f.command(), f.param());
        if (p == null) {
            return;
        }
        nodes.add(Fields.check("arg-from-on", "Start from a fixed value instead of the present one", f.from() != null,
                on -> editAnew(GearStep.Fade.class,
                        s -> s.withFrom(on
                                ? Arg.of(p.min() == null ? 0 : p.min())
                                : null))));
        if (f.from() != null) {
            add("From",
                    new ArgField(desk, "arg-from", twin(f.gear()), p, f.from(), inner(), a -> edit(GearStep.Fade.class,
                            s -> s.withFrom(a))));
        }
        add("To", new ArgField(desk, "arg-to", twin(f.gear()), p, f.to(), inner(), a -> edit(GearStep.Fade.class,
                s -> s.withTo(a))));
        time("Duration", "arg-ms", "ms", f.ms(), ms -> edit(GearStep.Fade.class, s -> s.withMs(ms)));
        add("Curve", Fields.choice("arg-curve", List.of(GearStep.Fade.Curve.values()), f.curve(), c -> switch (c) {
            case LINEAR -> "linear";
            case S_CURVE -> "S-curve (slow at both ends)";
            case EQUAL_POWER -> "equal power (for a cross-fade)";
            case DECIBEL -> "linear in decibels";
        }, c -> edit(GearStep.Fade.class,
                s -> s.withCurve(c))));
    }

    private void nudge(GearStep.Nudge n) {
        params(n.gear(), n.command(), n.args(), n.param(),
                (name, arg) -> edit(GearStep.Nudge.class, s -> s.withArgs(with(s.args(), name, arg))));
        Param p = param(n.gear(), n.command(), n.param());
        Param by = new Param("by", "by", ValueType.NUMBER, p == null ? null : p.unit(), null, null, null, Value.of(1),
                null);
        nodes.add(Fields.named("Change", new ArgField(desk, "arg-by", null, by, n.by(), inner(), a -> edit(
                GearStep.Nudge.class, s -> s.withBy(a))), "A negative number lowers it"));
        nodes.add(Fields.check("arg-wrap", "Wrap around at the ends", n.wrap(), on -> edit(
                GearStep.Nudge.class,
                s -> s.withWrap(on))));
    }
}
