package rombix.bench;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.concurrent.locks.LockSupport;
import java.util.function.UnaryOperator;
import javafx.scene.Scene;
import rombix.app.edit.Workbench;
import rombix.app.show.Session;
import rombix.app.view.gear.Practice;
import rombix.app.view.window.MainWindow;
import rombix.bench.measure.BenchGear;
import rombix.bench.measure.Figure;
import rombix.bench.measure.Measured;
import rombix.bench.measure.Still;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Face;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.chain.Chain;
import rombix.core.chain.DeckStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.check.Check;
import rombix.core.engine.Deck;
import rombix.core.event.Event;
import rombix.core.event.Happening;
import rombix.core.event.Known;
import rombix.core.event.Trace;
import rombix.core.forecast.Forecaster;
import rombix.core.store.BoardFile;
import rombix.core.time.SimulatedClock;
import rombix.core.value.Value;
import rombix.running.input.Touches;
import rombix.running.owner.Trust;

/**
 * Boards of 32, 320 and 3,168 buttons with ten steps each, in one run: what is to grow in line with the board (the
 * largest against the middle one), and what is not to grow (the largest against the smallest).
 */
final class BoardSizes implements Measured {
    private static final int A_PAGE = 32;
    private static final int[] PAGES = {1, 10, 99};
    private static final int STEPS = 10;
    private static final int RUNS = 100;
    private static final double IN_LINE = 12;
    private static final double STAYS = 1.5;
    private static final double MAX_CHECK_MILLIS = 2000;
    private static final double MAX_BUTTON_BYTES = 12 * 1024;

    @Override
    public List<Figure> measure() throws Exception {
        Session.startToolkit(true);
        List<Map<String, Double>> all = new ArrayList<>();
        for (int pages : PAGES) {
            all.add(board(pages));
        }
        List<Figure> figures = new ArrayList<>();
        for (String name : List.of("check", "open", "save")) {
            figures.add(Figure.of("scale-" + name, of(all, 2, name), of(all, 1, name), "ms", IN_LINE));
        }
        for (String name : List.of("forecast", "edit", "press", "reading")) {
            figures.add(Figure.of("scale-" + name, of(all, 2, name), of(all, 0, name), "ms", STAYS));
        }
        // A board of one page has none to turn to.
        figures.add(Figure.of("scale-page", of(all, 2, "page"), of(all, 1, "page"), "ms", STAYS));
        figures.add(Figure.of("scale-check-all", of(all, 2, "check"), MAX_CHECK_MILLIS, "ms", 1));
        figures.add(Figure.of("scale-memory", of(all, 2, "memory"), MAX_BUTTON_BYTES, "B", 1));
        return figures;
    }

    private static double of(List<Map<String, Double>> all, int size, String name) {
        Double found = all.get(size).get(name);
        return found == null ? Double.NaN : found;
    }

    private static Map<String, Double> board(int pages) throws Exception {
        Path file = Files.createTempDirectory("scale").resolve("b.json");
        Files.createDirectory(file.resolveSibling("cards"));
        Files.writeString(file.resolveSibling("cards").resolve("bench.json"), BenchGear.CARD);
        BoardFile.save(file, rig(pages).board());
        long before = heap();
        Rig rig = BoardFile.read(file);
        double memory = (heap() - before) / (double) (pages * A_PAGE);
        Map<String, Double> found = new java.util.HashMap<>();
        found.put("memory", memory);
        found.put("check", median(7, () -> Check.of(rig)));
        found.put("open", median(7, () -> BoardFile.read(file)));
        found.put("save", median(7, () -> BoardFile.save(file, rig.board())));
        ZonedDateTime wall = ZonedDateTime.now();
        Button button = rig.button("b-0-0").orElseThrow();
        found.put("forecast", median(30, () -> Forecaster.of(rig, Known.NOTHING, wall, button.id(), button.states()
                .getFirst().chain(Gesture.PRESS), "press", RUNS, 1)));
        Deck deck = new Deck(new SimulatedClock(), new SplittableRandom(1), (_, _) -> {
        }, _ -> {
        }, Trace.NONE);
        deck.take(new Event.Load(rig), 0);
        found.put("press", median(300, () -> {
            deck.take(new Event.Perform("b-0-0", Gesture.PRESS, "bench"), 0);
            deck.advance();
        }));
        window(rig, deck, found);
        return found;
    }

