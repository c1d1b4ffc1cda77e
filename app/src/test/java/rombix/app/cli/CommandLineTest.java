package rombix.app.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.PrintWriter;
import java.io.StringWriter;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import rombix.app.cli.option.Arrivals;
import rombix.core.event.Happening;
import rombix.core.value.Value;
import rombix.standins.Studio;
import rombix.wire.osc.OscCodec;
import rombix.wire.osc.OscPacket;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

@Timeout(300)
class CommandLineTest {
    private static final String DEMO = "../demo/star-night.json";

    private record Result(int code, String out, String err) {
    }

    private static Result run(String... args) {
        StringWriter out = new StringWriter();
        StringWriter err = new StringWriter();
        int code = RombixCommand.line(args)
                .setOut(new PrintWriter(out)).setErr(new PrintWriter(err)).execute(args);
        return new Result(code, out.toString(), err.toString());
    }

    @Test
    void aPressRunsTheWholeChainOnTheStandIns() {
        Result r = run("press", DEMO, "doors-open", "--stand-ins", "--json");
        assertThat(r.code()).as(r.out() + r.err()).isZero();
        List<JsonNode> lines = r.out().lines().map(l -> new JsonMapper().readTree(l)).toList();
        assertThat(lines).hasSize(10);
        assertThat(lines).extracting(l -> l.get("gear").asString()).contains("studio", "desk", "lamps", "house");
        assertThat(lines).allSatisfy(l -> {
            assertThat(l.get("outcome").asString()).isEqualTo("sent");
            assertThat(l.propertyNames()).contains("due", "at", "lateMicros", "button", "step", "title", "gear",
                    "command", "args",
                    "outcome", "message");
        });
        double first = lines.getFirst().get("due").asDouble();
        assertThat(lines.getLast().get("due").asDouble() - first).isEqualTo(2000, org.assertj.core.data.Offset.offset(
                0.01));
    }

