package rombix.wire.midi;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * MIDI messages in words, as cards name them: {@code note 1 60}, {@code control14 1 7}, {@code nrpn 1 300},
 * {@code mmc 127 play}, {@code msc 127 lighting go}. Out here; in by {@link MidiEar}. Sources: MIDI 1.0 Detailed
 * Specification; MIDI Machine Control (RP-013); MIDI Show Control (RP-002).
 */
public final class MidiWords {
    /** Parameter numbers and values of 14 bits. */
    static final int MOST = 16_383;
    static final int DATA_HIGH = 6;
    static final int DATA_LOW = 38;
    static final int NRPN_LOW = 98;
    static final int NRPN_HIGH = 99;
    static final int RPN_LOW = 100;
    static final int RPN_HIGH = 101;
    static final Map<String, Integer> MACHINE = new TreeMap<>(Map.of("stop", 1, "play", 2, "deferred-play", 3,
            "fast-forward", 4, "rewind", 5, "record", 6, "record-exit", 7, "pause", 9, "eject", 10));
    static final Map<String, Integer> SHOW = new TreeMap<>(
            Map.of("go", 1, "stop", 2, "resume", 3, "timed-go", 4, "load",
                    5, "set", 6, "fire", 7, "all-off", 8, "restore", 9, "reset", 10));
    static final Map<String, Integer> FORMATS = new TreeMap<>(Map.of("lighting", 0x01, "sound", 0x10, "machinery", 0x20,
            "video", 0x30, "projection", 0x40, "process", 0x50, "pyro", 0x60, "all", 0x7F));
    static final Map<String, Integer> REAL_TIME = Map.of("tick", 0xF8, "start", 0xFA, "continue", 0xFB, "stop", 0xFC);

    private static final int CONTROL = 0xB0;

    private MidiWords() {
    }

    /** A pattern of all addresses, with what stands in their places. */
    public static String form() {
        String place = "\\{[^{}]+}";
        String channel = "(" + place + "|[1-9]|1[0-6])";
        String number = "(" + place + "|\\d|[1-9]\\d|1[01]\\d|12[0-7])";
        String wide = "(" + place + "|\\d{1,5})";
        return "(note|control) %1$s %2$s|(program|bend) %1$s|pressure %1$s( %2$s)?|control14 %1$s (%3$s|\\d|[12]\\d|3[01])"
                .formatted(channel, number, place)
                + "|(rpn|nrpn) %s %s|sysex|clock|time|tick|start|continue|stop".formatted(
                        channel, wide)
                + "|mmc %1$s (%2$s|%3$s)|msc %1$s (%2$s|%4$s) (%2$s|%5$s)".formatted(number, place,
                        String.join("|", MACHINE.keySet()), String.join("|", FORMATS.keySet()), String.join("|",
                                SHOW.keySet()));
    }

    /** The same in words. */
    public static String expected() {
        return "note, control, control14 or pressure with CHANNEL NUMBER, program, bend or pressure with CHANNEL, rpn or"
                + " nrpn with CHANNEL PARAMETER, sysex, clock, start, continue, stop, mmc DEVICE COMMAND or msc DEVICE"
                + " FORMAT COMMAND";
    }

    /**
     * The bytes of what an address says.
     *
     * @param args what is carried; numbers are rounded and kept within what the message has room for
     * @throws IllegalArgumentException in plain words, where it is no message
     */
    public static List<byte[]> bytes(String address, List<String> args) {
        String[] words = address.split(" ");
        String first = args.isEmpty() ? "" : args.getFirst();
        return switch (words[0]) {
            case "sysex" -> List.of(exclusive(digits(String.join("", args))));
            case "mmc" -> List.of(exclusive(new byte[]{0x7F, at(words, 1, 127), 0x06, code(MACHINE, words, 2)}));
            case "msc" -> List.of(exclusive(show(words, args)));
            case "start", "continue", "stop", "tick" -> List.of(new byte[]{code(REAL_TIME, words, 0)});
            default -> channel(words, args.isEmpty() ? 127 : number(first));
        };
    }

