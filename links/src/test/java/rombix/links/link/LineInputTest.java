package rombix.links.link;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.SocketTimeoutException;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;
import rombix.wire.Malformed;

class LineInputTest {
    /** What comes, with a time-out behind each part. */
    private static InputStream parts(String... parts) {
        return new InputStream() {
            private int next;
            private boolean quiet;

            @Override
            public int read() {
                throw new UnsupportedOperationException();
            }

            @Override
            public int read(byte[] to) throws IOException {
                if (quiet) {
                    quiet = false;
                    throw new SocketTimeoutException();
                }
                if (next == parts.length) {
                    return -1;
                }
                byte[] bytes = parts[next++].getBytes(StandardCharsets.UTF_8);
                System.arraycopy(bytes, 0, to, 0, bytes.length);
                quiet = true;
                return bytes.length;
            }
        };
    }

    @Test
    void aLineThatWasReadIsNotReadOnceMoreWhenNothingComesForAWhile() throws IOException, Malformed {
        LineInput in = new LineInput(parts("one\r\ntw", "o\r\n"), 100);
        assertThat(in.next()).isEqualTo("one");
        assertThatThrownBy(in::next).isInstanceOf(SocketTimeoutException.class);
        assertThat(in.next()).isEqualTo("two");
        assertThatThrownBy(in::next).isInstanceOf(SocketTimeoutException.class);
        assertThat(in.next()).isNull();
    }

    @Test
    void aLineEndsWhereItIsSaid() throws IOException, Malformed {
        LineInput in = new LineInput(new ByteArrayInputStream(new byte[]{'a', (byte) 0xE4, '\r', 'b', '\r'}), 100, '\r',
                StandardCharsets.ISO_8859_1);
        assertThat(in.next()).isEqualTo("a\u00e4");
        assertThat(in.next()).isEqualTo("b");
        assertThat(in.next()).isNull();
    }
}
