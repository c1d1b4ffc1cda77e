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
import org.junit.jupiter.params.provider.CsvSource;
import rombix.core.board.Board;
import rombix.core.board.Paths;
import rombix.core.board.Rig;
import rombix.core.chain.Chain;
import rombix.core.chain.DeckStep;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.check.Check;
import rombix.core.edit.Edits;
import rombix.core.event.Known;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;
import rombix.core.twin.Twin;
import rombix.core.twin.Twin.Readings;
import rombix.core.value.Value;

@Execution(ExecutionMode.CONCURRENT)
class StepEditsTest {
    private static final Step A = new Step.Wait(100);
    private static final Step B = new Step.Wait(200);
    private static final Step C = new Step.Wait(300);
    private static final Step D = new Step.Wait(400);
    private Workbench bench;
    private StepEdits edits;

    @BeforeEach
    void open() throws BadFile {
        bench = new Workbench(Path.of("b.json"), BoardFile.read(Path.of("../demo/star-night.json")));
        edits = new StepEdits(bench);
        bench.select("test-tone");
        bench.editChain("start", _ -> Chain.of(A, B, new Step.Together(List.of(Chain.of(C), Chain.of(D)))));
    }

    private List<Step> steps() {
        return bench.chain().steps();
    }

    @Test
    void stepsAreCopiedCutPastedAndDoubled() {
        bench.selectSteps(List.of(List.of(0), List.of(1)));
        edits.copy();
        bench.selectStep(List.of(2, 0, 0));
        edits.paste();
        assertThat(((Step.Together) steps().get(2)).chains().getFirst()).isEqualTo(Chain.of(C, A, B));
        bench.selectStep(List.of(0));
        edits.cut();
        assertThat(steps().getFirst()).isEqualTo(B);
        edits.paste();
        assertThat(steps().subList(0, 2)).containsExactly(A, B);
        bench.selectStep(List.of(1));
        edits.duplicate();
        assertThat(steps().subList(0, 3)).containsExactly(A, B, B);
        assertThat(bench.undoName()).contains("duplicate a step");
    }

    @Test
    void stepsAreWrappedAndSwitchedOff() {
        bench.selectSteps(List.of(List.of(1), List.of(0)));
        edits.wrap(StepEdits.Wrap.REPEAT);
        assertThat(steps().getFirst()).isInstanceOfSatisfying(Step.Repeat.class, r -> assertThat(r.chain()).isEqualTo(
                Chain.of(A, B)));
        assertThat(bench.step()).contains(List.of(0));
        edits.switchOff();
        assertThat(steps().getFirst().how().off()).isTrue();
        edits.switchOff();
        assertThat(steps().getFirst().how().off()).isFalse();
    }

    @Test
    void aStepWithinAnotherThatIsSelectedGoesWithIt() {
        bench.selectSteps(List.of(List.of(2), List.of(2, 1, 0), List.of(0)));
        edits.delete();
        assertThat(steps()).containsExactly(B);
    }

    @ParameterizedTest
    @CsvSource({"0, 'P W100 W200'", "100, 'W100 P W200'", "50, 'W50 P W50 W200'", "200, 'W100 W100 P W100'",
            "1000, 'W100 W200 W700 P'"})
    void aStepMovesInTimeAndTheRestStays(double to, String expected) {
        Step ping = new DeckStep.Say("P", rombix.core.chain.StepOptions.PLAIN, Map.of());
        bench.editChain("test", _ -> Chain.of(A, ping, B));
        edits.moveInTime(List.of(1), to, s -> s instanceof Step.Wait w ? w.ms() : 0);
        assertThat(String.join(" ", steps().stream().map(s -> s instanceof Step.Wait w ? "W" + w.ms() : "P").toList()))
                .isEqualTo(expected);
    }

    @Test
    void theOppositeBecomesTheOtherState() {
        bench.editChain("test", _ -> Chain.of(new GearStep.Do("desk", "mute", Map.of("channel", Value.of("host"))),
                new DeckStep.Say("hello", rombix.core.chain.StepOptions.PLAIN, Map.of())));
        var left = edits.makeOpposite(Known.NOTHING);
        assertThat(left).hasSize(1);
        assertThat(bench.button().orElseThrow().states()).hasSize(2);
        assertThat(bench.stateIndex()).isEqualTo(1);
        assertThat(steps()).containsExactly(new GearStep.Do("desk", "unmute", Map.of("channel", Value.of("host"))));
        bench.undo();
        assertThat(bench.button().orElseThrow().states()).hasSize(1);
    }

