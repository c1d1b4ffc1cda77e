package rombix.core.board;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.Comparison;
import rombix.core.chain.Condition;
import rombix.core.chain.DeckStep;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;
import rombix.core.twin.Twin.Readings;
import rombix.core.value.Value;

/** Steps by the names that people gave to what they touch, never by ids. */
class StepWordsTest {
    private static StepWords words;

    @BeforeAll
    static void open() throws BadFile {
        words = new StepWords(BoardFile.read(Path.of("../demo/star-night.json")), _ -> Readings.NONE);
    }

    private static Step.Wait wait(Condition test, Long timeout) {
        return new Step.Wait(0, null, null, test, timeout, StepOptions.PLAIN, Map.of());
    }

    static Stream<Arguments> steps() {
        StepOptions plain = StepOptions.PLAIN;
        Map<String, Arg> host = Map.of("channel", Arg.of("host"));
        Condition.OnReading muted = Condition.OnReading.is("desk", "muted/host", Value.of(true));
        return Stream.of(Arguments.of(new GearStep.Do("desk", "mute", Map.of("channel", Value.of("music-bed"))),
                "Mute Music Bed"),
                Arguments.of(DeckStep.Show.state("next-target", "jupiter"),
                        "Show “Next target” as jupiter"),
                Arguments.of(new Step.Wait(65_000), "Wait 1:05 min"),
                Arguments.of(new Step.Wait(
                        1000, 2000L, null, null, null, plain, Map.of()), "Wait 1 s to 2 s"),
                Arguments.of(wait(muted,
                        5000L), "Wait until Host is MUTED, at most 5 s"),
                Arguments.of(wait(new Condition.OnReading("desk",
                        "level/host", new Comparison(null, -20.0, -3.0, null, null)), null),
                        "Wait until Host level is above −20 dB and below −3 dB"),
                Arguments.of(
                        new Step.If(new Condition.Computed("{desk:level/host} > {ring}"),
                                Chain.EMPTY, Chain.EMPTY, plain, Map.of()),
                        "If Sound desk Host level > Ring level"),
                Arguments.of(new GearStep.Fade(
                        "desk", "level", host, "level", Arg.of(-40), Arg.of(-6), 1500,
                        GearStep.Fade.Curve.LINEAR, plain, Map.of()),
                        "Host to −40 dB → −6 dB in 1.5 s"),
                Arguments.of(new GearStep.Nudge(
                        "lamps", "level", Map.of("lamp", Arg.of("desk-key")),
                        "level", Arg.of(-5), true, plain, Map.of()),
                        "Desk Key down 5 %, wrapping around"),
                Arguments.of(
                        new Step.Repeat(Arg.of(3), muted, 700L, "i",
                                Chain.EMPTY, plain, Map.of()),
                        "Repeat 3 times while Host is MUTED every 0.7 s"),
                Arguments.of(new Step.Repeat(null, null, 700L, "i", Chain.EMPTY, plain, Map.of()),
                        "Repeat every 0.7 s until stopped"),
                Arguments.of(new DeckStep.Use("good-night", null,
                        Gesture.RELEASE, null, Map.of(), plain, Map.of()), "Use “Good night”, release"),
                Arguments.of(new DeckStep.Use(null, null, Gesture.PRESS, "dim-desk", Map.of(), plain, Map.of()),
                        "Use “Dim the desk”"),
                Arguments.of(new DeckStep.Set("visitors", new Arg.Computed("{visitors} + 1"),
                        plain, Map.of()), "Set Visitors let in to Visitors let in + 1"),
                Arguments.of(
                        DeckStep.Show.page("doors", DeckStep.Show.Way.POP_UP),
                        "Pop up page “Doors”"),
                Arguments.of(new DeckStep.Stop(DeckStep.Stop.What.BUTTON,
                        "sting", null, plain, Map.of()), "Stop “Sting”"),
                Arguments.of(
                        new Step.Pick(Step.Pick.Way.NO_REPEAT, List.of(new Step.Choice(
                                null, 1, Chain.EMPTY)), plain, Map.of()),
                        "One of 1, never twice in a row"),
                Arguments.of(
                        new Step.ForAWhile(Chain.EMPTY, 300_000, plain, Map
                                .of()),
                        "For 5 min"),
                Arguments.of(new GearStep.Do(
                        "gone", "fly", Map.of()), "fly"));
    }

    @ParameterizedTest
    @MethodSource("steps")
    void areSaid(Step step, String said) {
        assertThat(words.of(step).replace('\u00a0', ' ')).isEqualTo(said);
    }

    /** A fault of a chain that others use read “which by by”. */
    @org.junit.jupiter.api.Test
    void argumentsOfAChainAreWhatTheyWere() {
        Step nudge = new GearStep.Nudge("desk", "level", Map.of("channel", new Arg.Computed("{which}")), "level",
                new Arg.Computed("{by}"), false, StepOptions.PLAIN, Map.of());
        assertThat(words.of(nudge)).isEqualTo("{which} by {by}");
        assertThat(words.with(Map.of("which", Value.of("host"), "by", Value.of(5))).of(nudge)).isEqualTo("Host by 5");
    }
}
