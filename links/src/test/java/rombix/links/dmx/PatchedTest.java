package rombix.links.dmx;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.links.link.GearUnderTest.soon;

import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import rombix.core.board.Board;
import rombix.core.board.Gear;
import rombix.core.board.Rig;
import rombix.core.card.Channel.Kind;
import rombix.core.card.Protocol;
import rombix.core.card.value.Mapped.Curve;
import rombix.core.patch.Fixture;
import rombix.core.store.CardLibrary;
import rombix.core.twin.Output;
import rombix.core.twin.Twin.Readings;
import rombix.core.twin.Twin;
import rombix.core.value.Value;
import rombix.links.Links;
import rombix.links.MachineClock;
import rombix.standins.Lamps;

/** Lamps as the patch says: inverted, limited, along a curve, and lit to be found. */
@Timeout(300)
class PatchedTest {
    private static Rig rig(Lamps lamps, Fixture... fixtures) {
        Gear gear = new Gear("lamps", "Lamps", "lamps", new Gear.Link(Protocol.of("dmx"), "127.0.0.1:" + lamps.port(),
                Map.of()), Map.of(), List.of(fixtures), Map.of());
        return Rig.of(Board.empty("b").withGear(List.of(gear)), CardLibrary.shipped());
    }

    private static void tell(Links links, Rig rig, String command, Map<String, Value> args) {
        Twin twin = rig.twin("lamps").orElseThrow();
        links.send(1, twin.order(twin.card().command(command).orElseThrow(), args, Readings.NONE));
    }

    @Test
    void levelsGoOutAsThePatchSays() throws IOException {
        try (Lamps lamps = new Lamps(0); Links links = new Links(new MachineClock(), _ -> {
        })) {
            Rig rig = rig(lamps, new Fixture("spot", "Spot", "moving-spot", 1, 33, Set.of(Kind.TILT), 50, null),
                    new Fixture("key", "Key", "dimmer", 1, 1, Set.of(), null, Curve.SQUARE));
            links.connect(rig, Map.of());
            tell(links, rig, "level", Map.of("lamp", Value.of("spot"), "level", Value.of(100)));
            soon(() -> lamps.slot(37) == 128);
            tell(links, rig, "level", Map.of("lamp", Value.of("key"), "level", Value.of(50)));
            soon(() -> lamps.slot(1) == 64);
            tell(links, rig, "tilt-16", Map.of("tilt-16", Value.of("spot"), "tilt", Value.of(135)));
            soon(() -> lamps.slot(35) == 0 && lamps.slot(36) == 0);
            tell(links, rig, "tilt-16", Map.of("tilt-16", Value.of("spot"), "tilt", Value.of(-135)));
            soon(() -> lamps.slot(35) == 255 && lamps.slot(36) == 255);
        }
    }

    @Test
    void aFixtureIsFoundByLightingItAndIsAsItWasAfterwards() throws IOException {
        try (Lamps lamps = new Lamps(0); Links links = new Links(new MachineClock(), _ -> {
        })) {
            Rig rig = rig(lamps, new Fixture("key", "Key", "dimmer", 1, 1));
            links.connect(rig, Map.of());
            tell(links, rig, "level", Map.of("lamp", Value.of("key"), "level", Value.of(20)));
            soon(() -> lamps.slot(1) == 51);
            links.light("lamps", Map.of(1, Map.of(1, 255, 300, 255)));
            soon(() -> lamps.slot(1) == 255 && lamps.slot(300) == 255);
            links.light("lamps", Map.of());
            soon(() -> lamps.slot(1) == 51 && lamps.slot(300) == 0);
        }
    }

    @Test
    void whatWasLitDoesNotStaySoWhenTheLinkIsClosed() throws IOException {
        try (Lamps lamps = new Lamps(0)) {
            try (Links links = new Links(new MachineClock(), _ -> {
            })) {
                links.connect(rig(lamps, new Fixture("key", "Key", "dimmer", 1, 1)), Map.of());
                links.light("lamps", Map.of(1, Map.of(1, 255)));
                soon(() -> lamps.slot(1) == 255);
            }
            soon(() -> lamps.ends() > 0 && lamps.slot(1) == 0);
        }
    }

    /** Each edit of the patch would otherwise end the stream, and the rig would go dark. */
    @Test
    void theLampsStayAsTheyAreWhileThePatchIsChanged() throws IOException {
        try (Lamps lamps = new Lamps(0); Links links = new Links(new MachineClock(), _ -> {
        })) {
            Rig first = rig(lamps, new Fixture("key", "Key", "dimmer", 1, 1));
            links.connect(first, Map.of());
            tell(links, first, "level", Map.of("lamp", Value.of("key"), "level", Value.of(100)));
            soon(() -> lamps.slot(1) == 255);
            Rig second = rig(lamps, new Fixture("key", "Key", "dimmer", 1, 1, Set.of(), 40, null), new Fixture("fill",
                    "Fill", "dimmer", 1, 2));
            links.connect(second, Map.of());
            soon(() -> lamps.slot(1) == 102);
            tell(links, second, "level", Map.of("lamp", Value.of("fill"), "level", Value.of(100)));
            soon(() -> lamps.slot(2) == 255);
            assertThat(lamps.ends()).isZero();
        }
    }

    @Test
    void whatADeskSendsIsReadAsItWasSet() {
        Shaping shaping = new Shaping(
                List.of(new Output(1, 1, 0, true, 0.5, Curve.SQUARE, -1), new Output(1, 3, 4, true,
                        1, null, -1), new Output(1, 6, 0, false, 1, null, 200)),
                Map.of());
        byte[] set = {100, 7, 12, 34, 9, 0};
        byte[] out = shaping.out(1, set);
        assertThat(out[5] & 0xFF).isEqualTo(200);
        byte[] back = shaping.in(1, out);
        assertThat(back[0]).isBetween((byte) 98, (byte) 102);
        assertThat(back[1]).isEqualTo((byte) 7);
        assertThat(back[2]).isEqualTo((byte) 12);
        assertThat(back[3]).isEqualTo((byte) 34);
        assertThat(shaping.out(2, set)).isSameAs(set);
    }
}
