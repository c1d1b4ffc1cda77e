package rombix.core.patch;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import rombix.core.board.Board;
import rombix.core.board.Gear;
import rombix.core.board.Rig;
import rombix.core.card.Card.Item;
import rombix.core.card.Card;
import rombix.core.card.Channel.Kind;
import rombix.core.card.Channel;
import rombix.core.card.Protocol;
import rombix.core.card.value.As;
import rombix.core.card.value.Mapped.Curve;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.GearStep;
import rombix.core.event.Known;
import rombix.core.forecast.Opposite;
import rombix.core.store.CardLibrary;
import rombix.core.twin.Order;
import rombix.core.twin.Output;
import rombix.core.twin.Twin.Readings;
import rombix.core.twin.Twin;
import rombix.core.value.Value;

class PatchingTest {
    private static final Map<String, Card> CARDS = new TreeMap<>(CardLibrary.shipped());

    private static Channel fine(Kind is) {
        return new Channel(is, null, true, null, null, List.of(), null);
    }

    private static Twin twin(String card, Fixture... fixtures) {
        return rig(card, fixtures).twin("lamps").orElseThrow();
    }

    private static Rig rig(String card, Fixture... fixtures) {
        Gear gear = new Gear("lamps", "Lamps", card, new Gear.Link(Protocol.of("dmx"), "127.0.0.1:1", Map.of()), Map
                .of(), List.of(fixtures), Map.of());
        return Rig.of(Board.empty("b").withGear(List.of(gear)), CARDS);
    }

    private static Order order(Twin twin, String command, Map<String, Value> args) {
        return twin.order(twin.card().command(command).orElseThrow(() -> new AssertionError(command + " is none of "
                + twin.card().commands().stream().map(Card.Command::id).toList())), args, Readings.NONE);
    }

    @Test
    void fixturesStandInTheListsOfTheirCard() {
        Twin lamps = twin("lamps", new Fixture("key", "Key", "tunable-white", 1, 7), new Fixture("ring", "Ring",
                "colour-lamp-dimmer", 2, 10));
        assertThat(lamps.items("lamp", Readings.NONE)).extracting(Item::id).containsExactly("key", "ring");
        Order level = order(lamps, "level", Map.of("lamp", Value.of("key"), "level", Value.of(100)));
        assertThat(level.packets().getFirst().address()).isEqualTo("1 7");
        assertThat(order(lamps, "warmth", Map.of("warm-lamp", Value.of("key"), "warmth", Value.of(6500))).packets()
                .getFirst().address()).isEqualTo("1 8");
        assertThat(order(lamps, "colour", Map.of("colour-lamp", Value.of("ring"), "colour", Value.of("#FF0000")))
                .packets().getFirst().address()).isEqualTo("2 11");
        assertThat(level.title()).isEqualTo("Key to 100\u00a0%");
    }

    @Test
    void whatTheCardDoesNotKnowIsAddedToIt() {
        Twin lamps = twin("lamps", new Fixture("spot", "Spot", "moving-spot", 1, 33));
        Order pan = order(lamps, "pan-16", Map.of("pan-16", Value.of("spot"), "pan", Value.of(270)));
        assertThat(pan.title()).isEqualTo("Spot pans to 270\u00a0°");
        assertThat(pan.packets().getFirst().address()).isEqualTo("1 33");
        assertThat(pan.packets().getFirst().args()).containsExactly(Value.of(65_535));
        assertThat(pan.packets().getFirst().forms()).containsExactly(As.WORD);
        assertThat(
                order(lamps, "level-focus", Map.of("level-focus", Value.of("spot"), "level", Value.of(100))).packets()
                        .getFirst().address())
                .isEqualTo("1 41");
        String wheel = "wheel-moving-spot-pattern-wheel";
        Order rings = order(lamps, wheel, Map.of(wheel, Value.of("spot"), "step", Value.of("rings")));
        assertThat(rings.title()).isEqualTo("Spot Pattern wheel: Rings");
        assertThat(rings.packets().getFirst().address()).isEqualTo("1 40");
        assertThat(rings.packets().getFirst().args()).containsExactly(Value.of(80));
        assertThat(rings.changes()).containsEntry(wheel + "/spot", Value.of("rings"));
    }

    @Test
    void panAndTiltAreToldTogetherAndUndoneEach() {
        Twin lamps = twin("lamps", new Fixture("spot", "Spot", "moving-spot", 1, 33));
        String aim = "aim-pan-16-tilt-16";
        Order order = order(lamps, aim, Map.of(aim, Value.of("spot"), "pan", Value.of(-270), "tilt", Value.of(135)));
        assertThat(order.packets()).extracting(Order.Outgoing::address).containsExactly("1 33", "1 35");
        assertThat(order.changes()).containsOnly(Map.entry("pan-16/spot", Value.of(-270)), Map.entry("tilt-16/spot",
                Value.of(135)));
        Known known = new Known(Map.of("lamps", Map.of("pan-16/spot", Value.of(10), "tilt-16/spot", Value.of(20))), Map
                .of(), Map.of());
        Chain opposite = Opposite.of(rig("lamps", new Fixture("spot", "Spot", "moving-spot", 1, 33)), known, Chain.of(
                new GearStep.Do("lamps", aim,
                        Map.of(aim, Value.of("spot"), "pan", Value.of(-270), "tilt", Value.of(135)))),
                "press").chain();
        assertThat(opposite.steps()).singleElement().isInstanceOfSatisfying(GearStep.Do.class, d -> assertThat(d.args())
                .containsEntry("pan", Arg.of(10)).containsEntry("tilt", Arg.of(20)));
        // A reading of one of them is reached by the command that moves it alone.
        assertThat(lamps.toReach("pan-16/spot", Value.of(5)).orElseThrow().command().id()).isEqualTo("pan-16");
    }

