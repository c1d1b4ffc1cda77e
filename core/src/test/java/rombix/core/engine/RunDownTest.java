package rombix.core.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static rombix.core.engine.TestDeck.button;
import static rombix.core.engine.TestDeck.state;

import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import rombix.core.board.Button;
import rombix.core.board.Control;
import rombix.core.board.Rig;
import rombix.core.board.RunDown;
import rombix.core.chain.Arg;
import rombix.core.chain.Chain;
import rombix.core.chain.DeckStep;
import rombix.core.chain.StepOptions;
import rombix.core.event.Event;
import rombix.core.event.Happening;
import rombix.core.value.Value;

/** A show goes through its items, by steps and by hand. */
class RunDownTest {
    private static final RunDown NIGHT = new RunDown("night", "The night", RunDown.items("""
            Welcome | Good evening | 2:00
            The Moon\t8 min
            Tea; Warm room; 1:05:00
            Good night
            """));
    private static final DeckStep.Say WHERE = new DeckStep.Say("{night}/{night.count} {night.item}, then {night.next}",
            StepOptions.PLAIN, Map.of());

    private static TestDeck deck(RunDown list, Button... buttons) {
        return TestDeck.playing(TestDeck.rig(b -> b.withRunDowns(List.of(list)), buttons));
    }

    private static Button going(String id, Arg to) {
        return button(id, state(Chain.of(new DeckStep.Go("night", to, StepOptions.PLAIN, Map.of()), WHERE)));
    }

    private static String said(TestDeck t) {
        return t.all(Happening.Said.class).getLast().text();
    }

    @Test
    void linesOfATextOrATableBecomeItems() {
        assertThat(NIGHT.items()).containsExactly(new RunDown.Item("Welcome", "Good evening", 120), new RunDown.Item(
                "The Moon", "", 480), new RunDown.Item("Tea", "Warm room", 3900),
                new RunDown.Item("Good night", "", 0));
        assertThat(RunDown.items(NIGHT.lines())).isEqualTo(NIGHT.items());
    }

    @Test
    void stepsGoToTheNextTheOneBeforeOneByNameAndOneThatIsComputed() {
        TestDeck t = deck(NIGHT, going("next", Arg.of(Value.of("next"))), going("back", Arg.of(Value.of("back"))),
                going("tea", Arg.of(Value.of("Tea"))), going("two", new Arg.Computed("1 + 1")), going("none", Arg.of(
                        Value.of("Coffee"))));
        t.press("next");
        assertThat(said(t)).isEqualTo("1/4 Welcome, then The Moon");
        t.press("tea");
        assertThat(said(t)).isEqualTo("3/4 Tea, then Good night");
        t.press("back");
        assertThat(said(t)).isEqualTo("2/4 The Moon, then Tea");
        t.press("two");
        t.press("next");
        t.press("next");
        t.press("next");
        assertThat(said(t)).as("no further than the last").isEqualTo("4/4 Good night, then ");
        t.press("none");
        assertThat(t.all(Happening.Faulted.class).getLast().message()).contains("has no item “Coffee”; it has 4");
    }

    @Test
    void anItemThatIsChosenIsOnAndTheButtonsChainRuns() {
        Button list = button("list", state(Chain.of(WHERE))).withControl(new Control.Items("night"));
        TestDeck t = deck(NIGHT, list);
        t.post(new Event.Chosen("list", 2, "mouse"));
        assertThat(said(t)).isEqualTo("3/4 Tea, then Good night");
        t.post(new Event.Turned("list", -1, false, "encoder"));
        assertThat(said(t)).isEqualTo("2/4 The Moon, then Tea");
        t.post(new Event.Chosen("list", 9, "mouse"));
        assertThat(t.all(Happening.Faulted.class)).isNotEmpty();
    }

    @Test
    void whenAnItemEndsIsReckonedFromWhenItCameOn() {
        TestDeck t = deck(NIGHT, going("next", Arg.of(Value.of("next"))));
        t.pass(30_000);
        t.press("next");
        assertThat(
                t.all(Happening.ValueSet.class).stream().filter(v -> v.value().equals("night.ends")).toList().getLast()
                        .to())
                .isEqualTo(Value.of(150));
        assertThat(RunDown.time(RunDown.left(150, 60))).isEqualTo("1:30");
        assertThat(RunDown.time(RunDown.left(10, 86_390))).as("over midnight").isEqualTo("0:20");
        assertThat(RunDown.time(RunDown.left(150, 165))).isEqualTo("-0:15");
    }

    /** An item that was put in while the show ran left the wrong name on. */
    @Test
    void anEditKeepsThePlaceAndTellsTheNewNames() {
        TestDeck t = deck(NIGHT, going("next", Arg.of(Value.of("next"))));
        t.press("next");
        Rig edited = TestDeck.rig(b -> b.withRunDowns(List.of(NIGHT.withItems(RunDown.items("Hello\nThe Moon\n")))),
                going("next", Arg.of(Value.of("next"))));
        t.post(new Event.Load(edited));
        assertThat(t.all(Happening.ValueSet.class).stream().filter(v -> v.value().equals("night.item")).toList()
                .getLast().to()).isEqualTo(Value.of("Hello"));
        t.press("next");
        assertThat(said(t)).isEqualTo("2/2 The Moon, then ");
    }

    @Test
    void threeHundredItemsAreFineAndThousandsAreNot() {
        List<RunDown.Item> many = IntStream.range(0, 300).mapToObj(i -> new RunDown.Item("Item " + i, "", 10)).toList();
        TestDeck t = deck(new RunDown("night", "N", many), going("last", Arg.of(Value.of("last"))));
        t.press("last");
        assertThat(said(t)).isEqualTo("300/300 Item 299, then ");
        List<RunDown.Item> more = IntStream.range(0, 1001).mapToObj(i -> new RunDown.Item("x", "", 0)).toList();
        assertThatThrownBy(() -> new RunDown("n", "N", more)).hasMessageContaining("at most 1000");
    }
}
