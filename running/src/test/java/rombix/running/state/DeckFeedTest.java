package rombix.running.state;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.concurrent.RejectedExecutionException;
import org.junit.jupiter.api.AutoClose;
import org.junit.jupiter.api.Test;
import rombix.core.event.Happening;
import rombix.core.event.Mode;
import rombix.core.value.Value;
import rombix.running.Quiet;

/** Many follow one deck, each at its own pace, and none is a burden to it or to another. */
class DeckFeedTest {
    @AutoClose
    private final Quiet quiet = new Quiet(DeckFeed.class);

    private final DeckFeed feed = new DeckFeed();
    private final Deque<Runnable> waiting = new ArrayDeque<>();
    private final List<Seen> seen = new ArrayList<>();

    private void come(int value) {
        feed.feed(new Happening.Came("desk", "level", Value.of(value)), 0);
    }

    private void look() {
        while (!waiting.isEmpty()) {
            waiting.poll().run();
        }
    }

    @Test
    void aSubscriberGetsThePresentStateAndThenWhatChangesTogether() {
        come(1);
        feed.subscribe(waiting::add, seen::add);
        look();
        assertThat(seen).hasSize(1);
        assertThat(seen.getFirst().whole()).isTrue();
        assertThat(seen.getFirst().since()).isEmpty();
        assertThat(seen.getFirst().state().reading("desk", "level")).isEqualTo(Value.of(1));
        come(2);
        come(3);
        assertThat(waiting).as("it is called once, however much comes").hasSize(1);
        look();
        assertThat(seen.getLast().whole()).isFalse();
        assertThat(seen.getLast().since()).hasSize(2);
        assertThat(seen.getLast().state().reading("desk", "level")).isEqualTo(Value.of(3));
        look();
        assertThat(seen).hasSize(2);
    }

    @Test
    void oneThatIsAwayMissesWhatHappensAndSeesTheStateAndNothingIsKeptForIt() {
        feed.subscribe(waiting::add, seen::add);
        look();
        for (int i = 0; i < DeckFeed.KEPT + 10; i++) {
            come(i);
        }
        assertThat(waiting).hasSize(1);
        look();
        assertThat(seen.getLast().whole()).isTrue();
        assertThat(seen.getLast().since()).hasSize(DeckFeed.KEPT);
        assertThat(seen.getLast().state().reading("desk", "level")).isEqualTo(Value.of(DeckFeed.KEPT + 9));
    }

    @Test
    void oneThatThrowsIsToldOfTheNextChangeAndTheOthersAreToldOfAll() {
        List<Seen> told = new ArrayList<>();
        feed.subscribe(Runnable::run, s -> {
            told.add(s);
            throw new IllegalStateException("on purpose");
        });
        feed.subscribe(Runnable::run, seen::add);
        come(1);
        come(2);
        assertThat(told).hasSize(3);
        assertThat(seen).hasSize(3);
    }

    @Test
    void oneWhoseExecutorIsGoneIsNoSubscriberAnyMore() {
        boolean[] gone = {false};
        feed.subscribe(r -> {
            if (gone[0]) {
                throw new RejectedExecutionException("closed");
            }
            r.run();
        }, seen::add);
        gone[0] = true;
        come(1);
        gone[0] = false;
        come(2);
        assertThat(seen).hasSize(1);
    }

    @Test
    void oneThatIsClosedIsToldNothingMore() {
        Subscription subscription = feed.subscribe(waiting::add, seen::add);
        look();
        come(1);
        subscription.close();
        look();
        come(2);
        assertThat(waiting).isEmpty();
        assertThat(seen).hasSize(1);
    }

    @Test
    void anotherDeckIsSeenAnewInTheSameMode() {
        feed.subscribe(Runnable::run, seen::add);
        come(1);
        feed.mode(Mode.REHEARSE);
        assertThat(seen.getLast().state().mode()).isEqualTo(Mode.REHEARSE);
        feed.become(DeckState.NOTHING);
        assertThat(seen.getLast().whole()).isTrue();
        assertThat(seen.getLast().state()).isEqualTo(DeckState.NOTHING.withMode(Mode.REHEARSE));
    }
}
