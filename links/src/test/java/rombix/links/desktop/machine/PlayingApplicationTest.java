package rombix.links.desktop.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;

/** Programs that play sound, as a sound server lists what they play. */
class PlayingApplicationTest {
    @Test
    void whatOneProgramPlaysIsOne() {
        String listed = """
                [{"index":3,"mute":false,"volume":{"front-left":{"value_percent":"40%"},"front-right":{"value_percent":"55%"}},
                  "properties":{"application.name":"Night Player","application.process.binary":"nightp"}},
                 {"index":4,"mute":true,"volume":{"mono":{"value_percent":"120%"}},
                  "properties":{"application.process.binary":"horn"}},
                 {"index":7,"mute":false,"volume":{"mono":{"value_percent":"55%"}},
                  "properties":{"application.name":"Night Player"}}]
                """;
        assertThat(PlayingApplication.listed(listed))
                .containsExactly(new PlayingApplication("night-player", "Night Player", 55, false, List
                        .of("3", "7")), new PlayingApplication("horn", "horn", 100, true, List.of("4")));
        assertThat(PlayingApplication.listed("Connection refused")).isEmpty();
        assertThat(PlayingApplication.listed("[]")).isEmpty();
    }

    @Test
    void aWindowIsFoundByItsName() {
        PlayingApplication player = new PlayingApplication("Night Player", 50, false);
        assertThat(player.of("Night-player")).isTrue();
        assertThat(player.of("night player 2")).isTrue();
        assertThat(player.of("XTerm")).isFalse();
        assertThat(player.of("")).isFalse();
    }
}
