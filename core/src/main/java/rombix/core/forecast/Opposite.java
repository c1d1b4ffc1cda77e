package rombix.core.forecast;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Rig;
import rombix.core.card.Card.Command;
import rombix.core.card.Card.Param;
import rombix.core.card.Card.Undo;
import rombix.core.card.value.WireValue;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.DeckStep;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;
import rombix.core.event.Known;
import rombix.core.twin.Order;
import rombix.core.twin.Twin;
import rombix.core.value.Value;

/**
 * The chain that undoes a chain: its steps reversed, each replaced by what undoes it. What cannot be undone is listed.
 *
 * @param left the steps that have no opposite, in the order of the chain
 */
public record Opposite(Chain chain, List<Left> left) {
    private static final int DEEPEST_USE = 50;

    /** A step that was left out, by its place in the chain, and why. */
    public record Left(String step, Step what, String why) {
    }

    public Opposite {
        left = List.copyOf(left);
    }

    /**
     * The opposite of a chain that begins when the gear is as known.
     *
     * @param place what the places of its steps begin with
     */
    public static Opposite of(Rig rig, Known known, Chain chain, String place) {
        Turner turner = new Turner(rig, known);
        List<Step> turned = turner.chain(chain, place, 0);
        return new Opposite(new Chain(turned), turner.left);
    }

    /** Goes through a chain forwards, keeping what each reading is by then. */
    private static final class Turner {
        private final Rig rig;
        private final Map<String, Map<String, Value>> readings = new HashMap<>();
        private final Map<String, Value> values = new HashMap<>();
        private final List<Left> left = new ArrayList<>();

        Turner(Rig rig, Known known) {
            this.rig = rig;
            known.readings().forEach((gear, of) -> readings.put(gear, new HashMap<>(of)));
            rig.board().values().forEach(v -> values.put(v.id(), v.initial()));
            values.putAll(known.values());
        }

        List<Step> chain(Chain chain, String place, int depth) {
            List<Step> turned = new ArrayList<>();
            each(chain.steps(), place, depth, turned);
            each(chain.always(), place + "/always", depth, turned);
            return turned.reversed();
        }

        private void each(List<Step> steps, String place, int depth, List<Step> turned) {
            for (int i = 0; i < steps.size(); i++) {
                Step step = steps.get(i);
                String here = place + "/" + i;
                if (step.how().off()) {
                    continue;
                }
                if (step.how().condition() != null) {
                    skip(here, step, "it isn't known whether it ran");
                } else {
                    step(step, here, depth, turned);
                }
            }
        }

        private void step(Step step, String here, int depth, List<Step> turned) {
            switch (step) {
                case GearStep.Do d -> undo(d, here).ifPresent(turned::add);
                case GearStep.Fade f -> fade(f, here).ifPresent(turned::add);
                case GearStep.Nudge n -> turned.add(new GearStep.Nudge(n.gear(), n.command(), n.args(), n.param(),
                        negated(n.by()), n.wrap(), n.how(), Map.of()));
                case Step.Wait w -> {
                    if (w.clock() != null || w.condition() != null) {
                        skip(here, step, "it isn't known how long it waited");
                    } else {
                        turned.add(w);
                    }
                }
                case Step.Together t -> turned.add(new Step.Together(inner(t, here, depth), t.ends(), t.how(),
                        Map.of()));
                case Step.Repeat r -> {
                    if (r.times() == null || r.condition() != null) {
                        skip(here, step, "it isn't known how often it ran");
                    } else {
                        turned.add(new Step.Repeat(r.times(), null, r.every(), r.count(),
                                inner(r, here, depth).getFirst(), r.how(), Map.of()));
                    }
                }
                case DeckStep.Use u -> use(u, here, depth, turned);
                case DeckStep.Set s -> {
                    Value before = values.get(s.value());
                    if (before == null) {
                        skip(here, step, "the previous value isn't known");
                    } else {
                        turned.add(new DeckStep.Set(s.value(), Arg.of(before), s.how(), Map.of()));
                        if (s.to() instanceof Arg.Constant c) {
                            values.put(s.value(), c.value());
                        } else {
                            values.remove(s.value());
                        }
                    }
                }
                default -> skip(here, step, step.stays());
            }
        }

        private List<Chain> inner(Step step, String here, int depth) {
            List<Chain> chains = new ArrayList<>();
            for (int c = 0; c < step.inner().size(); c++) {
                chains.add(new Chain(chain(step.inner().get(c), here + "/" + c, depth)));
            }
            return chains;
        }

        private void use(DeckStep.Use u, String here, int depth, List<Step> turned) {
            Chain used = u.chain() != null
                    ? rig.board().chain(u.chain()).map(Board.NamedChain::chain).orElse(null)
                    : rig.button(String.valueOf(u.button())).map(b -> state(b, u.state()).chain(u.gesture()))
                            .orElse(null);
            if (used == null || depth > DEEPEST_USE) {
                skip(here, u, "there is no such chain");
            } else if (!u.args().isEmpty()) {
                skip(here, u, "it was used with arguments");
            } else {
                turned.addAll(chain(used, here + " > ", depth + 1).reversed());
            }
        }

        private static rombix.core.board.State state(Button button, @Nullable String id) {
            return button.states().stream().filter(s -> s.id().equals(id)).findFirst().orElse(button.states()
                    .getFirst());
        }

