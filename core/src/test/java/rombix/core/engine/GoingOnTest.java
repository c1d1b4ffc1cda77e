package rombix.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import org.junit.jupiter.api.Test;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Gear;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.card.Card.Item;
import rombix.core.card.Protocol;
import rombix.core.chain.Chain;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;
import rombix.core.event.Event;
import rombix.core.event.Happening;
import rombix.core.event.Known;
import rombix.core.event.Trace;
import rombix.core.store.CardLibrary;
import rombix.core.time.SimulatedClock;
import rombix.core.value.Value;

/** Commands that go on in the gear's own time: a clip that plays, on the twin of a player. */
class GoingOnTest {
    private final SimulatedClock clock = new SimulatedClock();
    private final List<Happening> happened = new ArrayList<>();
    private Deck deck = Deck.onTwins(clock, new Random(7), happened::add, Trace.NONE);

    private static Step play(String clip, Object... more) {
        return new GearStep.Do("player", "play", args(clip, more));
    }

    private static Map<String, Value> args(String clip, Object... more) {
        Map<String, Value> args = new java.util.HashMap<>(Map.of("clip", Value.of(clip)));
        for (int i = 0; i < more.length; i += 2) {
            args.put((String) more[i], more[i + 1] instanceof Number n
                    ? Value.of(n.doubleValue())
                    : more[i + 1] instanceof Boolean b ? Value.of(b) : Value.of((String) more[i + 1]));
        }
        return args;
    }

    /** A deck with one button and a player that has a sting of four seconds and a bed of nine. */
    private void running(Step... steps) {
        Gear player = new Gear("player", "Player", "player", new Gear.Link(Protocol.of("sound"), "House", Map.of()), Map
                .of("clip",
                        List.of(new Item("sting", "Sting", Map.of("seconds", 4.0, "file", "s.wav")),
                                new Item("rain", "Rain", Map
                                        .of()),
                                new Item("bed", "Bed", Map.of(
                                        "seconds", 9.0, "file", "b.wav")))),
                Map.of());
        Button button = TestDeck.button("b", TestDeck.state(Chain.of(steps)));
        Board board = new Board(1, "Test", List.of(player), List.of(new Page("p", "P", 8, 4, List.of(button), Map
                .of())), Map.of());
        Rig rig = Rig.of(board, Map.of("player", Objects.requireNonNull(CardLibrary.shipped().get("player"))));
        deck = Deck.onTwins(clock, new Random(7), happened::add, Trace.NONE);
        deck.begin(rig, new Known(Map.of(), Map.of(), Map.of()));
    }

    private void post(Event event) {
        deck.take(event, clock.nanos());
        deck.advance();
    }

    private void pass(long millis) {
        long end = clock.nanos() + millis * 1_000_000;
        for (long wait = deck.advance(); wait != Long.MAX_VALUE && clock.nanos() + wait <= end; wait = deck.advance()) {
            clock.advance(wait);
        }
        clock.advance(Math.max(0, end - clock.nanos()));
        deck.advance();
    }

    private boolean plays(String clip) {
        return Value.of(true).equals(deck.situation.reading("player", "playing/" + clip));
    }

    private boolean runs() {
        return happened.stream().filter(h -> h instanceof Happening.Started).count() > happened.stream().filter(
                h -> h instanceof Happening.Ended).count();
    }

    @Test
    void aChainGoesOnWhenItsClipIsOver() {
        running(play("sting", "from", 1), play("bed", "wait", false));
        post(new Event.Pressed("b", "test"));
        pass(2900);
        assertThat(plays("sting")).isTrue();
        assertThat(plays("bed")).isFalse();
        pass(200);
        assertThat(plays("sting")).isFalse();
        assertThat(plays("bed")).isTrue();
        assertThat(runs()).as("the second is not waited for").isFalse();
        pass(9000);
        assertThat(plays("bed")).isFalse();
    }

    @Test
    void whatFollowsAClipIsDueWhenItEnds() {
        running(play("sting"), TestDeck.pause(500), play("bed", "wait", false));
        post(new Event.Pressed("b", "test"));
        pass(6000);
        assertThat(happened.stream().filter(Happening.Ran.class::isInstance).map(h -> ((Happening.Ran) h).line()
                .dueNanos() / 1_000_000)).containsExactly(0L, 4500L);
    }

    @Test
    void aLoopPlaysUntilItIsStoppedAndThenItsChainGoesOn() {
        running(play("bed", "round", "again"));
        post(new Event.Pressed("b", "test"));
        pass(60_000);
        assertThat(plays("bed")).isTrue();
        post(new Event.Told("player", "stop", Map.of("clip", Value.of("bed"))));
        assertThat(plays("bed")).isFalse();
        assertThat(runs()).isFalse();
    }

    @Test
    void aClipThatBeginsAnewEndsWhenTheSecondDoes() {
        running(play("sting"));
        post(new Event.Pressed("b", "test"));
        post(new Event.Released("b", "test"));
        pass(3000);
        post(new Event.Pressed("b", "test"));
        pass(3000);
        assertThat(plays("sting")).as("the end of the first does not count").isTrue();
        pass(1100);
        assertThat(plays("sting")).isFalse();
    }

    @Test
    void aChainThatIsStoppedStopsTheClipThatItWaitsFor() {
        running(play("bed", "round", "again"));
        post(new Event.Pressed("b", "test"));
        pass(100);
        assertThat(plays("bed")).isTrue();
        post(new Event.StopAll());
        assertThat(plays("bed")).isFalse();
        assertThat(runs()).isFalse();
    }

    @Test
    void aClipThatIsBegunAnewSettlesTheRunBeforeAtOnce() {
        running(play("sting"));
        for (int i = 0; i < 50; i++) {
            post(new Event.Pressed("b", "test"));
            post(new Event.Released("b", "test"));
        }
        assertThat(happened.stream().filter(Happening.Settled.class::isInstance)).hasSize(49);
    }

    @Test
    void aClipWithoutAFileSaysWhichAndWhatItWants() {
        running(play("rain"));
        post(new Event.Pressed("b", "test"));
        assertThat(happened.toString()).contains("“Rain” of Player has no file yet: set it under Items of the gear");
    }

    @Test
    void fadingAllOutIsShownOnEachClip() {
        running(play("bed", "wait", false, "round", "again"), play("sting", "wait", false), new GearStep.Do("player",
                "stop-all", Map.of()));
        post(new Event.Pressed("b", "test"));
        assertThat(plays("bed")).isFalse();
        assertThat(plays("sting")).isFalse();
    }
}
