package rombix.bench.window;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import javafx.application.Platform;
import rombix.app.show.Session;
import rombix.bench.measure.Figure;
import rombix.bench.measure.Measured;
import rombix.core.board.Board;
import rombix.core.store.BoardFile;
import rombix.core.store.CardLibrary;
import rombix.running.input.TriggerInputs;

/**
 * The longest pause of the interface's thread while a board with 9.5 MB of pictures is edited and
 * autosaved; and against that of the same edits on the board with its own small picture.
 */
public final class Autosaving implements Measured {
    private static final int PICTURE_BYTES = 9_500_000;
    private static final int SECONDS = 8;
    private static final double FRAME_MILLIS = 16;

    @Override
    public List<Figure> measure() throws Exception {
        Session.startToolkit(true);
        Path file = Files.createTempDirectory("autosaving").resolve("b.json");
        Board board = BoardFile.parse(file, Files.readString(Path.of("demo/star-night.json")), CardLibrary.shipped());
        byte[] bytes = new byte[PICTURE_BYTES];
        new SplittableRandom(1).nextBytes(bytes);
        String data = Base64.getEncoder().encodeToString(bytes);
        // One that a face shows, on another page than that which is seen: what none shows is left out of a file.
        List<Board.Picture> pictures = board.pictures().stream().map(p -> new Board.Picture(p.id(), p.name(), data))
                .toList();
        BoardFile.save(file, board); // With its own picture at first.
        List<Long> idle = Collections.synchronizedList(new ArrayList<>());
        List<Long> saving = Collections.synchronizedList(new ArrayList<>());
        try (Session session = Session.open(file, Map.of(TriggerInputs.OSC, "0"), null, s -> {
        })) {
            LockSupport.parkNanos(TimeUnit.SECONDS.toNanos(4));
            int[] n = {0};
            pings(SECONDS, idle, () -> session.window().bench().edit("rename", b -> b.withName("Edited " + n[0]++)));
            pings(SECONDS, saving, () -> session.window().bench().edit("rename", b -> b.withPictures(pictures).withName(
                    "Edited " + n[0]++)));
        }
        double edits = Collections.max(idle) / 1e6;
        double saves = Collections.max(saving) / 1e6;
        return List.of(Figure.of("autosave-pause", saves, FRAME_MILLIS, "ms", 1),
                Figure.of("autosave-pause-more", saves,
                        edits, "ms", 0),
                Figure.of("autosave-pause-p99", Figure.percentile(saving, 0.99) / 1e6, Figure
                        .percentile(idle, 0.99) / 1e6, "ms", 0));
    }

    /** Asks the interface's thread every two milliseconds how long it takes to come; edits twice a second. */
    private static void pings(int seconds, List<Long> to, Runnable edit) {
        long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(seconds);
        for (int i = 0; System.nanoTime() - end < 0; i++) {
            long asked = System.nanoTime();
            Platform.runLater(() -> to.add(System.nanoTime() - asked));
            if (i % 250 == 249) {
                Platform.runLater(edit);
            }
            LockSupport.parkNanos(TimeUnit.MILLISECONDS.toNanos(2));
        }
        Session.onInterface(() -> true);
    }
}
