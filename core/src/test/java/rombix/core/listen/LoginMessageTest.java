package rombix.core.listen;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import rombix.core.card.Card;
import rombix.core.card.Packet;
import rombix.core.card.Protocol;
import rombix.core.card.value.Computed.Form;
import rombix.core.card.value.Computed.Way;
import rombix.core.listen.LoginMessage.Calculation;
import rombix.core.listen.LoginMessage.Kept;
import rombix.core.store.CardLibrary;

/** Logins are typed message by message; what they become is what a card says by hand. */
class LoginMessageTest {
    private static List<Packet> greeting(String card, String protocol) throws Exception {
        Path file = Path.of("../docs/cookbook/" + card + ".json");
        Card read = CardLibrary.read(file, Files.readString(file));
        return read.greeting().get(Protocol.of(protocol));
    }

    @Test
    void aSaltedLoginWithAChallengeIsTypedWithoutJson() throws Exception {
        LoginMessage hello = LoginMessage.waiting().withAccepted("/hello = switcher")
                .withKept(List.of(new Kept("/salt", "salt"), new Kept("/challenge", "challenge")));
        LoginMessage proof = LoginMessage.waiting().withTo("text").withText("{\"login\": \"{proof}\"}")
                .withComputed(List.of(new Calculation("salted", Way.SHA_256, "{gear.secret}{gear.salt}", "",
                        Form.BASE64),
                        new Calculation("proof", Way.SHA_256, "{salted}{gear.challenge}", "",
                                Form.BASE64)))
                .withAccepted("/welcome = true").withRefused("/welcome = false").withReason("/why");
        assertThat(List.of(hello.packet(), proof.packet())).isEqualTo(greeting("switcher", "websocket"));
    }

    @Test
    void whatACardSaysIsShownAsItWouldBeTyped() throws Exception {
        List<Optional<LoginMessage>> shown = greeting("switcher", "websocket").stream().map(LoginMessage::of).toList();
        assertThat(shown).allMatch(Optional::isPresent);
        assertThat(shown.get(1).orElseThrow().computed()).extracting(Calculation::over).containsExactly(
                "{gear.secret}{gear.salt}", "{salted}{gear.challenge}");
        assertThat(shown.get(1).orElseThrow().refused()).isEqualTo("/welcome = false");
    }

    @Test
    void aLineLoginKeepsTheWordBehindItsName() {
        LoginMessage asked = LoginMessage.waiting().withAccepted("SALT").withKept(List.of(new Kept("SALT ", "salt")));
        assertThat(asked.packet().reply()).satisfies(r -> {
            assertThat(r.is().pattern()).hasToString("^SALT");
            assertThat(r.keep().get("salt").pattern()).hasToString("^SALT (.+)");
        });
        assertThat(LoginMessage.of(asked.packet())).contains(asked);
        LoginMessage said = new LoginMessage("line", "PASS {gear.secret}", List.of(), "OK (1.0)", "NO", "NO ",
                List.of(), true);
        assertThat(LoginMessage.of(said.packet())).contains(said);
    }

    @Test
    void aMessageThatIsOnlySentIsNotWaitedFor() {
        LoginMessage subscribe = new LoginMessage("/subscribe", "", List.of(), "", "", "", List.of(), false);
        assertThat(subscribe.packet().reply()).isNull();
        assertThat(LoginMessage.of(subscribe.packet())).contains(subscribe);
    }

    @Test
    void anAnswerMayHaveToFulfilSeveralConditions() {
        LoginMessage asks = LoginMessage.waiting().withTo("text").withText("{\"ask\":\"all\"}").withAccepted(
                "/id = {gear.request}, /ok = true");
        assertThat(asks.packet().reply().is().where()).containsOnlyKeys("/id", "/ok");
        assertThat(LoginMessage.of(asks.packet())).contains(asks);
    }

    @Test
    void whatIsMissingIsSaid() {
        assertThatThrownBy(LoginMessage.waiting().withAccepted("/welcome")::packet).hasMessage(
                "“/welcome” needs a value, such as /welcome = true.");
        assertThatThrownBy(LoginMessage.waiting().withKept(List.of(new Kept("/salt", " ")))::packet).hasMessage(
                "Name each part that is kept.");
    }
}
