package rombix.app.edit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.ToDoubleFunction;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.file.ClipFiles;
import rombix.core.board.Board;
import rombix.core.board.Paths;
import rombix.core.board.Rig;
import rombix.core.board.StepWords;
import rombix.core.card.Card.Item;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.DeckStep;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;
import rombix.core.twin.Order;
import rombix.core.twin.Twin;
import rombix.core.value.Value;

/**
 * A chain drawn against time, as data: a lane for each gear, marks in them, spans of waiting, and brackets around the
 * chains that steps hold.
 *
 * @param lanes the gear that the chain touches, in the order in which it touches them; the deck's own steps have a lane
 *            without gear
 * @param waits the waits of the chain itself, and {@code brackets} the steps that hold chains, and the waits within
 * @param bracketRows how many rows the brackets take
 * @param lengthMillis how long the chain takes; what is open-ended counts {@value #OPEN_MILLIS} ms
 */
public record Score(List<Lane> lanes, List<Mark> waits, List<Mark> brackets, int bracketRows, double lengthMillis) {
    /** What a step counts in the drawing whose length is not known beforehand. */
    public static final double OPEN_MILLIS = 1000;

    private static final int DEEPEST_USE = 8;

    /** A gear's lane; its marks are put on as many rows as they need not to cover each other. */
    public record Lane(String gear, String title, List<Mark> marks, int rows) {
    }

    /**
     * A step as drawn.
     *
     * @param path where it stands; see {@link Paths}
     * @param row the row in its lane or among the brackets, from 0
     * @param outline how loud each part of it is, where it is sound: figures from 0 to f; else blank
     */
    public record Mark(List<Integer> path, Step step, String text, double startMillis, double lengthMillis, int row,
            String outline) {
        Mark(List<Integer> path, Step step, String text, double startMillis, double lengthMillis, int row) {
            this(path, step, text, startMillis, lengthMillis, row, "");
        }

        Mark onRow(int next) {
            return new Mark(path, step, text, startMillis, lengthMillis, next, outline);
        }
    }

    /** Steps of one chain side by side: what the layout needs to know of time and room. */
    private static final class Layout {
        private final StepWords words;
        private final Map<String, List<Mark>> lanes = new LinkedHashMap<>();
        private final List<Mark> waits = new ArrayList<>();
        private final List<Mark> brackets = new ArrayList<>();
        private final Rig rig;
        private final int uses;
        private String prefix = "";

        Layout(Rig rig, StepWords words) {
            this.rig = rig;
            this.words = words;
            this.uses = 0;
        }

        private Layout(Rig rig, int uses) {
            this.rig = rig;
            this.words = new StepWords(rig, _ -> Twin.Readings.NONE);
            this.uses = uses;
        }

        double chain(Chain chain, List<Integer> at, double start) {
            double now = start;
            for (int i = 0; i < chain.steps().size(); i++) {
                now = step(chain.steps().get(i), plus(at, i), now);
            }
            for (int i = 0; i < chain.always().size(); i++) {
                prefix = "always: ";
                now = step(chain.always().get(i), plus(at, -1 - i), now);
            }
            return now;
        }

        private double step(Step step, List<Integer> path, double start) {
            double end = switch (step) {
                case GearStep.Do d -> done(d, path, start);
                case GearStep.Nudge n -> mark(n.gear(), path, step, start, 0);
                case GearStep.Fade f -> mark(f.gear(), path, step, start, f.ms());
                case DeckStep.Use u -> mark("", path, step, start, used(u));
                case Step.Wait w -> wait(w, path, start);
                case Step.Together _,Step.If _,Step.Pick _,DeckStep.Ask _,Step.Repeat _,Step.ForAWhile _ ->
                    bracket(step, path, start);
                case DeckStep _ -> mark("", path, step, start, 0);
            };
            Chain instead = step.how().instead();
            if (instead != null) {
                prefix = "if it fails: ";
                chain(instead, plus(path, Paths.INSTEAD), start);
            }
            return step.how().off() ? start : end;
        }

