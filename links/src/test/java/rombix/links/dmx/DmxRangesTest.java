package rombix.links.dmx;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.links.link.GearUnderTest.soon;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rombix.core.board.Gear;
import rombix.core.card.Protocol;
import rombix.core.card.value.As;
import rombix.core.event.Event;
import rombix.core.store.BoardFile;
import rombix.core.twin.Order;
import rombix.core.twin.Twin;
import rombix.core.value.Value;
import rombix.links.MachineClock;
import rombix.links.link.GearReport;
import rombix.links.link.Keyring;
import rombix.links.link.Link;
import rombix.links.link.Target;
import rombix.standins.Lamps;

/** What has no place on the wire is refused as a whole; what is still waiting when the link closes is answered. */
@Timeout(300)
class DmxRangesTest {
    @TempDir
    Path folder;
    private final Keyring keyring = new Keyring() {
        @Override
        public Optional<String> secret(String name) {
            return Optional.empty();
        }

        @Override
        public Optional<String> firstSeen(String address) {
            return Optional.empty();
        }

        @Override
        public void seen(String address, String fingerprint) {
            // Nothing here is seen.
        }

        @Override
        public Path kept(String name) {
            return folder.resolve(name);
        }
    };
    private final BlockingQueue<Event.OrderDone> done = new LinkedBlockingQueue<>();
    private Lamps lamps;
    private Link link;
    private Twin twin;

    @BeforeEach
    void open() throws Exception {
        lamps = new Lamps(0);
        twin = BoardFile.read(Path.of("../demo/star-night.json")).twin("lamps").orElseThrow();
        link = opened();
    }

    @AfterEach
    void close() {
        link.close();
        lamps.close();
    }

    /** Two starts were two sources of one priority, which a receiver mixes or takes turns with. */
    @Test
    void itSaysThatItEndsAndIsTheSameSourceAtTheNextStart() throws Exception {
        answer(1, packet("1 7", As.FLOAT, Value.of(200)));
        soon(() -> lamps.source() != null);
        var first = lamps.source();
        link.close();
        soon(() -> lamps.ends() == 3);
        link = opened();
        answer(2, packet("1 7", As.FLOAT, Value.of(90)));
        soon(() -> lamps.slot(7) == 90);
        assertThat(lamps.source()).isEqualTo(first);
    }

    private Link opened() {
        String address = "127.0.0.1:" + lamps.port();
        return new Dmx().open(new GearReport(twin, new MachineClock(), e -> {
            if (e instanceof Event.OrderDone d) {
                done.add(d);
            }
        }), new Target(address, new Gear.Link(Protocol.of("dmx"), address, Map.of()), keyring, Path::of));
    }

    private static Order.Outgoing packet(String address, As as, Value value) {
        return new Order.Outgoing(address, List.of(value), List.of(as));
    }

    private Event.OrderDone answer(long ticket, Order.Outgoing... packets) throws InterruptedException {
        link.send(ticket, new Order("lamps", twin.card().commands().getFirst(), Map.of(), "test", List.of(packets), Map
                .of(), Set.of()));
        Event.OrderDone answer = done.poll(10, TimeUnit.SECONDS);
        assertThat(answer).isNotNull();
        assertThat(answer.ticket()).isEqualTo(ticket);
        return answer;
    }

    @ParameterizedTest
    @CsvSource({"1 0,FLOAT", "1 513,FLOAT", "0 1,FLOAT", "64000 1,FLOAT", "-1 1,FLOAT", "1 511,RGB", "one 1,FLOAT",
            "1,FLOAT"})
    void whatIsBeyondAUniverseIsRefusedInWords(String address, As as) throws InterruptedException {
        Value value = Value.of(as == As.RGB ? "#FF8001" : "7");
        assertThat(answer(1, packet(address, as, value)).fault()).contains("“" + address + "” isn't a universe");
        assertThat(answer(2, packet("1 1", As.FLOAT, Value.of(255))).fault()).isNull();
        assertThat(lamps.ignored()).isZero();
    }

    @Test
    void anOrderOfWhichAPartIsBeyondChangesNothing() throws InterruptedException {
        assertThat(answer(1, packet("1 510", As.RGB, Value.of("#112233")), packet("1 512", As.RGB, Value.of("#445566")))
                .fault()).isNotNull();
        assertThat(answer(2, packet("1 1", As.FLOAT, Value.of(9))).fault()).isNull();
        LinkWait.until(() -> lamps.slot(1) == 9);
        assertThat(new int[]{lamps.slot(510), lamps.slot(511), lamps.slot(512)}).containsOnly(0);
    }

    @Test
    void theLastSlotsOfAUniverseCanBeSet() throws InterruptedException {
        assertThat(answer(1, packet("1 510", As.RGB, Value.of("#112233"))).fault()).isNull();
        LinkWait.until(() -> lamps.slot(512) == 0x33);
        assertThat(answer(2, packet("1 512", As.FLOAT, Value.of(1000))).fault()).isNull();
        LinkWait.until(() -> lamps.slot(512) == 255);
    }

    @Test
    void anOrderAfterTheEndIsAnswered() throws InterruptedException {
        link.close();
        assertThat(answer(1, packet("1 1", As.FLOAT, Value.of(1))).fault()).contains("was closed");
    }

    private static final class LinkWait {
        static void until(java.util.concurrent.Callable<Boolean> so) {
            org.awaitility.Awaitility.await().atMost(java.time.Duration.ofSeconds(60)).until(so);
        }
    }
}