    @Test
    void aGrabbedControlBecomesAButtonThatFollows() {
        Twin desk = bench.rig().twin("desk").orElseThrow();
        Twin.Reading muted = desk.reading("muted/guest", Readings.NONE).orElseThrow();
        Grab grab = Grab.of(desk, muted, Value.of(true)).orElseThrow();
        assertThat(grab.step()).contains(new GearStep.Do("desk", "unmute", Map.of("channel", Value.of("guest"))));
        var button = grab.button("g", "Guest", 5, 3);
        assertThat(button.follows()).isTrue();
        assertThat(button.states().get(0).chain(Gesture.PRESS))
                .isEqualTo(Chain.of(new GearStep.Do("desk", "mute", Map.of(
                        "channel", Value.of("guest")))));
        Board with = Edits.addButton(bench.board(), "trouble", button);
        assertThat(Check.of(bench.rig().with(with))).isEmpty();
    }

    @Test
    void whatUsesAThingIsFoundAndGoesWithIt() {
        assertThat(UsageWords.ofButton(bench.board(), "good-night")).containsExactly("“Close at half past”, press");
        Board without = UsageWords.withoutButton(bench.board(), "clouded-out");
        Rig rig = bench.rig().with(without);
        assertThat(without.button("clouded-out")).isEmpty();
        assertThat(Check.of(rig)).isEmpty();
        assertThat(Check.of(bench.rig().with(UsageWords.withoutPage(bench.board(), "doors")))).isEmpty();
    }

    @Test
    void anythingIsFoundAndGoneTo() {
        var places = Places.find("thunder", bench, _ -> Readings.NONE, 20);
        assertThat(places).isNotEmpty();
        places.getLast().go().run();
        assertThat(bench.button().map(b -> b.id())).contains("clouded-out");
        assertThat(bench.step()).contains(List.of(4, 0, 0));
        assertThat(Places.find("questions", bench, _ -> Readings.NONE, 20).getFirst().where()).isEqualTo("page");
    }

    @Test
    void pagesAreDoubledMovedAndSized() {
        Board twice = Edits.duplicatePage(bench.board(), "close");
        assertThat(Check.of(bench.rig().with(twice))).isEmpty();
        assertThat(Edits.movePage(twice, "doors", 2).pages().get(2).id()).isEqualTo("doors");
        assertThat(Edits.beyond(bench.rig().page("close").orElseThrow(), 3, 1)).hasSize(2);
        assertThat(Edits.resizePage(bench.board(), "close", 3, 1).page("close").orElseThrow().buttons()).hasSize(3);
    }

    @Test
    void aStepGoesIntoTheStepBesideItAndOutAgain() {
        bench.selectStep(List.of(1));
        edits.moveIn();
        assertThat(steps()).hasSize(2);
        assertThat(((Step.Together) steps().get(1)).chains().get(1)).isEqualTo(Chain.of(D, B));
        assertThat(bench.step()).contains(List.of(1, 1, 1));
        edits.moveOut();
        assertThat(steps()).hasSize(3);
        assertThat(steps().get(2)).isEqualTo(B);
        assertThat(bench.step()).contains(List.of(2));
    }

    @Test
    void aStepGoesNeitherIntoItselfNorPastTheEnds() {
        Chain before = bench.chain();
        edits.moveInto(List.of(2), List.of(2, 0, 0));
        bench.selectStep(List.of(0));
        edits.moveBy(-1);
        bench.selectStep(List.of(2));
        edits.moveBy(1);
        assertThat(bench.chain()).isEqualTo(before);
        edits.moveBy(-1);
        assertThat(steps().get(1)).isInstanceOf(Step.Together.class);
        assertThat(bench.step()).contains(List.of(1));
    }

    @Test
    void aStepMovesWithinTheListThatHoldsItAndNothingElseMovesInTime() {
        bench.editChain("start", _ -> Chain.of(new Step.Together(List.of(Chain.of(A, new DeckStep.Say("x",
                rombix.core.chain.StepOptions.PLAIN, Map.of()), C)))));
        edits.moveInTime(List.of(0, 0, 1), 250, s -> s instanceof Step.Wait w ? w.ms() : 0);
        Chain inner = ((Step.Together) steps().getFirst()).chains().getFirst();
        assertThat(inner.steps()).hasSize(4);
        assertThat(inner.steps().get(2)).isInstanceOf(DeckStep.Say.class);
        assertThat(
                inner.steps().stream().filter(Step.Wait.class::isInstance).mapToLong(s -> ((Step.Wait) s).ms()).sum())
                .isEqualTo(400);
    }