    @Test
    void anAddressCanBeOverriddenAndWhatIsRunIsLogged(@TempDir Path folder) throws Exception {
        Path board = Files.copy(Path.of(DEMO), folder.resolve("b.json"));
        try (DatagramSocket gear = new DatagramSocket(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0))) {
            Result r = run("press", board.toString(), "waiting-card", "--at",
                    "studio=127.0.0.1:" + gear.getLocalPort());
            assertThat(r.code()).as(r.out() + r.err()).isZero();
            assertThat(r.out()).contains("sent", "studio", "Scene");
            gear.setSoTimeout(5000);
            List<OscPacket> came = new ArrayList<>();
            while (came.stream().noneMatch(p -> p instanceof OscPacket.Message m
                    && m.address().equals("/studio/set/scene"))) {
                DatagramPacket in = new DatagramPacket(new byte[500], 500);
                gear.receive(in);
                came.add(OscCodec.decode(ByteBuffer.wrap(in.getData(), 0, in.getLength())));
            }
            assertThat(came).contains(new OscPacket.Message("/studio/set/scene", "waiting-card"));
            assertThat(run("log", board.toString()).out()).contains("command line", "Scene waiting-card");
        }
    }

    @Test
    void whatAChainSaysIsALineOfItsOwn() {
        Result r = run("press", DEMO, "dark-sky", "--stand-ins", "--json");
        assertThat(r.out().lines().map(l -> new JsonMapper().readTree(l)).filter(l -> l.get("outcome").asString()
                .equals("said")).map(l -> l.get("message").asString())).containsExactly(
                        "Dark sky: lamps are down, mind the steps.");
    }

    @Test
    void stepsOfAChainThatAnotherUsesHaveTitles() {
        assertThat(run("forecast", DEMO, "dark-sky").out())
                .contains("Use “Dim the desk”", "Desk Key to = {level} in")
                .doesNotContain(" > ");
    }

    /** A press told a secret of this computer to the host of a board that nobody trusted, without a word. */
    @Test
    void aBoardThatIsNotTrustedTellsASecretOnlyWhereThatIsAllowed(@TempDir Path folder) throws Exception {
        Path board = Files.writeString(folder.resolve("strange.json"),
                """
                        {"rombix": 1, "name": "B", "gear": [{"id": "it", "name": "It", "card": "camera-head", "link": {"protocol": "http",
                          "address": "127.0.0.1:9", "user": "booth", "secret": "larkmoor-stand-ins"}}],
                         "pages": [{"id": "p", "name": "P", "buttons": [{"id": "b", "name": "B", "column": 0, "row": 0, "states": [
                           {"id": "s", "name": "S", "on": {"press": [{"step": "do", "gear": "it", "command": "track"}]}}]}]}]}""");
        for (String[] args : new String[][]{{"press", board.toString(), "b"}, {"why", board.toString(), "it"}, {
                "traffic", board.toString(), "--gear", "it", "--for", "10ms"},
                {"forecast", board.toString(), "b",
                        "--live"},
                {"opposite", board.toString(), "b", "--live"}}) {
            Result refused = run(args);
            assertBad(refused, "Add --allow-secret larkmoor-stand-ins");
            assertThat(refused.err()).contains("It at 127.0.0.1:9");
        }
        assertThat(run("why", board.toString(), "it", "--allow-secret", "larkmoor-stand-ins").out()).contains(
                "nothing is listening on port 9");
    }

    @Test
    void aFailedStepEndsWithOne() {
        Result r = run("press", DEMO, "next-cue", "--stand-ins", "--at", "cues=127.0.0.1:9", "--times", "2");
        assertThat(r.code()).isEqualTo(1);
        assertThat(r.out().lines()).hasSize(2).allSatisfy(l -> assertThat(l).contains("fault", "no response from"));
    }

    @Test
    void aBadCallOrFileEndsWithTwoAndOneLine(@TempDir Path folder) throws Exception {
        Path bad = folder.resolve("bad.json");
        Files.writeString(bad, "{\"rombix\": 1,\n \"pages\": [{]}");
        assertBad(run("press", bad.toString(), "x"), "bad.json:2:");
        assertBad(run("press", "no-such-file.json", "x"), "there is no such file");
        assertBad(run("press", DEMO, "no-such-button"), "no button “no-such-button”");
        assertBad(run("press", DEMO, "door-open"), "the nearest are doors-open");
        assertBad(run("picture", DEMO, "live", "/no/such/folder/x.png"), "there is no folder /no/such/folder");
        assertBad(run("picture", DEMO, "live", "x.png", "--size", "9000x9000"), "--size goes up to 4096x4096");
        assertBad(run("press", DEMO, "gate", "--at", "moon=1.2.3.4:5"), "no such gear");
        assertBad(run("press", DEMO, "gate", "--times", "0"), "from 1");
        assertBad(run("picture", DEMO, "nowhere", "x.png"), "no view “nowhere”");
        assertBad(run("release", DEMO, "gate"), "No Rombix has ../demo/star-night.json open. Open it first");
        assertBad(run("press", "--hold", DEMO, "gate"), "the hold would end with this command.");
        assertBad(run("picture", DEMO, "build", "x.png", "--size", "big"), "--size takes");
        assertThat(run("press", DEMO, "gate", "--gesture", "wave").code()).isEqualTo(2);
    }

    private static void assertBad(Result r, String message) {
        assertThat(r.code()).isEqualTo(2);
        assertThat(r.err()).contains(message).doesNotContain("\tat ");
        assertThat(r.err().lines()).hasSize(1);
    }

    @Test
    void helpAndVersionAreEverywhere() {
        assertThat(run("--version").out()).startsWith("Rombix ");
        for (String command : List.of("demo", "open", "press", "release", "turn", "status", "stop", "stand-ins",
                "picture")) {
            assertThat(run(command, "--help").out()).startsWith("Usage: rombix " + command);
            assertThat(run(command, "--help").code()).isZero();
        }
    }

    @Test
    void aForecastSaysWhatAPressWillDoAndSendsNothing() {
        Result r = run("forecast", DEMO, "clouded-out", "--json", "--runs", "300", "--seed", "3");
        assertThat(r.code()).as(r.err()).isZero();
        JsonNode f = new JsonMapper().readTree(r.out());
        assertThat(f.get("runs").asInt()).isEqualTo(300);
        assertThat(f.get("length").get("most").asDouble()).isEqualTo(2100);
        assertThat(f.get("odds")).hasSize(2);
        assertThat(f.get("readings").toString()).contains("clouded-out", "muted/dome");
        assertThat(run("forecast", DEMO, "clouded-out", "--json", "--runs", "300", "--seed", "3").out()).isEqualTo(r
                .out());
        assertThat(run("forecast", DEMO, "clouded-out").out()).contains("Takes 2.1", "Readings", "Odds", "Thunder");
        assertThat(run("forecast", DEMO, "nobody").code()).isEqualTo(2);
    }

    @Test
    void theOppositeIsMadeAndWhatIsLeftIsListed() {
        Result r = run("opposite", DEMO, "calm-chat", "--stand-ins");
        assertThat(r.code()).as(r.err()).isZero();
        assertThat(r.out()).contains("Star night as it comes", "Star night for everyone", "Can't be undone", "Notice");
    }

    @Test
    void theCheckTellsAllThatIsWrong(@org.junit.jupiter.api.io.TempDir Path folder) throws Exception {
        assertThat(run("check", DEMO).code()).isZero();
        Path bad = folder.resolve("bad.json");
        java.nio.file.Files.writeString(bad, java.nio.file.Files.readString(Path.of(DEMO))
                .replace("\"chain\": \"dim-desk\"", "\"chain\": \"nowhere\"")
                .replace("\"key\": \"F10\"", "\"key\": \"f9\""));
        Result r = run("check", bad.toString(), "--json");
        assertThat(r.code()).isEqualTo(1);
        assertThat(r.out()).contains("dead-reference", "trigger-twice", "“Dark sky”");
        assertThat(r.out().lines().map(l -> new JsonMapper().readTree(l).get("place").asString())).allMatch(
                place -> place.matches("\\d+:\\d+"));
        assertThat(run("press", bad.toString(), "dark-sky").code()).isEqualTo(2);
        java.nio.file.Files.writeString(bad, "{");
        assertThat(run("check", bad.toString()).code()).isEqualTo(2);
    }

    @Test
    void questionsAreAnsweredOnTheCommandLine() {
        Result r = run("press", DEMO, "next-target-ask", "--stand-ins", "--answer", "Vega");
        assertThat(r.code()).as(r.out() + r.err()).isZero();
        assertThat(r.out()).contains("Next in the scope: Vega");
        Result none = run("press", DEMO, "next-target-ask", "--stand-ins");
        assertThat(none.code()).isEqualTo(1);
        assertThat(none.err()).contains("--answer");
    }

    @Test
    void aPictureMayBeLargerThanTheOffscreenDisplay(@org.junit.jupiter.api.io.TempDir java.nio.file.Path folder)
            throws Exception {
        java.nio.file.Path out = folder.resolve("live.png");
        Result r = run("picture", DEMO, "live", out.toString(), "--size", "1920x1080");
        assertThat(r.err()).isEmpty();
        assertThat(r.code()).isZero();
        java.awt.image.BufferedImage image = javax.imageio.ImageIO.read(out.toFile());
        assertThat(new int[]{image.getWidth(), image.getHeight()}).containsExactly(1920, 1080);
        assertThat(image.getRGB(1900, 1060)).as("it is painted to its corner").isNotZero();
    }

    @Test
    void cardsAreCheckedAndEachFindingSaysWhere(@TempDir Path folder) throws Exception {
        Path good = Files.writeString(folder.resolve("good.json"), "{\"card\": 1, \"id\": \"g\", \"title\": \"G\"}");
        Path bad = Files.writeString(folder.resolve("bad.json"), """
                {"card": 1, "id": "b", "title": "B", "readings": [
                 {"id": "level", "type": "number", "min": 5, "max": 1},
                 {"id": "level", "type": "number"}]}""");
        assertThat(run("cards", "check", good.toString())).satisfies(r -> assertThat(r.code()).isZero());
        assertThat(run("cards", "check", good.toString(), bad.toString())).satisfies(r -> {
            assertThat(r.code()).isEqualTo(1);
            assertThat(r.out().lines()).hasSize(3);
            assertThat(r.out()).contains("bad.json:2:", "isn't below the maximum", "bad.json:3:", "two readings");
        });
    }

    /** “No card "fog-box"; there are …” was all that was said of a card with a flaw, and of one in a file of another name. */
    @Test
    void aFlawInACardIsToldWhereItStands(@TempDir Path folder) throws Exception {
        Path board = folder.resolve("board.json");
        Files.writeString(board, Files.readString(Path.of(DEMO)).replaceFirst("\"card\": \"studio\"",
                "\"card\": \"fog-box\""));
        Files.createDirectories(folder.resolve("cards"));
        Files.writeString(folder.resolve("cards/of-mine.json"),
                "{\"card\": 1, \"id\": \"fog-box\", \"title\": \"Fog\",\n \"readings\": [,]}");
        assertThat(run("check", board.toString()).out()).contains("of-mine.json:2:15", "its card has errors")
                .doesNotContain("no card");
        assertThat(run("press", board.toString(), "dark-sky").err()).contains("of-mine.json:2:15");
    }

    /** The demo's ports were listed among the user's own gear. */
    @Test
    void thePortsOfTheDemoAreNotFound() {
        assertThat(run("discover", "--for", "0s").out().lines()).noneMatch(
                l -> l.contains("Larkmoor") && l.contains("a port of this computer"));
    }

    @Test
    void aCardIsBegunAndShown(@TempDir Path folder) {
        Path card = folder.resolve("cards/fog-box.json");
        assertThat(run("cards", "new", card.toString(), "--title", "Fog box").code()).isZero();
        assertThat(run("cards", "check", card.toString()).code()).isZero();
        assertThat(run("cards", "new", card.toString()).code()).as("it already exists").isEqualTo(2);
        assertThat(run("cards", "show", "relay-box").out()).contains("Relay box, text line", "command",
                "SET {relay} ON");
        assertThat(run("cards", "show", "sound-desk").out()).contains(
                "{\"step\":\"do\",\"gear\":\"GEAR\",\"command\":\"mute\",\"with\":{\"channel\":");
        assertThat(run("cards", "show", "relay-box", "--json").out().lines())
                .allSatisfy(l -> assertThat(new JsonMapper()
                        .readTree(l).get("kind").asString()).isIn("command", "reading"));
        assertThat(run("cards", "show", "nobody").code()).isEqualTo(2);
    }

    @Test
    void namesToWriteInABoardAreListedAndFoundByWords() {
        assertThat(run("names", "keys", "numpad").out()).contains("Keypad", "Numpad Enter").doesNotContain("F5");
        assertThat(run("names", "icons", "microphone", "off").out()).contains("mdi2m-microphone-off");
        assertThat(run("names", "places", "corner").out()).contains("window notes from lower-right at 20 12");
        assertThat(run("names", "icons", "nosuchthing").code()).isEqualTo(1);
        assertThat(run("names", "colours").code()).isEqualTo(2);
    }

    /** Nobody has to have the board open to see why a gear cannot be worked, or what it says. */
    @Test
    void whyAndTrafficConnectTheGearThemselves(@TempDir Path folder) throws Exception {
        try (Studio studio = new Studio(0)) {
            Path board = folder.resolve("board.json");
            Files.writeString(board,
                    """
                            {"rombix": 1, "name": "Alone", "gear": [
                              {"id": "studio", "name": "Studio", "card": "studio", "link": {"protocol": "osc", "address": "127.0.0.1:%d"}},
                              {"id": "gone", "name": "Gone", "card": "house", "link": {"protocol": "mqtt", "address": "127.0.0.1:9"}}],
                             "pages": [{"id": "main", "name": "Main", "columns": 6, "rows": 4}]}
                            """
                            .formatted(studio.port()));
            Result why = run("why", board.toString(), "studio");
            assertThat(why.code()).as(why.out() + why.err()).isZero();
            assertThat(why.out()).contains("The connection works.");
            Result gone = run("why", board.toString(), "gone", "--json");
            assertThat(gone.code()).isEqualTo(1);
            assertThat(gone.out()).contains("nothing is listening on port 9");
            Result traffic = run("traffic", board.toString(), "--gear", "studio", "--for", "1s");
            assertThat(traffic.code()).as(traffic.err()).isZero();
            assertThat(traffic.out()).contains("/studio/scene");
            assertThat(run("why", board.toString(), "nobody").err()).contains("there is no gear “nobody”",
                    "studio, gone");
        }
    }

    /** {@code traffic --follow} alone kept all that happened, for hours. */
    @Test
    void nothingIsKeptOfWhatHappensOnceTheGearIsThere() throws Exception {
        Arrivals arrivals = new Arrivals();
        Happening happens = new Happening.Came("house", "locked/gate", Value.of(true));
        arrivals.accept(happens);
        assertThat(arrivals.kept()).isEqualTo(1);
        arrivals.await(Set.of());
        for (int i = 0; i < 1000; i++) {
            arrivals.accept(happens);
        }
        assertThat(arrivals.kept()).isZero();
    }
}
