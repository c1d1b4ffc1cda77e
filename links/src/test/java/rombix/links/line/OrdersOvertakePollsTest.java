package rombix.links.line;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import rombix.core.card.Card;
import rombix.core.store.CardLibrary;
import rombix.core.value.Value;
import rombix.links.link.GearUnderTest;
import rombix.links.link.StandInGear;

@Timeout(300)
class OrdersOvertakePollsTest {
    private static final String CARD = """
            {"card": 2, "id": "deaf", "title": "Deaf", "readings": [
              {"id": "hot", "type": "text", "arrives": {"line": {"from": "heat"}}}],
             "commands": [{"id": "mute", "title": "Mute",
               "send": {"line": [{"to": "line", "args": ["MUTE"], "reply": {"is": {"pattern": "^MUTED$"}}}]}}],
             "polls": {"line": [{"every": 50, "ask": {"to": "line", "args": ["HEAT?"],
               "reply": {"is": {"pattern": "^HEAT="}, "within": 60000, "as": "heat"}}}]}}
            """;

    /** An order that met a poll without an answer waited behind it until it was too old to be sent. */
    @Test
    void anOrderIsSentWhileAPollIsStillUnanswered() throws Exception {
        Card card = CardLibrary.read(Path.of("deaf.json"), CARD);
        try (ServerSocket listening = new ServerSocket(0, 1, InetAddress.getLoopbackAddress());
                GearUnderTest gear = StandInGear.of(new Line(), card, "127.0.0.1:" + listening.getLocalPort(),
                        link -> link.withSetting(Line.ENDING, Value.of("LF")));
                Socket deck = listening.accept()) {
            BufferedReader in = new BufferedReader(new InputStreamReader(deck.getInputStream(),
                    StandardCharsets.UTF_8));
            assertThat(in.readLine()).isEqualTo("HEAT?");
            long order = gear.send("mute");
            assertThat(in.readLine()).isEqualTo("MUTE");
            deck.getOutputStream().write("MUTED\nHEAT=ON\n".getBytes(StandardCharsets.UTF_8));
            assertThat(gear.answer(order)).isEqualTo("sent");
            GearUnderTest.soon(() -> gear.now("hot") != null);
        }
    }
}
