package rombix.links.link;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

@Timeout(300)
class LoopTest {
    @Test
    void aLoopGoesOnAfterAnErrorAndAfterATellerThatThrows() throws InterruptedException {
        BlockingQueue<String> turns = new ArrayBlockingQueue<>(10);
        BlockingQueue<String> told = new ArrayBlockingQueue<>(10);
        int[] turn = {0};
        try (Loop loop = Loop.start("test", () -> {
            turns.put("turn");
            if (turn[0]++ < 2) {
                throw new StackOverflowError("deep");
            }
            Thread.currentThread().join();
        }, e -> {
            told.add(String.valueOf(e.getMessage()));
            throw new IllegalStateException("nobody listens");
        })) {
            for (int i = 0; i < 3; i++) {
                assertThat(turns.poll(10, TimeUnit.SECONDS)).isEqualTo("turn");
            }
            assertThat(told).containsExactly("deep", "deep");
            assertThat(loop.closed()).isFalse();
        }
    }

    @Test
    void whatATurnMeetsWhenTheLoopIsClosedIsNoTrouble() throws InterruptedException {
        BlockingQueue<String> told = new ArrayBlockingQueue<>(10);
        BlockingQueue<Thread> here = new ArrayBlockingQueue<>(1);
        Loop loop = Loop.startOften("test", () -> {
            here.put(Thread.currentThread());
            Thread.currentThread().join();
        }, e -> told.add("trouble"));
        Thread thread = here.poll(10, TimeUnit.SECONDS);
        loop.close();
        assertThat(thread).isNotNull();
        thread.join();
        assertThat(told).isEmpty();
    }
}
