package rombix.app.view.card;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.util.List;
import java.util.Map;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.MenuButton;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import rombix.app.view.window.AtTheWindow;
import rombix.core.board.Board;
import rombix.core.card.Card;
import rombix.core.card.Protocol;
import rombix.core.chain.GearStep;
import rombix.core.edit.GearEdits;
import rombix.core.event.Mode;
import rombix.core.listen.HeardValue;
import rombix.core.store.BoardFile;
import rombix.core.store.CardRows;
import rombix.core.value.Value;
import rombix.standins.DemoLogin;
import rombix.standins.RelayBox;
import rombix.wire.osc.OscCodec;
import rombix.wire.osc.OscPacket;

/** Gear that no card describes is brought in by hand, in the window, offscreen; what a person does is counted. */
class CardSheetTest extends AtTheWindow {
    private static final int MOST_ACTIONS = 30;
    private int actions;

    private void push(String id) {
        actions++;
        robot.interact(() -> {
            switch (find(id)) {
                case Button b -> b.fire();
                case ToggleButton t -> t.fire();
                case null, default -> throw new AssertionError("no button " + id);
            }
        });
    }

    private void typed(String id, String text) {
        actions += 2; // A click, and the typing.
        type(id, text);
    }

    private void typing(String id, String text) {
        actions += 2;
        robot.interact(() -> ((TextField) find(id)).setText(text));
    }

    private void chosen(String id, String words) {
        actions += 2;
        choose(id, words);
    }

    private List<HeardValue> voices() {
        return rowsOf("#voices");
    }

    private void select(String where) {
        soon(() -> voices().stream().anyMatch(v -> v.where().equals(where)));
        actions++;
        robot.interact(() -> {
            @SuppressWarnings("unchecked")
            TableView<HeardValue> table = (TableView<HeardValue>) find("#voices");
            table.getItems().stream().filter(v -> v.where().equals(where)).findFirst().ifPresent(table
                    .getSelectionModel()::select);
        });
    }

    private void add() {
        actions++;
        key(KeyCode.B, KeyCode.ALT);
    }

    private Card card(String gear) {
        return bench().rig().twin(gear).orElseThrow().card();
    }

    private static void send(DatagramSocket from, int to, String address, Object... args) throws Exception {
        ByteBuffer bytes = ByteBuffer.allocate(1500);
        OscCodec.encode(new OscPacket.Message(address, List.of(args)), bytes);
        from.send(new DatagramPacket(bytes.array(), bytes.position(), new InetSocketAddress(InetAddress
                .getLoopbackAddress(), to)));
    }

    private static String received(DatagramSocket at) throws Exception {
        DatagramPacket in = new DatagramPacket(new byte[1500], 1500);
        at.receive(in);
        OscPacket.Message message = (OscPacket.Message) OscCodec
                .decode(ByteBuffer.wrap(in.getData(), 0, in.getLength()));
        return message.address() + " " + message.args();
    }

    @Test
    void aProgramOverOscIsOnAButtonByListeningToIt() throws Exception {
        Board before = bench().board();
        try (DatagramSocket program = new DatagramSocket(0, InetAddress.getLoopbackAddress());
                DatagramSocket free = new DatagramSocket(
                        0)) {
            program.setSoTimeout(10_000);
            int port = free.getLocalPort();
            free.close();
            add();
            typed("#gear-address-new-gear", "127.0.0.1:" + program.getLocalPort());
            typed("#card-receive", String.valueOf(port));
            soon(() -> session.window().model().state().status("new-gear").sends());
            soon(() -> { // Its port is opened anew as it is typed.
                send(program, port, "/strip/3/mute", 0);
                send(program, port, "/strip/3/mute", 1);
                return voices().stream().anyMatch(HeardValue::changes);
            });
            select("/strip/3/mute");
            typing("#heard-name", "Guest");
            push("#heard-make");
            soon(() -> card("new-gear").command("mute-guest").isPresent());
            send(program, port, "/strip/3/fader", 0.25f);
            send(program, port, "/strip/3/fader", 0.5f);
            select("/strip/3/fader");
            push("#heard-make");
            push("#card-close");
            chain("gate", new GearStep.Do("new-gear", "mute-guest", Map.of()));
            actions += 4; // Choose the button, type the step, take it, go to Live.
            mode(Mode.LIVE);
            click(tile("gate"));
            assertThat(received(program)).isEqualTo("/strip/3/mute [1]");
            send(program, port, "/strip/3/mute", 1);
            soon(() -> Value.of(true).equals(session.window().model().state().readings("new-gear").apply("guest")));
            assertThat(actions).as("what a person had to do").isLessThan(MOST_ACTIONS);
        }
        mode(Mode.BUILD);
        robot.interact(() -> session.window().files().save());
        soon(() -> Files.exists(folder.resolve("cards/new-gear.json")) && !bench().unsaved());
        assertThat(BoardFile.read(file).twin("new-gear").orElseThrow().card()).isEqualTo(card("new-gear"));
        undoAll();
        assertThat(bench().board()).isEqualTo(before);
    }

