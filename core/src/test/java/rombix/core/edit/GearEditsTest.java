package rombix.core.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Control;
import rombix.core.board.Face;
import rombix.core.board.Gear;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.board.Trigger;
import rombix.core.card.Card.Item;
import rombix.core.card.Protocol;
import rombix.core.chain.Chain;
import rombix.core.chain.Condition;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.check.References;
import rombix.core.store.BoardFile;
import rombix.core.value.Value;

/** On the demo board, whose gear is used by everything that can use gear. */
class GearEditsTest {
    private static Rig demo;

    @BeforeAll
    static void read() throws Exception {
        demo = BoardFile.read(Path.of("../demo/star-night.json"));
    }

    static Stream<String> gear() throws Exception {
        return BoardFile.read(Path.of("../demo/star-night.json")).board().gear().stream().map(Gear::id);
    }

    @ParameterizedTest
    @MethodSource("gear")
    void aBoardWithoutAGearNamesItNowhereAndCanBeOpened(String gear) {
        assertThat(GearEdits.uses(demo.board(), gear)).isNotEmpty();
        Board left = GearEdits.without(demo.board(), gear);
        assertThat(left.gear(gear)).isEmpty();
        assertThat(GearEdits.uses(left, gear)).isEmpty();
        assertThat(References.flaws(demo.with(left))).isEmpty();
        assertThat(left.buttons()).hasSameSizeAs(demo.board().buttons().toList());
    }

    @Test
    void usesAreSaidWhereverTheyStand() {
        Condition.OnReading muted = Condition.OnReading.is("desk", "muted/host", Value.of(true));
        Step wait = new Step.Wait(0, null, null, muted, null, StepOptions.PLAIN, Map.of());
        Button button = new Button("x", "X", 0, 0, 1, 1, Button.Busy.RESTART,
                List.of(new State("on", "on", Face.PLAIN, State.STAY, null, Map.of(
                        Gesture.PRESS, new Chain(List.of(new Step.Together(List.of(Chain.of(wait)))), List.of())),
                        Map.of())),
                Map.of());
        Board board = Board.empty("B").withGear(demo.board().gear());
        String page = board.pages().getFirst().id();
        Board with = Edits.page(Edits.addButton(board, page, button.withControl(new Control.Fader(new Control.Axis(
                "desk", "level/host"))).withTriggers(List.of(new Trigger.Becomes(muted)))), page, p -> p.withFollows(
                        muted));
        assertThat(GearEdits.uses(with, "desk")).hasSize(4).anyMatch(u -> u.startsWith("when the page"))
                .contains("“X”, press", "the level that “X” moves", "a trigger of “X”");
        assertThat(GearEdits.uses(with, "studio")).isEmpty();
        Button left = GearEdits.without(with, "desk").button("x").orElseThrow();
        assertThat(left.triggers()).isEmpty();
        assertThat(left.control()).isNull();
        assertThat(left.states().getFirst().chain(Gesture.PRESS).steps()).containsExactly(new Step.Together(List.of(
                Chain.EMPTY)));
    }

    @Test
    void gearIsAddedUnderANameAndAnIdOfItsOwnAndReachedWhereItIsSaid() {
        Board board = GearEdits.add(GearEdits.add(demo.board(), demo.cards().get("desktop"), Protocol.of("desktop")),
                demo
                        .cards().get("studio"),
                Protocol.of("osc"));
        Gear studio = board.gear().getLast();
        assertThat(studio.name()).isEqualTo("Studio 2");
        assertThat(studio.id()).isEqualTo("studio-2");
        assertThat(studio.link().protocol().wrongAddress(studio.link().address())).isNotNull();
        Gear desktop = board.gear().get(board.gear().size() - 2);
        assertThat(desktop.link().protocol().wrongAddress(desktop.link().address())).as("it is here").isNull();
        assertThat(References.flaws(demo.with(board))).isEmpty();
        Gear.Link link = GearEdits.reached(board, "studio-2", Protocol.of("osc"), "10.0.0.7:9000").gear("studio-2")
                .orElseThrow().link();
        assertThat(link.address()).isEqualTo("10.0.0.7:9000");
    }

    @Test
    void aListOfItsOwnTakesThePlaceOfTheCards() {
        List<Item> items = List.of(new Item("mc", "Compère", Map.of("mute", 1, "level", 2)));
        Rig rig = demo.with(GearEdits.listed(demo.board(), "desk", "channel", items));
        assertThat(rig.twin("desk").orElseThrow().items("channel", _ -> null)).isEqualTo(items);
        assertThat(References.flaws(rig)).as("what names the channels that are gone").isNotEmpty();
    }

    @Test
    void whatNamesAChannelIsSaidAndOtherChannelsAreLeftAlone() {
        Rig rig = demo;
        assertThat(GearEdits.uses(rig.board(), "desk", rig.cards().get("sound-desk"), "channel", "host")).contains(
                "“Host talk”, press", "the face of “Host talk”", "the level that “Host” moves");
        assertThat(GearEdits.uses(rig.board(), "desk", rig.cards().get("sound-desk"), "channel", "stings"))
                .contains("“Everything quiet”, press").doesNotContain("“Host talk”, press");
        assertThat(GearEdits.uses(rig.board(), "desk", rig.cards().get("sound-desk"), "sting", "host")).isEmpty();
    }

    @Test
    void aCardTellsWhatItWantsToKnowOfItsItems() {
        assertThat(demo.cards().get("sound-desk").fields("channel", Protocol.of("midi"))).containsExactly("level",
                "mute");
        assertThat(demo.cards().get("sound-desk").fields("sting", Protocol.of("midi"))).containsExactly("note");
        assertThat(demo.cards().get("lamps").fields("warm-lamp", Protocol.of("dmx"))).containsExactly("universe",
                "warmth");
        assertThat(demo.cards().get("lamp-cues").fields("list", Protocol.of("osc"))).isEmpty();
        assertThat(demo.cards().get("lamps").protocols()).containsExactly(Protocol.of("dmx"), Protocol.of("artnet"));
        assertThat(demo.cards().get("desktop").protocols()).isEqualTo(Set.of(Protocol.of("desktop")));
    }
}
