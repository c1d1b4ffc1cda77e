package rombix.core.diff;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Rig;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.check.References;
import rombix.core.edit.Edits;
import rombix.core.store.BoardFile;
import rombix.core.value.Value;

class DiffAndMergeTest {
    private static final int PAIRS = Integer.getInteger("rombix.pairs", 150);
    private static final int FIRST = Integer.getInteger("rombix.pairs.from", 0);
    private static final Rig DEMO = demo();

    private static Rig demo() {
        try {
            return BoardFile.read(Path.of("../demo/star-night.json"));
        } catch (Exception e) {
            throw new IllegalStateException(e);
        }
    }

    private static Rig with(Chain chain) {
        return DEMO.with(Edits.button(DEMO.board(), "clouded-out", b -> b.withStates(List.of(b.states().getFirst()
                .withOn(Map.of(Gesture.PRESS, chain))))));
    }

    private static Step fade(long ms) {
        return new GearStep.Fade("desk", "level", Map.of("channel", Arg.of(Value.of("host"))), "level", null,
                Arg.of(Value.of(
                        -20)),
                ms, GearStep.Fade.Curve.LINEAR, StepOptions.PLAIN, Map.of());
    }

    private static List<String> lines(Rig before, Rig after) {
        return BoardDiff.of(before, after).stream().map(c -> plain(c.line())).toList();
    }

    /** With plain spaces between figures and their units. */
    private static String plain(String words) {
        return words.replace('\u00A0', ' ');
    }

    @Test
    void whatChangedIsToldInWords() {
        Step wait = new Step.Wait(2000);
        assertThat(lines(with(Chain.of(fade(1400), wait)), with(Chain.of(fade(2000), wait)))).containsExactly(
                "Clouded out: the fade takes 2 s instead of 1.4 s.");
        assertThat(lines(with(Chain.of(fade(1400))), with(Chain.of(fade(1400), wait)))).containsExactly(
                "Clouded out: “Wait 2 s” is new.");
        assertThat(lines(with(Chain.of(wait, fade(1400))), with(Chain.of(fade(1400), wait)))).singleElement().asString()
                .endsWith("is elsewhere in the chain.");
        Board renamed = Edits.button(DEMO.board(), "gate", b -> b.withName("Main gate"));
        assertThat(lines(DEMO, DEMO.with(renamed))).containsExactly(
                "Main gate: the name is “Main gate” instead of “Gate”.");
        assertThat(lines(DEMO, DEMO.with(Edits.removeButton(DEMO.board(), "gate")))).containsExactly(
                "Gate: it is gone.");
        assertThat(lines(DEMO, DEMO.with(Edits.moveToPage(DEMO.board(), "gate", "trouble")))).anyMatch(l -> l.equals(
                "Gate: it is on the page “Trouble” instead of “Doors”."));
        assertThat(lines(DEMO, DEMO)).isEmpty();
    }

    @Test
    void whatBothSidesChangedIsListedAndStaysAsOurs() {
        Rig ours = with(Chain.of(fade(2000)));
        Rig theirs = with(Chain.of(fade(3000)));
        BoardMerge.Merged merged = BoardMerge.of(with(Chain.of(fade(1400))), ours, theirs);
        assertThat(merged.board()).isEqualTo(ours.board());
        assertThat(merged.clashes()).extracting(c -> plain(c.line())).containsExactly(
                "“Clouded out”: ours: the fade takes 2 s instead of 1.4 s; theirs: the fade takes 3 s instead of 1.4 s");
    }

    @Test
    void twoButtonsThatWantOneCellBothStay() {
        Button one = DEMO.button("gate").orElseThrow().withTriggers(List.of());
        Board room = Edits.removeButton(DEMO.board(), "gate");
        Rig base = DEMO.with(room);
        Rig ours = DEMO.with(Edits.addButton(room, "doors", one.withId("one").withName("One")));
        Rig theirs = DEMO.with(Edits.addButton(room, "doors", one.withId("two").withName("Two")));
        BoardMerge.Merged merged = BoardMerge.of(base, ours, theirs);
        assertThat(merged.clashes()).isEmpty();
        assertThat(merged.board().button("one")).isPresent();
        assertThat(merged.board().button("two")).isPresent();
        assertThat(References.flaws(DEMO.with(merged.board()))).isEmpty();
    }

    @Property(tries = 150)
    void editsOfDifferentButtonsAreAllKept(@ForAll long seed) {
        List<Button> buttons = DEMO.board().buttons().toList();
        List<Button> even = buttons.stream().filter(b -> buttons.indexOf(b) % 2 == 0).toList();
        List<Button> odd = buttons.stream().filter(b -> buttons.indexOf(b) % 2 == 1).toList();
        Board ours = new RandomEdits(seed, DEMO).ofButtons(DEMO.board(), even, 6);
        Board theirs = new RandomEdits(seed + 1, DEMO).ofButtons(DEMO.board(), odd, 6);
        BoardMerge.Merged merged = BoardMerge.of(DEMO, DEMO.with(ours), DEMO.with(theirs));
        assertThat(merged.clashes()).isEmpty();
        assertThat(merged.board()).isEqualTo(new RandomEdits(seed + 1, DEMO).ofButtons(ours, odd, 6));
    }

    /** So many pairs are tried as the property {@code rombix.pairs} says, from {@code rombix.pairs.from} on. */
    @Test
    void whateverWasEditedTheResultIsABoardAndTheDiffSaysSomething() throws Exception {
        for (int i = FIRST; i < FIRST + PAIRS; i++) {
            RandomEdits edits = new RandomEdits(i, DEMO);
            Rig ours = DEMO.with(edits.ofBoard(DEMO.board(), 4));
            Rig theirs = DEMO.with(edits.ofBoard(DEMO.board(), 4));
            BoardMerge.Merged merged = BoardMerge.of(DEMO, ours, theirs);
            assertThat(BoardFile.parse(Path.of("b.json"), BoardFile.format(merged.board()), DEMO.cards())).as(
                    "seed " + i).isNotNull();
            assertThat(BoardDiff.of(ours, theirs).isEmpty()).isEqualTo(ours.board().equals(theirs.board()));
            assertThat(BoardDiff.of(ours, theirs)).allMatch(c -> c.line().length() > 5);
            assertThat(BoardMerge.of(DEMO, ours, ours).board()).isEqualTo(ours.board());
            assertThat(BoardMerge.of(DEMO, DEMO, theirs).board()).isEqualTo(theirs.board());
        }
    }
}
