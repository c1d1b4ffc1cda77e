package rombix.core.thread;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Map;
import java.util.concurrent.CompletableFuture;
import org.junit.jupiter.api.Test;
import rombix.core.board.Board;
import rombix.core.board.Rig;
import rombix.core.engine.Deck;
import rombix.core.event.Event;
import rombix.core.event.Trace;
import rombix.core.time.SimulatedClock;

class OneThreadTest {
    @Test
    void theFirstThatEntersOwnsIt() {
        OneThread one = new OneThread();
        assertThat(one.entered()).isTrue();
        assertThat(one.entered()).isTrue();
        assertThat(CompletableFuture.supplyAsync(one::entered).join()).isFalse();
        assertThat(one.toString()).contains(Thread.currentThread().getName());
    }

    @Test
    void aDeckThatAnotherThreadEntersSaysSo() {
        Deck deck = Deck.onTwins(new SimulatedClock(), new java.util.Random(1), _ -> {
        }, Trace.NONE);
        deck.take(new Event.Load(Rig.of(Board.empty("B"), Map.of())), 0);
        assertThatThrownBy(() -> CompletableFuture.runAsync(() -> deck.take(new Event.StopAll(), 0)).join())
                .hasRootCauseInstanceOf(AssertionError.class).hasMessageContaining("owned by");
    }
}
