package rombix.wire.ssdp;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import rombix.wire.Malformed;

class SsdpMessageTest {
    private static SsdpMessage read(String text) throws Malformed {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        return SsdpMessage.decode(bytes, bytes.length);
    }

    /** As the UPnP Device Architecture has it: names of headers in any case, spaces around what they say. */
    @Test
    void anAnswerIsReadWhateverTheCaseOfItsHeaders() throws Malformed {
        SsdpMessage answer = read(
                "HTTP/1.1 200 OK\r\nLocation:  http://10.0.0.9:80/d.xml \r\nusn: uuid:7::upnp:rootdevice\r\n"
                        + "EXT:\r\n\r\n");
        assertThat(answer.isThere()).isTrue();
        assertThat(answer.header("LOCATION")).isEqualTo("http://10.0.0.9:80/d.xml");
        assertThat(answer.device()).isEqualTo("uuid:7");
    }

    @Test
    void whoSaysGoodbyeIsNotThere() throws Malformed {
        assertThat(read("NOTIFY * HTTP/1.1\r\nNTS: ssdp:alive\r\n\r\n").isThere()).isTrue();
        assertThat(read("NOTIFY * HTTP/1.1\r\nNTS: ssdp:byebye\r\n\r\n").isThere()).isFalse();
    }

    @Test
    void aSearchIsUnderstoodByWhoAnswersIt() throws Malformed {
        byte[] search = SsdpMessage.search(2).encode();
        assertThat(new String(search, StandardCharsets.UTF_8)).startsWith("M-SEARCH * HTTP/1.1\r\n").endsWith(
                "\r\n\r\n").contains("\r\nMAN: \"ssdp:discover\"\r\n", "\r\nMX: 2\r\n");
        assertThat(SsdpMessage.decode(search, search.length).isSearch()).isTrue();
        byte[] answer = SsdpMessage.answer("http://10.0.0.9/d.xml", "uuid:7").encode();
        assertThat(SsdpMessage.decode(answer, answer.length).device()).isEqualTo("uuid:7");
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "hello", "GET / HTTP/1.1\r\n\r\n", "HTTP/1.1 200 OK\r\n: nothing\r\n\r\n"})
    void whatIsNoneIsSaidToBeNone(String text) {
        assertThatThrownBy(() -> read(text)).isInstanceOf(Malformed.class);
    }
}
