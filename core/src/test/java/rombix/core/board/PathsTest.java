package rombix.core.board;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import rombix.core.chain.Chain;
import rombix.core.chain.DeckStep;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;

/** Paths into a chain of two waits, a together of two chains, an always part, and a step with a chain for its failure. */
class PathsTest {
    private static final Step A = new Step.Wait(1);
    private static final Step B = new Step.Wait(2);
    private static final Step C = new Step.Wait(3);
    private static final Step D = new Step.Wait(4);
    private static final Step ALWAYS = new Step.Wait(5);
    private static final Step RESCUE = new Step.Wait(6);
    private static final Step RISKY = B
            .withHow(new StepOptions(false, null, null, StepOptions.Fail.INSTEAD, 0, 0, Chain.of(RESCUE)));
    private static final Chain CHAIN = new Chain(
            List.of(A, RISKY, new Step.Together(List.of(Chain.of(C), Chain.of(D)))),
            List.of(ALWAYS));

    static Stream<Arguments> places() {
        return Stream.of(Arguments.of(List.of(0), A), Arguments.of(List.of(1), RISKY),
                Arguments.of(List.of(2, 0, 0), C),
                Arguments.of(List.of(2, 1, 0), D), Arguments.of(List.of(-1), ALWAYS), Arguments.of(List.of(1,
                        Paths.INSTEAD, 0), RESCUE));
    }

    @ParameterizedTest
    @MethodSource("places")
    void everyStepHasItsPath(List<Integer> path, Step step) {
        assertThat(Paths.step(CHAIN, path)).contains(step);
        assertThat(Paths.fits(CHAIN, path)).isTrue();
        assertThat(Paths.fits(CHAIN, Paths.next(path))).as("behind it is a place too").isTrue();
    }

    @ParameterizedTest
    @MethodSource("places")
    void takingAStepOutAndPuttingItBackChangesNothing(List<Integer> path, Step step) {
        Chain without = Paths.without(CHAIN, List.of(path));
        assertThat(without).isNotEqualTo(CHAIN);
        assertThat(Paths.inserted(without, path, List.of(step))).isEqualTo(CHAIN);
    }

    @ParameterizedTest
    @MethodSource("places")
    void changingAStepChangesThatOneAlone(List<Integer> path, Step step) {
        Step other = new DeckStep.Say("x", StepOptions.PLAIN, Map.of());
        Chain changed = Paths.changed(CHAIN, path, _ -> other);
        assertThat(Paths.step(changed, path)).contains(other);
        assertThat(Paths.changed(changed, path, _ -> step)).isEqualTo(CHAIN);
    }

    @Test
    void pathsThatLeadNowhereChangeNothing() {
        for (List<Integer> nowhere : List.of(List.of(7), List.of(0, 0, 0), List.of(2, 9, 0), List.of(-4),
                List.<Integer>of())) {
            assertThat(Paths.step(CHAIN, nowhere)).isEmpty();
            if (!nowhere.isEmpty()) {
                assertThat(Paths.changed(CHAIN, nowhere, _ -> A)).isEqualTo(CHAIN);
            }
        }
        assertThat(Paths.fits(CHAIN, List.of(4))).isFalse();
        assertThat(Paths.fits(CHAIN, List.of(0, 0, 0))).isFalse();
    }

    @Test
    void placesAsTheLogWritesThemAreRead() {
        assertThat(Paths.ofPlace("press/2/1/0")).contains(List.of(2, 1, 0));
        assertThat(Paths.ofPlace("press/always/0")).contains(List.of(-1));
        assertThat(Paths.ofPlace("press/1/instead/0")).contains(List.of(1, Paths.INSTEAD, 0));
        assertThat(Paths.ofPlace("press")).isEmpty();
        assertThat(Paths.ofPlace("press/0/use/1")).as("within another chain").isEmpty();
    }

    @Test
    void stepsWithinOthersThatAreSelectedGoAlongWithThem() {
        List<List<Integer>> outer = Paths.outer(List.of(List.of(-1), List.of(2, 1, 0), List.of(2), List.of(0)));
        assertThat(outer).containsExactly(List.of(0), List.of(2), List.of(-1));
        assertThat(Paths.steps(CHAIN, List.of(List.of(2, 0, 0), List.of(0)))).containsExactly(A, C);
    }

    @ParameterizedTest
    @CsvSource({"'2', '1', 1, '3'", "'2', '2', 1, '3'", "'2', '3', 1, '2'", "'2', '1', -1, '1'", "'2', '2', -1, '2'",
            "'2 0 4', '1', -1, '1 0 4'", "'2 0 4', '2 0 1', 1, '2 0 5'", "'2 0 4', '2 1 1', 1, '2 0 4'",
            "'-2', '-1', 1, '-3'", "'2', '-1', 1, '2'"})
    void pathsShiftWithWhatIsPutInOrTakenOutBeforeThem(String path, String at, int by, String shifted) {
        assertThat(Paths.shifted(of(path), of(at), by)).isEqualTo(of(shifted));
    }

    private static List<Integer> of(String text) {
        return Stream.of(text.split(" ")).map(Integer::valueOf).toList();
    }

    @Test
    void aListIsMadeAnewWhereAPathStands() {
        Chain changed = Paths.relisted(CHAIN, List.of(2, 1, 0), steps -> List.of(A, B));
        assertThat(Paths.step(changed, List.of(2, 1, 1))).contains(B);
        assertThat(Paths.step(changed, List.of(2, 0, 0))).contains(C);
        assertThat(Paths.relisted(CHAIN, List.of(8, 0, 0), _ -> List.of())).isEqualTo(CHAIN);
    }
}
