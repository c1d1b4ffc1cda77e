package rombix.app.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.chain.DeckStep;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.check.Check;
import rombix.core.check.Finding;
import rombix.core.event.Known;
import rombix.core.store.BoardFile;
import rombix.core.value.Value;

@Execution(ExecutionMode.CONCURRENT)
class StartersTest {
    private static final Known KNOWN = new Known(Map.of("studio", Map.of("scene-list", new Value.Choices(List.of(
            new Value.Choice("host-desk", "Host Desk"), new Value.Choice("sky-map", "Sky Map"))), "scene", Value.of(
                    "sky-map"),
            "stream", Value.of(false)), "desk",
            Map.of("muted/host", Value.of(true), "level/host",
                    Value.of(-6))),
            Map.of(), Map.of());
    private Rig rig;

    @BeforeEach
    void open() throws Exception {
        Rig demo = BoardFile.read(Path.of("../demo/star-night.json"));
        rig = demo.with(Board.empty("New").withGear(demo.board().gear()));
    }

    private Page page(Starters starter) {
        return starter.added(rig, KNOWN).pages().getLast();
    }

    @ParameterizedTest
    @EnumSource(Starters.class)
    void everyStarterPageIsWholeAndTheCheckFindsNothingOnIt(Starters starter) {
        Board with = starter.added(rig, KNOWN);
        assertThat(with.pages()).hasSize(2);
        assertThat(with.pages().getLast().buttons()).isNotEmpty();
        assertThat(with.buttons().map(Button::id)).doesNotHaveDuplicates();
        assertThat(Check.of(rig.with(with)).stream().filter(f -> f.kind() != Finding.Kind.NO_LINK)).isEmpty();
    }

    @ParameterizedTest
    @EnumSource(Starters.class)
    void aBoardWithoutGearGetsNoEmptyPage(Starters starter) {
        Rig bare = rig.with(Board.empty("Bare"));
        assertThat(starter.added(bare, Known.NOTHING).pages()).hasSize(starter == Starters.SAFETY ? 2 : 1);
    }

    @Test
    void eachSceneTheGearListsGetsAButtonWithItsTally() {
        assertThat(page(Starters.CHOICES).buttons()).extracting(Button::name).contains("Host Desk", "Sky Map",
                "Slow Orbits");
        Button map = page(Starters.CHOICES).buttons().stream().filter(b -> b.name().equals("Sky Map")).findFirst()
                .orElseThrow();
        assertThat(map.states().getFirst().face().tally()).isNotEmpty();
    }

    @Test
    void eachMuteGetsAButtonThatFollowsTheGear() {
        Button host = page(Starters.SWITCHES).buttons().stream().filter(b -> b.name().equals("Host")).findFirst()
                .orElseThrow();
        assertThat(host.follows()).isTrue();
        assertThat(host.states()).hasSize(2);
    }

    @Test
    void aHoldSetsTheOtherAndItsReleaseSetsItBack() {
        Button hold = page(Starters.HOLDS).buttons().stream().filter(b -> b.name().startsWith("Host")).findFirst()
                .orElseThrow();
        assertThat(hold.name()).isEqualTo("Host: hold for open");
        assertThat(hold.states().getFirst().chain(Gesture.PRESS).steps()).singleElement()
                .isEqualTo(new GearStep.Do("desk",
                        "unmute", Map.of("channel", Value.of("host"))));
        assertThat(hold.states().getFirst().chain(Gesture.RELEASE).steps()).singleElement().isEqualTo(new GearStep.Do(
                "desk", "mute", Map.of("channel", Value.of("host"))));
    }

    @Test
    void levelsGoUpAndDownAndOnWhileHeld() {
        List<Button> levels = page(Starters.LEVELS).buttons();
        Button down = levels.stream().filter(b -> b.name().startsWith("Host") && b.name().endsWith("down")).findFirst()
                .orElseThrow();
        GearStep.Nudge nudge = (GearStep.Nudge) down.states().getFirst().chain(Gesture.HELD).steps().getFirst();
        assertThat(nudge.by().shown().asNumber()).isNegative();
        assertThat(down.states().getFirst().face().second()).contains("desk:level/host");
    }

    @Test
    void safetyStopsAllAndPutsBackWhatIsNow() {
        List<Button> safety = page(Starters.SAFETY).buttons();
        assertThat(safety.getFirst().states().getFirst().chain(Gesture.PRESS).steps()).singleElement().isInstanceOf(
                DeckStep.Stop.class);
        assertThat(safety).extracting(Button::name).contains("Sound desk, as it is now");
    }
}
