package rombix.bench.window;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import javafx.stage.Stage;
import rombix.app.edit.Workbench;
import rombix.app.show.Session;
import rombix.app.view.gear.Practice;
import rombix.app.view.window.MainWindow;
import rombix.bench.measure.Figure;
import rombix.bench.measure.Measured;
import rombix.bench.measure.Pulses;
import rombix.bench.measure.Still;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Face;
import rombix.core.board.Face.Tally;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.card.Card;
import rombix.core.card.Card.Tone;
import rombix.core.card.Protocol;
import rombix.core.chain.Chain;
import rombix.core.chain.Condition;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.event.Cause;
import rombix.core.event.Happening;
import rombix.core.event.Status;
import rombix.core.store.BadFile;
import rombix.core.store.CardLibrary;
import rombix.core.value.Value;
import rombix.running.input.Touches;
import rombix.running.owner.Trust;
import rombix.running.state.DeckFeed;

/**
 * The Build window with a page of 16 by 32 buttons and a score of 500 steps while 200 readings a second change, against
 * an idle window with nothing in it: how far apart the pulses come, and how long each keeps the interface's thread.
 */
public final class Frames implements Measured {
    private static final int A_SECOND = 200;
    private static final int STEPS = 500;
    private static final double FRAME_MILLIS = 16.7;

    @Override
    public List<Figure> measure() throws Exception {
        Session.startToolkit(true);
        Pulses idle = Pulses.idle();
        Still still = new Still();
        Rig rig = rig();
        Stage stage = Session.onInterface(() -> {
            Workbench bench = new Workbench(Path.of("frames.json"), rig);
            MainWindow window = new MainWindow(bench, still, Practice.NONE, null, Touches.NONE,
                    Trust.all());
            bench.select("b-0-0");
            Stage s = new Stage();
            s.setWidth(1280);
            s.setHeight(800);
            window.show(s);
            return s;
        });
        Thread feed = Thread.ofPlatform().daemon().start(() -> feed(still.feed()));
        LockSupport.parkNanos(TimeUnit.SECONDS.toNanos(8)); // What is made once is made, and the compiler has seen it.
        Pulses full = Pulses.of(stage);
        feed.interrupt();
        long late = full.busy().stream().filter(n -> n > FRAME_MILLIS * 1e6).count();
        System.out.printf(java.util.Locale.ROOT,
                "frames: %d pulses idle, %d full; %.1f %% of the full ones kept the thread under %.1f ms%n",
                idle.apart()
                        .size(),
                full.apart().size(), 100.0 - 100.0 * late / full.busy().size(), FRAME_MILLIS);
        return List.of(Figure.of("frames-apart-p95", Figure.percentile(full.apart(), 0.95) / 1e6, Figure.percentile(idle
                .apart(), 0.95) / 1e6, "ms", 2), Figure.of("frames-busy-p95", Figure.percentile(full.busy(), 0.95)
                        / 1e6, FRAME_MILLIS, "ms", 1));
    }

    private static void feed(DeckFeed deck) {
        SplittableRandom random = new SplittableRandom(3);
        deck.feed(new Happening.Linked("gear", new Status(Status.Phase.READY, Cause.READY)), System.nanoTime());
        while (!Thread.currentThread().isInterrupted()) {
            deck.feed(new Happening.Came("gear", "on/l" + random.nextInt(Page.MAX_ROWS * Page.MAX_COLUMNS), Value.of(
                    random.nextBoolean())), System.nanoTime());
            LockSupport.parkNanos(TimeUnit.SECONDS.toNanos(1) / A_SECOND);
        }
    }

    private static Rig rig() throws BadFile {
        StringBuilder lamps = new StringBuilder();
        List<Button> buttons = new ArrayList<>();
        List<Step> steps = new ArrayList<>();
        for (int i = 0; i < STEPS / 2; i++) {
            steps.add(new GearStep.Do("gear", i % 2 == 0 ? "on" : "off", Map.of("lamp", Value.of("l" + i))));
            steps.add(new Step.Wait(100));
        }
        for (int row = 0; row < Page.MAX_ROWS; row++) {
            for (int column = 0; column < Page.MAX_COLUMNS; column++) {
                String id = "l" + (row * Page.MAX_COLUMNS + column);
                lamps.append(lamps.isEmpty() ? "" : ",").append("{\"id\": \"%s\", \"name\": \"Lamp %s\"}".formatted(id,
                        id));
                Condition.OnReading on = Condition.OnReading.is("gear", "on/" + id, Value.of(true));
                Face face = Face.PLAIN.withIcon("mdi2l-lightbulb-outline").withTally(List.of(new Tally(on, "ON",
                        Tone.AIR, Map.of())));
                Chain chain = row + column == 0 ? new Chain(steps) : Chain.of(steps.getFirst());
                buttons.add(new Button("b-" + column + "-" + row, "Lamp " + id, column, row, 1, 1, Button.Busy.RESTART,
                        List.of(new State("on", "on", face, State.NEXT, on, Map.of(Gesture.PRESS, chain), Map.of()),
                                new State("off", "off", face, State.NEXT, null, Map.of(Gesture.PRESS, chain), Map
                                        .of())),
                        Map.of()));
            }
        }
        Card card = CardLibrary.read(Path.of("lamps.json"),
                """
                        {"card": 1, "id": "wall", "title": "Wall", "lists": {"lamp": [%s]},
                         "readings": [{"id": "on/{lamp}", "title": "{lamp}", "type": "flag", "yes": {"word": "ON", "tone": "air"},
                           "no": {"word": "off"}, "arrives": {"osc": {"from": "/on/{lamp}"}}}],
                         "commands": [
                           {"id": "on", "title": "{lamp} on", "params": [{"id": "lamp", "type": "choice"}],
                            "send": {"osc": [{"to": "/on/{lamp}", "args": [1]}]}, "changes": [{"reading": "on/{lamp}", "to": true}]},
                           {"id": "off", "title": "{lamp} off", "params": [{"id": "lamp", "type": "choice"}],
                            "send": {"osc": [{"to": "/on/{lamp}", "args": [0]}]}, "changes": [{"reading": "on/{lamp}", "to": false}]}]}
                        """
                        .formatted(lamps));
        Board board = new Board(1, "Frames", List.of(new rombix.core.board.Gear("gear", "Gear", "wall",
                new rombix.core.board.Gear.Link(Protocol.of("osc"), "127.0.0.1:9", Map.of()), Map.of(), Map.of())),
                List.of(
                        new Page("p", "P", Page.MAX_COLUMNS, Page.MAX_ROWS, buttons, Map.of())),
                Map.of());
        return Rig.of(board, Map.of("wall", card));
    }
}
