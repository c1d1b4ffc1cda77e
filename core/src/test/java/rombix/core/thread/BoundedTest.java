package rombix.core.thread;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import rombix.core.thread.Bounded.Full;

@Timeout(60)
class BoundedTest {
    @Test
    void whatComesFirstIsTakenFirst() throws Exception {
        Bounded<Integer> queue = new Bounded<>(3, Full.REFUSE);
        queue.offer(1);
        queue.offer(2);
        assertThat(queue.take()).isEqualTo(1);
        assertThat(queue.poll(1, TimeUnit.SECONDS)).isEqualTo(2);
        assertThat(queue.poll()).isNull();
        assertThat(queue.isEmpty()).isTrue();
    }

    @Test
    void oneThatRefusesTakesNoMoreThanItHasRoomFor() {
        Bounded<Integer> queue = new Bounded<>(3, Full.REFUSE);
        assertThat(IntStream.range(0, 5).filter(queue::offer).count()).isEqualTo(3);
        assertThat(queue.drain()).containsExactly(0, 1, 2);
        assertThat(queue.dropped()).isZero();
    }

    @Test
    void oneThatDropsKeepsTheNewestAndCounts() {
        Bounded<Integer> queue = new Bounded<>(3, Full.DROP_OLDEST);
        assertThat(IntStream.range(0, 1000).allMatch(queue::offer)).isTrue();
        assertThat(queue.drain()).containsExactly(997, 998, 999);
        assertThat(queue.dropped()).isEqualTo(997);
    }

    @Test
    void oneThatHasOthersWaitLosesNothing() throws Exception {
        Bounded<Integer> queue = new Bounded<>(2, Full.WAIT);
        CompletableFuture<Boolean> brought = CompletableFuture.supplyAsync(() -> IntStream.range(0, 100).allMatch(
                queue::offer));
        for (int i = 0; i < 100; i++) {
            assertThat(queue.take()).isEqualTo(i);
        }
        assertThat(brought.get()).isTrue();
    }

    @Test
    void whoWaitsForRoomCanBeInterrupted() throws Exception {
        Bounded<Integer> queue = new Bounded<>(1, Full.WAIT);
        queue.offer(1);
        CompletableFuture<Boolean> taken = new CompletableFuture<>();
        Thread waits = Thread.ofPlatform().start(() -> taken.complete(queue.offer(2)));
        waits.interrupt();
        assertThat(taken.get()).isFalse();
        assertThat(queue.drain()).containsExactly(1);
    }
}
