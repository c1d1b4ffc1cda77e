package rombix.bench.measure;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import javafx.animation.AnimationTimer;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.layout.StackPane;
import javafx.stage.Stage;
import rombix.app.show.Session;

/** Pulses of a window as they came: how far apart, and how long each kept the thread up to the end of its layout, in ns. */
public record Pulses(List<Long> apart, List<Long> busy) {
    private static final int SECONDS = 8;

    /** Those of a window with nothing in it. */
    public static Pulses idle() throws InterruptedException {
        return of(Session.onInterface(() -> {
            Stage stage = new Stage();
            stage.setScene(new Scene(new StackPane(new Label("idle")), 1280, 800));
            stage.show();
            return stage;
        }));
    }

    /** Those of a window, for some seconds; then it is hidden. */
    public static Pulses of(Stage stage) throws InterruptedException {
        List<Long> apart = new ArrayList<>();
        List<Long> busy = new ArrayList<>();
        CountDownLatch done = new CountDownLatch(1);
        long[] last = new long[2];
        Session.onInterface(() -> {
            Scene scene = stage.getScene();
            Runnable laidOut = () -> {
                if (last[0] != 0) {
                    busy.add(System.nanoTime() - last[0]);
                }
            };
            scene.addPostLayoutPulseListener(laidOut);
            long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(SECONDS);
            new AnimationTimer() {
                @Override
                public void handle(long now) {
                    long t = System.nanoTime();
                    if (last[0] != 0) {
                        apart.add(t - last[0]);
                    }
                    last[0] = t;
                    if (t > end) {
                        stop();
                        scene.removePostLayoutPulseListener(laidOut);
                        done.countDown();
                    }
                }
            }.start();
            return true;
        });
        done.await();
        Session.onInterface(() -> {
            stage.hide();
            return true;
        });
        return new Pulses(apart, busy);
    }
}
