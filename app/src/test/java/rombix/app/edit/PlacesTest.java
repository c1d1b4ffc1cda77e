package rombix.app.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.chain.DeckStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.check.References;
import rombix.core.store.BoardFile;
import rombix.core.twin.Twin.Readings;

class PlacesTest {
    private Workbench bench;

    @BeforeEach
    void open() throws Exception {
        bench = new Workbench(Path.of("b.json"), BoardFile.read(Path.of("../demo/star-night.json")));
    }

    private List<Places.Place> find(String typed) {
        return Places.find(typed, bench, _ -> Readings.NONE, 40);
    }

    @Test
    void pagesButtonsGearAndStepsAreFoundByTheirWords() {
        assertThat(find("observing")).anySatisfy(p -> assertThat(p.where()).isEqualTo("page"));
        assertThat(find("sound desk")).anySatisfy(p -> assertThat(p.where()).isEqualTo("gear, MIDI"));
        assertThat(find("tea urn")).anySatisfy(p -> assertThat(p.where()).isEqualTo("on Doors"));
        assertThat(find("unlock gate")).anySatisfy(p -> assertThat(p.where()).contains("Gate"));
        assertThat(find("zebra")).isEmpty();
        assertThat(find("9104")).as("by the address too").anySatisfy(p -> assertThat(p.words()).isEqualTo("House"));
    }

    @Test
    void goingToAButtonSelectsItOnItsPageAndToAStepThatStepInItsChain() {
        find("dark sky").stream().filter(p -> p.where().startsWith("on ")).findFirst().orElseThrow().go().run();
        assertThat(bench.button().orElseThrow().id()).isEqualTo("dark-sky");
        assertThat(bench.page().id()).isEqualTo("observing");
        Places.Place step = find("mute dome").stream().filter(p -> p.where().contains("press")).findFirst()
                .orElseThrow();
        step.go().run();
        assertThat(bench.step()).isPresent();
        assertThat(bench.part().gesture()).isEqualTo(Gesture.PRESS);
    }

    @Test
    void goingToAGearHasTheRackLookForIt() {
        String[] lookedFor = {""};
        bench.watch(() -> bench.lookedFor().ifPresent(g -> lookedFor[0] = g));
        find("sound desk").stream().filter(p -> p.where().startsWith("gear")).findFirst().orElseThrow().go().run();
        assertThat(lookedFor[0]).isEqualTo("desk");
        assertThat(bench.lookedFor()).as("once").isEmpty();
    }

    @Test
    void noMoreAreFoundThanAreWanted() {
        assertThat(Places.find("e", bench, _ -> Readings.NONE, 7)).hasSize(7);
    }

    @Test
    void deletingAStateTakesTheStepsAlongThatNameIt() {
        Board board = bench.board();
        Button gate = board.button("gate").orElseThrow();
        State second = gate.states().get(1);
        Step show = DeckStep.Show.state("gate", second.id());
        Board named = rombix.core.edit.Edits.chain(board, "walkway-up", 0, Gesture.PRESS, c -> c.with(0, show));
        assertThat(UsageWords.of(named, UsageWords.state("gate", second.id()))).hasSize(1);
        Board left = UsageWords.withoutState(named, "gate", 1);
        assertThat(left.button("gate").orElseThrow().states()).hasSize(1);
        assertThat(UsageWords.of(left, UsageWords.state("gate", second.id()))).isEmpty();
        assertThat(References.flaws(Rig.of(left, bench.rig().cards()))).isEmpty();
        assertThat(UsageWords.withoutState(left, "gate", 0)).as("the last one stays").isEqualTo(left);
    }

    @Test
    void usesOfValuesAndChainsAreFound() {
        Board board = bench.board();
        String value = board.values().getFirst().id();
        assertThat(UsageWords.of(board, UsageWords.value(value))).isNotEmpty();
        assertThat(UsageWords.of(board, UsageWords.value("no-such-value"))).isEmpty();
        assertThat(board.chains()).isNotEmpty();
        assertThat(board.chains().stream().anyMatch(c -> !UsageWords.of(board, UsageWords.chain(c.id())).isEmpty()))
                .isTrue();
    }
}