    /** What was written by hand in JSON before: an array of objects, a colour in parts, and a fader's law. */
    @Test
    void aListOfLampsAColourAndAFaderInDecibelsAreMadeByListening() throws Exception {
        try (DatagramSocket program = new DatagramSocket(0, InetAddress.getLoopbackAddress());
                DatagramSocket free = new DatagramSocket(0)) {
            int port = free.getLocalPort();
            free.close();
            add();
            typed("#gear-address-new-gear", "127.0.0.1:" + program.getLocalPort());
            typed("#card-receive", String.valueOf(port));
            soon(() -> session.window().model().state().status("new-gear").sends());
            String lamps = "{\"lamps\": [{\"id\": \"desk\", \"name\": \"Desk\", \"level\": %d}, {\"id\": \"dome\", \"level\": 254}]}";
            soon(() -> { // Its port is opened anew as it is typed.
                send(program, port, "/home", lamps.formatted(1));
                send(program, port, "/home", lamps.formatted(127));
                return voices().stream().anyMatch(HeardValue::changes);
            });
            select("/home /lamps each /level");
            typing("#heard-name", "Level");
            typing("#heard-wire-high", "254");
            push("#heard-make");
            soon(() -> card("new-gear").readings().size() == 2);
            send(program, port, "/home", lamps.formatted(127));
            soon(() -> Value.of(50).equals(now("level/desk")) && Value.of(100).equals(now("level/dome")));

            send(program, port, "/bulb", "{\"colour\": {\"r\": 255, \"g\": 128, \"b\": 0}}");
            select("/bulb /colour");
            typing("#heard-name", "Bulb");
            push("#heard-make");
            soon(() -> card("new-gear").readings().size() == 3);
            send(program, port, "/bulb", "{\"colour\": {\"r\": 0, \"g\": 128, \"b\": 255}}");
            soon(() -> Value.of("#0080FF").equals(now("bulb")));

            send(program, port, "/fader", 0.25f);
            send(program, port, "/fader", 0.5f);
            send(program, port, "/fader", 0.75f);
            select("/fader");
            soon(() -> ((TextField) find("#heard-name")).getText().equals("Fader"));
            typing("#heard-shown", "0");
            push("#heard-point");
            typing("#heard-points",
                    "-90 = 0, -10 = 0.5, " + ((TextField) find("#heard-points")).getText() + ", 10 = 1");
            typing("#heard-unit", "dB");
            push("#heard-make");
            soon(() -> card("new-gear").readings().size() == 4);
            send(program, port, "/fader", 0.5f);
            soon(() -> Value.of(-10).equals(now("fader")));
            send(program, port, "/fader", 0.625f);
            soon(() -> Value.of(-5).equals(now("fader")));
        }
    }

    private Value now(String reading) {
        return session.window().model().state().readings("new-gear").apply(reading);
    }

    @Test
    void aPlugThatSpeaksJsonOverABrokerIsReadAndTold() {
        add();
        chosen("#card-protocol", "MQTT");
        typed("#gear-address-new-gear", "127.0.0.1:" + gear.house().port());
        select("house/plug /state");
        typing("#heard-name", "Kettle");
        typing("#heard-told-at", "house/plug/set");
        push("#heard-make");
        soon(() -> Value.of(false).equals(session.window().model().state().readings("new-gear").apply("kettle")));
        push("#card-the-card");
        robot.interact(() -> {
            TableView<?> rows = (TableView<?>) find("#card-rows");
            rows.getSelectionModel().select(1);
        });
        push("#row-try");
        soon(() -> gear.house().state("house/plug").orElse("").contains("ON"));
        soon(() -> Value.of(true).equals(session.window().model().state().readings("new-gear").apply("kettle")));
        assertThat(actions).as("what a person had to do").isLessThan(MOST_ACTIONS);
    }

    @Test
    void aTextLineIsTriedAndMadeACommand() throws Exception {
        try (RelayBox box = new RelayBox(null, 0)) {
            add();
            typed("#card-name", "Fog box");
            chosen("#card-protocol", "text line");
            actions += 2;
            robot.interact(() -> {
                @SuppressWarnings("unchecked")
                ComboBox<String> at = (ComboBox<String>) find("#gear-address-new-gear");
                at.setValue(box.address());
            });
            soon(() -> session.window().model().state().status("new-gear").sends());
            push("#card-try");
            typing("#try-text", "SET 2 ON");
            push("#try-send");
            soon(() -> box.on(2));
            typing("#try-name", "Switch on");
            robot.interact(((CheckBox) find("#try-place-1"))::fire);
            push("#try-make");
            soon(() -> card("new-gear").command("switch-on").isPresent());
            assertThat(card("new-gear").title()).isEqualTo("Fog box");
            session.deck().tell("new-gear", "switch-on", Map.of("a", Value.of(3)));
            soon(() -> box.on(3));
            assertThat(actions).as("what a person had to do").isLessThan(MOST_ACTIONS);
        }
    }

