package rombix.links.talk;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import rombix.core.card.Protocol;
import rombix.core.store.CardLibrary;
import rombix.core.twin.Twin;
import rombix.links.MachineClock;
import rombix.links.link.GearReport;

class PollsTest {
    private static final String CARD = """
            {"card": 2, "id": "urn", "title": "Urn", "readings": [
              {"id": "hot", "type": "flag", "arrives": {"line": {"from": "heat"}}},
              {"id": "full", "type": "flag", "arrives": {"line": {"from": "fill"}}}], "commands": [],
             "polls": {"line": [{"every": 50, "ask": {"to": "line", "args": ["HEAT?"], "reply": {"as": "heat"}}}]}}
            """;

    private final BlockingQueue<String> went = new LinkedBlockingQueue<>();

    private GearReport report() throws Exception {
        return report(CARD);
    }

    private static GearReport report(String card) throws Exception {
        Twin twin = new Twin("urn", "Urn", CardLibrary.read(Path.of("urn.json"), card), Protocol.of("line"), Map.of());
        return new GearReport(twin, new MachineClock(), _ -> {
        });
    }

    private List<String> first(int count, GearReport report) throws InterruptedException {
        List<String> all = new ArrayList<>();
        try (Polls _ = new Polls(report, _ -> {
            went.add("asked");
            return CompletableFuture.completedFuture(null);
        }, _ -> null)) {
            while (all.size() < count) {
                all.add(String.valueOf(went.poll(10, TimeUnit.SECONDS)));
            }
        }
        return all;
    }

    /** A gear was asked as often for what nobody saw as for what was on a button. */
    @Test
    void whatNothingShowsIsAskedForLessOften() throws Exception {
        GearReport report = report();
        report.shown(reading -> {
            went.add("not " + reading);
            return false;
        });
        assertThat(first(7, report)).containsExactly("asked", "not hot", "not hot", "not hot", "not hot", "asked",
                "not hot");
    }

    @Test
    void anIndicatorIsAlwaysInSight() throws Exception {
        GearReport report = report(CARD.replace("{\"id\": \"hot\",", "{\"id\": \"hot\", \"lamp\": true,"));
        report.shown(_ -> false);
        assertThat(first(3, report)).containsOnly("asked");
    }

    @Test
    void whatIsShownIsAskedForAtItsPace() throws Exception {
        GearReport report = report();
        report.shown("hot"::equals);
        assertThat(first(3, report)).containsOnly("asked");
    }
}
