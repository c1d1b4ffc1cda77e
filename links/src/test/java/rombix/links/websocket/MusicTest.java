package rombix.links.websocket;

import static org.assertj.core.api.Assertions.assertThat;
import static rombix.links.link.GearUnderTest.soon;

import java.io.IOException;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;
import rombix.core.board.Gear;
import rombix.core.event.Status.Phase;
import rombix.core.value.Value;
import rombix.links.link.GearUnderTest;
import rombix.links.link.StandInGear;
import rombix.links.link.TlsFront;
import rombix.standins.DemoLogin;
import rombix.standins.Music;

/** WebSocket with a challenge, requests with numbers and changes that are told, as the music player speaks it. */
@Execution(ExecutionMode.CONCURRENT)
class MusicTest {
    private Music music;
    private GearUnderTest gear;

    @BeforeEach
    void open() throws IOException {
        music = new Music(0);
        gear = StandInGear.of(new WebSockets(), "music", "127.0.0.1:" + music.port()).ready();
    }

    @AfterEach
    void close() {
        gear.close();
        music.close();
    }

    @Test
    void readingsAreAskedForAtTheStart() {
        soon(() -> Value.of(40).equals(gear.now("volume")) && Value.of("slow-orbits").equals(gear.now("playlist")));
        soon(() -> gear.now("playlists") instanceof Value.Choices c && c.choices().size() == 3);
    }

    @Test
    void ordersAreAnsweredByTheirNumberAndChangesAreTold() {
        assertThat(gear.done("shuffle")).isEqualTo("sent");
        assertThat(music.shuffle()).isTrue();
        soon(() -> Value.of(true).equals(gear.now("shuffle")));
        music.play(true);
        soon(() -> Value.of(true).equals(gear.now("playing")));
        assertThat(gear.done("volume", "volume", 75)).isEqualTo("sent");
        soon(() -> Value.of(75).equals(gear.now("volume")));
    }

    @Test
    void whatItRefusesIsToldInItsOwnWords() {
        assertThat(gear.done("playlist", "playlist", "polkas")).isEqualTo("Gear: refused: no playlist polkas");
    }

    @Test
    void itIsGreetedAnewAfterItHungUp() {
        music.hangUp();
        soon(() -> gear.status().phase() == Phase.OFF);
        music.play(true);
        gear.ready();
        soon(() -> Value.of(true).equals(gear.now("playing")));
    }

    @Test
    void overTlsItIsTheSame() throws Exception {
        String own = TlsFront.pem("house");
        try (TlsFront front = new TlsFront("house", "", music.port());
                GearUnderTest secured = StandInGear
                        .of(new WebSockets(), "music", "127.0.0.1:" + front.port(), link -> link
                                .withUser("booth").withSecret(DemoLogin.SECRET)
                                .withTls(new Gear.Tls(Gear.Tls.Trust.OWN, own)))
                        .ready()) {
            assertThat(secured.done("shuffle")).isEqualTo("sent");
            soon(() -> Value.of(true).equals(secured.now("shuffle")));
        }
    }

    @Test
    void aWrongPasswordIsTold() {
        try (GearUnderTest other = StandInGear.of(new WebSockets(), "music", "127.0.0.1:" + music.port(), link -> link
                .withSecret("wrong"))) {
            soon(() -> other.status().phase() == Phase.OFF);
            assertThat(other.status().words()).isEqualTo("refused: wrong password");
        }
    }

    @Test
    void aPathWithoutAWebSocketIsTold() {
        try (GearUnderTest other = StandInGear.of(new WebSockets(), "music", "127.0.0.1:" + music.port(), link -> link
                .withSecret(rombix.standins.DemoLogin.SECRET).withSetting("path", Value.of("/nothing")))) {
            soon(() -> other.status().phase() == Phase.OFF);
            assertThat(other.status().words()).startsWith("no WebSocket at this address and path");
        }
    }
}
