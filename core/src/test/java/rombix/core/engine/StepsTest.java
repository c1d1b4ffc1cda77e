package rombix.core.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.core.engine.TestDeck.PING;
import static rombix.core.engine.TestDeck.button;
import static rombix.core.engine.TestDeck.level;
import static rombix.core.engine.TestDeck.off;
import static rombix.core.engine.TestDeck.on;
import static rombix.core.engine.TestDeck.pause;
import static rombix.core.engine.TestDeck.state;

import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import rombix.core.board.Board.BoardValue;
import rombix.core.board.Board.NamedChain;
import rombix.core.board.Button;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.DeckStep;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.event.Event;
import rombix.core.event.Happening;
import rombix.core.value.Value;

/** What each kind of step means: a table of chains, and what is run when. */
class StepsTest {
    private static final StepOptions PLAIN = StepOptions.PLAIN;

    private static Chain chain(Step... steps) {
        return Chain.of(steps);
    }

    private static Step repeat(int times, Long every, Step... steps) {
        return new Step.Repeat(Arg.of(times), null, every, "count", chain(steps), PLAIN, Map.of());
    }

    private static Step levelOf(String formula) {
        return new GearStep.Do("gear", "level", Map.of("level", new Arg.Computed(formula)), null, PLAIN, Map.of());
    }

    private static Step until(String formula, Long timeout) {
        return new Step.Wait(0, null, null, new rombix.core.chain.Condition.Computed(formula), timeout, PLAIN,
                Map.of());
    }

    private static Step when(String formula, Chain then, Chain otherwise) {
        return new Step.If(new rombix.core.chain.Condition.Computed(formula), then, otherwise, PLAIN, Map.of());
    }

    private static Step together(Step.Together.Ends ends, Chain... chains) {
        return new Step.Together(List.of(chains), ends, PLAIN, Map.of());
    }

    private static Step inTurn(Chain... chains) {
        return new Step.Pick(Step.Pick.Way.IN_TURN, Stream.of(chains).map(c -> new Step.Choice(null, 1, c)).toList(),
                PLAIN, Map.of());
    }

    private static Step nudge(double by, boolean wrap) {
        return new GearStep.Nudge("gear", "level", Map.of(), "level", Arg.of(by), wrap, PLAIN, Map.of());
    }

    private static Step whileFor(long ms, Step... steps) {
        return new Step.ForAWhile(chain(steps), ms, PLAIN, Map.of());
    }

    private static Step fade(Arg from, double to, long ms) {
        return new GearStep.Fade("gear", "level", Map.of(), "level", from, Arg.of(to), ms, GearStep.Fade.Curve.LINEAR,
                PLAIN,
                Map.of());
    }

    private static Step set(String value, String formula) {
        return new DeckStep.Set(value, new Arg.Computed(formula), PLAIN, Map.of());
    }

    private static Step stop() {
        return new DeckStep.Stop(DeckStep.Stop.What.THIS, null, null, PLAIN, Map.of());
    }