        /** How long the chain takes that a step uses; chains that use each other count so deep and no deeper. */
        private double used(DeckStep.Use u) {
            if (uses >= DEEPEST_USE) {
                return 0;
            }
            Layout inner = new Layout(rig, uses + 1);
            return Optional.ofNullable(u.chain()).flatMap(rig.board()::chain).map(Board.NamedChain::chain)
                    .or(() -> rig.button(String.valueOf(u.button())).map(b -> b.states().stream()
                            .filter(s -> s.id().equals(u.state())).findFirst().orElse(b.states().getFirst())
                            .chain(u.gesture())))
                    .map(c -> inner.chain(c, List.of(), 0)).orElse(0.0);
        }

        private String text(Step step) {
            String text = prefix + words.of(step);
            prefix = "";
            return text;
        }

        private double mark(String gear, List<Integer> path, Step step, double start, double length) {
            lanes.computeIfAbsent(gear, _ -> new ArrayList<>())
                    .add(new Mark(path, step, text(step), start, length, 0));
            return start + length;
        }

        /** A command, which may go on for a while; the chain goes on with its end, or beside it. */
        private double done(GearStep.Do d, List<Integer> path, double start) {
            Order order = rig.twin(d.gear()).flatMap(t -> order(t, d)).orElse(null);
            Order.Going going = order == null ? null : order.going();
            if (order == null || going == null) {
                return mark(d.gear(), path, d, start, 0);
            }
            double length = going.millis() > 0 ? going.millis() : OPEN_MILLIS;
            lanes.computeIfAbsent(d.gear(), _ -> new ArrayList<>()).add(new Mark(path, d, text(d), start, length, 0,
                    outline(d, order)));
            return order.waits() ? start + length : start;
        }

        private static Optional<Order> order(Twin twin, GearStep.Do d) {
            Map<String, Value> args = new LinkedHashMap<>();
            d.args().forEach((name, arg) -> {
                if (arg instanceof Arg.Constant c) {
                    args.put(name, c.value());
                }
            });
            try {
                return twin.card().command(d.command()).map(c -> twin.order(c, args, Twin.Readings.NONE));
            } catch (IllegalArgumentException e) {
                return Optional.empty(); // What is missing is said where the step is.
            }
        }

        /** The outline of what plays, from where to where it plays. */
        private String outline(GearStep.Do d, Order order) {
            Item clip = rig.twin(d.gear()).flatMap(t -> t.item(ClipFiles.CLIP, String.valueOf(order.args().get(
                    ClipFiles.CLIP)), Twin.Readings.NONE)).orElse(null);
            Object outline = clip == null ? null : clip.fields().get(ClipFiles.OUTLINE);
            Object seconds = clip == null ? null : clip.fields().get(ClipFiles.SECONDS);
            if (outline == null || !(seconds instanceof Number length) || length.doubleValue() <= 0) {
                return "";
            }
            String whole = outline.toString();
            int from = part(order.args().get("from"), length.doubleValue(), whole.length());
            int to = part(order.args().get("to"), length.doubleValue(), whole.length());
            return whole.substring(from, to <= from ? whole.length() : to);
        }

        private static int part(@Nullable Value seconds, double length, int parts) {
            return seconds == null ? 0 : (int) Math.clamp(Math.round(seconds.asNumber() / length * parts), 0, parts);
        }

        private double wait(Step.Wait w, List<Integer> path, double start) {
            double length = w.clock() != null || w.condition() != null
                    ? OPEN_MILLIS
                    : w.max() == null ? w.ms() : (w.ms() + w.max()) / 2.0;
            String text = text(w);
            (path.size() == 1 && path.getFirst() >= 0 ? waits : brackets).add(new Mark(path, w,
                    text.replaceFirst("^Wait", "wait"), start, length, 0));
            return start + length;
        }

