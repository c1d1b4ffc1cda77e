package rombix.running;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.lang.management.ManagementFactory;
import java.lang.ref.WeakReference;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Consumer;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.AutoClose;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.parallel.Isolated;
import org.junit.jupiter.api.Timeout;
import rombix.core.board.Board;
import rombix.core.board.Rig;
import rombix.core.event.Happening;
import rombix.core.event.Mode;
import rombix.core.event.Status.Phase;
import rombix.core.store.BoardFile;
import rombix.core.touch.DeckPort;
import rombix.core.value.Value;
import rombix.running.owner.Trust;
import rombix.running.state.DeckFeed;
import rombix.running.state.DeckState;
import rombix.running.state.Seen;
import rombix.running.state.Subscription;
import rombix.standins.set.StandIns;

/** A deck that runs without a window. */
@Timeout(300)
@Isolated("it measures the heap")
class RunningDeckTest {
    @AutoClose
    private final Quiet quiet = new Quiet(DeckFeed.class);

    private StandIns gear;
    private Rig rig;
    private RunningDeck deck;

    @BeforeEach
    void open() throws Exception {
        gear = StandIns.onFreePorts();
        rig = BoardFile.read(Path.of("../demo/star-night.json"));
        deck = deck(gear);
    }

    @AfterEach
    void close() throws Exception {
        deck.close();
        gear.close();
    }

    private RunningDeck deck(StandIns of) {
        RunningDeck made = new RunningDeck(new HashMap<>(of.addresses()), null);
        assertThat(made.play(rig, Trust.all())).isEmpty();
        soon(() -> made.feed().state().status("house").phase() == Phase.READY && gate(made) != null);
        return made;
    }

    private static void soon(Callable<Boolean> so) {
        await().atMost(Duration.ofSeconds(60)).pollInterval(Duration.ofMillis(10)).until(so);
    }

    private static Value gate(RunningDeck of) {
        return of.feed().state().reading("house", "locked/gate");
    }

    private static void press(RunningDeck of, String button) {
        DeckPort port = of.port("test");
        port.press(button);
        port.release(button);
    }

    @Test
    void twoRunInOneProcessEachOnItsOwnGear() throws Exception {
        try (StandIns other = StandIns.onFreePorts(); RunningDeck second = deck(other)) {
            soon(() -> gate(deck) != null && gate(deck).equals(gate(second)));
            Value before = gate(deck);
            press(second, "gate");
            soon(() -> !before.equals(gate(second)));
            assertThat(gate(deck)).isEqualTo(before);
            assertThat(gear.house().state("house/lock/gate")).isNotEqualTo(other.house().state("house/lock/gate"));
            second.mode(Mode.REHEARSE, false);
            assertThat(second.feed().state().mode()).isEqualTo(Mode.REHEARSE);
            assertThat(deck.feed().state().mode()).isEqualTo(Mode.BUILD);
        }
        Value before = gate(deck);
        press(deck, "gate");
        soon(() -> !before.equals(gate(deck)));
    }

    @Test
    void aThousandSubscribersThatComeAndGoWhileABoardIsWorkedLeaveNothingBehind() {
        AtomicInteger told = new AtomicInteger();
        List<WeakReference<Consumer<Seen>>> listeners = new ArrayList<>();
        Deque<Subscription> all = new ArrayDeque<>();
        for (int i = 0; i < 1000; i++) {
            Consumer<Seen> listener = listener(told, i % 10 == 0);
            listeners.add(new WeakReference<>(listener));
            all.add(deck.feed().subscribe(Thread::startVirtualThread, listener));
            if (i % 50 == 0) {
                Value before = gate(deck);
                press(deck, "gate");
                soon(() -> !before.equals(gate(deck)));
            }
            if (i % 3 == 0) {
                all.removeFirst().close();
            }
        }
        assertThat(told).hasValueGreaterThan(1000);
        all.forEach(Subscription::close);
        all.clear();
        soon(() -> {
            System.gc();
            return listeners.stream().allMatch(l -> l.get() == null);
        });
    }

    private static Consumer<Seen> listener(AtomicInteger told, boolean bad) {
        return _ -> {
            told.incrementAndGet();
            if (bad) {
                throw new IllegalStateException("on purpose");
            }
        };
    }

    /** The interface stood still for up to two seconds where the rehearsal had something to do. */
    @Test
    void whoeverLeavesARehearsalWaitsForNobodyAndSeesTheGearAgain() throws Exception {
        Value real = gate(deck);
        deck.mode(Mode.REHEARSE, false);
        press(deck, "gate");
        soon(() -> gate(deck) != null && !real.equals(gate(deck)));
        CountDownLatch over = new CountDownLatch(1);
        CountDownLatch busy = new CountDownLatch(1);
        try (RunningDeck.Watching watching = deck.watch(h -> {
            if (h instanceof Happening.Started) {
                busy.countDown();
                held(over);
            }
        })) {
            press(deck, "gate");
            busy.await();
            long waited = waits();
            deck.mode(Mode.BUILD, false);
            assertThat(waits()).as("how often this thread waited").isEqualTo(waited);
            assertThat(gate(deck)).isEqualTo(real);
        } finally {
            over.countDown();
        }
        press(deck, "gate");
        soon(() -> !real.equals(gate(deck)));
    }

    private static void held(CountDownLatch until) {
        try {
            until.await();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private static long waits() {
        return ManagementFactory.getThreadMXBean().getThreadInfo(Thread.currentThread().threadId()).getWaitedCount();
    }

    @Test
    void whatIsDoneWhileABoardIsOnItsWayIsDoneOnThatBoardAndItsGear() {
        Rig empty = Rig.of(Board.empty("Other"), Map.of());
        for (int i = 0; i < 20; i++) {
            deck.load(empty);
            deck.load(rig);
            soon(() -> deck.feed().state().status("house").phase() == Phase.READY && gate(deck) != null);
            Value before = gate(deck);
            DeckState.LastRun earlier = deck.feed().state().lastRuns().get("gate");
            deck.load(empty);
            deck.load(rig);
            press(deck, "gate"); // At once.
            CountDownLatch there = new CountDownLatch(1);
            deck.then(there::countDown);
            soon(() -> there.getCount() == 0);
            DeckState.LastRun last = deck.feed().state().lastRuns().get("gate");
            assertThat(last).as("the press reached the board").isNotNull().isNotEqualTo(earlier);
            soon(() -> deck.feed().state().running().isEmpty());
            soon(() -> !before.equals(gate(deck)) || deck.feed().state().fault("gate") != null);
        }
    }

    @Test
    void aGuestReachesAndHearsNothing() {
        try (RunningDeck guest = new RunningDeck(new HashMap<>(gear.addresses()), null)) {
            assertThat(guest.play(rig, Trust.of(Set.of()))).isNotEmpty();
            CountDownLatch there = new CountDownLatch(1);
            guest.then(there::countDown);
            soon(() -> there.getCount() == 0);
            assertThat(guest.feed().state().statuses().values()).isNotEmpty().allMatch(s -> s.phase() == Phase.OFF);
        }
    }
}
