package rombix.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.ZonedDateTime;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.AutoClose;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import rombix.core.Quiet;
import rombix.core.board.Board;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.chain.Chain;
import rombix.core.chain.DeckStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.edit.Edits;
import rombix.core.edit.Proposals;
import rombix.core.engine.run.Telling;
import rombix.core.event.Event;
import rombix.core.event.Happening;
import rombix.core.time.Clock;
import rombix.core.value.Value;

/** The thread around the deck: what is posted from anywhere is taken in order, in time, and before the end. */
@Timeout(30)
class ConductorTest {
    @AutoClose
    private final Quiet quiet = new Quiet(Telling.class);

    static final Clock CLOCK = new Clock() {
        @Override
        public long nanos() {
            return System.nanoTime();
        }

        @Override
        public ZonedDateTime wall() {
            return ZonedDateTime.parse("2026-01-01T00:00:00Z");
        }
    };

    private final BlockingQueue<Happening> told = new LinkedBlockingQueue<>();
    private final BlockingQueue<Thread> threads = new LinkedBlockingQueue<>();
    private final Conductor conductor = new Conductor(CLOCK, new Random(1), _ -> (_, _) -> {
    }, h -> {
        threads.add(Thread.currentThread());
        told.add(h);
    });

    @AfterEach
    void close() {
        conductor.close();
    }

    private static Rig board(Step... steps) {
        Board board = new Board(Board.FORMAT, "B", List.of(), List.of(Page.empty("p", "P")), Map.of());
        board = Edits.addButton(board, "p", Proposals.fresh(board, 0, 0).withId("b"));
        return Rig.of(Edits.chain(board, "b", 0, Gesture.PRESS, _ -> Chain.of(steps)), Map.of());
    }

    private static Step say(String text) {
        return new DeckStep.Say(text, StepOptions.PLAIN, Map.of());
    }

    private String said() throws InterruptedException {
        while (true) {
            Happening h = told.poll(10, TimeUnit.SECONDS);
            assertThat(h).as("something is said").isNotNull();
            if (h instanceof Happening.Said s) {
                return s.text();
            }
        }
    }

    @Test
    void whatIsPostedFromAnyThreadIsTakenInOrderByOne() throws InterruptedException {
        conductor.post(new Event.Load(board(say("pressed"))));
        Thread other = Thread.startVirtualThread(() -> conductor.post(new Event.Perform("b", Gesture.PRESS, "test")));
        assertThat(said()).isEqualTo("pressed");
        other.join();
        assertThat(threads).containsOnly(threads.peek()).doesNotContain(Thread.currentThread(), other);
    }

    @Test
    void aChainGoesOnByItselfWhenItsTimeHasCome() throws InterruptedException {
        conductor.post(new Event.Load(board(say("first"), new Step.Wait(30), say("second"))));
        long start = System.nanoTime();
        conductor.post(new Event.Perform("b", Gesture.PRESS, "test"));
        assertThat(said()).isEqualTo("first");
        assertThat(said()).isEqualTo("second");
        assertThat(System.nanoTime() - start).isGreaterThanOrEqualTo(30_000_000L);
    }

    @Test
    void whatWasPostedIsTakenBeforeTheEnd() throws InterruptedException {
        conductor.post(new Event.Load(board(say("pressed"))));
        for (int i = 0; i < 100; i++) {
            conductor.post(new Event.Perform("b", Gesture.PRESS, "test"));
        }
        conductor.close();
        assertThat(told.stream().filter(Happening.Said.class::isInstance)).hasSize(100);
    }

    @Test
    void aWatcherThatThrowsEndsNothing() throws InterruptedException {
        CountDownLatch twice = new CountDownLatch(2);
        try (Conductor unlucky = new Conductor(CLOCK, new Random(1), _ -> (_, _) -> {
        }, h -> {
            if (h instanceof Happening.Said) {
                twice.countDown();
                throw new IllegalStateException("watcher");
            }
        })) {
            unlucky.post(new Event.Load(board(say("x"))));
            unlucky.post(new Event.Perform("b", Gesture.PRESS, "test"));
            unlucky.post(new Event.Perform("b", Gesture.PRESS, "test"));
            assertThat(twice.await(10, TimeUnit.SECONDS)).isTrue();
        }
    }

    @Test
    void aStepThatTakesForEverIsTold() throws InterruptedException {
        CountDownLatch told = new CountDownLatch(1);
        String[] words = new String[1];
        Conductor slow = new Conductor(CLOCK, new Random(1), _ -> (_, _) -> {
        }, h -> {
            if (h instanceof Happening.Said) {
                try {
                    told.await(20, TimeUnit.SECONDS); // As long as nobody has seen it.
                } catch (InterruptedException e) {
                    Thread.currentThread().interrupt();
                }
            } else if (h instanceof Happening.Faulted f) {
                words[0] = f.button() + ": " + f.message();
                told.countDown();
            }
        });
        slow.post(new Event.Load(board(say("slow"))));
        slow.post(new Event.Perform("b", Gesture.PRESS, "test"));
        assertThat(told.await(20, TimeUnit.SECONDS)).isTrue();
        slow.close();
        assertThat(words[0]).startsWith("b: The deck has been busy for ").endsWith(" ms with this step: Say “slow”");
    }

    /** Symptom: a notice named the step “”, as the deck was busy before any step had begun. */
    @Test
    void aDeckThatIsBusyBeforeAnyStepNamesNone() {
        assertThat(Conductor.busy(372, "")).isEqualTo("The deck has been busy for 372 ms");
    }

    @Test
    void aMeterThatMovesFasterThanTheDeckLooksWaitsAsOneNumber() throws InterruptedException {
        CountDownLatch go = new CountDownLatch(1);
        CountDownLatch done = new CountDownLatch(1);
        BlockingQueue<Value> came = new LinkedBlockingQueue<>();
        Conductor busy = new Conductor(CLOCK, new Random(1), _ -> (_, _) -> {
        }, h -> {
            switch (h) {
                case Happening.Loaded _ -> {
                    try {
                        go.await(20, TimeUnit.SECONDS);
                    } catch (InterruptedException e) {
                        Thread.currentThread().interrupt();
                    }
                }
                case Happening.Came c -> came.add(c.value());
                case Happening.Armed _ -> done.countDown();
                default -> {
                }
            }
        });
        busy.post(new Event.Load(TestDeck.rig()));
        for (int i = 1; i <= 100_000; i++) {
            busy.post(new Event.Came("gear", "level", Value.of(i)));
        }
        busy.post(new Event.Came("gear", "on/a", Value.of(true)));
        busy.post(new Event.Came("gear", "on/a", Value.of(false)));
        busy.post(new Event.Arm(true));
        go.countDown();
        assertThat(done.await(20, TimeUnit.SECONDS)).isTrue();
        busy.close();
        assertThat(came).containsExactly(Value.of(100_000), Value.of(true), Value.of(false));
    }
}
