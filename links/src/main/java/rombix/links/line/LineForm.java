package rombix.links.line;

import java.io.ByteArrayOutputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.HexFormat;
import java.util.List;
import rombix.core.twin.MessageReader.Message;
import rombix.core.twin.Order;
import rombix.core.value.Value;
import rombix.links.link.GearPlaces;
import rombix.wire.line.Checksum;

/** How messages stand in bytes, as is set for a gear. Immutable. */
final class LineForm {
    private final byte[] ending;
    private final Charset letters;
    private final boolean lines;
    private final Checksum checksum;
    private final GearPlaces places;

    LineForm(GearPlaces places) {
        this.places = places;
        ending = switch (places.text(Line.ENDING)) {
            case "LF" -> new byte[]{'\n'};
            case "CR" -> new byte[]{'\r'};
            case "nothing" -> new byte[0];
            default -> new byte[]{'\r', '\n'};
        };
        letters = places.text(Line.LETTERS).equals("Latin-1") ? StandardCharsets.ISO_8859_1 : StandardCharsets.UTF_8;
        lines = !places.text(Line.MESSAGES).equals(Line.BYTES);
        checksum = Checksum.of(places.text(Line.CHECKSUM));
    }

    /** How a stream of bytes is taken apart; throws in plain words, where what is set cannot be. */
    Framing framing() {
        return new Framing(places);
    }

    /** Whether what comes is taken apart into lines by their ends. */
    boolean lines() {
        return lines && ending.length > 0;
    }

    char end() {
        return (char) ending[ending.length - 1];
    }

    Charset letters() {
        return letters;
    }

    /** @throws IllegalArgumentException in plain words, where bytes are none */
    byte[] bytes(Order.Outgoing packet) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        boolean digits = packet.address().equals(Line.BYTES);
        StringBuilder text = new StringBuilder();
        packet.args().forEach(text::append);
        if (digits) {
            try {
                out.writeBytes(HexFormat.of().parseHex(text.toString().replaceAll("[\\s:-]", "")));
            } catch (IllegalArgumentException e) {
                throw new IllegalArgumentException("“" + text + "” isn't a sequence of hexadecimal bytes", e);
            }
            out.writeBytes(checksum.of(out.toByteArray()));
        } else {
            out.writeBytes(text.toString().getBytes(letters));
            out.writeBytes(ending);
        }
        return out.toByteArray();
    }

    /** What came at once, as a message. */
    Message message(byte[] bytes, int length) {
        return lines
                ? line(new String(bytes, 0, length, letters).stripTrailing())
                : new Message(Line.BYTES, List.of(Value.of(HexFormat.of().formatHex(bytes, 0, length))));
    }

    Message line(String text) {
        return new Message("line", List.of(Value.of(text)));
    }
}
