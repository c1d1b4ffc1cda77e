package rombix.core.engine.op;

import java.time.LocalTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Board;
import rombix.core.board.Question;
import rombix.core.board.Rig;
import rombix.core.board.RunDown;
import rombix.core.card.Card.Command;
import rombix.core.card.Card.Param;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.Condition;
import rombix.core.chain.DeckStep;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.twin.Order;
import rombix.core.twin.Twin;
import rombix.core.value.Formula;
import rombix.core.value.FormulaFault;
import rombix.core.value.Value;

/** Turns chains into what the conductor runs. */
public final class Compiler {
    private static final long NANOS = 1_000_000L;
    /** How deep chains that use each other are counted in what is expected. */
    private static final int DEEPEST_USE = 4;
    /** How long chains take that others use, by how deep they are used. */
    private final Map<Integer, Map<Chain, Long>> expectedAt = new HashMap<>();

    private final Rig rig;

    public Compiler(Rig rig) {
        this.rig = rig;
    }

    /**
     * A chain as the conductor runs it.
     *
     * @param place what the places of its steps begin with
     */
    public Op.Seq seq(Chain chain, String place) {
        Op.Item[] steps = items(chain.steps(), place);
        long expected = expected(chain, 0);
        if (chain.putBack()) {
            Op.Seq within = new Op.Seq(steps, new Op.Item[0], expected);
            steps = new Op.Item[]{new Op.Item(place, new Op.ForAWhile(within, Op.ForAWhile.UNLESS_STOPPED), null,
                    StepOptions.PLAIN, null, Map.of())};
        }
        return new Op.Seq(steps, items(chain.always(), place + "/always"), expected);
    }

    private Op.Item[] items(List<Step> steps, String place) {
        List<Op.Item> items = new ArrayList<>(steps.size());
        for (int i = 0; i < steps.size(); i++) {
            Step step = steps.get(i);
            String here = place + "/" + i;
            if (!step.how().off()) {
                items.add(item(step, here));
            }
        }
        return items.toArray(Op.Item[]::new);
    }

    private Op.Item item(Step step, String here) {
        try {
            Condition condition = step.how().condition();
            Chain instead = step.how().instead();
            return new Op.Item(here, op(step, here), condition == null ? null : new Question(condition), step.how(),
                    instead == null ? null : seq(instead, here + "/instead"), Times.read(step));
        } catch (FormulaFault e) {
            return new Op.Item(here, new Op.Broken("error in the formula at character %d: %s".formatted(e.position(),
                    e.getMessage())), null, step.how(), null, Map.of());
        }
    }

    private Op op(Step step, String here) throws FormulaFault {
        return switch (step) {
            case GearStep.Do d -> command(d.gear(), d.command(), d.args(), d.answer());
            case Step.Wait w -> wait(w);
            case Step.Together t ->
                new Op.Together(seqs(t.chains(), here), t.ends() == Step.Together.Ends.FIRST);
            case Step.Pick p -> new Op.Pick(p.way(), seqs(step.inner(), here),
                    p.choices().stream().mapToDouble(Step.Choice::weight).toArray(), labels(p.choices()));
            case Step.If i -> new Op.If(new Question(i.condition()), seq(i.then(), here + "/0"), seq(i.otherwise(),
                    here + "/1"));
            case Step.Repeat r -> new Op.Repeat(r.times() == null ? null : input(r.times()),
                    r.condition() == null ? null : new Question(r.condition()),
                    r.every() == null ? -1 : r.every() * NANOS,
                    r.count(), seq(r.chain(), here + "/0"));
            case GearStep.Fade f -> faded(f);
            case Step.ForAWhile w -> new Op.ForAWhile(seq(w.chain(), here + "/0"), w.ms() * NANOS);
            case GearStep.Nudge n -> {
                Op command = command(n.gear(), n.command(), n.args(), null);
                yield command instanceof Op.Do d
                        ? new Op.Nudge(d, param(d, n.param()), input(n.by()), n.wrap())
                        : command;
            }
            case DeckStep.Ask a -> new Op.Ask(a, List.of(labels(a.choices())), seqs(step.inner(), here));
            case DeckStep.Use u -> new Op.Use(u.button(), u.state(), u.gesture(), u.chain(), inputs(u.args()));
            case DeckStep.Set s -> new Op.Set(s.value(), input(s.to()));
            case DeckStep.Go g -> go(g);
            case DeckStep.Show s -> new Op.Show(s);
            case DeckStep.Written w -> new Op.Written(w);
            case DeckStep.Stop s -> new Op.Stop(s);
        };
    }

    private Op faded(GearStep.Fade f) throws FormulaFault {
        Op command = command(f.gear(), f.command(), f.args(), null);
        return command instanceof Op.Do d
                ? new Op.Fade(d, param(d, f.param()), f.from() == null ? null : input(f.from()), input(f.to()),
                        f.ms() * NANOS, f.curve())
                : command;
    }

    private static Param param(Op.Do d, String id) throws FormulaFault {
        return d.command.param(id)
                .orElseThrow(() -> new FormulaFault(0, "“%s” has no “%s”".formatted(d.command.id(), id)));
    }

    private Op command(String gear, String id, Map<String, Arg> with, @Nullable Long answer) throws FormulaFault {
        Twin twin = rig.twins().get(gear);
        Command command = twin == null ? null : twin.card().command(id).orElse(null);
        if (twin == null || command == null) {
            return new Op.Broken("there is no “%s” on %s".formatted(id, gear));
        }
        return new Op.Do(twin, command, inputs(with), answer == null ? -1 : answer * NANOS);
    }

