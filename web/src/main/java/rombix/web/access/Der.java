package rombix.web.access;

import java.io.ByteArrayOutputStream;
import java.math.BigInteger;
import java.nio.charset.StandardCharsets;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;

/** The few parts of ASN.1 DER (X.690) that a certificate is made of. */
final class Der {
    private static final int SEQUENCE = 0x30;
    private static final int SET = 0x31;
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("yyMMddHHmmss'Z'");

    private Der() {
    }

    /** A tag, the length of the content, and the content. */
    static byte[] tagged(int tag, byte[]... content) {
        byte[] all = joined(content);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.write(tag);
        if (all.length < 128) {
            out.write(all.length);
        } else {
            byte[] length = BigInteger.valueOf(all.length).toByteArray();
            int from = length[0] == 0 ? 1 : 0;
            out.write(0x80 | length.length - from);
            out.write(length, from, length.length - from);
        }
        out.writeBytes(all);
        return out.toByteArray();
    }

    private static byte[] joined(byte[]... parts) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        for (byte[] part : parts) {
            out.writeBytes(part);
        }
        return out.toByteArray();
    }

    static byte[] sequence(byte[]... parts) {
        return tagged(SEQUENCE, parts);
    }

    static byte[] set(byte[]... parts) {
        return tagged(SET, parts);
    }

    static byte[] integer(BigInteger value) {
        return tagged(0x02, value.toByteArray());
    }

    static byte[] bits(byte[] bytes) {
        return tagged(0x03, new byte[]{0}, bytes);
    }

    static byte[] octets(byte[] bytes) {
        return tagged(0x04, bytes);
    }

    static byte[] text(String value) {
        return tagged(0x0C, value.getBytes(StandardCharsets.UTF_8));
    }

    /** A UTCTime, as RFC 5280 wants it until 2049. */
    static byte[] time(ZonedDateTime value) {
        return tagged(0x17, TIME.format(value.withZoneSameInstant(ZoneOffset.UTC)).getBytes(
                StandardCharsets.US_ASCII));
    }

    /** An object identifier, its arcs between dots. */
    static byte[] id(String dotted) {
        String[] arcs = dotted.split("\\.");
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.write(Integer.parseInt(arcs[0]) * 40 + Integer.parseInt(arcs[1]));
        for (int i = 2; i < arcs.length; i++) {
            int arc = Integer.parseInt(arcs[i]);
            for (int shift = 28; shift > 0; shift -= 7) {
                if (arc >>> shift != 0) {
                    out.write(0x80 | (arc >>> shift & 0x7F));
                }
            }
            out.write(arc & 0x7F);
        }
        return tagged(0x06, out.toByteArray());
    }
}
