package rombix.core.check;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.core.engine.TestDeck.button;
import static rombix.core.engine.TestDeck.off;
import static rombix.core.engine.TestDeck.on;
import static rombix.core.engine.TestDeck.rig;
import static rombix.core.engine.TestDeck.state;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import rombix.core.board.Board;
import rombix.core.board.Face;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.chain.Chain;
import rombix.core.chain.DeckStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.check.Finding.Kind;
import rombix.core.check.Fixes.Fix;
import rombix.core.edit.Edits;

class FixesTest {
    private static final Set<Kind> NEED_A_PERSON = Set.of(Kind.NO_LINK);

    /** Everything that the check is known to find. */
    static Stream<Arguments> wrong() {
        return CheckTest.wrong();
    }

    private static Finding first(Rig rig, Kind kind) {
        return Check.of(rig).stream().filter(f -> f.kind() == kind).findFirst().orElseThrow();
    }

    @ParameterizedTest
    @MethodSource("wrong")
    void whatIsOfferedDoesAwayWithTheFindingAndMakesNoOther(Kind kind, Rig rig, String pointer) {
        List<Finding> before = Check.of(rig);
        Finding finding = first(rig, kind);
        Optional<Fix> fix = Fixes.of(rig, finding);
        if (NEED_A_PERSON.contains(kind)) {
            assertThat(fix).isEmpty();
            return;
        }
        assertThat(fix).as(finding.message()).isPresent();
        assertThat(fix.get().words()).isNotBlank().doesNotEndWith(".");
        List<Finding> after = Check.of(rig.with(fix.get().edit().apply(rig.board())));
        assertThat(after).hasSizeLessThan(before.size());
        assertThat(after.stream().map(Finding::kind)).allMatch(k -> before.stream().anyMatch(f -> f.kind() == k));
    }

    @Test
    void aReleaseIsGivenTheStepThatSetsBackWhatThePressSets() {
        Rig rig = rig(button("b", state("on", null, Chain.of(on("a"), on("b")), Chain.of(off("a")))));
        Fix fix = Fixes.of(rig, first(rig, Kind.NOT_UNDONE)).orElseThrow();
        Chain release = fix.edit().apply(rig.board()).button("b").orElseThrow().states().getFirst().chain(
                Gesture.RELEASE);
        assertThat(release).isEqualTo(Chain.of(off("a"), off("b")));
    }

    @Test
    void aDeadReferenceDeepInAChainIsTakenOutAndNothingElse() {
        Step dead = new DeckStep.Stop(DeckStep.Stop.What.BUTTON, "gone", null, StepOptions.PLAIN, java.util.Map.of());
        Rig rig = rig(button("b", state(Chain.of(on("a"), new Step.Together(List.of(Chain.of(on("a")), Chain.of(off(
                "a"), dead)))))));
        Finding finding = first(rig, Kind.DEAD_REFERENCE);
        Board mended = Fixes.of(rig, finding).orElseThrow().edit().apply(rig.board());
        assertThat(mended.button("b").orElseThrow().states().getFirst().chain(Gesture.PRESS)).isEqualTo(Chain.of(on(
                "a"), new Step.Together(List.of(Chain.of(on("a")), Chain.of(off("a"))))));
    }

    @Test
    void whatAStateNamesInVainIsLetGo() {
        State lost = state(Chain.of(on("a"))).withThen("nowhere").withFallBack(new State.FallBack("nowhere", 5))
                .withWhen(rombix.core.chain.Condition.OnReading.is("gear", "mood", rombix.core.value.Value.of(true)))
                .withFace(Face.PLAIN.withImage(new Face.Image("nothing", null, 0, null)));
        Rig rig = rig(button("b", lost));
        for (int i = 0; i < 4; i++) {
            Finding finding = first(rig, Kind.DEAD_REFERENCE);
            rig = rig.with(Fixes.of(rig, finding).orElseThrow().edit().apply(rig.board()));
        }
        assertThat(Check.of(rig).stream().filter(f -> f.kind() == Kind.DEAD_REFERENCE)).isEmpty();
        assertThat(rig.button("b").orElseThrow().states().getFirst().chain(Gesture.PRESS)).isEqualTo(Chain.of(
                on("a")));
    }

    @Test
    void aLabelIsShortenedToWhatFitsAndNoFurther() {
        String label = "A very long label that no tile of this page could ever show in three lines of type";
        Rig plain = rig(button("b", state(Chain.EMPTY)));
        Rig rig = plain.with(Edits.state(Edits.resizePage(plain.board(), "p", 16, 8), "b", 0, s -> s.withFace(Face.PLAIN
                .withLabel(label))));
        Fix fix = Fixes.of(rig, first(rig, Kind.LABEL_TOO_LONG)).orElseThrow();
        Rig mended = rig.with(fix.edit().apply(rig.board()));
        String cut = mended.board().button("b").orElseThrow().states().getFirst().face().label();
        assertThat(cut).startsWith("A very").endsWith("…");
        assertThat(Check.of(mended).stream().filter(f -> f.kind() == Kind.LABEL_TOO_LONG)).isEmpty();
        String longer = label.substring(0, cut.length()) + "…";
        Rig more = rig.with(Edits.state(rig.board(), "b", 0, s -> s.withFace(Face.PLAIN.withLabel(longer))));
        assertThat(Check.of(more).stream().filter(f -> f.kind() == Kind.LABEL_TOO_LONG)).as(longer).isNotEmpty();
    }
}
