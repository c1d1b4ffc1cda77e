package rombix.core.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.core.engine.TestDeck.button;
import static rombix.core.engine.TestDeck.state;

import java.util.List;
import org.junit.jupiter.api.Test;
import rombix.core.board.Button;
import rombix.core.board.Page;
import rombix.core.chain.Chain;
import rombix.core.chain.Condition;
import rombix.core.chain.Condition.Computed;
import rombix.core.chain.DeckStep;
import rombix.core.chain.DeckStep.Show.Way;
import rombix.core.chain.Gesture;
import rombix.core.event.Event;
import rombix.core.event.Happening.PageFollows;
import rombix.core.event.Happening.PageShown;
import rombix.core.value.Value;

/** Pages that are shown while a button is held, and pages that follow what is so. */
class PagesTest {
    private static final Button HELD = button("b", state(Chain.of(DeckStep.Show.page("p", Way.WHILE_HELD))));

    @Test
    void aPageIsShownWhileItsButtonIsHeldHoweverThatEnds() {
        for (Event end : new Event[]{new Event.Released("b", "x"), new Event.LetGo(), new Event.StopAll()}) {
            TestDeck t = TestDeck.with(HELD);
            t.press("b");
            assertThat(t.all(PageShown.class)).containsExactly(new PageShown("p", Way.WHILE_HELD, "test"));
            t.post(end);
            t.post(new Event.LetGo());
            assertThat(t.all(PageShown.class)).as(end.toString()).endsWith(new PageShown("p", Way.BACK, ""))
                    .hasSize(2);
        }
    }

    @Test
    void aPressWithoutAHoldShowsNoSuchPageAndSaysSo() {
        TestDeck t = TestDeck.with(HELD);
        t.post(new Event.Perform("b", Gesture.PRESS, "clock"));
        assertThat(t.all(PageShown.class)).isEmpty();
        assertThat(t.faults()).singleElement().asString().contains("isn't held");
    }

    @Test
    void aChainGoesBackAPage() {
        TestDeck t = TestDeck.running(DeckStep.Show.by(DeckStep.Show.Way.BACK));
        t.press("b");
        assertThat(t.all(PageShown.class)).containsExactly(new PageShown(null, Way.BACK, "test"));
    }

    @Test
    void aPageFollowsTheTimeOfDay() {
        long now = new TestDeck().clock.wall().toLocalTime().toSecondOfDay();
        TestDeck t = following(new Condition.Computed("NOW() >= " + (now + 5) + " && NOW() < " + (now + 10)));
        t.post(new Event.Arm(true));
        t.pass(3000);
        assertThat(t.all(PageFollows.class)).isEmpty();
        t.pass(3000);
        assertThat(t.all(PageFollows.class)).containsExactly(new PageFollows("q", true));
        t.pass(6000);
        assertThat(t.all(PageFollows.class)).endsWith(new PageFollows("q", false)).hasSize(2);
    }

    private static TestDeck following(rombix.core.chain.Condition what) {
        return TestDeck.playing(TestDeck.rig(b -> b.withPages(List.of(b.pages().getFirst(), Page.empty("q", "Q")
                .withFollows(what))).withValues(List.of(new rombix.core.board.Board.BoardValue("n", "N",
                        Value.of(
                                0)))),
                button("b", state(Chain.of(new DeckStep.Set("n", rombix.core.chain.Arg.of(5),
                        rombix.core.chain.StepOptions.PLAIN, java.util.Map.of()))))));
    }

    @Test
    void aPageFollowsAReadingWhileArmed() {
        TestDeck t = following(TestDeck.A_ON);
        t.post(new Event.Came("gear", "on/a", Value.of(true)));
        assertThat(t.all(PageFollows.class)).isEmpty();
        t.post(new Event.Arm(true));
        t.post(new Event.Came("gear", "on/a", Value.of(false)));
        t.post(new Event.Came("gear", "on/a", Value.of(true)));
        t.post(new Event.Arm(false));
        t.post(new Event.Came("gear", "on/a", Value.of(false)));
        assertThat(t.all(PageFollows.class)).containsExactly(new PageFollows("q", true), new PageFollows("q", false),
                new PageFollows("q", true));
    }

    @Test
    void aPageFollowsAFormulaOfValuesAndReadings() {
        TestDeck t = following(new Computed("{n} > 3 && {gear:on/a}"));
        t.post(new Event.Arm(true));
        t.post(new Event.Came("gear", "on/a", Value.of(true)));
        assertThat(t.all(PageFollows.class)).isEmpty();
        t.press("b");
        assertThat(t.all(PageFollows.class)).containsExactly(new PageFollows("q", true));
    }
}
