package rombix.links.line;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import rombix.core.event.Cause;
import rombix.core.event.Status.Phase;
import rombix.core.store.BadFile;
import rombix.core.store.CardLibrary;
import rombix.core.value.Value;
import rombix.links.link.GearUnderTest;
import rombix.links.link.StandInGear;

/** How a conversation is led: what goes before what, what answers what, and what begins anew. */
@Timeout(300)
class ConversationsTest {
    /** The gear's end of a conversation in lines. */
    private static final class Far implements AutoCloseable {
        private final ServerSocket listening;
        private final GearUnderTest gear;
        private Socket deck = new Socket();
        private BufferedReader in = new BufferedReader(InputStreamReader.nullReader());

        Far(String card) throws IOException, BadFile {
            listening = new ServerSocket(0, 9, InetAddress.getLoopbackAddress());
            gear = StandInGear.of(new Line(), CardLibrary.read(Path.of("far.json"), card), "127.0.0.1:" + listening
                    .getLocalPort(), link -> link.withSetting(Line.ENDING, Value.of("LF")));
            accept();
        }

        void accept() throws IOException {
            deck = listening.accept();
            in = new BufferedReader(new InputStreamReader(deck.getInputStream(), StandardCharsets.UTF_8));
        }

        String heard() throws IOException {
            return String.valueOf(in.readLine());
        }

        void says(String text) throws IOException {
            deck.getOutputStream().write(text.getBytes(StandardCharsets.UTF_8));
        }

        @Override
        public void close() throws IOException {
            gear.close();
            deck.close();
            listening.close();
        }
    }

    private static String card(String rest) {
        return "{\"card\": 3, \"id\": \"far\", \"title\": \"Far\", " + rest.replace('\'', '"') + "}";
    }

    private static final String OK = "'reply': {'is': {'pattern': '^OK$'}, 'error': {'pattern': '^ERR (\\\\d+)'}, 'words': {'7': 'no such input'}}";

    private static String command(String id, String rest) {
        return "{'id': '%s', 'title': '%s', 'send': {'line': [{'to': 'line', 'args': ['%s'], %s}]}".formatted(id, id, id
                .toUpperCase(java.util.Locale.ROOT), OK) + rest + "}";
    }

    @Test
    void whatStopsGoesBeforeAllThatWaits() throws Exception {
        try (Far far = new Far(
                card("'commands': [" + command("left", "") + ", " + command("right", "") + ", " + command(
                        "halt", ", 'urgent': true") + "]"))) {
            far.gear.ready();
            far.gear.send("left");
            assertThat(far.heard()).isEqualTo("LEFT");
            far.gear.send("right");
            far.gear.send("halt");
            far.says("OK\n");
            assertThat(far.heard()).isEqualTo("HALT");
            far.says("OK\n");
            assertThat(far.heard()).isEqualTo("RIGHT");
        }
    }

    /** A head that answers once when it has understood and once when it is there could not be stopped on its way. */
    @Test
    void whatStopsGoesOutWhileAnOrderWaitsForItsLastAnswer() throws Exception {
        try (Far far = new Far(
                card("'commands': [{'id': 'aim', 'title': 'Aim', 'send': {'line': [{'to': 'line', 'args':"
                        + " ['AIM'], 'reply': {'is': {'pattern': '^UNDERSTOOD'}}}, {'to': 'wait', 'reply': {'is': {'pattern':"
                        + " '^THERE'}, 'within': 60000}}]}}, " + command("halt", ", 'urgent': true") + "]"))) {
            far.gear.ready();
            long aim = far.gear.send("aim");
            assertThat(far.heard()).isEqualTo("AIM");
            far.says("UNDERSTOOD\n");
            long halt = far.gear.send("halt");
            assertThat(far.heard()).isEqualTo("HALT");
            far.says("OK\nTHERE\n");
            assertThat(far.gear.answer(halt)).isEqualTo("sent");
            assertThat(far.gear.answer(aim)).isEqualTo("sent");
        }
    }

    @Test
    void aRefusalIsToldInWordsThatTheCardHasForItsNumber() throws Exception {
        try (Far far = new Far(card("'commands': [" + command("left", "") + "]"))) {
            far.gear.ready();
            long order = far.gear.send("left");
            far.heard();
            far.says("ERR 7\n");
            assertThat(far.gear.answer(order)).isEqualTo("Gear: refused: no such input");
        }
    }

