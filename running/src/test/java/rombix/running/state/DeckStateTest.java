package rombix.running.state;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import rombix.core.board.Rig;
import rombix.core.chain.DeckStep.Ask.AnswerType;
import rombix.core.chain.DeckStep.Show.Way;
import rombix.core.chain.Gesture;
import rombix.core.engine.Deck;
import rombix.core.engine.TwinGears;
import rombix.core.event.AsRun;
import rombix.core.event.Cause;
import rombix.core.event.Event;
import rombix.core.event.Happening;
import rombix.core.event.Status;
import rombix.core.event.Trace;
import rombix.core.store.BoardFile;
import rombix.core.time.SimulatedClock;
import rombix.core.value.Value;

/** What a face can know of the deck, folded from what happens. */
class DeckStateTest {
    private DeckState deck = DeckState.NOTHING;
    private long now;

    private void take(Happening... happenings) {
        for (Happening h : happenings) {
            deck = deck.after(h, now);
        }
    }

    @Test
    void whatAGearSaysIsKnownWithSinceWhenAndWhetherItCanBeReached() {
        take(new Happening.Came("desk", "muted/host", Value.of(true)));
        now = 3_000_000_000L;
        take(new Happening.Came("desk", "level/host", Value.of(4)));
        assertThat(deck.reading("desk", "muted/host")).isEqualTo(Value.of(true));
        assertThat(deck.reading("desk", "muted/guest")).isNull();
        assertThat(deck.secondsSince("desk", "muted/host", now)).isEqualTo(3);
        assertThat(deck.secondsSince("desk", "level/host", now)).isZero();
        assertThat(deck.lastKnown("desk")).as("nobody has reached it").isTrue();
        take(new Happening.Linked("desk", new Status(Status.Phase.READY, Cause.READY)));
        assertThat(deck.lastKnown("desk")).isFalse();
        assertThat(deck.status("nobody")).isEqualTo(Status.UNTRIED);
    }

    @Test
    void anEarlierStateStaysAsItWas() {
        take(new Happening.Came("desk", "muted/host", Value.of(true)));
        DeckState before = deck;
        take(new Happening.Came("desk", "muted/host", Value.of(false)), new Happening.Shows("gate", 1, -1, true));
        assertThat(before.reading("desk", "muted/host")).isEqualTo(Value.of(true));
        assertThat(before.play("gate")).isEqualTo(DeckState.Play.AT_REST);
    }

    @Test
    void whatRunsIsKnownUntilItEndsAndItsTroubleStays() {
        take(new Happening.Started(3, "gate", "press", "mouse", 0, 5_000_000), new Happening.AtStep(3, "press/2"),
                new Happening.AtStep(9, "press/0"), new Happening.Lasts(3, "gate", 1_000_000, 9_000_000));
        assertThat(deck.running("gate")).isEqualTo(new DeckState.Running(3, "gate", "press", "mouse", 0, 10_000_000,
                "press/2"));
        assertThat(deck.moves()).isTrue();
        take(new Happening.Ran(new AsRun(0, 0, 3, "gate", "press/0", "", "house", "unlock", Map.of(), "Unlock",
                AsRun.Outcome.FAULT, "no answer")), new Happening.Ran(
                        new AsRun(0, 90_000_000, 3, "gate", "press/1", "",
                                "house", "unlock", Map.of(), "Unlock", AsRun.Outcome.SENT, "")),
                new Happening.Picked(3,
                        "press/2", 1, "else"),
                new Happening.Ended(3, "gate", Happening.End.FAILED, 0));
        assertThat(deck.running("gate")).isNull();
        assertThat(deck.moves()).isFalse();
        DeckState.LastRun last = deck.lastRuns().get("gate");
        assertThat(last.trouble()).containsEntry("press/0", "no answer").containsEntry("press/1", "90 ms late");
        assertThat(last.picked()).containsEntry("press/2", 1);
    }

    @Test
    void faultsStayUntilTheyAreClearedNewestLast() {
        take(new Happening.Faulted("gate", "house", "no answer"), new Happening.Faulted("urn", null, "odd"));
        assertThat(deck.lastFault().orElseThrow().button()).isEqualTo("urn");
        take(new Happening.Faulted("gate", "house", "again"));
        assertThat(deck.troubles()).extracting(DeckState.Fault::button).containsExactly("urn", "gate");
        take(new Happening.Faulted("gate", null, null));
        assertThat(deck.fault("gate")).isNull();
        assertThat(deck.lastFault().orElseThrow().button()).isEqualTo("urn");
        take(new Happening.Faulted("urn", null, null));
        assertThat(deck.lastFault()).isEmpty();
    }