    private static void window(Rig rig, Deck deck, Map<String, Double> found) throws Exception {
        Still still = new Still();
        MainWindow[] window = new MainWindow[1];
        Workbench bench = Session.onInterface(() -> {
            Workbench made = new Workbench(Path.of("scale.json"), rig);
            window[0] = new MainWindow(made, still, Practice.NONE, null, Touches.NONE, Trust.all());
            made.select("b-0-0");
            return made;
        });
        int[] n = {0};
        found.put("edit", median(40, () -> {
            Session.onInterface(() -> {
                UnaryOperator<Board> renamed = b -> b.withPages(first(b.pages(), p -> p.withButtons(first(p.buttons(),
                        x -> x.withName("Button " + n[0]++)))));
                bench.edit("rename", renamed);
                laidOut(window[0].scene());
                return true;
            });
            deck.take(new Event.Load(bench.rig()), 0);
        }));
        String second = rig.board().pages().getLast().id();
        String first = rig.board().pages().getFirst().id();
        found.put("page", median(40, () -> Session.onInterface(() -> {
            bench.showPage(n[0]++ % 2 == 0 ? second : first);
            laidOut(window[0].scene());
            return true;
        })));
        found.put("reading", median(200, () -> Session.onInterface(() -> {
            still.feed().feed(new Happening.Came("g0", "level/a", Value.of(n[0]++ % 100)), System.nanoTime());
            window[0].model().pulse();
            laidOut(window[0].scene());
            return true;
        })));
        Session.onInterface(() -> {
            window[0].closing();
            return true;
        });
    }

    private static <T> List<T> first(List<T> of, UnaryOperator<T> change) {
        List<T> changed = new ArrayList<>(of);
        changed.set(0, change.apply(changed.getFirst()));
        return changed;
    }

    private static void laidOut(Scene scene) {
        scene.getRoot().applyCss();
        scene.getRoot().layout();
    }

    private interface Act {
        void act() throws Exception;
    }

    /** The median of some runs after as many that are not counted, in milliseconds. */
    private static double median(int times, Act act) throws Exception {
        List<Long> took = new ArrayList<>();
        for (int i = 0; i < 2 * times; i++) {
            long start = System.nanoTime();
            act.act();
            if (i >= times) {
                took.add(System.nanoTime() - start);
            }
        }
        return Figure.percentile(took, 0.5) / 1e6;
    }

    private static long heap() {
        for (int i = 0; i < 3; i++) {
            System.gc();
            LockSupport.parkNanos(20_000_000);
        }
        return Runtime.getRuntime().totalMemory() - Runtime.getRuntime().freeMemory();
    }

    static Rig rig(int pages) throws Exception {
        Rig gear = BenchGear.osc(List.of("127.0.0.1:9"), Chain.EMPTY);
        List<Page> all = new ArrayList<>();
        for (int p = 0; p < pages; p++) {
            List<Button> buttons = new ArrayList<>();
            for (int b = 0; b < A_PAGE; b++) {
                buttons.add(button(p, b));
            }
            all.add(new Page("p" + p, "Page " + p, 8, 4, buttons, Map.of()));
        }
        return Rig.of(gear.board().withPages(all), gear.cards());
    }

    private static Button button(int page, int place) {
        List<Step> steps = new ArrayList<>();
        for (int i = 0; i < STEPS - 1; i++) {
            steps.add(i % 3 == 0
                    ? BenchGear.go(0, i)
                    : i % 3 == 1
                            ? new Step.Wait(20)
                            : new DeckStep.Say("Step " + i + " of " + place, StepOptions.PLAIN, Map.of()));
        }
        // Chance, so that a forecast takes all its runs.
        steps.add(new Step.Pick(Step.Pick.Way.RANDOM, List.of(new Step.Choice("one", 1, Chain.EMPTY), new Step.Choice(
                "other", 1, Chain.EMPTY)), StepOptions.PLAIN, Map.of()));
        return new Button("b-%d-%d".formatted(page, place), "Button %d on %d".formatted(place, page), place % 8, place
                / 8, 1, 1, Button.Busy.RESTART,
                List.of(new State("on", "on", Face.PLAIN, State.NEXT, null, Map.of(
                        Gesture.PRESS, new Chain(steps)), Map.of())),
                Map.of());
    }
}
