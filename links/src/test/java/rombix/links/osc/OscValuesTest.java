package rombix.links.osc;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.links.link.GearUnderTest.soon;

import java.time.Instant;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import org.junit.jupiter.api.Test;
import rombix.core.value.Value;
import rombix.wire.osc.OscPacket;
import rombix.wire.osc.OscPacket.TimeTag;

class OscValuesTest {
    /** Arrays, blobs and impulses came in as names of classes. */
    @Test
    void whateverAMessageCarriesIsAValueThatCanBeRead() {
        assertThat(OscLink.values(List.of(1, List.of(0.5f, "two"), new byte[]{1, (byte) 0xAB}, new OscPacket.Impulse(),
                new OscPacket.Nil(), 'c', new OscPacket.Midi(0x00903C7F)))).containsExactly(Value.of(1), Value.of(0.5),
                        Value.of("two"), Value.of("01ab"), Value.of(true), Value.of(""), Value.of("c"), Value.of(
                                "00903C7F"));
    }

    /** What was dated in two seconds was done at once. */
    @Test
    void aBundleIsDoneWhenItsTimeTagSays() {
        List<OscPacket> done = new CopyOnWriteArrayList<>();
        OscPacket go = new OscPacket.Message("/go");
        Instant now = Instant.ofEpochSecond(1_790_000_000L, 250_000_000);
        assertThat(TimeTag.of(now.plusMillis(2000)).millisFrom(now)).isEqualTo(2000);
        assertThat(TimeTag.of(now.minusMillis(5)).millisFrom(now)).isZero();
        TimedBundles.ALL.whenDue(new OscPacket.Bundle(TimeTag.IMMEDIATELY, List.of(go)), done::add);
        assertThat(done).containsExactly(go);
        TimedBundles.ALL.whenDue(new OscPacket.Bundle(TimeTag.of(Instant.now().plusMillis(400)), List.of(go)),
                done::add);
        assertThat(done).as("not yet").hasSize(1);
        soon(() -> done.size() == 2);
        TimedBundles.ALL.whenDue(new OscPacket.Bundle(TimeTag.of(Instant.now().plusSeconds(90_000)), List.of(go)),
                done::add);
        assertThat(done).hasSize(2);
    }

    /** Any program of this computer could end Rombix by bundles for the trigger port, dated a little ahead. */
    @Test
    void bundlesThatAreDatedAheadHaveABound() {
        OscPacket go = new OscPacket.Message("/go", List.of("x".repeat(1000)));
        TimedBundles dated = new TimedBundles();
        int kept = 0;
        for (int i = 0; i < 10_000; i++) {
            kept += dated.whenDue(new OscPacket.Bundle(TimeTag.of(Instant.now().plusSeconds(3000)), List.of(go)), _ -> {
            }) ? 1 : 0;
        }
        assertThat(kept).isPositive().isLessThan(1000);
    }
}
