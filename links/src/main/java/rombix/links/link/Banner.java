package rombix.links.link;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.nio.charset.StandardCharsets;
import rombix.core.value.Limits;
import rombix.core.value.Visible;

/** What stands behind a port that does not speak what it is spoken to in, as far as it says so itself. */
public final class Banner {
    private static final int CONNECT_MILLIS = 1000;
    private static final int SAYS_WITHIN_MILLIS = 300;
    private static final int LONGEST = 80;

    private Banner() {
    }

    /** The first line that it sends to a new connection, as the end of a sentence; empty if it sends none. */
    public static String of(InetSocketAddress at) {
        StringBuilder said = new StringBuilder();
        try (Socket socket = new Socket()) {
            socket.connect(HostPort.resolved(at), CONNECT_MILLIS);
            socket.setSoTimeout(SAYS_WITHIN_MILLIS);
            byte[] begin = new byte[LONGEST];
            for (int count = 0; count >= 0 && said.length() < LONGEST && said.indexOf("\n") < 0; count = socket
                    .getInputStream().read(begin)) {
                said.append(new String(begin, 0, count, StandardCharsets.ISO_8859_1));
            }
        } catch (SocketTimeoutException e) {
            // That was all.
        } catch (IOException e) {
            return "";
        }
        String line = said.toString().strip().lines().findFirst().orElse("").strip();
        return line.length() < 2 || line.chars().anyMatch(c -> c < ' ' || c > '~')
                ? ""
                : "; it said “" + Limits.quoted(Visible.line(line)) + "”";
    }
}
