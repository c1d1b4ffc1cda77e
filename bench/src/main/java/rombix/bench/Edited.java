package rombix.bench;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import javafx.animation.AnimationTimer;
import javafx.scene.Scene;
import javafx.stage.Stage;
import rombix.app.edit.Workbench;
import rombix.app.show.Session;
import rombix.app.view.gear.Practice;
import rombix.app.view.window.MainWindow;
import rombix.bench.measure.Figure;
import rombix.bench.measure.Measured;
import rombix.bench.measure.Still;
import rombix.core.board.Rig;
import rombix.core.edit.Edits;
import rombix.running.input.Touches;
import rombix.running.owner.Trust;

/**
 * How long an edit keeps the interface's thread until all that it changes is styled and laid out: a button is renamed at
 * the beginning of a pulse, which ends with its layout.
 */
final class Edited implements Measured {
    private static final int EDITS = 400;
    private static final int WARM_UP = 200;
    private static final int SMALL_PAGES = 10;
    private static final int LARGE_PAGES = 99;
    private static final double SMALL_MILLIS = 8;
    private static final double LARGE_MILLIS = 12;

    @Override
    public List<Figure> measure() throws Exception {
        Session.startToolkit(true);
        edits(SMALL_PAGES);
        return List.of(figure("edit-320-p95", edits(SMALL_PAGES), SMALL_MILLIS), figure("edit-3168-p95", edits(
                LARGE_PAGES), LARGE_MILLIS));
    }

    private static Figure figure(String name, List<Long> took, double asked) {
        return Figure.of(name, Figure.percentile(took, 0.95) / 1e6, asked, "ms", 1);
    }

    private static List<Long> edits(int pages) throws Exception {
        Rig rig = BoardSizes.rig(pages);
        List<Long> took = new ArrayList<>();
        CountDownLatch done = new CountDownLatch(1);
        Session.onInterface(() -> {
            Workbench bench = new Workbench(Path.of("edited.json"), rig);
            MainWindow window = new MainWindow(bench, new Still(), Practice.NONE, null, Touches.NONE, Trust.all());
            bench.select("b-0-0");
            Stage stage = new Stage();
            stage.setWidth(1280);
            stage.setHeight(800);
            window.show(stage);
            Scene scene = window.scene();
            long[] began = {0};
            int[] n = {0};
            scene.addPostLayoutPulseListener(() -> {
                if (began[0] != 0 && n[0] > WARM_UP) {
                    took.add(System.nanoTime() - began[0]);
                }
                began[0] = 0;
            });
            new AnimationTimer() {
                @Override
                public void handle(long now) {
                    n[0]++;
                    if (n[0] > WARM_UP + EDITS) {
                        stop();
                        window.closing();
                        stage.hide();
                        done.countDown();
                    } else if (n[0] % 2 == 0) { // Every other pulse, so that none is late for its own sake.
                        began[0] = System.nanoTime();
                        bench.edit("rename", b -> Edits.button(b, "b-0-0", x -> x.withName("Button " + n[0])));
                    }
                }
            }.start();
            return true;
        });
        if (!done.await(2, TimeUnit.MINUTES)) {
            throw new IllegalStateException("the pulses of the window stopped after " + took.size() + " edits");
        }
        return took;
    }
}