    @Test
    void partsThatStandApartGoOutApart() {
        Map<String, Card> before = new TreeMap<>(CARDS);
        CARDS.put("odd", Card.personality("odd", "Odd", List.of(Channel.of(Kind.PAN), Channel.of(Kind.GREEN), fine(
                Kind.PAN), Channel.of(Kind.RED), Channel.of(Kind.BLUE),
                new Channel(Kind.FIXED, null, false, null, null,
                        List.of(), 200))));
        try {
            Twin lamps = twin("lamps", new Fixture("odd", "Odd", "odd", 1, 100));
            Order pan = order(lamps, "pan-16-apart", Map.of("pan-16-apart", Value.of("odd"), "pan", Value.of(0)));
            assertThat(pan.packets()).extracting(Order.Outgoing::address).containsExactly("1 100", "1 102");
            assertThat(pan.packets()).extracting(p -> p.forms().getFirst()).containsExactly(As.COARSE, As.FINE);
            Order colour = order(lamps, "rgb-apart", Map.of("rgb-apart", Value.of("odd"), "colour", Value.of(
                    "#102030")));
            assertThat(colour.packets()).extracting(Order.Outgoing::address).containsExactly("1 103", "1 101", "1 104");
            assertThat(lamps.outputs()).containsExactly(new Output(1, 105, 0, false, 1, null, 200));
        } finally {
            CARDS.clear();
            CARDS.putAll(before);
        }
    }

    @Test
    void invertLimitAndCurveAreOfTheWireAndNotOfTheCard() {
        Twin lamps = twin("lamps", new Fixture("spot", "Spot", "moving-spot", 1, 33, Set.of(Kind.TILT), 50,
                Curve.SQUARE));
        assertThat(order(lamps, "level", Map.of("lamp", Value.of("spot"), "level", Value.of(100))).packets().getFirst()
                .args()).containsExactly(Value.of(255));
        assertThat(lamps.outputs()).containsExactlyInAnyOrder(new Output(1, 35, 36, true, 1, null, -1),
                new Output(1, 37,
                        0, false, 0.5, Curve.SQUARE, -1));
        Output dimmer = lamps.outputs().stream().filter(o -> o.slot() == 37).findFirst().orElseThrow();
        assertThat(dimmer.out(0.5)).isEqualTo(0.125, within(1e-9));
        assertThat(dimmer.in(dimmer.out(0.5))).isEqualTo(0.5, within(1e-9));
        Output tilt = lamps.outputs().stream().filter(o -> o.slot() == 35).findFirst().orElseThrow();
        assertThat(tilt.in(tilt.out(0.3))).isEqualTo(0.3, within(1e-9));
    }

    @Test
    void aRangeOfItsOwnIsACommandOfItsOwn() {
        CARDS.put("far", Card.personality("far", "Far", List.of(new Channel(Kind.PAN, null, false, -180.0, 180.0, List
                .of(), null))));
        try {
            Twin lamps = twin("lamps", new Fixture("far", "Far", "far", 1, 1));
            Order pan = order(lamps, "pan-m180-180", Map.of("pan-m180-180", Value.of("far"), "pan", Value.of(180)));
            assertThat(pan.packets().getFirst().args()).containsExactly(Value.of(255));
        } finally {
            CARDS.remove("far");
        }
    }

    @Test
    void aFixtureWithoutAPersonalityIsLeftOut() {
        assertThat(twin("lamps", new Fixture("lost", "Lost", "no-such", 1, 1)).items("lamp", Readings.NONE)).isEmpty();
    }

    /** Which personalities ship is data: each of them is patched, and all that it can do can be told. */
    @Test
    void allPersonalitiesThatShipCanBeTold() {
        List<Card> all = CARDS.values().stream().filter(c -> !c.channels().isEmpty()).toList();
        assertThat(all).hasSizeGreaterThan(6);
        for (String card : List.of("lamps", "fixtures")) {
            for (Card personality : all) {
                Twin twin = twin(card, new Fixture("one", "One", personality.id(), 1, 50));
                twin.readings(Readings.NONE).stream().filter(r -> r.id().endsWith("/one")).forEach(r -> assertThat(twin
                        .toReach(r.id(), switch (r.spec().type()) {
                            case COLOUR -> Value.of("#102030");
                            case CHOICE ->
                                Value.of(twin.items(Objects.requireNonNull(r.spec().choices()), Readings.NONE)
                                        .getFirst().id());
                            default -> Value.of(Objects.requireNonNull(r.spec().min()));
                        })).as(card + " " + r.id()).isPresent());
            }
        }
    }
}
