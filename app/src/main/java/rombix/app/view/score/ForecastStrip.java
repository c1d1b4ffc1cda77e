package rombix.app.view.score;

import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.function.Supplier;
import javafx.application.Platform;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Desk;
import rombix.app.view.common.FittingRow;
import rombix.app.view.common.Space;
import rombix.core.board.Rig;
import rombix.core.board.StepWords;
import rombix.core.chain.Chain;
import rombix.core.event.Known;
import rombix.core.forecast.Forecast;
import rombix.core.forecast.Forecaster;
import rombix.core.twin.Figures;

/**
 * What the chain under the hand will do, in one line, kept true while it is edited: its length, what will differ, odds,
 * clashes, and gear that is off. Reckoned on a thread of its own; only the newest question is answered.
 */
final class ForecastStrip extends FittingRow {
    private static final int RUNS = 100;
    /** Where there is no room for all, the last of these give way. */
    private static final List<String> RANKS = List.of("forecast-length", "forecast-trouble", "forecast-changes");
    private static final int DEEP_STACK = 256 << 20;
    private static final long SOON_NANOS = 1_000_000_000L;
    /** One for all windows: forecasts wait for each other. */
    private static final ExecutorService THREAD = Executors.newSingleThreadExecutor(
            r -> {
                Thread t = new Thread(null, r, "forecast", DEEP_STACK);
                t.setDaemon(true);
                return t;
            });

    private final Desk desk;
    private final Supplier<Known> known;
    private final Label length = new Label();
    private final Label changes = new Label();
    private final Label trouble = new Label();
    private volatile @Nullable Question asked;
    private long askedNanos;

    private record Question(Rig rig, String button, Chain chain, String place) {
    }

    ForecastStrip(Desk desk, Supplier<Known> known) {
        super(false, Space.S6, n -> ((Label) n).getText().isEmpty() ? 0 : RANKS.indexOf(n.getId()));
        this.desk = desk;
        this.known = known;
        setId("forecast");
        getStyleClass().add("forecast");
        add(length, "forecast-length", "forecast-length");
        add(changes, "forecast-changes", "quiet");
        add(trouble, "forecast-trouble", "trouble");
        desk.bench().watch(() -> ask(false));
        desk.model().watch(c -> {
            if (!c.gear().isEmpty()) {
                ask(System.nanoTime() - askedNanos > SOON_NANOS);
            }
        });
    }

    private void add(Label label, String id, String style) {
        label.setId(id);
        label.getStyleClass().addAll(style, "read");
        getChildren().add(label);
    }

    private void ask(boolean again) {
        if (!desk.building() || !desk.bench().hasChain() || desk.bench().chain().isEmpty()) {
            asked = null;
            length.setText(
                    desk.building() && desk.bench().hasChain()
                            ? "No steps yet. Type below what the button should do."
                            : "");
            changes.setText("");
            trouble.setText("");
            return;
        }
        Question question = new Question(desk.bench().rig(), desk.bench().button().map(b -> b.id()).orElse(""),
                desk.bench().chain(), desk.bench().part().place());
        if (!again && question.equals(asked)) {
            return;
        }
        asked = question;
        askedNanos = System.nanoTime();
        Known now = known.get();
        THREAD.execute(() -> {
            if (asked != question) {
                return; // A newer question waits already.
            }
            Forecast forecast = Forecaster.of(question.rig(), now, ZonedDateTime.now(), question.button(), question
                    .chain(), question.place(), RUNS, 1);
            Platform.runLater(() -> {
                if (Objects.equals(asked, question)) {
                    show(forecast, question, now);
                }
            });
        });
    }

    private void show(Forecast f, Question question, Known now) {
        length.setText(f.endless() ? "until stopped" : span(f.length()));
        int n = f.changes().size();
        changes.setText(
                "· " + (n == 0 ? "nothing changes" : Figures.count(n, "reading") + (n == 1 ? " changes" : " change")));
        StepWords words = new StepWords(question.rig(), g -> id -> now.readings().getOrDefault(g, java.util.Map.of())
                .get(id));
        Tooltip changed = n == 0 ? null : new Tooltip(details(f, words));
        changes.setTooltip(changed);
        length.setTooltip(changed); // Where there is no room to say more.
        List<String> wrong = new ArrayList<>();
        if (!f.clashes().isEmpty()) {
            wrong.add(Figures.count(f.clashes().size(), "conflict"));
        }
        f.off().stream().map(Forecast.Off::gear).distinct().forEach(g -> wrong.add(question.rig().twin(g).map(t -> t
                .title()).orElse(g) + " is off"));
        if (!f.faults().isEmpty()) {
            wrong.add(Figures.count(f.faults().size(), "step") + (f.faults().size() == 1 ? " fails" : " fail"));
        }
        trouble.setText(wrong.isEmpty() ? "" : "· " + String.join(" · ", wrong));
        List<String> why = new ArrayList<>();
        f.clashes().forEach(c -> why.add("Two steps set %s at %s".formatted(words.reading(c.gear() + ":" + c.reading()),
                Figures.span(c.atMillis()))));
        f.off().forEach(o -> why.add(o.why()));
        f.faults().forEach(o -> why.add(o.why()));
        trouble.setTooltip(why.isEmpty() ? null : new Tooltip(String.join("\n", why)));
        setAccessibleText(length.getText() + " " + changes.getText() + " " + trouble.getText());
    }

    private static String span(Forecast.Span s) {
        return Math.round(s.least()) == Math.round(s.most())
                ? Figures.span(s.most())
                : Figures.span(s.least()) + " to " + Figures.span(s.most());
    }

    private static String details(Forecast f, StepWords words) {
        List<String> lines = new ArrayList<>();
        for (Forecast.Change c : f.changes()) {
            List<String> after = c.after().stream().map(o -> (o.share() >= 1
                    ? ""
                    : String.format(Locale.ROOT, "%.0f\u00a0%% ", o.share() * 100))
                    + words.value(c.gear(), c.reading(), o.value())).toList();
            lines.add(words.reading(c.gear() + ":" + c.reading()) + ": " + (c.before() == null
                    ? "—"
                    : words.value(c.gear(), c.reading(), c.before())) + " → " + String.join(", ", after));
        }
        return String.join("\n", lines);
    }
}
