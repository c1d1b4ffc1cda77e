package rombix.wire.irc;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.StringLength;
import org.junit.jupiter.api.Test;
import rombix.wire.Malformed;

class IrcLineTest {

    @Test
    void readsWhatTheStandardShows() throws Malformed {
        assertThat(IrcLine.decode(":ada!a@b.example PRIVMSG #night :clear skies at last")).isEqualTo(new IrcLine(
                "ada!a@b.example", "PRIVMSG", List.of("#night", "clear skies at last")));
        assertThat(IrcLine.decode("PING 12345")).isEqualTo(IrcLine.of("PING", "12345"));
        assertThat(IrcLine.decode(":srv 001 me :Welcome").command()).isEqualTo("001");
        assertThat(IrcLine.decode("@time=1 :s mode  #a   +m").params()).containsExactly("#a", "+m");
        assertThat(IrcLine.decode(":ada!a@b PART").nick()).isEqualTo("ada");
    }

    @Test
    void aTextCannotBreakOutOfItsLine() {
        assertThat(IrcLine.of("PRIVMSG", "#night", "one\r\nQUIT :two").encode()).isEqualTo(
                "PRIVMSG #night :one  QUIT :two");
        assertThat(IrcLine.of("PRIVMSG", "#night", "").encode()).isEqualTo("PRIVMSG #night :");
    }

    @Property(tries = 500)
    void anyTextSurvivesAsTheLastParameter(@ForAll @StringLength(max = 60) String text) throws Malformed {
        String plain = text.replaceAll("[\r\n\0]", " ");
        assertThat(IrcLine.decode(IrcLine.of("PRIVMSG", "#night", plain).encode()).param(1)).isEqualTo(plain);
    }

    @Property(tries = 2000)
    void anyLineIsReadOrRefusedWithAReason(@ForAll String line) {
        try {
            assertThat(IrcLine.decode(line).command()).isNotEmpty();
        } catch (Malformed e) {
            assertThat(e.getMessage()).isNotBlank();
        }
    }

    @Test
    void aLineWithoutACommandIsRefused() {
        for (String bad : List.of("", "   ", ":only.source", "12 x", "\u0001\u0002 x")) {
            assertThatThrownBy(() -> IrcLine.decode(bad)).as(bad).isInstanceOf(Malformed.class);
        }
    }
}
