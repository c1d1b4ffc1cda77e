package rombix.wire.midi;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import rombix.wire.Malformed;

/**
 * Hears MIDI messages in words, as {@link MidiWords} says them. What takes several messages (controls of 14 bits,
 * parameters, a tempo, a time in quarter frames) is told when it is whole; the messages themselves are told, too. One
 * thread's.
 */
public final class MidiEar {
    private static final int TICKS = 24;
    private static final int QUARTERS = 8;
    private static final double MINUTE_NANOS = 60e9;
    private static final int NONE = -1;

    /** Takes what was heard: an address, and what is carried. */
    public interface Heard {
        void take(String address, List<String> args);
    }

    private final Heard heard;
    /** The upper seven bits of controls, by channel and number. */
    private final Map<Integer, Integer> high = new HashMap<>();
    /** The parameter that is open on each channel, and whether it is a registered one. */
    private final int[] parameter = new int[16];
    private final boolean[] registered = new boolean[16];
    private final long[] ticks = new long[TICKS + 1];
    private int tick;
    private final int[] quarters = new int[QUARTERS];
    private int quarter;

    public MidiEar(Heard heard) {
        this.heard = heard;
        Arrays.fill(parameter, NONE);
    }

    /**
     * @param nanos when it came
     * @throws Malformed with the reason
     */
    public void take(byte[] bytes, long nanos) throws Malformed {
        int status = bytes.length == 0 ? 0 : bytes[0] & 0xFF;
        if (status >= 0xF0) {
            system(bytes, status, nanos);
            return;
        }
        MidiCodec.decode(bytes).ifPresentOrElse(this::channel, () -> other(bytes, status));
    }

    private void channel(MidiMessage message) {
        switch (message) {
            case MidiMessage.Note n -> say("note %d %d".formatted(n.channel(), n.number()), n.velocity());
            case MidiMessage.Program p -> say("program %d".formatted(p.channel()), p.program());
            case MidiMessage.Control c -> {
                say("control %d %d".formatted(c.channel(), c.number()), c.value());
                wide(c);
            }
        }
    }

    private void other(byte[] bytes, int status) {
        int channel = (status & 0x0F) + 1;
        switch (status & 0xF0) {
            case 0xA0 -> say("pressure %d %d".formatted(channel, bytes[1]), bytes[2]);
            case 0xD0 -> say("pressure %d".formatted(channel), bytes[1]);
            case 0xE0 -> say("bend %d".formatted(channel), bytes[2] << 7 | bytes[1]);
            default -> {
            }
        }
    }

    private void wide(MidiMessage.Control c) {
        int at = c.channel() - 1;
        switch (c.number()) {
            case MidiWords.RPN_HIGH, MidiWords.NRPN_HIGH -> {
                parameter[at] = c.value() << 7;
                registered[at] = c.number() == MidiWords.RPN_HIGH;
            }
            case MidiWords.RPN_LOW, MidiWords.NRPN_LOW ->
                parameter[at] = Math.max(0, parameter[at]) & ~0x7F | c.value();
            default -> {
            }
        }
        if (c.number() < 32) {
            high.put(at << 8 | c.number(), c.value());
        } else if (c.number() < 64) {
            int value = high.getOrDefault(at << 8 | c.number() - 32, 0) << 7 | c.value();
            say("control14 %d %d".formatted(c.channel(), c.number() - 32), value);
            if (c.number() == MidiWords.DATA_LOW && parameter[at] != NONE && parameter[at] != MidiWords.MOST) {
                say((registered[at] ? "rpn" : "nrpn") + " %d %d".formatted(c.channel(), parameter[at]), value);
            }
        }
    }

    private void system(byte[] bytes, int status, long nanos) {
        switch (status) {
            case 0xF0 -> exclusive(bytes);
            case 0xF1 -> quarter(bytes.length > 1 ? bytes[1] : 0);
            case 0xF8 -> tick(nanos);
            case 0xFA -> heard.take("start", List.of());
            case 0xFB -> heard.take("continue", List.of());
            case 0xFC -> {
                tick = 0;
                heard.take("stop", List.of());
            }
            default -> {
            }
        }
    }

    /** A tempo, in beats a minute, once a beat. */
    private void tick(long nanos) {
        ticks[tick++] = nanos;
        if (tick > TICKS) {
            double bpm = MINUTE_NANOS / Math.max(1, ticks[TICKS] - ticks[0]);
            heard.take("clock", List.of(String.format(Locale.ROOT, "%.1f", bpm)));
            ticks[0] = nanos;
            tick = 1;
        }
    }

    /** A time, {@code hh:mm:ss:ff}, once all of its eight parts have come in their order. */
    private void quarter(int data) {
        int part = data >> 4 & 7;
        if (part == 0) {
            quarter = 0;
        }
        if (part != quarter) {
            quarter = QUARTERS + 1; // Not whole: the next one begins at its first part.
            return;
        }
        quarters[quarter++] = data & 0x0F;
        if (quarter == QUARTERS) {
            heard.take("time", List.of("%02d:%02d:%02d:%02d".formatted((quarters[7] & 1) << 4 | quarters[6],
                    quarters[5] << 4 | quarters[4], quarters[3] << 4 | quarters[2], quarters[1] << 4 | quarters[0])));
        }
    }

    private void exclusive(byte[] bytes) {
        int end = bytes.length > 1 && (bytes[bytes.length - 1] & 0xFF) == 0xF7 ? bytes.length - 1 : bytes.length;
        heard.take("sysex", List.of(HexFormat.of().formatHex(bytes, 1, end)));
        if (end >= 5 && bytes[1] == 0x7F && bytes[3] == 0x06) {
            name(MidiWords.MACHINE, bytes[4]).ifPresent(c -> heard.take("mmc %d %s".formatted(bytes[2], c), List.of()));
        } else if (end >= 6 && bytes[1] == 0x7F && bytes[3] == 0x02) {
            String format = name(MidiWords.FORMATS, bytes[4]).orElse("all");
            name(MidiWords.SHOW, bytes[5]).ifPresent(c -> heard.take("msc %d %s %s".formatted(bytes[2], format, c),
                    cues(c, bytes, end)));
        }
    }

    private static List<String> cues(String command, byte[] bytes, int end) {
        if (command.equals("fire")) {
            return end > 6 ? List.of(String.valueOf(bytes[6])) : List.of();
        }
        List<String> cues = new ArrayList<>();
        String text = new String(bytes, 6, end - 6, StandardCharsets.US_ASCII);
        if (!text.isEmpty()) {
            cues.addAll(List.of(text.split("\0", -1)));
        }
        return cues;
    }

    private static Optional<String> name(Map<String, Integer> of, int code) {
        return of.entrySet().stream().filter(e -> e.getValue() == code).map(Map.Entry::getKey).findFirst();
    }

    private void say(String address, int value) {
        heard.take(address, List.of(String.valueOf(value)));
    }
}