    @Test
    void repliesAreFoundByTheirIdsAndNoMoreAreOpenThanTheWindowAllows() throws Exception {
        try (Far far = new Far(
                card("'window': 2, 'commands': [{'id': 'go', 'title': 'Go', 'send': {'line': [{'to': 'line',"
                        + " 'args': ['GO {gear.request}'], 'reply': {'is': {'pattern': '^DONE {gear.request}$'}}}]}}]"))) {
            far.gear.ready();
            long[] orders = {far.gear.send("go"), far.gear.send("go"), far.gear.send("go")};
            String first = far.heard().substring(3);
            String second = far.heard().substring(3);
            far.says("DONE " + second + "\n");
            assertThat(far.gear.answer(orders[1])).isEqualTo("sent");
            String third = far.heard().substring(3);
            assertThat(far.gear.answered(orders[0])).isFalse();
            far.says("DONE " + third + "\nDONE " + first + "\n");
            assertThat(far.gear.answer(orders[0])).isEqualTo("sent");
            assertThat(far.gear.answer(orders[2])).isEqualTo("sent");
        }
    }

    /** The oldest that waited took every refusal. */
    @Test
    void anAnswerBelongsToWhatCausedItThoughAnOlderQuestionWaits() throws Exception {
        try (Far far = new Far(
                card("'commands': [" + command("left", "") + "], 'polls': {'line': [{'every': 60000, 'ask':"
                        + " {'to': 'line', 'args': ['HEAT?'], 'reply': {'within': 60000}}}]}"))) {
            assertThat(far.heard()).isEqualTo("HEAT?");
            long order = far.gear.send("left");
            assertThat(far.heard()).isEqualTo("LEFT");
            far.says("OK\n");
            assertThat(far.gear.answer(order)).isEqualTo("sent");
        }
    }

    @Test
    void aMessageAsksAndAQuestionIsAskedOfEachItemThatIsListed() throws Exception {
        try (Far far = new Far(card("'readings': [{'id': 'input', 'type': 'list', 'arrives': {'line': {'from': 'line',"
                + " 'pattern': '(?:^INPUTS|,)(?<id>\\\\w+)'}}}, {'id': 'name/{input}', 'type': 'text', 'arrives': {'line':"
                + " {'from': 'line', 'pattern': '^NAME {input} (?<value>.*)$'}}}], 'greeting': {'line': [{'each': 'input',"
                + " 'to': 'line', 'args': ['NAME? {input}']}]}, 'polls': {'line': [{'on': {'pattern': '^CHANGED'}, 'ask':"
                + " {'to': 'line', 'args': ['INPUTS?'], 'reply': {'is': {'pattern': '^INPUTS'}}}}]}"))) {
            assertThat(far.heard()).isEqualTo("INPUTS?");
            far.says("INPUTS,a,b\n");
            assertThat(far.heard()).isEqualTo("NAME? a");
            assertThat(far.heard()).isEqualTo("NAME? b");
            far.says("NAME a Camera\nCHANGED\n");
            GearUnderTest.soon(() -> Value.of("Camera").equals(far.gear.now("name/a")));
            assertThat(far.heard()).isEqualTo("INPUTS?");
            far.says("INPUTS,a,b,c\n");
            assertThat(far.heard()).as("only of what is new").isEqualTo("NAME? c");
        }
    }

    @Test
    void whatKeepsAConnectionIsSentThoughNothingAnswersAndNothingShowsIt() throws Exception {
        try (Far far = new Far(
                card("'polls': {'line': [{'every': 50, 'kind': 'keep-alive', 'ask': {'to': 'line', 'args':"
                        + " ['ALIVE'], 'reply': {'within': 60000}}}]}"))) {
            for (int i = 0; i < 12; i++) {
                assertThat(far.heard()).isEqualTo("ALIVE");
            }
            assertThat(far.gear.status().phase()).isEqualTo(Phase.READY);
        }
    }

    private static final String LOGIN = "'greeting': {'line': [{'to': 'line', 'args': ['LOGIN'], 'reply': {'is': {'pattern':"
            + " '^TOKEN (.*)'}, 'keep': {'token': {'pattern': '^TOKEN (.*)'}}}}]}, 'expired': {'line': {'pattern':"
            + " '^WHO ARE YOU'}}, 'commands': [{'id': 'left', 'title': 'Left', 'send': {'line': [{'to': 'line', 'args':"
            + " ['LEFT {gear.token}'], 'reply': {'is': {'pattern': '^OK$'}}}]}}]";

