package rombix.links;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.links.LinkBench.soon;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.parallel.ResourceLock;
import rombix.core.event.Event;
import rombix.core.event.Status.Phase;
import rombix.core.store.BoardFile;
import rombix.core.value.Value;
import rombix.links.link.GearReport;
import rombix.standins.set.StandIns;

/** Whatever is on its way when the links close is answered, sent or not: nobody waits for ever. */
@Timeout(300)
@ResourceLock("MIDI ports")
class ClosingTest {
    private static final Map<String, String[]> ORDERS = Map.of("studio", new String[]{"keep-clip"}, "desk",
            new String[]{"mute", "channel", "host"}, "lamps", new String[]{"level", "lamp", "desk-key"}, "house",
            new String[]{"unlock", "lock", "gate"}, "chat", new String[]{"slow-on", "room", "star-night"});

    private static long send(LinkBench bench, String gear) {
        String[] order = ORDERS.get(gear);
        Map<String, Value> args = new HashMap<>();
        for (int i = 1; i < order.length; i += 2) {
            args.put(order[i], Value.of(order[i + 1]));
        }
        return bench.send(gear, order[0], args);
    }

    @Test
    void everyOrderThatWasSentJustBeforeTheEndIsAnswered() throws Exception {
        try (StandIns gear = StandIns.onFreePorts(); LinkBench bench = new LinkBench(gear.addresses())) {
            ORDERS.keySet().forEach(g -> bench.awaitPhase(g, Phase.READY));
            Map<Long, String> tickets = new HashMap<>();
            for (int i = 0; i < 20; i++) {
                ORDERS.keySet().forEach(g -> tickets.put(send(bench, g), g));
            }
            bench.close();
            soon().until(() -> bench.answers.keySet().containsAll(tickets.keySet()));
            assertThat(bench.answers).hasSameSizeAs(tickets);
        }
    }

    @Test
    void anOrderAfterTheEndIsAnsweredAtOnce() {
        LinkBench bench = new LinkBench(Map.of());
        bench.close();
        ORDERS.keySet().forEach(g -> bench.awaitAnswer(send(bench, g), "no link"));
    }

    @Test
    void aLinkThatWasClosedSaysNoMoreOfItsGearAndAnswersForItsOrders() throws Exception {
        List<Event> told = new ArrayList<>();
        GearReport report = new GearReport(BoardFile.read(Path.of("../demo/star-night.json")).twin("studio")
                .orElseThrow(), new MachineClock(), told::add);
        report.detach();
        report.ready(); // It was connecting still: what it says now would be taken for what the next link says.
        report.landed("/studio/stream", List.of(Value.of(true)));
        report.sent(7);
        assertThat(told).singleElement().isInstanceOfSatisfying(Event.OrderDone.class, d -> assertThat(d.ticket())
                .isEqualTo(7));
    }
}