    static Stream<Arguments> cases() {
        Step ask = new DeckStep.Ask("Which?", DeckStep.Ask.AnswerType.CHOICE,
                List.of(new Step.Choice("A", 1, chain(on("a"))),
                        new Step.Choice("B", 1, chain(on("b")))),
                null, Value.of(1), 400L, PLAIN, Map.of());
        return Stream.of(
                Arguments.of("a repeat runs its chain so many times, one after another", chain(repeat(3, null, on("a"),
                        pause(100)), off("a")), List.of("A on @0", "A on @100", "A on @200", "A off @300")),
                Arguments.of("a repeat keeps its beat, however long its chain takes", chain(repeat(3, 250L, on("a"),
                        pause(100))), List.of("A on @0", "A on @250", "A on @500")),
                Arguments.of("a repeat that is late for its beat goes on at once", chain(repeat(2, 50L, on("a"), pause(
                        100))), List.of("A on @0", "A on @100")),
                Arguments.of("no times is none", chain(repeat(0, null, on("a")), off("a")), List.of("A off @0")),
                Arguments.of("the count is a value inside", chain(repeat(3, null, levelOf("10 * {count}"), pause(10))),
                        List.of("Level 0 % @0", "Level 10 % @10", "Level 20 % @20")),
                Arguments.of("a repeat runs while its condition holds", chain(new Step.Repeat(null,
                        new rombix.core.chain.Condition.Computed("{n} < 3"), null, "count", chain(set("n", "{n} + 1"),
                                levelOf("{n}")),
                        PLAIN, Map.of())), List.of("Level 1 % @0", "Level 2 % @0",
                                "Level 3 % @0")),
                Arguments.of("an if takes the one branch", chain(when("{n} == 0", chain(on("a")), chain(on("b")))), List
                        .of("A on @0")),
                Arguments.of("or the other", chain(when("{n} > 0", chain(on("a")), chain(on("b")))), List.of(
                        "B on @0")),
                Arguments.of("together ends with the first, and stops the rest", chain(together(
                        Step.Together.Ends.FIRST, chain(pause(200), on("a")), chain(pause(500), on("b"))), off("a")),
                        List.of("A on @200", "A off @200")),
                Arguments.of("in order", chain(repeat(3, null, inTurn(chain(on("a")), chain(on("b"))))), List
                        .of("A on @0", "B on @0", "A on @0")),
                Arguments.of("a wait until a reading is so, which it becomes", chain(together(Step.Together.Ends.LAST,
                        chain(until("{gear:on/a}", null), on("b")), chain(pause(300), on("a")))), List.of("A on @300",
                                "B on @300")),
                Arguments.of("a wait until what is so already takes no time", chain(until("{n} == 0", null), on("b")),
                        List.of("B on @0")),
                Arguments.of("a wait whose time is over fails, and the chain goes on", chain(until("{n} == 1", 700L),
                        on("b")), List.of("press/0 @700", "B on @700")),
                Arguments.of("for a while puts back what was", chain(level(10), whileFor(1000, level(90), on("a")),
                        PING),
                        List.of("Level 10 % @0", "Level 90 % @0", "A on @0", "Level 10 % @1000",
                                "A off @1000", "Ping @1000")),
                Arguments.of("for a while lasts as long as its chain, if that is longer", chain(level(10), whileFor(100,
                        level(90), pause(300))), List.of("Level 10 % @0", "Level 90 % @0", "Level 10 % @300")),
                Arguments.of("what runs beside it is not put back", chain(together(Step.Together.Ends.LAST, chain(
                        whileFor(500, on("a"))), chain(pause(100), level(30)))), List.of("A on @0", "Level 30 % @100",
                                "A off @500")),
                Arguments.of("a nudge goes on from where it is", chain(level(40), nudge(15, false), nudge(-5, false)),
                        List.of("Level 40 % @0", "Level 55 % @0", "Level 50 % @0")),
                Arguments.of("a nudge stops at the end", chain(level(95), nudge(15, false)), List.of("Level 95 % @0",
                        "Level 100 % @0")),
                Arguments.of("or goes on from the other", chain(level(95), nudge(15, true), nudge(-1, true)), List.of(
                        "Level 95 % @0", "Level 0 % @0", "Level 100 % @0")),
                Arguments.of("a nudge from nowhere fails", chain(nudge(15, false), on("a")), List.of("press/0 @0",
                        "A on @0")),
                Arguments.of("a fade is logged where it starts and where it ends", chain(fade(Arg.of(0), 100, 1000), on(
                        "a")), List.of("Level 0 % @0", "Level 100 % @1000", "A on @1000")),
                Arguments.of("a fade to where it is takes its time all the same", chain(level(50), fade(null, 50, 400),
                        on("a")), List.of("Level 50 % @0", "Level 50 % @0", "A on @400")),
                Arguments.of("a fade from nowhere goes there at once", chain(fade(null, 50, 400), on("a")), List.of(
                        "Level 50 % @0", "A on @400")),
                Arguments.of("a question that nobody answers takes its usual answer in its time", chain(ask, PING), List
                        .of("B on @400", "Ping @400")),
                Arguments.of("stop ends the chain", chain(on("a"), stop(), on("b")), List.of("A on @0")),
                Arguments.of("what is switched off is passed over",
                        chain(on("a").withHow(new StepOptions(true, null, null,
                                StepOptions.Fail.GO_ON, 0, 0, null)), on("b")),
                        List.of("B on @0")),
                Arguments.of("what has a condition runs if it holds", chain(on("a").withHow(new StepOptions(false, null,
                        new rombix.core.chain.Condition.Computed("{n} == 7"), StepOptions.Fail.GO_ON, 0, 0, null)),
                        on("b")),
                        List
                                .of("B on @0")),
                Arguments.of("all nest in each other", chain(repeat(2, null, together(Step.Together.Ends.LAST, chain(
                        inTurn(chain(repeat(2, null, on("a"), pause(10))), chain(when("{n} == 0", chain(whileFor(20, on(
                                "b"))), Chain.EMPTY))))))),
                        List.of("A on @0", "A on @10", "B on @20")));
    }

