package rombix.links;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.links.LinkBench.soon;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.locks.LockSupport;
import java.util.function.BiFunction;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;
import rombix.core.event.Status.Phase;
import rombix.core.value.Value;

/** What links say and do when the other end refuses, freezes, babbles, or has a name that nobody knows. */
@Timeout(300)
@Execution(ExecutionMode.CONCURRENT)
class PeersInTroubleTest {
    private static final Map<String, Value> ROOM = Map.of("room", Value.of("star-night"));
    private static final String WELCOME = ":s 001 rombix :Welcome";

    /** A server of lines that welcomes, and answers each line as it is told to; null says nothing. */
    private static final class Lines implements AutoCloseable {
        private final ServerSocket server = new ServerSocket(0, 5, InetAddress.getLoopbackAddress());

        Lines(BiFunction<Integer, String, @Nullable String> answer) throws IOException {
            Thread.ofVirtual().start(() -> {
                for (int met = 0; !server.isClosed(); met++) {
                    int meeting = met;
                    try {
                        Socket s = server.accept();
                        Thread.ofVirtual().start(() -> serve(s, meeting, answer));
                    } catch (IOException e) {
                        return;
                    }
                }
            });
        }

        private static void serve(Socket s, int meeting, BiFunction<Integer, String, @Nullable String> answer) {
            try (s;
                    BufferedReader in = new BufferedReader(new InputStreamReader(s.getInputStream(),
                            StandardCharsets.UTF_8))) {
                for (String line = in.readLine(); line != null; line = in.readLine()) {
                    String reply = answer.apply(meeting, line);
                    if (reply != null) {
                        s.getOutputStream().write((reply + "\r\n").getBytes(StandardCharsets.UTF_8));
                    }
                }
            } catch (IOException e) {
                // Gone.
            }
        }

        String address() {
            return "127.0.0.1:" + server.getLocalPort();
        }

        @Override
        public void close() throws IOException {
            server.close();
        }
    }

    private static Map<String, String> only(String gear, String address) {
        Map<String, String> all = new HashMap<>();
        for (String id : new String[]{"studio", "desk", "lamps", "cues", "house", "chat"}) {
            all.put(id, "127.0.0.1:9");
        }
        all.put("desk", "no such port");
        all.put(gear, address);
        return all;
    }

    private static @Nullable String usual(String line) {
        return line.startsWith("USER")
                ? WELCOME
                : line.startsWith("PING") ? ":s PONG s " + line.substring(line.indexOf(' ') + 1) : null;
    }

    @Test
    void aRoomThatRefusesACommandMakesItsStepFailWithTheServersWords() throws Exception {
        try (Lines chat = new Lines((_, line) -> line.startsWith("MODE #star-night +")
                ? ":s 482 rombix #star-night :You're not channel operator"
                : usual(line)); LinkBench bench = new LinkBench(only("chat", chat.address()))) {
            bench.awaitPhase("chat", Phase.READY);
            bench.awaitAnswer(bench.send("chat", "slow-on", ROOM), "refused: #star-night: You're not channel operator");
        }
    }

    @Test
    void aServerThatWantsAPasswordIsQuotedWhenItEndsTheConnection() throws Exception {
        try (Lines chat = new Lines((_, line) -> line.startsWith("USER") ? "ERROR :Bad password" : null);
                LinkBench bench = new LinkBench(only("chat", chat.address()))) {
            soon().until(() -> bench.statuses.containsKey("chat") && bench.statuses.get("chat").words().equals(
                    "it closed the connection: Bad password"));
            assertThat(bench.statuses.get("chat").hint()).contains("password");
        }
    }

    @Test
    void aServerThatAnswersForNothingAndSaysALetterNowAndThenIsLeft() throws Exception {
        try (ServerSocket server = new ServerSocket(0, 5, InetAddress.getLoopbackAddress())) {
            Thread.ofVirtual().start(() -> {
                try (Socket s = server.accept()) {
                    s.getOutputStream().write((WELCOME + "\r\n").getBytes(StandardCharsets.UTF_8));
                    while (true) {
                        s.getOutputStream().write('x'); // Never a whole line.
                        LockSupport.parkNanos(500_000_000);
                    }
                } catch (IOException e) {
                    // It was left.
                }
            });
            try (LinkBench bench = new LinkBench(only("chat", "127.0.0.1:" + server.getLocalPort()))) {
                bench.awaitPhase("chat", Phase.READY);
                bench.awaitAnswer(bench.send("chat", "slow-on", ROOM), "didn't respond");
            }
        }
    }

    @Test
    void aModeThatTheServerDoesNotNameIsKnownToBeOff() throws Exception {
        try (Lines chat = new Lines((_, line) -> line.equals("MODE #star-night")
                ? ":s 324 rombix #star-night +nt"
                : usual(line)); LinkBench bench = new LinkBench(only("chat", chat.address()))) {
            bench.awaitReading("chat/slow/star-night", Value.of(false));
        }
    }

    @Test
    void aServerThatFreezesIsNotReadyAnyMoreAndItsOrdersFail() throws Exception {
        try (Lines chat = new Lines((_, line) -> line.startsWith("PING t") ? null : usual(line));
                LinkBench bench = new LinkBench(only("chat", chat.address()))) {
            bench.awaitPhase("chat", Phase.READY);
            bench.awaitAnswer(bench.send("chat", "slow-on", ROOM), "didn't respond");
        }
    }