    @Test
    void aStepIsMovedOutToATimeOfTheChainItself() {
        edits.moveOut(List.of(2, 0, 0), 150, s -> s instanceof Step.Wait w ? w.ms() : 0);
        assertThat(steps()).containsExactly(A, new Step.Wait(50), C, new Step.Together(List.of(Chain.EMPTY, Chain.of(
                D))));
    }

    @Test
    void aStepIsAddedAtATime() {
        Step say = new DeckStep.Say("x", rombix.core.chain.StepOptions.PLAIN, Map.of());
        edits.addAt("grab", say, 200, s -> s instanceof Step.Wait w ? w.ms() : 0);
        assertThat(steps().subList(0, 4)).containsExactly(A, new Step.Wait(100), say, new Step.Wait(100));
        edits.addAt("grab", say, 5000, s -> s instanceof Step.Wait w ? w.ms() : 0);
        assertThat(steps().getLast()).isEqualTo(say);
        assertThat(steps().get(steps().size() - 2)).as("a wait is made for it").isEqualTo(new Step.Wait(4700));
    }

    @Test
    void aStepTellsAnotherGearOnlyWhatThatOneKnows() {
        Step mute = new GearStep.Do("desk", "mute", Map.of("channel", Value.of("host")));
        bench.editChain("start", _ -> Chain.of(mute));
        assertThat(edits.moveToGear(List.of(0), "house")).isFalse();
        assertThat(steps()).containsExactly(mute);
        bench.edit("a second desk", b -> {
            List<rombix.core.board.Gear> gear = new java.util.ArrayList<>(b.gear());
            gear.add(b.gear("desk").orElseThrow().withId("desk-2").withName("Second desk"));
            return b.withGear(gear);
        });
        assertThat(edits.moveToGear(List.of(0), "desk-2")).isTrue();
        assertThat(steps()).containsExactly(new GearStep.Do("desk-2", "mute", Map.of("channel", Value.of("host"))));
        assertThat(bench.undoName()).contains("move a step to Second desk");
    }

    /** Whatever is moved wherever: no step is lost or doubled, and the moved one stands where the selection says. */
    @Test
    void movingLosesAndDoublesNothing() {
        java.util.Random random = new java.util.Random(11);
        for (int round = 0; round < 200; round++) {
            Chain chain = random(random, 3);
            bench.editChain("start", _ -> chain);
            List<List<Integer>> paths = new java.util.ArrayList<>();
            paths(chain, List.of(), paths);
            if (paths.size() < 2) {
                continue;
            }
            List<Integer> from = paths.get(random.nextInt(paths.size()));
            List<Integer> to = paths.get(random.nextInt(paths.size()));
            Step moved = Paths.step(chain, from).orElseThrow();
            edits.moveInto(from, to);
            List<String> after = new java.util.ArrayList<>();
            all(bench.chain(), after);
            List<String> before = new java.util.ArrayList<>();
            all(chain, before);
            assertThat(after).containsExactlyInAnyOrderElementsOf(before);
            boolean within = to.size() > from.size() && to.subList(0, from.size()).equals(from);
            if (!within) {
                assertThat(bench.step().flatMap(p -> Paths.step(bench.chain(), p))).as("%s to %s in %s", from, to,
                        chain).contains(moved);
            }
        }
    }

    private static int serial;

    private static Chain random(java.util.Random random, int depth) {
        List<Step> steps = new java.util.ArrayList<>();
        for (int i = random.nextInt(4); i >= 0; i--) {
            steps.add(depth > 0 && random.nextInt(3) == 0
                    ? new Step.Together(List.of(random(random, depth - 1), random(random, depth - 1)))
                    : new Step.Wait(++serial));
        }
        return new Chain(steps);
    }

    private static void paths(Chain chain, List<Integer> at, List<List<Integer>> to) {
        for (int i = 0; i < chain.steps().size(); i++) {
            List<Integer> path = new java.util.ArrayList<>(at);
            path.add(i);
            to.add(List.copyOf(path));
            List<Chain> inner = chain.steps().get(i).inner();
            for (int c = 0; c < inner.size(); c++) {
                List<Integer> within = new java.util.ArrayList<>(path);
                within.add(c);
                paths(inner.get(c), within, to);
            }
        }
    }

    private static void all(Chain chain, List<String> to) {
        for (Step s : chain.steps()) {
            to.add(s instanceof Step.Wait w ? "wait " + w.ms() : "holds " + s.inner().size());
            s.inner().forEach(c -> all(c, to));
        }
    }
}