    @Test
    void aMessageGivesWayToWhatGoesWrongAfterItAndNotToWhatWentWrongBefore() {
        take(new Happening.Faulted("gate", "house", "no answer"));
        now = 1;
        take(new Happening.Said("doors-open", "Doors in five minutes."));
        assertThat(deck.lastMessage(60, now)).isNotNull();
        assertThat(deck.lastMessage(60, 61_000_000_000L)).as("its time is over").isNull();
        now = 2;
        take(new Happening.Faulted("urn", "house", "no answer"));
        assertThat(deck.lastMessage(60, now)).isNull();
    }

    @Test
    void aPressThatWaitsForMoreWaitsOnTheDecksClock() {
        now = 500;
        take(new Happening.Guarded("gate", true, 800));
        assertThat(deck.guarding("gate")).isEqualTo(new DeckState.Guarding(true, 500, 800_000_500L));
        assertThat(deck.moves()).isTrue();
        take(new Happening.Guarded("gate", true, 0));
        assertThat(deck.guarding("gate")).isNull();
    }

    @Test
    void questionsWaitInTheOrderInWhichTheyCame() {
        take(asked(1), asked(2));
        assertThat(deck.questions()).extracting(Happening.Asked::question).containsExactly(1L, 2L);
        assertThat(deck.asks(1)).isTrue();
        take(new Happening.AskClosed(1), new Happening.AskClosed(2));
        assertThat(deck.questions()).isEmpty();
        assertThat(deck.asks(1)).isFalse();
    }

    private static Happening asked(long question) {
        return new Happening.Asked(question, 1, "ring", "Which?", AnswerType.CHOICE, List.of("a", "b"), null, -1, 0);
    }

    @Test
    void thePageThatWasAskedForLastIsKnown() {
        take(new Happening.PageShown("trouble", Way.POP_UP, "mouse"), new Happening.PageFollows("doors", false));
        assertThat(deck.page()).isEqualTo("trouble");
        take(new Happening.PageFollows("doors", true));
        assertThat(deck.page()).isEqualTo("doors");
    }

    @Test
    void ofABoardThatIsLoadedOnlyWhatIsThereIsKeptAndReadingsStay() throws Exception {
        take(new Happening.Shows("no-such", 1, -1, false), new Happening.Faulted("no-such", null, "odd"),
                new Happening.Shows("gate", 1, -1, false), new Happening.Linked("no-gear", Status.TWIN),
                new Happening.Came("no-gear", "x", Value.of(1)));
        take(new Happening.Loaded(BoardFile.read(Path.of("../demo/star-night.json"))));
        assertThat(deck.plays()).containsOnlyKeys("gate");
        assertThat(deck.troubles()).isEmpty();
        assertThat(deck.statuses()).isEmpty();
        assertThat(deck.reading("no-gear", "x")).as("an edit may be undone").isEqualTo(Value.of(1));
    }

    /** A deck of the demo on twins, and all that has happened on it. */
    private record Played(Deck deck, SimulatedClock clock, List<Happening> happened) {
        static Played of(Rig rig) {
            SimulatedClock clock = new SimulatedClock();
            List<Happening> happened = new ArrayList<>();
            List<Event> back = new ArrayList<>();
            Deck deck = new Deck(clock, new SplittableRandom(1), new TwinGears(clock, back::add), happened::add,
                    Trace.NONE);
            deck.take(new Event.Load(rig), 0);
            return new Played(deck, clock, happened);
        }
    }

    @Test
    void aDeckThatGoesOnFromAnotherBeginsWithItsStatesAndValues() throws Exception {
        Rig rig = BoardFile.read(Path.of("../demo/star-night.json"));
        Played first = Played.of(rig);
        String stated = rig.board().buttons()
                .filter(b -> b.states().size() > 1 && !b.follows() && !b.states().getFirst()
                        .chain(Gesture.PRESS).isEmpty())
                .findFirst().orElseThrow().id();
        first.deck().take(new Event.Resume(Map.of(stated, 1), List.of()), 0);
        first.happened().forEach(h -> deck = deck.after(h, 0));
        assertThat(deck.play(stated).state()).isEqualTo(1);
        Played second = Played.of(rig);
        second.deck().take(deck.resume(), 0);
        DeckState after = DeckState.NOTHING;
        for (Happening h : second.happened()) {
            after = after.after(h, 0);
        }
        assertThat(after.plays()).isEqualTo(deck.plays());
        assertThat(after.values()).isEqualTo(deck.values());
        assertThat(after.known().states()).isEqualTo(deck.known().states());
    }
}