    @Test
    void aLoginThatHasRunOutIsRenewedAndTheOrderSentOnceMore() throws Exception {
        try (Far far = new Far(card(LOGIN))) {
            assertThat(far.heard()).isEqualTo("LOGIN");
            far.says("TOKEN 1\n");
            far.gear.ready();
            long order = far.gear.send("left");
            assertThat(far.heard()).isEqualTo("LEFT 1");
            far.says("WHO ARE YOU\n");
            assertThat(far.heard()).isEqualTo("LOGIN");
            assertThat(far.gear.status().phase()).isEqualTo(Phase.READY);
            far.says("TOKEN 2\n");
            assertThat(far.heard()).isEqualTo("LEFT 2");
            far.says("WHO ARE YOU\n");
            assertThat(far.gear.answer(order)).as("once").isEqualTo("Gear: the login has expired");
        }
    }

    /** A token of one digit was hidden wherever that digit stood by itself: cue 14.1 became 14.(secret). */
    @Test
    void aShortTokenIsNotHiddenInWhatOthersSay() throws Exception {
        try (Far far = new Far(card(LOGIN + ", 'readings': [{'id': 'cue', 'type': 'text', 'arrives': {'line': {'from':"
                + " 'line', 'pattern': '^CUE (.*)$'}}}]"))) {
            far.heard();
            far.says("TOKEN 7\n");
            far.gear.ready();
            far.says("CUE 14.7\n");
            GearUnderTest.soon(() -> Value.of("14.7").equals(far.gear.now("cue")));
        }
        try (Far far = new Far(card(LOGIN + ", 'readings': [{'id': 'said', 'type': 'text', 'arrives': {'line': {'from':"
                + " 'line', 'pattern': '^SAID (.*)$'}}}]"))) {
            far.heard();
            far.says("TOKEN owl-moss-lichen\n");
            far.gear.ready();
            far.says("SAID owl-moss-lichen\n");
            GearUnderTest.soon(() -> Value.of("(secret “token”)").equals(far.gear.now("said")));
        }
    }

    @Test
    void aSessionThatTheGearEndsIsBegunAnewAndTheOrderSentOnceMore() throws Exception {
        try (Far far = new Far(
                card(LOGIN + ", 'polls': {'line': [{'every': 100, 'kind': 'keep-alive', 'ask': {'to': 'line',"
                        + " 'args': ['ALIVE']}}]}"))) {
            assertThat(far.heard()).isEqualTo("LOGIN");
            far.says("TOKEN 1\n");
            for (int i = 0; i < 8; i++) {
                assertThat(far.heard()).isEqualTo("ALIVE");
            }
            long order = far.gear.send("left");
            String next = far.heard();
            while (next.equals("ALIVE")) {
                next = far.heard();
            }
            assertThat(next).isEqualTo("LEFT 1");
            far.deck.close();
            far.accept();
            assertThat(far.heard()).isEqualTo("LOGIN");
            assertThat(far.gear.status().phase()).as("nobody need know").isEqualTo(Phase.READY);
            far.says("TOKEN 2\n");
            assertThat(far.heard()).isEqualTo("LEFT 2");
            far.says("OK\n");
            assertThat(far.gear.answer(order)).isEqualTo("sent");
        }
    }

    @Test
    void gearThatTakesQuestionsAndAnswersNoneHasStoppedAnswering() throws Exception {
        try (Far far = new Far(card("'polls': {'line': [{'every': 50, 'ask': {'to': 'line', 'args': ['HEAT?'], 'reply':"
                + " {'is': {'pattern': '^HEAT'}, 'within': 200}}}]}"))) {
            assertThat(far.heard()).isEqualTo("HEAT?");
            far.says("HEAT 1\n");
            GearUnderTest.soon(() -> far.gear.status().cause() == Cause.STOPPED_ANSWERING);
            far.accept();
            assertThat(far.heard()).as("it has to answer before it is ready").isEqualTo("HEAT?");
            assertThat(far.gear.status().phase()).isEqualTo(Phase.OFF);
            far.says("HEAT 2\n");
            far.gear.ready();
        }
    }

    @Test
    void aPromptWithoutALineEndIsALine() throws Exception {
        try (Far far = new Far(card("'readings': [{'id': 'heat', 'type': 'number', 'arrives': {'line': {'from': 'line',"
                + " 'pattern': '^HEAT (\\\\d+)$'}}}], 'greeting': {'line': [{'to': 'wait', 'reply': {'is': {'pattern':"
                + " '^user: *$'}, 'within': 60000}}, {'to': 'line', 'args': ['booth'], 'reply': {'is': {'pattern': '^welcome'},"
                + " 'within': 60000}}]}"))) {
            far.says("user: ");
            assertThat(far.heard()).isEqualTo("booth");
            far.says("wel");
            far.says("come\n");
            far.gear.ready();
            far.says("HEAT 7\n> ");
            GearUnderTest.soon(() -> Value.of(7).equals(far.gear.now("heat")));
        }
    }
}
