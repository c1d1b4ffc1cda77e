package rombix.app.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.ToDoubleFunction;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Paths;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.edit.Edits;
import rombix.core.event.Known;
import rombix.core.forecast.Opposite;
import rombix.core.twin.Twin;

/** Edits of the selected steps. Each is one named edit. */
public final class StepEdits {
    private final Workbench bench;
    private List<Step> copied = List.of();
    private Consumer<Chain> told = _ -> {
    };

    public StepEdits(Workbench bench) {
        this.bench = bench;
    }

    /** What steps can be wrapped into. */
    public enum Wrap {
        TOGETHER("Together", c -> new Step.Together(c.steps().stream().map(Chain::of).toList())), REPEAT("Repeat",
                c -> new Step.Repeat(Arg.of(2), null, null, "count", c, StepOptions.PLAIN, Map.of())), PICK("One of",
                        c -> new Step.Pick(Step.Pick.Way.RANDOM, c.steps().stream().map(s -> new Step.Choice(null, 1,
                                Chain.of(s))).toList(), StepOptions.PLAIN, Map.of())), FOR_A_WHILE("For a while",
                                        c -> new Step.ForAWhile(c, 60_000, StepOptions.PLAIN, Map.of()));

        private final String words;
        private final Function<Chain, Step> make;

        Wrap(String words, Function<Chain, Step> make) {
            this.words = words;
            this.make = make;
        }

        public String words() {
            return words;
        }
    }

    private String count() {
        int n = Paths.outer(bench.steps()).size();
        return n == 1 ? "a step" : n + " steps";
    }

    /** Has another told of steps that are copied. */
    public void whenCopied(Consumer<Chain> next) {
        told = next;
    }

    public void copy() {
        List<Step> now = Paths.steps(bench.chain(), bench.steps());
        if (!now.isEmpty()) {
            copied = now;
            told.accept(Chain.EMPTY.withSteps(now));
        }
    }

    public void cut() {
        copy();
        delete("cut ");
    }

    public void delete() {
        delete("delete ");
    }

    private void delete(String what) {
        List<List<Integer>> gone = List.copyOf(bench.steps());
        if (!gone.isEmpty()) {
            bench.editChain(what + count(), c -> Paths.without(c, gone));
            bench.cursor(Paths.outer(gone).getFirst());
        }
    }

    /** Puts what was copied where the cursor stands. */
    public void paste() {
        if (!copied.isEmpty()) {
            bench.add(copied.size() == 1 ? "paste a step" : "paste " + copied.size() + " steps", copied);
        }
    }

    /** Puts the selected steps once more behind the last of them. */
    public void duplicate() {
        List<List<Integer>> paths = Paths.outer(bench.steps());
        if (!paths.isEmpty()) {
            List<Step> again = Paths.steps(bench.chain(), paths);
            bench.editChain("duplicate " + count(), c -> Paths.inserted(c, Paths.next(paths.getLast()), again));
        }
    }

    /** Wraps the selected steps into one that holds them, where the first of them stood. */
    public void wrap(Wrap into) {
        List<List<Integer>> paths = Paths.outer(bench.steps());
        if (paths.isEmpty()) {
            return;
        }
        Step wrapped = into.make.apply(new Chain(Paths.steps(bench.chain(), paths)));
        bench.editChain("wrap " + count() + " into “" + into.words() + "”", c -> Paths.inserted(Paths.without(c, paths),
                paths.getFirst(), List.of(wrapped)));
        bench.selectStep(paths.getFirst());
    }

    /**
     * Gives the button the opposite of the chain under the hand: in the state that follows, where that has no chain of
     * the same gesture yet, else in a new one.
     *
     * @return the steps that have no opposite
     */
    public List<Opposite.Left> makeOpposite(Known known) {
        Button button = bench.button().orElse(null);
        Gesture gesture = bench.part().gesture();
        if (button == null || gesture == null) {
            return List.of();
        }
        Opposite opposite = Opposite.of(bench.rig(), known, bench.chain(), gesture.id());
        int next = (bench.stateIndex() + 1) % button.states().size();
        boolean free = next != bench.stateIndex() && button.states().get(next).chain(gesture).isEmpty();
        int target = free ? next : button.states().size();
        bench.edit("make the opposite", board -> {
            Board with = free ? board : Edits.addState(board, button.id());
            return Edits.chain(with, button.id(), target, gesture, _ -> opposite.chain());
        });
        bench.selectState(Math.min(target, bench.button().map(b -> b.states().size() - 1).orElse(0)));
        return opposite.left();
    }

    /** Switches the selected steps off, or on again where all of them are off. */
    public void switchOff() {
        List<List<Integer>> paths = List.copyOf(bench.steps());
        boolean on = paths.stream().allMatch(p -> Paths.step(bench.chain(), p).map(s -> s.how().off()).orElse(false));
        bench.editChain(on ? "switch " + count() + " on" : "switch " + count() + " off", c -> {
            Chain all = c;
            for (List<Integer> p : paths) {
                all = Paths.changed(all, p, s -> s.withHow(s.how().withOff(!on)));
            }
            return all;
        });
    }

    /**
     * Moves a step to a time within its list: waits around it are made shorter or longer, or a wait is made for it, so
     * that everything else stays where it is in time. Steps of an always part stay.
     *
     * @param toMillis from where the list starts
     * @param length how long a step takes, in milliseconds
     */
    public void moveInTime(List<Integer> path, double toMillis, ToDoubleFunction<Step> length) {
        int at = path.getLast();
        if (at >= 0) {
            bench.editChain("move a step in time", c -> Paths.relisted(c, path, steps -> {
                List<Step> rest = new ArrayList<>(steps);
                return placed(rest, rest.remove(at), toMillis, length);
            }));
        }
    }

