package rombix.links.mqtt;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.DataInputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import java.util.concurrent.CopyOnWriteArrayList;
import org.junit.jupiter.api.Test;
import rombix.core.card.Card;
import rombix.core.store.CardLibrary;
import rombix.core.touch.Touch;
import rombix.links.link.GearUnderTest;
import rombix.links.link.StandInGear;

/** A broker that knows MQTT 5 alone, byte by byte; and what is said with a message. */
class MqttVersionTest {
    private static final int CONNECT = 1;
    private static final int PUBLISH = 3;
    private static final int SUBSCRIBE = 8;

    private final List<String> published = new CopyOnWriteArrayList<>();
    private final List<Integer> levels = new CopyOnWriteArrayList<>();

    private void serve(ServerSocket server) {
        while (!server.isClosed()) {
            try (Socket s = server.accept()) {
                DataInputStream in = new DataInputStream(s.getInputStream());
                OutputStream out = s.getOutputStream();
                while (true) {
                    int head = in.readUnsignedByte();
                    byte[] body = new byte[length(in)];
                    in.readFully(body);
                    answer(head, body, out);
                }
            } catch (EOFException e) {
                // It hung up.
            } catch (IOException e) {
                // Closed.
            }
        }
    }

    private static int length(DataInputStream in) throws IOException {
        int length = 0;
        for (int shift = 0;; shift += 7) {
            int b = in.readUnsignedByte();
            length |= (b & 0x7F) << shift;
            if (b < 0x80) {
                return length;
            }
        }
    }

    private void answer(int head, byte[] body, OutputStream out) throws IOException {
        switch (head >> 4) {
            case CONNECT -> {
                levels.add((int) body[6]);
                out.write(body[6] == 5 ? new byte[]{0x20, 3, 0, 0, 0} : new byte[]{0x20, 2, 0, 1});
            }
            case SUBSCRIBE -> {
                out.write(new byte[]{(byte) 0x90, 4, body[0], body[1], 0, 1});
                if (new String(body, StandardCharsets.UTF_8).contains("bell")) {
                    out.write(message(0x31, "bell", "kept"));
                    out.write(message(0x30, "bell", "now"));
                }
            }
            case PUBLISH -> {
                int topic = body[0] << 8 | body[1];
                published.add((head & 1) + " " + (head >> 1 & 3) + " " + new String(body, 2, topic,
                        StandardCharsets.UTF_8) + " "
                        + new String(body, topic + 5, body.length - topic - 5,
                                StandardCharsets.UTF_8));
                out.write(new byte[]{0x40, 2, body[topic + 2], body[topic + 3]});
            }
            default -> {
            }
        }
    }

    private static byte[] message(int head, String topic, String text) {
        byte[] body = ("\0" + (char) topic.length() + topic + "\0" + text).getBytes(StandardCharsets.UTF_8);
        byte[] all = new byte[body.length + 2];
        all[0] = (byte) head;
        all[1] = (byte) body.length;
        System.arraycopy(body, 0, all, 2, body.length);
        return all;
    }

    /** What a broker had kept would press whenever one connects, hours after somebody rang. */
    @Test
    void aMessageThatWasKeptPullsNoTrigger() throws Exception {
        List<Touch> pulled = new CopyOnWriteArrayList<>();
        try (ServerSocket server = new ServerSocket(0, 9, InetAddress.getLoopbackAddress())) {
            Thread.startVirtualThread(() -> serve(server));
            try (GearUnderTest gear = StandInGear.of(new Mqtt(), CardLibrary.read(Path.of("x.json"), """
                    {"card": 2, "id": "x", "title": "X", "readings": [], "commands": []}"""), "127.0.0.1:" + server
                    .getLocalPort(), l -> l).ready()) {
                gear.link().calls(Set.of("bell"), pulled::add);
                GearUnderTest.soon(() -> !pulled.isEmpty());
                assertThat(pulled).containsExactly(new Touch.Mqtt("gear", "bell", "now"));
            }
        }
    }

    @Test
    void aBrokerThatKnowsFiveAloneIsSpokenToInFive() throws Exception {
        Card card = CardLibrary.read(Path.of("x.json"),
                """
                        {"card": 2, "id": "x", "title": "X", "readings": [{"id": "a", "type": "text", "arrives": {"mqtt": {"from": "a"}}}],
                         "commands": [{"id": "set", "params": [{"id": "what", "type": "text"}],
                          "send": {"mqtt": [{"to": "a/set", "args": ["{what}", "!"], "head": {"retain": true, "qos": 1}}]}}]}""");
        try (ServerSocket server = new ServerSocket(0, 9, InetAddress.getLoopbackAddress())) {
            Thread.startVirtualThread(() -> serve(server));
            try (GearUnderTest gear = StandInGear.of(new Mqtt(), card, "127.0.0.1:" + server.getLocalPort(), l -> l)
                    .ready()) {
                assertThat(levels).containsExactly(4, 5);
                assertThat(gear.done("set", "what", "owl")).isEqualTo("sent");
                assertThat(published).containsExactly("1 1 a/set owl!");
            }
        }
    }
}
