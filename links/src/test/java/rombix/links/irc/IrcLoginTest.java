package rombix.links.irc;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.links.link.GearUnderTest.soon;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import rombix.core.event.Status.Phase;
import rombix.core.value.Value;
import rombix.links.link.GearUnderTest;
import rombix.links.link.StandInGear;
import rombix.standins.DemoLogin;
import rombix.wire.irc.IrcLine;

/** How one is let in by IRC, line by line, and how long texts go out. */
class IrcLoginTest {
    private ServerSocket server;

    @BeforeEach
    void open() throws IOException {
        server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress());
    }

    @AfterEach
    void close() throws IOException {
        server.close();
    }

    private GearUnderTest gear(String login) {
        return StandInGear.of(new Irc(), "chat", "127.0.0.1:" + server.getLocalPort(),
                l -> l.withUser("keeper").withSecret(
                        DemoLogin.SECRET).withSetting(Irc.LOGIN, Value.of(login))
                        .withSetting(Irc.NICK, Value.of("booth"))
                        .withSetting(Irc.KEY, Value.of("owl")));
    }

    private static void say(Socket to, String line) throws IOException {
        to.getOutputStream().write((line + "\r\n").getBytes(StandardCharsets.UTF_8));
    }

    /** The next line that begins so. */
    private static String heard(BufferedReader in, String begin) throws IOException {
        String line = in.readLine();
        while (line != null && !line.startsWith(begin)) {
            line = in.readLine();
        }
        return String.valueOf(line);
    }

    @Test
    void anAccountIsLoggedInToAndALockedChannelEntered() throws IOException {
        try (GearUnderTest gear = gear(Irc.SASL);
                Socket s = server.accept();
                BufferedReader in = new BufferedReader(new InputStreamReader(s.getInputStream(),
                        StandardCharsets.UTF_8))) {
            assertThat(heard(in, "CAP")).isEqualTo("CAP REQ sasl");
            assertThat(heard(in, "NICK")).isEqualTo("NICK booth");
            say(s, ":x CAP * ACK :sasl");
            assertThat(heard(in, "AUTH")).isEqualTo("AUTHENTICATE PLAIN");
            say(s, "AUTHENTICATE +");
            String proof = heard(in, "AUTH").substring("AUTHENTICATE ".length());
            assertThat(new String(Base64.getDecoder().decode(proof), StandardCharsets.UTF_8)).startsWith("\0keeper\0");
            say(s, ":x 903 booth :done");
            assertThat(heard(in, "CAP")).isEqualTo("CAP END");
            say(s, ":x 001 booth :hello");
            assertThat(heard(in, "JOIN")).isEqualTo("JOIN #star-night owl");
            gear.ready();
            long order = gear.send("say", "room", "star-night", "text", "word ".repeat(200).strip());
            assertThat(heard(in, "PRIVMSG").length()).isLessThan(IrcLine.LONGEST);
            assertThat(heard(in, "PRIVMSG")).endsWith("word");
            say(s, ":x PONG x :" + heard(in, "PING").substring("PING ".length()));
            assertThat(gear.answer(order)).isEqualTo("sent");
        }
    }

    @Test
    void anAccountThatIsNotTakenIsTold() throws IOException {
        try (GearUnderTest gear = gear(Irc.SASL); Socket s = server.accept()) {
            say(s, ":x CAP * ACK :sasl");
            say(s, ":x 904 booth :no");
            soon(() -> gear.status().phase() == Phase.OFF);
            assertThat(gear.status().words()).isEqualTo("connected, but the login was refused");
        }
    }

    @Test
    void aLongTextIsTakenApartBetweenItsWords() {
        IrcLine line = new IrcLine("", "PRIVMSG", List.of("#x", "one two three four"));
        assertThat(line.split(25)).extracting(l -> l.param(1)).containsExactly("one two three", "four");
        assertThat(new IrcLine("", "PRIVMSG", List.of("#x", "x".repeat(40))).split(25)).isEmpty();
    }
}