    private static List<byte[]> channel(String[] words, int value) {
        int channel = at(words, 1, 16) - 1;
        if (channel < 0) {
            throw new IllegalArgumentException("channels count from 1");
        }
        int seven = Math.clamp(value, 0, 127);
        int wide = Math.clamp(value, 0, MOST);
        byte low = (byte) (wide & 0x7F);
        byte high = (byte) (wide >> 7);
        return switch (words[0]) {
            case "note" -> List.of(message(0x90 | channel, at(words, 2, 127), seven));
            case "control" -> List.of(message(CONTROL | channel, at(words, 2, 127), seven));
            case "program" -> List.of(new byte[]{(byte) (0xC0 | channel), (byte) seven});
            case "bend" -> List.of(message(0xE0 | channel, low, high));
            case "pressure" -> List.of(words.length > 2
                    ? message(0xA0 | channel, at(words, 2, 127), seven)
                    : new byte[]{(byte) (0xD0 | channel), (byte) seven});
            case "control14" -> List.of(message(CONTROL | channel, at(words, 2, 31), high), message(CONTROL | channel,
                    at(words, 2, 31) + 32, low));
            case "rpn" -> parameter(channel, RPN_HIGH, RPN_LOW, wide(words), high, low);
            case "nrpn" -> parameter(channel, NRPN_HIGH, NRPN_LOW, wide(words), high, low);
            default -> throw new IllegalArgumentException("no such message as “" + words[0] + "”");
        };
    }

    private static List<byte[]> parameter(int channel, int high, int low, int parameter, byte valueHigh,
            byte valueLow) {
        int status = CONTROL | channel;
        return List.of(message(status, high, parameter >> 7), message(status, low, parameter & 0x7F), message(status,
                DATA_HIGH, valueHigh), message(status, DATA_LOW, valueLow));
    }

    private static byte[] message(int status, int first, int second) {
        return new byte[]{(byte) status, (byte) first, (byte) second};
    }

    private static byte[] show(String[] words, List<String> args) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        byte command = code(SHOW, words, 3);
        out.writeBytes(new byte[]{0x7F, at(words, 1, 127), 0x02, code(FORMATS, words, 2), command});
        if (words[3].equals("fire")) {
            out.write(Math.clamp(number(args.isEmpty() ? "" : args.getFirst()), 0, 127));
            return out.toByteArray();
        }
        List<String> parts = new ArrayList<>(args);
        while (!parts.isEmpty() && parts.getLast().isBlank()) {
            parts.removeLast();
        }
        for (int i = 0; i < parts.size(); i++) {
            String part = parts.get(i).strip();
            if (!part.matches("[0-9.]*")) {
                throw new IllegalArgumentException(
                        "cues, lists and paths are numbers such as 12.5, not “" + part + "”");
            }
            if (i > 0) {
                out.write(0);
            }
            out.writeBytes(part.getBytes(StandardCharsets.US_ASCII));
        }
        return out.toByteArray();
    }

    private static byte[] exclusive(byte[] body) {
        byte[] all = new byte[body.length + 2];
        all[0] = (byte) 0xF0;
        System.arraycopy(body, 0, all, 1, body.length);
        all[all.length - 1] = (byte) 0xF7;
        for (byte b : body) {
            if (b < 0) {
                throw new IllegalArgumentException("within a system exclusive message bytes are up to 7F");
            }
        }
        return all;
    }

    private static byte[] digits(String text) {
        try {
            String plain = text.replaceAll("[\\s,]", "").toLowerCase(java.util.Locale.ROOT);
            return HexFormat.of().parseHex(plain.replaceFirst("^f0", "").replaceFirst("f7$", ""));
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException("“" + text + "” isn't a sequence of hexadecimal bytes", e);
        }
    }

    private static byte code(Map<String, Integer> of, String[] words, int at) {
        Integer code = words.length > at ? of.get(words[at]) : null;
        if (code == null) {
            throw new IllegalArgumentException("expected one of " + String.join(", ", of.keySet()));
        }
        return code.byteValue();
    }

    private static byte at(String[] words, int at, int most) {
        int n = words.length > at ? number(words[at]) : -1;
        if (n < 0 || n > most) {
            throw new IllegalArgumentException("“" + String.join(" ", words) + "” has no number from 0 to " + most
                    + " where it has to");
        }
        return (byte) n;
    }

    private static int wide(String[] words) {
        int n = words.length > 2 ? number(words[2]) : -1;
        if (n < 0 || n > MOST) {
            throw new IllegalArgumentException("a parameter's number is from 0 to " + MOST);
        }
        return n;
    }

    private static int number(String text) {
        try {
            return (int) Math.rint(Double.parseDouble(text.strip()));
        } catch (NumberFormatException e) {
            throw new IllegalArgumentException("“" + text + "” isn't a number", e);
        }
    }
}
