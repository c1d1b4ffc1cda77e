package rombix.app.edit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import rombix.core.board.Rig;
import rombix.core.card.Card.Command;
import rombix.core.card.Figures;
import rombix.core.card.Twin;
import rombix.core.card.Twin.Readings;
import rombix.core.chain.Chain;
import rombix.core.chain.Step;
import rombix.core.value.Value;

/**
 * A chain drawn against time, as data: a lane for each gear, marks in them, and spans of waiting.
 *
 * @param lanes the gear that the chain touches, in the order in which it touches them
 * @param lengthMillis how long the chain takes
 */
public record Score(List<Lane> lanes, List<Mark> waits, double lengthMillis) {

    /** A gear's lane; its marks are put on as many rows as they need not to cover each other. */
    public record Lane(String gear, String title, List<Mark> marks, int rows) {
    }

    /**
     * A step as drawn.
     *
     * @param path where it stands: the index in the chain, then in turn the index of a chain within and of a step in it
     * @param row the row in its lane, from 0
     */
    public record Mark(List<Integer> path, Step step, String text, double startMillis, double lengthMillis, int row) {
    }

    /** Steps of one chain side by side: what the layout needs to know of time and room. */
    private static final class Layout {
        private final Rig rig;
        private final Function<String, Readings> readings;
        private final Map<String, List<Mark>> lanes = new LinkedHashMap<>();
        private final List<Mark> waits = new ArrayList<>();

        Layout(Rig rig, Function<String, Readings> readings) {
            this.rig = rig;
            this.readings = readings;
        }

        double chain(Chain chain, List<Integer> at, double start) {
            double now = start;
            for (int i = 0; i < chain.steps().size(); i++) {
                List<Integer> path = plus(at, i);
                switch (chain.steps().get(i)) {
                    case Step.Do d -> lanes.computeIfAbsent(d.gear(), _ -> new ArrayList<>())
                            .add(new Mark(path, d, title(rig, d, readings), now, 0, 0));
                    case Step.Wait w -> {
                        waits.add(new Mark(path, w, "wait " + Figures.span(w.ms()), now, w.ms(), 0));
                        now += w.ms();
                    }
                    case Step.Together t -> {
                        double end = now;
                        for (int c = 0; c < t.chains().size(); c++) {
                            end = Math.max(end, chain(t.chains().get(c), plus(path, c), now));
                        }
                        now = end;
                    }
                }
            }
            return now;
        }
    }

    /**
     * Lays a chain out.
     *
     * @param room how many milliseconds of the drawing a mark with a text takes, so that marks that would cover each
     *            other are put on rows
     */
    public static Score of(Chain chain, Rig rig, Function<String, Readings> readings, Function<String, Double> room) {
        Layout layout = new Layout(rig, readings);
        double length = layout.chain(chain, List.of(), 0);
        List<Lane> lanes = new ArrayList<>();
        layout.lanes.forEach((gear, marks) -> lanes.add(rows(gear,
                rig.twin(gear).map(Twin::title).orElse(gear), marks, room)));
        return new Score(lanes, List.copyOf(layout.waits), length);
    }

    private static Lane rows(String gear, String title, List<Mark> marks, Function<String, Double> room) {
        List<Double> ends = new ArrayList<>();
        List<Mark> placed = new ArrayList<>();
        for (Mark m : marks.stream().sorted(Comparator.comparingDouble(Mark::startMillis)).toList()) {
            int row = 0;
            while (row < ends.size() && ends.get(row) > m.startMillis()) {
                row++;
            }
            double end = m.startMillis() + Math.max(m.lengthMillis(), room.apply(m.text()));
            if (row == ends.size()) {
                ends.add(end);
            } else {
                ends.set(row, end);
            }
            placed.add(new Mark(m.path(), m.step(), m.text(), m.startMillis(), m.lengthMillis(), row));
        }
        return new Lane(gear, title, placed, Math.max(1, ends.size()));
    }

    /** A command step in words. */
    public static String title(Rig rig, Step.Do d, Function<String, Readings> readings) {
        return rig.twin(d.gear()).flatMap(t -> t.card().command(d.command())
                .map(c -> t.spokenTitle(c, withUsual(c, d), readings.apply(d.gear())))).orElse(d.command());
    }

    private static Map<String, Value> withUsual(Command c, Step.Do d) {
        Map<String, Value> all = new LinkedHashMap<>();
        c.params().forEach(p -> {
            if (p.usual() != null) {
                all.put(p.id(), p.usual());
            }
        });
        all.putAll(d.with());
        return all;
    }

    private static List<Integer> plus(List<Integer> path, int i) {
        List<Integer> all = new ArrayList<>(path);
        all.add(i);
        return List.copyOf(all);
    }
}