        private Optional<Step> undo(GearStep.Do d, String here) {
            Twin twin = rig.twins().get(d.gear());
            Command command = twin == null ? null : twin.card().command(d.command()).orElse(null);
            if (twin == null || command == null) {
                return skip(here, d, "there is no such command");
            }
            Order order = order(twin, command, d.args());
            GearStep.Do turned = command.undo() == null ? null : undone(twin, command.undo(), d, command, order);
            if (turned == null && order != null) {
                turned = reached(twin, order, d);
            }
            boolean needsBefore = command.undo() != null || !command.changes().isEmpty();
            if (order != null) {
                readings.computeIfAbsent(d.gear(), _ -> new HashMap<>()).putAll(order.changes());
            }
            return turned != null
                    ? Optional.of(turned)
                    : skip(here, d, needsBefore
                            ? "its previous state isn't known"
                            : "the card has no command that undoes it");
        }

        private @Nullable Order order(Twin twin, Command command, Map<String, Arg> with) {
            Map<String, Value> args = new LinkedHashMap<>();
            for (Map.Entry<String, Arg> e : with.entrySet()) {
                if (e.getValue() instanceof Arg.Constant c) {
                    args.put(e.getKey(), c.value());
                } else {
                    return null;
                }
            }
            try {
                return twin.order(command, args, of(twin.gear()));
            } catch (IllegalArgumentException e) {
                return null;
            }
        }

        private Twin.Readings of(String gear) {
            return id -> readings.getOrDefault(gear, Map.of()).get(id);
        }

        /** What the card says undoes the command; null where that needs what is not known. */
        private GearStep.@Nullable Do undone(Twin twin, Undo undo, GearStep.Do d, Command command,
                @Nullable Order order) {
            Map<String, Arg> args = new LinkedHashMap<>();
            for (Map.Entry<String, WireValue> e : undo.with().entrySet()) {
                Arg arg = argument(e.getKey(), e.getValue(), d, command, order);
                if (arg == null) {
                    return null;
                }
                args.put(e.getKey(), arg);
            }
            return new GearStep.Do(d.gear(), undo.command(), ordered(twin, undo.command(), args), d.answer(), d.how(),
                    Map.of());
        }

        /** The reading that a parameter sets; the first that the command changes where none is set by it alone. */
        private static @Nullable String set(String param, Command command, Order order) {
            List<String> changed = List.copyOf(order.changes().keySet());
            for (int i = 0; i < command.changes().size() && changed.size() == command.changes().size(); i++) {
                if (command.changes().get(i).to() instanceof WireValue.Filled f && f.template().solePlace().filter(
                        param::equals).isPresent()) {
                    return changed.get(i);
                }
            }
            return changed.isEmpty() ? null : changed.getFirst();
        }

        private @Nullable Arg argument(String param, WireValue carry, GearStep.Do d, Command command,
                @Nullable Order order) {
            if (carry instanceof WireValue.Fixed f && f.value().toString().equals("before")) {
                String reading = order == null ? null : set(param, command, order);
                Value before = reading == null ? null : of(d.gear()).apply(reading);
                return before == null ? null : Arg.of(before);
            }
            if (carry instanceof WireValue.Filled f && f.template().solePlace().isPresent()) {
                Arg given = d.args().get(f.template().solePlace().get());
                if (given != null) {
                    return given;
                }
            }
            Function<String, @Nullable Value> places = name -> order == null ? null : order.args().get(name);
            Value value = carry.out(places);
            return value == null ? null : Arg.of(value);
        }

        /** A command that brings the changed reading back to what it was; null where there is none. */
        private GearStep.@Nullable Do reached(Twin twin, Order order, GearStep.Do d) {
            if (order.changes().size() != 1) {
                return null;
            }
            String reading = order.changes().keySet().iterator().next();
            Value before = of(d.gear()).apply(reading);
            return before == null
                    ? null
                    : twin.toReach(reading, before).map(call -> new GearStep.Do(d.gear(), call.command().id(),
                            call.args())).orElse(null);
        }

        private static Map<String, Arg> ordered(Twin twin, String command, Map<String, Arg> args) {
            Map<String, Arg> all = new LinkedHashMap<>();
            twin.card().command(command).ifPresent(c -> {
                for (Param p : c.params()) {
                    Arg arg = args.get(p.id());
                    if (arg != null) {
                        all.put(p.id(), arg);
                    }
                }
            });
            return all;
        }

        private Optional<Step> fade(GearStep.Fade f, String here) {
            Twin twin = rig.twins().get(f.gear());
            Command command = twin == null ? null : twin.card().command(f.command()).orElse(null);
            Map<String, Arg> with = new LinkedHashMap<>(f.args());
            with.put(f.param(), f.to());
            Order order = twin == null || command == null ? null : order(twin, command, with);
            if (order == null || order.changes().isEmpty()) {
                return skip(here, f, "it isn't known what it changes");
            }
            String reading = order.changes().keySet().iterator().next();
            Value before = of(f.gear()).apply(reading);
            readings.computeIfAbsent(f.gear(), _ -> new HashMap<>()).putAll(order.changes());
            Arg back = before != null ? Arg.of(before) : f.from();
            return back == null
                    ? skip(here, f, "its previous state isn't known")
                    : Optional.of(new GearStep.Fade(f.gear(), f.command(), f.args(), f.param(), null, back, f.ms(),
                            f.curve(), f.how(), Map.of()));
        }

        private static Arg negated(Arg by) {
            return switch (by) {
                case Arg.Constant c -> Arg.of(-c.value().asNumber());
                case Arg.Computed c -> new Arg.Computed("-(" + c.formula() + ")");
            };
        }

        private <T> Optional<T> skip(String here, Step step, String why) {
            left.add(new Left(here, step, why));
            return Optional.empty();
        }
    }
}
