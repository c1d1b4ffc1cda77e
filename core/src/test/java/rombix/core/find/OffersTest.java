package rombix.core.find;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rombix.core.board.Rig;
import rombix.core.chain.Arg;
import rombix.core.chain.GearStep;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;
import rombix.core.twin.Twin.Readings;

/** What a few words of each kind of step find first, on the demo board. */
class OffersTest {
    private static Finder finder;

    @BeforeAll
    static void open() throws BadFile {
        Rig rig = BoardFile.read(Path.of("../demo/star-night.json"));
        finder = new Finder(rig, _ -> Readings.NONE);
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {"mute host | Mute Host", "host mute | Mute Host", "mtue host | Mute Host",
            "desk key 40% | Desk Key to 40 %", "wait 2 | Wait 2 s", "wait 700 ms | Wait 0.7 s",
            "wait until 21:30 | Wait until 21:30", "one of | One of 2", "one of 3 shuffled | One of 3, shuffled",
            "repeat 4 times | Repeat 4 times", "together | Together", "for a while 5 min | For 5 min",
            "fade host -10 in 3 s | Host to −10 dB in 3 s", "say clouds are in | Say “clouds are in”",
            "note doors are open at {= 1 + 1} | Note “doors are open at {= 1 + 1}”",
            "ask which lamp | Ask “which lamp”", "use doors open | Use “Doors open”",
            "use dim the desk | Use “Dim the desk”", "set visitors 0 | Set Visitors let in to 0",
            "show page trouble | Show page “Trouble”", "stop all | Stop all", "stop timers | Stop all “timers”",
            "unlock gate | Unlock Gate", "sting owl | Sting: Owl"})
    void isFoundFirst(String typed, String title) {
        assertThat(finder.find(typed, 5).getFirst().title().replace('\u00a0', ' ')).isEqualTo(title);
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {"brighter desk key | Desk Key up", "desk key down 10 | Desk Key",
            "wait until gate open | Wait until Gate is", "if host muted | If Host is",
            "wait 2 to 5 s | Wait 2 s to 5 s"})
    void isAmongTheFirst(String typed, String start) {
        List<String> titles = finder.find(typed, 5).stream().map(f -> f.title().replace('\u00a0', ' ')).toList();
        assertThat(titles).as(typed).anyMatch(t -> t.startsWith(start));
    }

    @Test
    void figuresBecomeArgumentsByTheirUnits() {
        GearStep.Fade fade = (GearStep.Fade) finder.find("fade desk key 30 % in 2 min", 5).getFirst().step();
        assertThat(fade.ms()).isEqualTo(120_000);
        assertThat(fade.to()).isEqualTo(Arg.of(30));
        assertThat(finder.find("nothing of the kind", 5)).isEmpty();
    }
}
