package rombix.links.cookbook;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.function.Function;

/** The other end of a WebSocket (RFC 6455), as far as short text messages go. */
final class WebSocketTalk implements Peer.Talk {
    private static final String MAGIC = "258EAFA5-E914-47DA-95CA-C5AB0DC85B11";

    private final String hello;
    private final Function<String, List<String>> answers;
    private boolean shaken;

    WebSocketTalk(String hello, Function<String, List<String>> answers) {
        this.hello = hello;
        this.answers = answers;
    }

    static byte[] frame(String text) {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.write(0x81);
        if (bytes.length < 126) {
            out.write(bytes.length);
        } else {
            out.write(126);
            out.write(bytes.length >> 8);
            out.write(bytes.length);
        }
        out.writeBytes(bytes);
        return out.toByteArray();
    }

    @Override
    public byte[] read(InputStream in) throws IOException {
        if (!shaken) {
            ByteArrayOutputStream head = new ByteArrayOutputStream();
            for (byte[] line = Peer.until(in, '\n'); line != null; line = Peer.until(in, '\n')) {
                head.writeBytes(line);
                if (line.length <= 2) {
                    return head.toByteArray();
                }
            }
            return null;
        }
        while (true) {
            int kind = in.read();
            int length = in.read() & 0x7F;
            if (kind < 0) {
                return null;
            }
            length = length == 126 ? in.read() << 8 | in.read() : length;
            byte[] mask = in.readNBytes(4);
            byte[] bytes = in.readNBytes(length);
            for (int i = 0; i < bytes.length; i++) {
                bytes[i] ^= mask[i % 4];
            }
            if ((kind & 0xF) == 8) {
                return null;
            }
            if ((kind & 0xF) == 1) {
                return bytes;
            }
        }
    }

    @Override
    public List<byte[]> answers(byte[] message) {
        String said = new String(message, StandardCharsets.UTF_8);
        List<byte[]> all = new ArrayList<>();
        if (!shaken) {
            shaken = true;
            String key = said.replaceAll("(?is).*sec-websocket-key: *(\\S+).*", "$1");
            all.add(("HTTP/1.1 101 Switching Protocols\r\nUpgrade: websocket\r\nConnection: Upgrade\r\n"
                    + "Sec-WebSocket-Accept: " + accept(key) + "\r\n\r\n").getBytes(StandardCharsets.US_ASCII));
            all.add(frame(hello));
        } else {
            answers.apply(said).forEach(a -> all.add(frame(a)));
        }
        return all;
    }

    private static String accept(String key) {
        try {
            return Base64.getEncoder().encodeToString(MessageDigest.getInstance("SHA-1").digest((key + MAGIC).getBytes(
                    StandardCharsets.US_ASCII)));
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException(e);
        }
    }
}
