package rombix.core.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.core.engine.TestDeck.PING;
import static rombix.core.engine.TestDeck.button;
import static rombix.core.engine.TestDeck.off;
import static rombix.core.engine.TestDeck.on;
import static rombix.core.engine.TestDeck.pause;
import static rombix.core.engine.TestDeck.state;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.DeckStep;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.event.Event;
import rombix.core.event.Happening;
import rombix.core.value.Value;

/** What the deck tells of answers that came, and of the step that a chain is at. */
class ToldTest {
    private static Step waited(String command) {
        return new GearStep.Do("gear", command, Map.of("lamp", Arg.of("a")), 500L, StepOptions.PLAIN, Map.of());
    }

    private static List<String> answers(TestDeck t) {
        return t.all(Happening.Answered.class).stream().map(a -> "%s %s %s after %d".formatted(a.button(), a.gear(), a
                .words(), (a.atNanos() - a.dueNanos()) / 1_000_000).strip()).toList();
    }

    @Test
    void thatTheGearShowsWhatAStepWaitedForIsToldWithHowLongItTook() {
        TestDeck t = TestDeck.running(waited("on"), PING);
        t.obeys = false;
        t.press("b");
        t.pass(120);
        assertThat(answers(t)).isEmpty();
        t.post(new Event.Came("gear", "on/a", Value.of(true)));
        assertThat(answers(t)).containsExactly("b gear A on after 120");
        t.pass(1000);
        assertThat(answers(t)).hasSize(1);
    }

    @Test
    void anAnswerThatDoesNotComeIsAFaultAndNoAnswer() {
        TestDeck t = TestDeck.running(waited("on"));
        t.obeys = false;
        t.press("b");
        t.pass(1000);
        assertThat(answers(t)).isEmpty();
        assertThat(t.faults()).singleElement().asString().contains("didn't confirm it within");
    }

    @Test
    void thatAFaceFollowsAPressIsToldAndWhatOthersDoIsNot() {
        TestDeck t = TestDeck.with(button("b", state("dark", TestDeck.A_OFF, Chain.of(on("a")), Chain.EMPTY), state(
                "lit", TestDeck.A_ON, Chain.of(off("a")), Chain.EMPTY)));
        t.obeys = false;
        t.click("b");
        t.pass(40);
        t.post(new Event.Came("gear", "on/a", Value.of(true)));
        assertThat(answers(t)).containsExactly("b gear lit after 40");
        t.post(new Event.Came("gear", "on/a", Value.of(false)));
        assertThat(answers(t)).hasSize(1);
    }

    @Test
    void aPersonsAnswerIsToldInWords() {
        TestDeck t = TestDeck
                .running(new DeckStep.Ask("How many?", DeckStep.Ask.AnswerType.NUMBER, List.of(), null, null, null,
                        StepOptions.PLAIN, Map.of()),
                        new DeckStep.Ask("Which?", DeckStep.Ask.AnswerType.CHOICE, List.of(new Step.Choice("Red", 1,
                                Chain.EMPTY), new Step.Choice("Blue", 1, Chain.EMPTY)), null, null, null,
                                StepOptions.PLAIN,
                                Map
                                        .of()));
        t.press("b");
        t.pass(2000);
        t.post(new Event.Reply(1, Value.of(7)));
        t.post(new Event.Reply(2, Value.of(1)));
        assertThat(answers(t)).containsExactly("b  “How many?”: 7 after 2000", "b  “Which?”: Blue after 0");
    }

    @Test
    void theStepThatAChainIsAtIsToldInnermostLast() {
        TestDeck t = TestDeck.running(PING, pause(100),
                new Step.Together(List.of(Chain.of(pause(50))), Step.Together.Ends.LAST, StepOptions.PLAIN, Map.of()),
                PING);
        t.press("b");
        t.pass(500);
        assertThat(t.all(Happening.AtStep.class)).extracting(Happening.AtStep::step).containsExactly("press/1",
                "press/2",
                "press/2/0/0");
    }
}