    @Test
    void aNameThatIsTakenIsSaid() throws Exception {
        try (Lines chat = new Lines((_, line) -> line.equals("NICK rombix")
                ? ":s 433 * rombix :Nickname is already in use"
                : usual(line)); LinkBench bench = new LinkBench(only("chat", chat.address()))) {
            bench.awaitPhase("chat", Phase.READY);
            soon().until(() -> bench.statuses.get("chat").words().matches("ready as rombix\\d+"));
        }
    }

    @Test
    void whoIsRemovedFromARoomIsSaid() throws Exception {
        try (Lines chat = new Lines((_, line) -> line.startsWith("JOIN")
                ? ":keeper!k@s KICK #star-night rombix :no machines"
                : usual(line)); LinkBench bench = new LinkBench(only("chat", chat.address()))) {
            bench.awaitPhase("chat", Phase.SILENT);
            assertThat(bench.statuses.get("chat").words()).isEqualTo("was removed from #star-night by keeper");
            assertThat(bench.statuses.get("chat").hint()).contains("no machines");
        }
    }

    @Test
    void aLineWithoutAnEndIsPassedOver() throws Exception {
        try (Lines chat = new Lines((_, line) -> line.startsWith("JOIN")
                ? "x".repeat(1 << 20) + "\r\n:s 324 rombix #star-night +m"
                : usual(line)); LinkBench bench = new LinkBench(only("chat", chat.address()))) {
            bench.awaitReading("chat/slow/star-night", Value.of(true));
            soon().until(() -> bench.statuses.get("chat").ignored() == 1);
        }
    }

    @Test
    void aHostThatNobodyKnowsIsSaidAndHoldsNobodyUp() {
        String nowhere = "no-such-host.invalid:9000";
        Map<String, String> all = only("studio", nowhere);
        all.put("lamps", nowhere);
        all.put("chat", nowhere);
        try (LinkBench bench = new LinkBench(all)) {
            for (String gear : new String[]{"studio", "lamps", "chat"}) {
                bench.awaitPhase(gear, Phase.OFF);
                assertThat(bench.statuses.get(gear).words()).contains("no-such-host.invalid").doesNotContain("null",
                        "<");
            }
            bench.awaitAnswer(bench.send("studio", "keep-clip", Map.of()), "no host");
        }
    }

    @Test
    void aBrokerThatFreezesIsLeftAndItsOrdersFailInPlainWords() throws Exception {
        try (ServerSocket broker = new ServerSocket(0, 5, InetAddress.getLoopbackAddress())) {
            Thread.ofVirtual().start(() -> {
                while (!broker.isClosed()) {
                    try { // It takes the connection and the subscriptions, and nothing after that.
                        Socket s = broker.accept();
                        s.getInputStream().read(new byte[1000]);
                        s.getOutputStream().write(new byte[]{0x20, 2, 0, 0});
                        Thread.ofVirtual().start(() -> suback(s));
                    } catch (IOException e) {
                        return;
                    }
                }
            });
            try (LinkBench bench = new LinkBench(only("house", "127.0.0.1:" + broker.getLocalPort()))) {
                bench.awaitPhase("house", Phase.READY);
                bench.awaitAnswer(bench.send("house", "unlock", Map.of("lock", Value.of("gate"))),
                        "the broker didn't confirm within 2");
                soon().until(() -> bench.statuses.get("house").phase() != Phase.READY);
            }
        }
    }

    @Test
    void aBrokerThatLosesTheSubscriptionIsLeftAndAskedAgain() throws Exception {
        List<Socket> kept = new ArrayList<>(); // One that nobody holds is closed with the next collection of garbage.
        try (ServerSocket broker = new ServerSocket(0, 5, InetAddress.getLoopbackAddress())) {
            Thread.ofVirtual().start(() -> {
                for (int met = 0; !broker.isClosed(); met++) {
                    try {
                        Socket s = broker.accept();
                        kept.add(s);
                        s.getInputStream().read(new byte[1000]);
                        s.getOutputStream().write(new byte[]{0x20, 2, 0, 0});
                        if (met > 0) { // The first is never answered.
                            Thread.ofVirtual().start(() -> suback(s));
                        }
                    } catch (IOException e) {
                        return;
                    }
                }
            });
            try (LinkBench bench = new LinkBench(only("house", "127.0.0.1:" + broker.getLocalPort()))) {
                soon().until(() -> bench.statuses.containsKey("house") && bench.statuses.get("house").words().contains(
                        "no longer responds"));
                bench.awaitPhase("house", Phase.READY);
            }
        }
    }

    /** Answers each SUBSCRIBE, and no PUBLISH. */
    private static void suback(Socket s) {
        try {
            while (true) {
                int kind = s.getInputStream().read();
                int length = s.getInputStream().read();
                if (kind < 0 || length < 0) {
                    return;
                }
                int more = length > 127 ? s.getInputStream().read() : 0;
                byte[] body = s.getInputStream().readNBytes((length & 127) + more * 128);
                if ((kind & 0xF0) == 0x80) {
                    int topics = 0;
                    for (int at = 2; at < body.length; at += 3 + (body[at] << 8) + body[at + 1]) {
                        topics++;
                    }
                    byte[] answer = new byte[4 + topics]; // Each is taken, with QoS 0.
                    answer[0] = (byte) 0x90;
                    answer[1] = (byte) (2 + topics);
                    answer[2] = body[0];
                    answer[3] = body[1];
                    s.getOutputStream().write(answer);
                }
            }
        } catch (IOException e) {
            // Gone.
        }
    }
}