    /** Adds a step to the chain under the hand at a time. */
    public void addAt(String name, Step step, double toMillis, ToDoubleFunction<Step> length) {
        bench.editChain(name, c -> c.withSteps(placed(c.steps(), step, toMillis, length)));
    }

    /**
     * Moves the step at a path into another list, behind those that are in it, or to a place in it.
     *
     * @param to the place, as paths are before the move
     */
    public void moveInto(List<Integer> path, List<Integer> to) {
        boolean within = to.size() > path.size() && to.subList(0, path.size()).equals(path);
        Step step = Paths.step(bench.chain(), path).orElse(null);
        if (step == null || within) {
            return; // A step cannot go into itself.
        }
        bench.editChain("move a step", c -> Paths.without(Paths.inserted(c, to, List.of(step)), List.of(Paths.shifted(
                path, to, 1))));
        bench.selectStep(Paths.shifted(to, path, -1));
    }

    /** Moves the step at a path out of what holds it, to a time of the chain itself. */
    public void moveOut(List<Integer> path, double toMillis, ToDoubleFunction<Step> length) {
        Paths.step(bench.chain(), path).ifPresent(step -> bench.editChain("move a step out", c -> {
            Chain left = Paths.without(c, List.of(path));
            return left.withSteps(placed(left.steps(), step, toMillis, length));
        }));
    }

    /** Moves the selected steps that stand in one list by one place. */
    public void moveBy(int by) {
        List<Integer> path = bench.step().orElse(null);
        if (path == null) {
            return;
        }
        int size = Paths.holding(bench.chain(), path).map(c -> (path.getLast() < 0 ? c.always() : c.steps()).size())
                .orElse(0);
        int place = path.getLast() < 0 ? -1 - path.getLast() : path.getLast();
        if (place + by >= 0 && place + by < size) {
            bench.editChain("move a step", c -> Paths.relisted(c, path, steps -> {
                List<Step> all = new ArrayList<>(steps);
                Step step = all.remove(place);
                all.add(place + by, step);
                return all;
            }));
            List<Integer> now = new ArrayList<>(path);
            now.set(now.size() - 1, path.getLast() < 0 ? path.getLast() - by : path.getLast() + by);
            bench.selectStep(now);
        }
    }

    /** Moves the selected step into the step before it, or behind it, that holds chains. */
    public void moveIn() {
        bench.step().ifPresent(path -> {
            for (int by : new int[]{-1, 1}) {
                List<Integer> beside = new ArrayList<>(path);
                beside.set(beside.size() - 1, path.getLast() + by);
                Step holder = path.getLast() + by < 0 ? null : Paths.step(bench.chain(), beside).orElse(null);
                if (holder != null && !holder.inner().isEmpty()) {
                    int last = holder.inner().size() - 1;
                    moveInto(path, Paths.within(beside, last, holder.inner().get(last).steps().size()));
                    return;
                }
            }
        });
    }

    /** Moves the selected step out of the step that holds it, behind that. */
    public void moveOut() {
        bench.step().filter(p -> p.size() > 2).ifPresent(path -> moveInto(path, Paths.next(path.subList(0, path.size()
                - 2))));
    }

    /** Has a step tell another gear the same; nothing where that one knows no such command. */
    public boolean moveToGear(List<Integer> path, String gear) {
        Twin twin = bench.rig().twins().get(gear);
        Step step = Paths.step(bench.chain(), path).orElse(null);
        if (twin == null || step == null) {
            return false;
        }
        String command = switch (step) {
            case GearStep.Do d -> d.command();
            case GearStep.Fade f -> f.command();
            case GearStep.Nudge n -> n.command();
            default -> "";
        };
        if (twin.card().command(command).isEmpty()) {
            return false;
        }
        bench.editChain("move a step to " + twin.title(), c -> Paths.changed(c, path, s -> switch (s) {
            case GearStep.Do d -> d.withGear(gear);
            case GearStep.Fade f ->
                f.withGear(gear);
            case GearStep.Nudge n ->
                n.withGear(gear);
            default -> s;
        }));
        return true;
    }

    private static List<Step> placed(List<Step> rest, Step moved, double toMillis, ToDoubleFunction<Step> length) {
        double to = Math.max(0, Math.round(toMillis / 50) * 50);
        List<Step> all = new ArrayList<>();
        double now = 0;
        boolean placed = false;
        for (Step s : rest) {
            double takes = length.applyAsDouble(s);
            if (!placed && s instanceof Step.Wait w && w.max() == null && w.condition() == null && w.clock() == null
                    && to < now + takes && to >= now) {
                // Into the middle of a wait: what is left of it follows.
                addWait(all, to - now);
                all.add(moved);
                placed = true;
                addWait(all, Math.max(0, now + takes - to - length.applyAsDouble(moved)));
                now += takes;
                continue;
            }
            if (!placed && to < now) {
                all.add(moved);
                placed = true;
            }
            all.add(s);
            now += takes;
        }
        if (!placed) {
            addWait(all, to - now);
            all.add(moved);
        }
        return all;
    }

    private static void addWait(List<Step> to, double millis) {
        if (millis >= 1) {
            to.add(new Step.Wait(Math.round(millis)));
        }
    }
}
