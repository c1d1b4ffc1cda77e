package rombix.links.http;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.links.link.GearUnderTest.soon;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;
import rombix.core.event.Status.Phase;
import rombix.core.value.Value;
import rombix.links.link.GearUnderTest;
import rombix.links.link.StandInGear;
import rombix.standins.CameraHead;

/** HTTP with a digest login, JSON both ways, lists, polls and a stream of events, as the camera head speaks it. */
@Execution(ExecutionMode.CONCURRENT)
class CameraHeadTest {
    private CameraHead head;
    private GearUnderTest gear;

    @BeforeEach
    void open() throws IOException {
        head = new CameraHead(0);
        gear = StandInGear.of(new Http(), "camera-head", "127.0.0.1:" + head.port()).ready();
    }

    @AfterEach
    void close() {
        gear.close();
        head.close();
    }

    @Test
    void presetsAreListedAndRecalled() {
        soon(() -> gear.now("presets") instanceof Value.Choices c && c.choices().get(2).name().equals("Dome door"));
        assertThat(gear.done("preset", "preset", "3")).isEqualTo("sent");
        assertThat(head.preset()).isEqualTo("3");
        soon(() -> Value.of(-88.5).equals(gear.now("pan")) && Value.of(3.5).equals(gear.now("zoom")));
    }

    @Test
    void whatIsDoneByHandComesAsAnEvent() {
        soon(() -> Value.of("1").equals(gear.now("preset")));
        head.turn(17.5);
        soon(() -> Value.of(17.5).equals(gear.now("pan")) && Value.of("").equals(gear.now("preset")));
    }

    @Test
    void jsonGoesOut() {
        assertThat(gear.done("pan", "pan", 33.5)).isEqualTo("sent");
        assertThat(head.pan()).isEqualTo(33.5);
        assertThat(gear.done("track")).isEqualTo("sent");
        assertThat(head.tracking()).isTrue();
    }

    @Test
    void ordersToOnePathStayInTheirOrder() {
        long last = 0;
        for (int i = 0; i <= 100; i++) {
            last = gear.send("pan", "pan", i);
        }
        gear.answer(last);
        assertThat(head.pan()).isEqualTo(100);
    }

    /** Symptom: a command that was under way as its gear was closed said that the gear doesn't respond. */
    @Test
    void ordersThatWaitWhenTheLinkIsClosedAreAnswered() {
        List<Long> orders = new ArrayList<>();
        for (int i = 0; i < 50; i++) {
            orders.add(gear.send("pan", "pan", i));
        }
        gear.close();
        assertThat(orders).allSatisfy(o -> assertThat(gear.answer(o)).containsAnyOf("sent", "was closed"));
    }

    @Test
    void whatItRefusesIsToldInItsOwnWords() {
        assertThat(gear.done("preset", "preset", "9")).isEqualTo("Gear: refused: 404 no preset 9");
    }

    @Test
    void aWrongPasswordIsTold() {
        try (GearUnderTest other = StandInGear.of(new Http(), "camera-head", "127.0.0.1:" + head.port(), link -> link
                .withUser("booth").withSecret("wrong"))) {
            soon(() -> other.status().phase() == Phase.OFF);
            assertThat(other.status().words()).isEqualTo("connected, but the login was refused");
            assertThat(other.status().hint()).contains("“wrong”");
        }
    }

    @Test
    void itComesBackAfterItWasSwitchedOff() throws IOException {
        int port = head.port();
        head.close();
        soon(() -> gear.status().phase() == Phase.OFF);
        assertThat(gear.done("track")).contains("no response from");
        head = new CameraHead(port);
        gear.ready();
        assertThat(gear.done("track")).isEqualTo("sent");
    }

    @Test
    void aDigestIsWhatOthersCompute() {
        Map<String, String> asked = Map.of("realm", "camera head", "nonce", "7ypf", "qop", "auth, auth-int",
                "algorithm",
                "SHA-256");
        assertThat(Login.answer(asked, "GET", "/state?all=1", "booth", "moss-and-granite", "f2wE", 1)).contains(
                "response=\"2cdb25dad5fdd7d24b31e7fc35d9db8be923a0cfb815994c41be35edc5e17a45\"");
    }

    @Test
    void whatIsAskedForDecidesTheLogin() {
        Login login = new Login(false);
        java.net.URI to = java.net.URI.create("http://h/x?y=1");
        assertThat(login.says("GET", to, "u", "s")).isNull();
        assertThat(login.asked(List.of("Basic realm=\"x\""), false)).isTrue();
        assertThat(login.says("GET", to, "u", "s")).isEqualTo("Basic dTpz");
        assertThat(login.asked(List.of("Basic realm=\"x\""), true)).isFalse();
        assertThat(login.asked(List.of("Digest realm=\"x\", nonce=\"n\", algorithm=MD4"), false)).isFalse();
        assertThat(new Login(true).says("GET", to, "", "s")).isEqualTo("Bearer s");
    }
}