        private double bracket(Step step, List<Integer> path, double start) {
            int here = brackets.size();
            String text = text(step);
            brackets.add(new Mark(path, step, text, start, 0, 0));
            double end = start;
            List<Chain> inner = step.inner();
            for (int c = 0; c < inner.size(); c++) {
                prefix = prefix(step, c);
                if (inner.get(c).isEmpty() && !prefix.isEmpty() && !(step instanceof Step.If)) {
                    lanes.computeIfAbsent("", _ -> new ArrayList<>())
                            .add(new Mark(plus(path, c), step, prefix + "nothing", start, 0, 0));
                } else {
                    end = Math.max(end, chain(inner.get(c), plus(path, c), start));
                }
                prefix = "";
            }
            end = start + switch (step) {
                case Step.ForAWhile f -> Math.max(f.ms(), end - start);
                case Step.Repeat r -> {
                    double round = Math.max(end - start, r.every() == null ? 0 : r.every());
                    yield r.times() instanceof Arg.Constant t ? round * Math.max(0, t.value().asNumber()) : round;
                }
                case DeckStep.Ask _ -> Math.max(end - start, OPEN_MILLIS);
                default -> end - start;
            };
            brackets.set(here, new Mark(path, step, text, start, end - start, 0));
            return end;
        }

        private static String prefix(Step step, int choice) {
            return switch (step) {
                case Step.Pick p when p.way() == Step.Pick.Way.RANDOM || p.way() == Step.Pick.Way.NO_REPEAT -> {
                    double all = p.choices().stream().mapToDouble(Step.Choice::weight).sum();
                    yield String.format(Locale.ROOT, "%.0f\u00a0%% ", 100 * p.choices().get(choice).weight() / all);
                }
                case Step.Pick _ -> "1/" + step.inner().size() + " ";
                case DeckStep.Ask a -> a.choices().get(choice).label(choice) + ": ";
                case Step.If _ -> choice == 0 ? "" : "else: ";
                default -> "";
            };
        }
    }

    /**
     * Lays a chain out.
     *
     * @param room how many milliseconds of the drawing a mark with a text takes, so that marks that would cover each
     *            other are put on rows
     */
    public static Score of(Chain chain, Rig rig, Function<String, Twin.Readings> readings,
            ToDoubleFunction<String> room) {
        Layout layout = new Layout(rig, new StepWords(rig, readings));
        double length = layout.chain(chain, List.of(), 0);
        List<Lane> lanes = new ArrayList<>();
        layout.lanes.forEach((gear, marks) -> {
            List<Mark> placed = rows(marks, room);
            lanes.add(new Lane(gear, gear.isEmpty() ? "Deck" : rig.twin(gear).map(Twin::title).orElse(gear), placed,
                    rowCount(placed)));
        });
        lanes.sort(Comparator.comparing(l -> l.gear().isEmpty()));
        List<Mark> brackets = rows(layout.brackets, room);
        return new Score(lanes, List.copyOf(layout.waits), brackets, layout.brackets.isEmpty() ? 0 : rowCount(brackets),
                length);
    }

    /** How long a chain takes, as it is drawn. */
    public static double length(Chain chain, Rig rig) {
        return new Layout(rig, 0).chain(chain, List.of(), 0);
    }

    private static int rowCount(List<Mark> marks) {
        return 1 + marks.stream().mapToInt(Mark::row).max().orElse(0);
    }

    /** Puts marks on rows, in the order of their starts; a bracket stands above those within it. */
    private static List<Mark> rows(List<Mark> marks, ToDoubleFunction<String> room) {
        List<Double> ends = new ArrayList<>();
        List<Mark> placed = new ArrayList<>();
        for (Mark m : marks.stream().sorted(Comparator.comparingDouble(Mark::startMillis)).toList()) {
            int row = 0;
            while (row < ends.size() && ends.get(row) > m.startMillis()) {
                row++;
            }
            double end = m.startMillis() + Math.max(m.lengthMillis(), room.applyAsDouble(m.text()));
            if (row == ends.size()) {
                ends.add(end);
            } else {
                ends.set(row, end);
            }
            placed.add(m.onRow(row));
        }
        return placed;
    }

    private static List<Integer> plus(List<Integer> path, int i) {
        List<Integer> all = new ArrayList<>(path);
        all.add(i);
        return List.copyOf(all);
    }
}
