package rombix.core.touch;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import rombix.core.chain.Gesture;
import rombix.core.event.Event;
import rombix.core.value.Value;

/** One source's way to the deck, while the deck takes nothing, and afterwards. */
class DeckPortTest {
    private final Deque<Event> posted = new ArrayDeque<>();
    private final DeckPort port = new DeckPort(posted::add, "tablet");

    private List<Event> taken() {
        List<Event> all = new ArrayList<>();
        while (!posted.isEmpty()) {
            Event next = posted.poll();
            Event now = next instanceof Event.Latest l ? l.what().get() : next;
            if (now != null) {
                all.add(now);
            }
        }
        return all;
    }

    @Test
    void whatASourceDoesComesInItsOrderAndInItsName() {
        port.press("gate");
        port.release("gate");
        port.perform("urn", Gesture.LONG_PRESS, -1);
        port.choose("music", 2);
        port.answer(4, Value.of("yes"));
        port.stop(9);
        assertThat(taken()).containsExactly(new Event.Pressed("gate", "tablet"), new Event.Released("gate", "tablet"),
                new Event.Perform("urn", Gesture.LONG_PRESS, "tablet", -1), new Event.Chosen("music", 2, "tablet"),
                new Event.Reply(4, Value.of("yes")), new Event.StopRun(9));
    }

    @Test
    void aSourceThatGoesAwayLetsGoOfAllThatItHeldAndOfNothingElse() {
        port.press("gate");
        port.press("urn");
        port.release("urn");
        port.close();
        assertThat(taken()).last().isEqualTo(new Event.LetGo("gate", "tablet gone"));
        port.close();
        port.release("gate");
        assertThat(taken()).isEmpty();
    }

    @Test
    void aReleaseOfWhatItDoesNotHoldEndsNobodyElsesHold() {
        port.release("gate");
        assertThat(taken()).isEmpty();
    }

    @Test
    void ofAFloodPressesAreDroppedWithTheirReleasesAndCountedAndTheLastReleaseIsNot() {
        for (int i = 0; i < 1000; i++) {
            port.press("b" + i);
            port.release("b" + i);
        }
        assertThat(posted).hasSizeLessThan(100);
        assertThat(port.dropped()).isGreaterThan(900);
        List<Event> all = taken();
        assertThat(all.stream().filter(Event.Pressed.class::isInstance)).hasSameSizeAs(all.stream().filter(
                Event.Released.class::isInstance).toList());
        port.press("gate");
        assertThat(taken()).as("it goes on").containsExactly(new Event.Pressed("gate", "tablet"));
        for (int i = 0; i < 1000; i++) {
            port.answer(1, Value.of(i));
        }
        port.release("gate");
        port.stopAll();
        assertThat(taken()).contains(new Event.Released("gate", "tablet"), new Event.StopAll());
    }

    /** A button with many chains running was stopped in part: the 33rd was dropped. */
    @Test
    void everyChainIsStoppedHoweverManyRun() {
        for (int i = 0; i < 100; i++) {
            port.stop(i);
            port.stop(i);
        }
        assertThat(taken()).hasSize(100).contains(new Event.StopRun(0), new Event.StopRun(99));
        assertThat(port.dropped()).isZero();
    }

    @Test
    void ofWhatMovesTheLastValueCountsAndTurnsAndStrokesAddUp() {
        for (int i = 1; i <= 1000; i++) {
            port.move("fader", 0, i);
            port.move("pad", 1, -i);
            port.turn("dial", 1, false);
            port.turn("dial", -1, true);
            port.stroke("field", 1, 2);
        }
        assertThat(posted).hasSize(5);
        assertThat(taken()).containsExactly(new Event.Moved("fader", 0, 1000, "tablet"),
                new Event.Moved("pad", 1, -1000,
                        "tablet"),
                new Event.Turned("dial", 1000, false, "tablet"), new Event.Turned("dial", -1000, true,
                        "tablet"),
                new Event.Stroked("field", 1000, 2000, "tablet"));
        assertThat(port.dropped()).isZero();
    }

    @Test
    void controlsThatNoBoardHasTakeNoMemory() {
        for (int i = 0; i < 100_000; i++) {
            port.move("made up " + i, 0, 1);
        }
        assertThat(posted).hasSizeLessThan(5000);
        assertThat(port.dropped()).isGreaterThan(90_000);
    }

    @Test
    void theWaysOfAKeyPadAreEachTakenAndLettingGoOfThemIsNeverDropped() {
        for (int i = 0; i < 100; i++) {
            port.ways("pad", Set.of(i % 4));
        }
        port.ways("pad", Set.of());
        assertThat(taken()).hasSizeLessThan(50).last().isEqualTo(new Event.Held("pad", Set.of(), "tablet"));
    }
}