    private static TestDeck deck(Chain press) {
        return TestDeck.playing(TestDeck.rig(b -> b.withValues(List.of(new BoardValue("n", "N", Value.of(0)))), button(
                "b", state(press))));
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("cases")
    void means(String law, Chain press, List<String> lines) {
        TestDeck t = deck(press);
        t.press("b");
        t.pass(10_000);
        assertThat(t.lines().stream().map(l -> l.replace('\u00a0', ' '))).as(law).containsExactlyElementsOf(lines);
        assertThat(t.deck.idle()).isTrue();
    }

    @ParameterizedTest
    @CsvSource({"LINEAR, 50", "S_CURVE, 50", "EQUAL_POWER, 70.7", "DECIBEL, 10"})
    void fadesFollowTheirCurves(GearStep.Fade.Curve curve, double half) {
        TestDeck t = TestDeck.running(new GearStep.Fade("gear", "level", Map.of(), "level",
                Arg.of(curve == GearStep.Fade.Curve.DECIBEL ? 1 : 0), Arg.of(100), 1000, curve, PLAIN, Map.of()));
        t.press("b");
        t.pass(2000);
        List<String> sent = t.sent();
        assertThat(sent).hasSize(51); // 50 a second, and the start.
        assertThat(sent.getLast()).isEqualTo("/level[100] @1000");
        double middle = Double.parseDouble(sent.get(25).replaceAll(".*\\[(.*)].*", "$1"));
        assertThat(middle).isCloseTo(half, org.assertj.core.data.Offset.offset(0.1));
    }

    /** To put a look back after a stop took a value, an if and an always. */
    @Test
    void everythingIsPutBackWhereTheChainIsStoppedAndStaysWhereItEnds() {
        Chain look = new Chain(List.of(on("a"), level(80), new Step.Wait(1000)), List.of(), true, Map.of());
        TestDeck t = TestDeck.with(button("b", state(look)));
        t.post(new Event.Came("gear", "level", Value.of(10)));
        t.press("b");
        t.pass(500);
        t.post(new Event.StopAll());
        t.pass(100);
        assertThat(t.lines()).as("stopped").containsExactlyInAnyOrder("A on @0", "Level 80 % @0", "A off @500",
                "Level 10 % @500");
        t.press("b");
        t.pass(2000);
        assertThat(t.lines()).as("run to its end").hasSize(6);
    }

    @Test
    void aLaterFadeTakesOverAndAHandDoesToo() {
        TestDeck t = TestDeck.with(button("up", state(chain(fade(Arg.of(0), 100, 1000), on("a")))), button("down",
                state(chain(fade(null, 0, 500)))));
        t.press("up");
        t.pass(500);
        t.press("down");
        t.pass(100);
        assertThat(t.lines()).contains("A on @500");
        t.post(new Event.Told("gear", "level", Map.of("level", Value.of(33))));
        int sent = t.sent().size();
        t.pass(2000);
        assertThat(t.sent()).hasSize(sent);
        assertThat(t.deck.idle()).isTrue();
    }

    @Test
    void aStoppedFadeLeavesTheLevelWhereItIs() {
        TestDeck t = TestDeck.running(fade(Arg.of(0), 100, 1000));
        t.press("b");
        t.pass(300);
        t.post(new Event.StopAll());
        int sent = t.sent().size();
        t.pass(3000);
        assertThat(t.sent()).hasSize(sent);
        assertThat(t.sent().getLast()).isEqualTo("/level[30] @300");
    }

    @Test
    void pressingAgainRenewsAWhileAndPutsBackWhatWasAtTheFirst() {
        for (Button.Busy busy : List.of(Button.Busy.RESTART, Button.Busy.OVERLAP)) {
            TestDeck t = TestDeck.with(button("b", state(chain(whileFor(1000, level(90))))).withBusy(busy));
            t.post(new Event.Came("gear", "level", Value.of(20)));
            t.click("b");
            t.pass(600);
            t.click("b");
            t.pass(900);
            assertThat(t.sent()).as(busy.name()).noneMatch(s -> s.startsWith("/level[20]"));
            t.pass(5000);
            assertThat(t.sent()).as(busy.name()).last().isEqualTo("/level[20] @1600");
            assertThat(t.deck.idle()).isTrue();
        }
    }

    @Test
    void aWhileThatIsStoppedPutsBack() {
        TestDeck t = TestDeck.running(whileFor(1000, level(90)));
        t.post(new Event.Came("gear", "level", Value.of(20)));
        t.press("b");
        t.pass(100);
        t.post(new Event.StopAll());
        assertThat(t.sent()).last().isEqualTo("/level[20] @100");
    }

    @Test
    void whilesOfOneReadingThatEndInTheOtherOrderPutTheFirstBack() {
        TestDeck t = TestDeck.with(button("long", state(chain(whileFor(1000, level(90))))), button("late", state(chain(
                whileFor(1000, level(70))))));
        t.post(new Event.Came("gear", "level", Value.of(20)));
        t.click("long");
        t.pass(500);
        t.click("late");
        t.pass(700);
        assertThat(t.sent()).last().isEqualTo("/level[70] @500");
        t.pass(1000);
        assertThat(t.sent()).last().isEqualTo("/level[20] @1500");
    }

    @Test
    void questionsTakeChoicesNumbersAndTexts() {
        Step choice = new DeckStep.Ask("Which?", DeckStep.Ask.AnswerType.CHOICE,
                List.of(new Step.Choice("Red", 1, chain(on("a"))),
                        new Step.Choice("Blue", 1, chain(on("b")))),
                null, null, null, PLAIN, Map.of());
        Step number = new DeckStep.Ask("How much?", DeckStep.Ask.AnswerType.NUMBER, List.of(), "n", null, null, PLAIN,
                Map.of());
        TestDeck t = deck(chain(choice, number, levelOf("{n} / 2")));
        t.press("b");
        Happening.Asked first = t.all(Happening.Asked.class).getFirst();
        assertThat(first.options()).containsExactly("Red", "Blue");
        t.post(new Event.Reply(first.question(), Value.of("Green")));
        assertThat(t.lines()).isEmpty();
        t.post(new Event.Reply(first.question(), Value.of("Blue")));
        t.post(new Event.Reply(t.all(Happening.Asked.class).get(1).question(), Value.of("80")));
        assertThat(t.lines()).containsExactly("B on @0", "Level 40\u00a0% @0");
        assertThat(t.all(Happening.AskClosed.class)).hasSize(2);
    }

    @Test
    void namedChainsTakeArgumentsAndOtherButtonsAreUsed() {
        NamedChain named = new NamedChain("dim", "Dim", List.of("to"), chain(levelOf("{to} + 1")));
        TestDeck t = TestDeck.playing(TestDeck.rig(b -> b.withChains(List.of(named)), button("b", state(chain(
                new DeckStep.Use(null, null, Gesture.PRESS, "dim", Map.of("to", Arg.of(20)), PLAIN, Map.of()),
                new DeckStep.Use(null, null, Gesture.PRESS, "dim", Map.of("to", Arg.of(40)), PLAIN, Map.of()),
                new DeckStep.Use("other", null, Gesture.PRESS, null, Map.of(), PLAIN, Map.of())))),
                button("other", state(
                        chain(on("a"))))));
        t.press("b");
        assertThat(t.lines()).containsExactly("Level 21\u00a0% @0", "Level 41\u00a0% @0", "A on @0");
        assertThat(t.ran().getLast().step()).isEqualTo("press/2 > other/press/0");
        assertThat(t.ran().getLast().button()).isEqualTo("b");
    }

    @Test
    void recursionWithoutAWaitIsStoppedAndSaid() {
        Step itself = new DeckStep.Use("b", null, Gesture.PRESS, null, Map.of(), PLAIN, Map.of());
        TestDeck t = TestDeck.running(itself);
        t.press("b");
        assertThat(t.faults()).last().asString().contains("endlessly");
        assertThat(t.all(Happening.Ended.class)).extracting(Happening.Ended::end).containsExactly(
                Happening.End.FAILED);
        Step forever = new Step.Repeat(null, null, null, "count", Chain.EMPTY, PLAIN, Map.of());
        TestDeck loop = TestDeck.running(forever, on("a"));
        loop.press("b");
        assertThat(loop.faults()).last().asString().contains("without a wait");
        assertThat(loop.deck.idle()).isTrue();
    }

    @Test
    void recursionWithAWaitGoesOnUntilItIsStopped() {
        TestDeck t = TestDeck.running(pause(100), on("a"),
                new DeckStep.Use("b", null, Gesture.PRESS, null, Map.of(), PLAIN,
                        Map.of()));
        t.press("b");
        t.pass(10_000);
        assertThat(t.lines()).hasSize(100);
        t.post(new Event.StopAll());
        t.pass(10_000);
        assertThat(t.lines()).hasSize(100);
    }

    @Test
    void aButtonHasValuesOfItsOwnWhichComeBeforeTheBoards() {
        BoardValue own = new BoardValue("n", "Own", Value.of(5));
        TestDeck t = TestDeck.playing(TestDeck.rig(b -> b.withValues(List.of(new BoardValue("n", "N", Value.of(0)))),
                button("b", state(chain(set("n", "{n} + 1"), levelOf("{n}")))).withValues(List.of(own)), button("c",
                        state(chain(levelOf("{n}"))))));
        t.click("b");
        t.click("b");
        t.click("c");
        assertThat(t.lines()).containsExactly("Level 6\u00a0% @0", "Level 7\u00a0% @0", "Level 0\u00a0% @0");
    }

    @Test
    void aFaultInAFormulaHasAPositionAndAPlainMessage() {
        TestDeck t = TestDeck.running(levelOf("1 + * 2"), levelOf("{gear:nothing} + 1"), on("a"));
        t.press("b");
        assertThat(t.faults().get(0)).contains("character 5");
        assertThat(t.faults().get(1)).contains("character 1").contains("“gear:nothing” has no value yet");
        assertThat(t.lines()).last().isEqualTo("A on @0");
    }

    @Test
    void aNoteIsTakenWithTheReadingsAsTheyAreAtThatMomentAndNothingElseHappens() {
        Step note = new DeckStep.Note("A is {gear:on/a}, {= 1 + 1}", PLAIN, Map.of());
        TestDeck t = TestDeck.running(note, on("a"), new DeckStep.Note("sent", PLAIN, Map.of()));
        t.press("b");
        assertThat(t.all(Happening.Noted.class)).extracting(Happening.Noted::text).containsExactly("A is no, 2",
                "sent");
        assertThat(t.all(Happening.Noted.class)).extracting(Happening.Noted::step).containsExactly("press/0",
                "press/2");
        assertThat(t.lines()).containsExactly("A on @0");
        assertThat(t.all(Happening.Said.class)).isEmpty();
    }

    @Test
    void showAndSayAreTold() {
        TestDeck t = TestDeck.with(
                button("b", state(chain(new DeckStep.Say("A is {gear:on/a}, {= 1 + 1}", PLAIN, Map.of()),
                        DeckStep.Show.page("p", DeckStep.Show.Way.POP_UP),
                        new DeckStep.Show(null, DeckStep.Show.Way.TURN, "two", "y", PLAIN, Map
                                .of())))),
                button("two", state("x", null, Chain.EMPTY, Chain.EMPTY), state("y", null,
                        Chain.EMPTY, Chain.EMPTY)));
        t.press("b");
        assertThat(t.all(Happening.Said.class)).containsExactly(new Happening.Said("b", "A is no, 2"));
        assertThat(t.all(Happening.PageShown.class))
                .containsExactly(new Happening.PageShown("p", DeckStep.Show.Way.POP_UP, "test"));
        assertThat(t.shows("two").state()).isEqualTo(1);
    }

    @Test
    void stopReachesAButtonATagAndAll() {
        Step long1 = pause(60_000);
        for (DeckStep.Stop.What what : List.of(DeckStep.Stop.What.BUTTON, DeckStep.Stop.What.TAG,
                DeckStep.Stop.What.ALL)) {
            TestDeck t = TestDeck.with(button("one", state(chain(long1))).withTag("noise"), button("two", state(chain(
                    long1))).withTag("noise"), button("s", state(chain(
                            new DeckStep.Stop(what, "one", "noise", PLAIN, Map
                                    .of()),
                            on("a")))));
            t.press("one");
            t.press("two");
            t.press("s");
            long ended = t.all(Happening.Ended.class).stream().filter(e -> !e.button().equals("s")).count();
            assertThat(ended).as(what.name()).isEqualTo(what == DeckStep.Stop.What.BUTTON ? 1 : 2);
            assertThat(t.lines().contains("A on @0")).as(what.name()).isEqualTo(what != DeckStep.Stop.What.ALL);
        }
    }
}
