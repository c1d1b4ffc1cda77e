package rombix.running.input;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.nio.ByteBuffer;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.Callable;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import rombix.core.board.Rig;
import rombix.core.event.Event;
import rombix.core.event.Happening;
import rombix.core.store.BoardFile;
import rombix.core.touch.Touch;
import rombix.wire.osc.OscCodec;
import rombix.wire.osc.OscPacket;

/** What touches from outside: listened to as the board asks, pressing only while the deck is armed. */
@Timeout(300)
class TriggerInputsTest {
    private final BlockingQueue<Event> posted = new LinkedBlockingQueue<>();
    private final BlockingQueue<String> touched = new LinkedBlockingQueue<>();
    private Rig demo;
    private TriggerInputs inputs;

    @BeforeEach
    void open() throws Exception {
        demo = BoardFile.read(Path.of("../demo/star-night.json"));
        inputs = new TriggerInputs(posted::add, touched::add, 0, Runnable::run);
        inputs.accept(new Happening.Loaded(demo));
        soon(() -> inputs.sources().oscPort() > 0);
    }

    @AfterEach
    void close() {
        inputs.close();
    }

    private static void soon(Callable<Boolean> so) {
        await().atMost(Duration.ofSeconds(60)).pollInterval(Duration.ofMillis(10)).until(so);
    }

    private void osc(String address) throws IOException {
        ByteBuffer out = ByteBuffer.allocate(200);
        OscCodec.encode(new OscPacket.Message(address, List.of()), out);
        try (DatagramSocket socket = new DatagramSocket()) {
            socket.send(
                    new DatagramPacket(out.array(), out.position(), InetAddress.getLoopbackAddress(), inputs.sources()
                            .oscPort()));
        }
    }

    @Test
    void aMessagePressesWhileTheDeckIsArmedAndOnlySelectsWhileItIsNot() throws Exception {
        assertThat(inputs.sources().armed()).isFalse();
        osc("/doors/open");
        assertThat(touched.poll(10, TimeUnit.SECONDS)).isEqualTo("doors-open");
        assertThat(posted).isEmpty();
        inputs.accept(new Happening.Armed(true));
        assertThat(inputs.sources().armed()).isTrue();
        osc("/doors/open");
        Event next = posted.poll(10, TimeUnit.SECONDS);
        assertThat(next instanceof Event.Latest l ? l.what().get() : next).isEqualTo(new Event.Pressed("doors-open",
                "OSC /doors/open"));
    }

    @Test
    void whatIsTouchedWhileATriggerIsLearnedPressesNothing() throws Exception {
        BlockingQueue<Touch> learned = new LinkedBlockingQueue<>();
        inputs.accept(new Happening.Armed(true));
        inputs.learn(learned::add);
        osc("/anything");
        assertThat(learned.poll(10, TimeUnit.SECONDS)).isInstanceOf(Touch.Osc.class);
        assertThat(posted).isEmpty();
        inputs.learn(null);
        osc("/doors/open");
        assertThat(posted.poll(10, TimeUnit.SECONDS)).isNotNull();
    }

    @Test
    void aBoardWithoutSuchTriggersListensToNothingAndClosingEndsAll() {
        Rig bare = Rig.of(rombix.core.board.Board.empty("B"), demo.cards());
        inputs.accept(new Happening.Loaded(bare));
        soon(() -> inputs.sources().oscPort() < 0);
        inputs.accept(new Happening.Loaded(demo));
        soon(() -> inputs.sources().oscPort() > 0);
        inputs.close();
        assertThat(inputs.sources().oscPort()).isNegative();
    }
}
