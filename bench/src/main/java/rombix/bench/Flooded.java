package rombix.bench;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.locks.LockSupport;
import javafx.stage.Stage;
import rombix.app.show.Session;
import rombix.bench.measure.Figure;
import rombix.bench.measure.Measured;
import rombix.bench.measure.Pulses;
import rombix.core.event.Mode;
import rombix.running.input.TriggerInputs;
import rombix.standins.midi.Pads;
import rombix.standins.set.StandIns;

/**
 * The window in Live, on its page of faders, while a controller sends ten thousand messages a second to one of them;
 * against an idle window with nothing in it.
 */
final class Flooded implements Measured {
    private static final int A_SECOND = 10_000;
    private static final int LOT = 100;
    private static final int VALUES = 128;
    private static final double FRAME_MILLIS = 16.7;

    @Override
    public List<Figure> measure() throws Exception {
        Session.startToolkit(true);
        Pulses idle = Pulses.idle();
        Path folder = Files.createTempDirectory("flooded");
        Path board = Files.copy(Path.of("demo/star-night.json"), folder.resolve("b.json"));
        Stage[] stage = new Stage[1];
        AtomicBoolean over = new AtomicBoolean();
        try (StandIns gear = StandIns.onFreePorts()) {
            Map<String, String> addresses = new HashMap<>(gear.addresses());
            addresses.put(TriggerInputs.OSC, "0");
            try (Session session = Session.open(board, addresses, null, s -> {
                s.setWidth(1280);
                s.setHeight(800);
                stage[0] = s;
            })) {
                Session.onInterface(() -> {
                    session.window().bench().mode(Mode.LIVE);
                    session.window().bench().showPage("levels");
                    return true;
                });
                Thread flood = Thread.ofPlatform().daemon().start(() -> flood(gear.pads(), over));
                LockSupport.parkNanos(TimeUnit.SECONDS.toNanos(5));
                Pulses full = Pulses.of(stage[0]);
                over.set(true);
                flood.join();
                return List.of(Figure.of("flood-apart-p95", Figure.percentile(full.apart(), 0.95) / 1e6, Figure
                        .percentile(idle.apart(), 0.95) / 1e6, "ms", 2), Figure.of("flood-busy-p95",
                                Figure.percentile(
                                        full.busy(), 0.95) / 1e6,
                                FRAME_MILLIS, "ms", 1));
            }
        }
    }

    private static void flood(Pads pads, AtomicBoolean over) {
        int[] lot = new int[LOT * 3];
        long start = System.nanoTime();
        for (long sent = 0; !over.get(); sent += LOT) {
            for (int i = 0; i < LOT; i++) {
                lot[3 * i] = 0xB0;
                lot[3 * i + 1] = 7;
                lot[3 * i + 2] = (int) ((sent + i) * 7 % VALUES);
            }
            pads.play(lot);
            LockSupport.parkNanos(start + (sent + LOT) * TimeUnit.SECONDS.toNanos(1) / A_SECOND - System.nanoTime());
        }
    }
}