    private void says(String id, String text) {
        actions += 2;
        robot.interact(() -> {
            switch (find(id)) {
                case ComboBox<?> b -> b.getEditor().setText(text);
                case TextField t -> t.setText(text);
                case null, default -> throw new AssertionError("no field " + id);
            }
        });
    }

    private void inserted(String menu, String item) {
        actions += 2;
        robot.interact(() -> {
            MenuButton insert = (MenuButton) find(menu);
            insert.show();
            insert.getItems().stream().filter(i -> i.getText().equals(item)).findFirst().orElseThrow().fire();
            insert.hide();
        });
    }

    @Test
    void aLoginWithAChallengeIsMadeWithoutWritingJson() {
        int music = gear.music().port();
        add();
        chosen("#card-protocol", "WebSocket");
        typed("#gear-address-new-gear", "127.0.0.1:" + music);
        robot.interact(() -> bench().edit("log in", b -> GearEdits.change(b, "new-gear", g -> g.withLink(g.link()
                .withSetting("path", Value.of("/player")).withSecret(DemoLogin.SECRET)))));
        soon(() -> voices().stream().anyMatch(v -> v.where().equals("text /challenge")));
        push("#card-login");
        push("#login-add");
        says("#login-accepted", "/hello = music");
        push("#login-keep");
        assertThat(((ComboBox<?>) find("#login-keep-0")).getItems().stream().map(Object::toString)).as(
                "what was heard is there to choose").contains("/challenge");
        says("#login-keep-0", "/challenge");
        assertThat(label("#login-trouble")).isEqualTo("Name each part that is kept.");
        says("#login-keep-name-0", "challenge");
        assertThat(label("#login-trouble")).isEmpty();
        push("#login-add");
        says("#login-to", "text");
        push("#login-compute");
        chosen("#login-way-0", "HMAC-SHA-256");
        inserted("#login-over-insert-0", "challenge");
        chosen("#login-form-0", "Base64");
        says("#login-text", "{\"proof\": \"\"}");
        robot.interact(() -> ((TextField) find("#login-text")).positionCaret(11));
        inserted("#login-text-insert", "proof (computed)");
        says("#login-accepted", "/welcome = true");
        says("#login-refused", "/welcome = false");
        says("#login-reason", "/why");
        push("#login-apply");
        push("#card-listen");
        select("text /welcome");
        soon(() -> session.window().model().state().status("new-gear").well());
        Protocol websocket = Protocol.of("websocket");
        assertThat(card("new-gear").greeting().get(websocket)).as("as the card that ships says it").isEqualTo(card(
                "music").greeting().get(websocket).subList(0, 2));
        robot.interact(() -> bench().undo());
        assertThat(card("new-gear").greeting()).isEmpty();
    }

    @Test
    void aCardThatIsChangedWhileInUseKeepsTheStepsThatFitAndListsThoseThatDoNot() {
        robot.interact(() -> session.window().cardSheet().open(stage.getScene().getRoot(), "house"));
        push("#card-the-card");
        robot.interact(() -> {
            @SuppressWarnings("unchecked")
            TableView<CardRows.Row> rows = (TableView<CardRows.Row>) find(
                    "#card-rows");
            rows.getSelectionModel().select(rows.getItems().stream().filter(r -> r.id().equals("unlock")).findFirst()
                    .orElseThrow());
        });
        Board before = bench().board();
        push("#row-gone");
        assertThat(bench().board()).as("it is said first what uses it").isEqualTo(before);
        assertThat(label("#row-check")).contains("“Gate”");
        assertThat(label("#row-gone")).startsWith("Delete it");
        robot.interact(() -> ((TableView<?>) find("#card-rows")).getSelectionModel().selectNext());
        assertThat(label("#row-gone")).as("another row is asked for anew").isEqualTo("Delete…");
        robot.interact(() -> ((TableView<?>) find("#card-rows")).getSelectionModel().selectPrevious());
        push("#row-gone");
        push("#row-gone");
        assertThat(card("house").command("unlock")).isEmpty();
        assertThat(card("house").command("lock")).isPresent();
        assertThat(card("house").id()).as("the card that ships stays as it is").isNotEqualTo("house");
        robot.interact(() -> bench().undo());
        assertThat(bench().board()).isEqualTo(before);
        assertThat(card("house").command("unlock")).isPresent();
    }

    @Test
    void aGearIsDescribedByAnotherCardAndWhatDoesNotFitIsSaidFirst() {
        robot.interact(() -> session.window().cardSheet().open(stage.getScene().getRoot(), "house"));
        Board before = bench().board();
        chosen("#card-other", "House, JSON");
        assertThat(bench().board()).isEqualTo(before);
        assertThat(find("#confirm-yes")).as("what goes is said first").isNotNull();
        push("#confirm-yes");
        assertThat(bench().board().gear("house").orElseThrow().card()).isEqualTo("house-json");
        assertThat(find("#card-sheet")).isNotNull();
        robot.interact(() -> bench().undo());
        assertThat(bench().board()).isEqualTo(before);
    }
}
