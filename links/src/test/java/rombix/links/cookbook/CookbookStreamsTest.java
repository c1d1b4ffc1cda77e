package rombix.links.cookbook;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.links.link.GearUnderTest.soon;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import rombix.core.card.Card;
import rombix.core.store.BadFile;
import rombix.core.store.CardLibrary;
import rombix.core.value.Value;
import rombix.links.cookbook.Peer.Saying;
import rombix.links.line.Line;
import rombix.links.link.GearUnderTest;
import rombix.links.link.StandInGear;
import rombix.standins.DemoLogin;

/** The cards of the cookbook that speak over a stream, each with a small gear of its kind. */
@Timeout(300)
class CookbookStreamsTest {
    static Card card(String name) throws IOException, BadFile {
        Path file = Path.of("../docs/cookbook/" + name + ".json");
        return CardLibrary.read(file, Files.readString(file));
    }

    private static GearUnderTest gear(String name, Peer peer) throws IOException, BadFile {
        return StandInGear.of(new Line(), card(name), peer.address(), link -> link.withUser("booth").withSecret(
                DemoLogin.SECRET)).ready();
    }

    private static byte[] hex(String digits) {
        return HexFormat.of().parseHex(digits.replace(" ", ""));
    }

    private static byte[] text(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    /** Asks for who is there with prompts, and answers each line with a prompt behind it. */
    private static final class Matrix implements Peer.Talk {
        private final Map<String, String> routes;
        private int step;

        Matrix(Map<String, String> routes) {
            this.routes = routes;
        }

        @Override
        public List<byte[]> hello() {
            return List.of(text("MATRIX 8x2\r\n"), text("login: "));
        }

        @Override
        public byte[] read(InputStream in) throws IOException {
            return Peer.until(in, '\n');
        }

        @Override
        public List<byte[]> answers(byte[] message) {
            String line = new String(message, StandardCharsets.UTF_8).strip();
            if (step < 2) {
                step++;
                return List.of(text(step == 1 ? "password: " : "> "));
            }
            String[] words = line.split(" ");
            if (words[0].equals("ROUTE") && Integer.parseInt(words[1]) > 6) {
                return List.of(text("ERR 1\r\n"), text("> "));
            }
            if (words[0].equals("ROUTE")) {
                routes.put(words[2], words[1]);
            }
            String out = words[words.length - 1];
            return List.of(text("OUT " + out + " IN " + routes.get(out) + "\r\n"), text("> "));
        }
    }

    @ParameterizedTest
    @EnumSource(Saying.class)
    void aTextMatrixWithAPrompt(Saying saying) throws Exception {
        Map<String, String> routes = new ConcurrentHashMap<>(Map.of("1", "3", "2", "4"));
        try (Peer peer = new Peer(saying, () -> new Matrix(routes)); GearUnderTest gear = gear("matrix", peer)) {
            soon(() -> Value.of(3).equals(gear.now("source/1")) && Value.of(4).equals(gear.now("source/2")));
            assertThat(gear.done("route", "output", "1", "input", 5)).isEqualTo("sent");
            soon(() -> Value.of(5).equals(gear.now("source/1")));
            assertThat(gear.done("route", "output", "2", "input", 7)).isEqualTo(
                    "Gear: refused: there is no such input");
            peer.tell(text("KEY 4\r\n"));
            soon(() -> Value.of(4).equals(gear.now("pressed")));
            peer.hangUp();
            soon(() -> gear.done("route", "output", "2", "input", 2).equals("sent"));
        }
    }

    /** Says that it has understood, and later that it is there. */
    private static final class Head implements Peer.Talk {
        private final StringBuffer position;

        Head(StringBuffer position) {
            this.position = position;
        }

        @Override
        public byte[] read(InputStream in) throws IOException {
            return Peer.until(in, 0xFF);
        }

        @Override
        public List<byte[]> answers(byte[] message) {
            String said = HexFormat.of().formatHex(message);
            if (said.startsWith("a102")) {
                String to = said.substring(4, 20);
                if (to.equals(position.toString())) {
                    return List.of(hex("b162ff"));
                }
                position.replace(0, 16, to);
                return List.of(hex("b141ff"), hex("b151ff"));
            }
            return List.of(said.equals("a109ff") ? hex("b150" + position + "ff") : hex("b141ff"));
        }
    }

    @ParameterizedTest
    @EnumSource(Saying.class)
    void aPanTiltHeadWithTwoStageAnswers(Saying saying) throws Exception {
        StringBuffer position = new StringBuffer("03050204" + "00090600");
        try (Peer peer = new Peer(saying, () -> new Head(position)); GearUnderTest gear = gear("pan-tilt", peer)) {
            soon(() -> Value.of(0).equals(rounded(gear.now("pan"))) && Value.of(0).equals(rounded(gear.now("tilt"))));
            assertThat(gear.done("aim", "pan", 170, "tilt", 90)).isEqualTo("sent");
            assertThat(position.toString()).isEqualTo("060a0400" + "02050800");
            assertThat(gear.done("aim", "pan", 170, "tilt", 90)).isEqualTo("Gear: refused: it is moving already");
            assertThat(gear.done("halt")).isEqualTo("sent");
            soon(() -> Value.of(170).equals(rounded(gear.now("pan"))));
        }
    }

    private static Value rounded(Value v) {
        return v == null ? null : Value.of(Math.rint(v.asNumber() / 2) * 2 + 0.0);
    }

    /** Telegrams with their length and a CRC. */
    private static final class Relays implements Peer.Talk {
        private final Map<String, String> states;

        Relays(Map<String, String> states) {
            this.states = states;
        }

        @Override
        public byte[] read(InputStream in) throws IOException {
            byte[] head = in.readNBytes(2);
            if (head.length < 2) {
                return null;
            }
            byte[] rest = in.readNBytes(head[1] + 2);
            return hex(HexFormat.of().formatHex(head) + HexFormat.of().formatHex(rest));
        }

        /** CRC-16 with the polynomial x^16 + x^12 + x^5 + 1, begun with ones. */
        static byte[] checked(String digits) {
            byte[] bytes = hex(digits);
            int crc = 0xFFFF;
            for (byte b : bytes) {
                for (int bit = 7; bit >= 0; bit--) {
                    boolean high = (crc >> 15 & 1) != (b >> bit & 1);
                    crc = (crc << 1 ^ (high ? 0x1021 : 0)) & 0xFFFF;
                }
            }
            return hex(digits + "%04x".formatted(crc));
        }

        @Override
        public List<byte[]> answers(byte[] message) {
            String said = HexFormat.of().formatHex(message);
            String body = said.substring(0, said.length() - 4);
            if (!HexFormat.of().formatHex(checked(body)).equals(said)) {
                return List.of(checked("5502e101"));
            }
            String relay = body.substring(6, 8);
            if (!states.containsKey(relay)) {
                return List.of(checked("5502e102"));
            }
            if (body.startsWith("550301")) {
                states.put(relay, body.substring(8, 10));
                return List.of(checked("550381" + relay + states.get(relay)), checked("550383" + relay + states.get(
                        relay)));
            }
            return List.of(checked("550382" + relay + states.get(relay)));
        }
    }

    @ParameterizedTest
    @EnumSource(Saying.class)
    void aRelayBoardWithACrc(Saying saying) throws Exception {
        Map<String, String> states = new ConcurrentHashMap<>(Map.of("00", "01"));
        try (Peer peer = new Peer(saying, () -> new Relays(states)); GearUnderTest gear = gear("relay-board", peer)) {
            soon(() -> Value.of(true).equals(gear.now("on/fan")));
            assertThat(gear.done("switch", "relay", "fan", "on", false)).isEqualTo("sent");
            soon(() -> Value.of(false).equals(gear.now("on/fan")));
            assertThat(states).containsEntry("00", "00");
            assertThat(gear.done("switch", "relay", "urn", "on", true)).isEqualTo(
                    "Gear: refused: there is no such relay");
        }
    }
}
