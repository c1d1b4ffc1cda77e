package rombix.app.view.gear;

import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Function;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.scene.control.Label;
import javafx.util.Duration;
import rombix.app.view.common.Styles;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.traffic.Traffic.Counts;
import rombix.core.twin.Figures;

/** Of each gear since when it is as it is, how soon it answers, and how many messages go by. The interface's thread's. */
@OwnedBy(Owner.INTERFACE)
final class GearFigures {
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm:ss").withZone(ZoneId
            .systemDefault());

    private final Function<String, Counts> counts;
    private final Map<String, Label> labels = new HashMap<>();
    private final Map<String, Counts> before = new HashMap<>();
    private final Timeline timer = new Timeline(new KeyFrame(Duration.seconds(1), _ -> tick()));

    /** @param counts how much went to and fro of a gear's, by its id */
    GearFigures(Function<String, Counts> counts) {
        this.counts = counts;
        timer.setCycleCount(Timeline.INDEFINITE);
    }

    /** The label of a gear; it is kept up to date until {@link #end}. */
    Label of(String gear) {
        Label label = Styles.label("", "read", "quiet");
        label.setId("gear-figures-" + gear);
        labels.put(gear, label);
        label.setText(words(counts.apply(gear), counts.apply(gear)));
        timer.play();
        return label;
    }

    void end() {
        timer.stop();
        labels.clear();
        before.clear();
    }

    private void tick() {
        labels.forEach((gear, label) -> {
            Counts now = counts.apply(gear);
            Counts then = before.put(gear, now);
            Styles.text(label, words(now, then == null ? now : then));
        });
    }

    private static String words(Counts now, Counts before) {
        List<String> all = new ArrayList<>();
        Instant since = now.since();
        if (since != null) {
            all.add("since " + TIME.format(since));
        }
        if (now.millis() >= 0) {
            all.add(String.format(Locale.ROOT, now.millis() < 10 ? "%.1f ms" : "%.0f ms",
                    now.millis()));
        }
        long messages = now.in() + now.out() - before.in() - before.out();
        all.add(messages == 0 ? "idle" : Figures.count(messages, "message") + "/s");
        return String.join(" · ", all);
    }
}