    private Op go(DeckStep.Go g) throws FormulaFault {
        RunDown list = rig.board().runDown(g.list()).orElse(null);
        return list == null
                ? new Op.Broken("there is no run-down “" + g.list() + "” on this board")
                : new Op.Go(list, input(g.to()));
    }

    private static Op wait(Step.Wait w) throws FormulaFault {
        if (w.clock() != null) {
            String clock = w.clock().indexOf(':') == 1 ? "0" + w.clock() : w.clock();
            return new Op.WaitClock(LocalTime.parse(clock));
        }
        if (w.condition() != null) {
            return new Op.WaitUntil(new Question(w.condition()), w.timeout() == null ? -1 : w.timeout() * NANOS);
        }
        return new Op.Wait(w.ms() * NANOS, (w.max() == null ? w.ms() : w.max()) * NANOS);
    }

    private Op.Seq[] seqs(List<Chain> chains, String here) {
        Op.Seq[] seqs = new Op.Seq[chains.size()];
        for (int i = 0; i < seqs.length; i++) {
            seqs[i] = seq(chains.get(i), here + "/" + i);
        }
        return seqs;
    }

    private static String[] labels(List<Step.Choice> choices) {
        String[] labels = new String[choices.size()];
        for (int i = 0; i < labels.length; i++) {
            labels[i] = choices.get(i).label(i);
        }
        return labels;
    }

    private static Map<String, Op.Input> inputs(Map<String, Arg> with) throws FormulaFault {
        Map<String, Op.Input> inputs = new LinkedHashMap<>();
        for (Map.Entry<String, Arg> e : with.entrySet()) {
            inputs.put(e.getKey(), input(e.getValue()));
        }
        return inputs;
    }

    private static Op.Input input(Arg arg) throws FormulaFault {
        return switch (arg) {
            case Arg.Constant c -> new Op.Input(c.value(), null);
            case Arg.Computed c -> new Op.Input(null, new Formula(c.formula()));
        };
    }

    /** How long a chain takes, as far as that is known beforehand, in nanoseconds. */
    private long expected(Chain chain, int uses) {
        long sum = 0;
        for (Step step : chain.steps()) {
            sum += step.how().off() ? 0 : expected(step, uses);
        }
        return sum;
    }

    private long expected(Step step, int uses) {
        return switch (step) {
            case Step.Wait w -> (w.ms() + (w.max() == null ? w.ms() : w.max())) / 2 * NANOS;
            case GearStep.Fade f -> f.ms() * NANOS;
            case GearStep.Do d -> lasting(d);
            // What a choice has that goes on in its own time is told when it is chosen.
            case Step.Pick p -> p.inner().stream().mapToLong(c -> expected(c, uses) - lasting(c)).max().orElse(0);
            case Step.ForAWhile w -> Math.max(w.ms() * NANOS, expected(w.chain(), uses));
            case Step.Repeat r -> (r.times() instanceof Arg.Constant c ? Math.max(0, (long) c.value().asNumber()) : 1)
                    * Math.max(expected(r.chain(), uses), r.every() == null ? 0 : r.every() * NANOS);
            case DeckStep.Use u -> uses >= DEEPEST_USE ? 0 : expectedOfUsed(used(u), uses + 1);
            default -> step.inner().stream().mapToLong(c -> expected(c, uses)).max().orElse(0);
        };
    }

    private long lasting(Chain chain) {
        return chain.steps().stream().mapToLong(s -> s instanceof GearStep.Do d && !d.how().off() ? lasting(d) : 0)
                .sum();
    }

    /** How long a command goes on that its chain waits for, where that is constant. */
    private long lasting(GearStep.Do d) {
        Twin twin = rig.twin(d.gear()).orElse(null);
        Command command = twin == null ? null : twin.card().command(d.command()).orElse(null);
        if (twin == null || command == null || command.lasts() == null) {
            return 0;
        }
        Map<String, Value> args = new LinkedHashMap<>();
        for (Map.Entry<String, Arg> e : d.args().entrySet()) {
            if (!(e.getValue() instanceof Arg.Constant c)) {
                return 0;
            }
            args.put(e.getKey(), c.value());
        }
        try {
            Order order = twin.order(command, args, Twin.Readings.NONE);
            return order.going() == null || !order.waits() ? 0 : Math.round(order.going().millis() * NANOS);
        } catch (IllegalArgumentException e) {
            return 0; // It will say why when it is run.
        }
    }

    /** A chain that many steps use is reckoned once at each depth, not once for each of them. */
    private long expectedOfUsed(Chain chain, int uses) {
        Map<Chain, Long> known = expectedAt.computeIfAbsent(uses, _ -> new IdentityHashMap<>());
        Long before = known.get(chain);
        if (before != null) {
            return before;
        }
        long took = expected(chain, uses);
        known.put(chain, took);
        return took;
    }

    private Chain used(DeckStep.Use u) {
        return u.chain() != null
                ? rig.board().chain(u.chain()).map(Board.NamedChain::chain).orElse(Chain.EMPTY)
                : rig.button(String.valueOf(u.button())).map(b -> b.states().stream()
                        .filter(s -> s.id().equals(u.state())).findFirst().orElse(b.states().getFirst())
                        .chain(u.gesture())).orElse(Chain.EMPTY);
    }
}
