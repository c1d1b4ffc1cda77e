package rombix.wire.osc;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import rombix.wire.Malformed;
import rombix.wire.osc.OscPacket.Bundle;
import rombix.wire.osc.OscPacket.Impulse;
import rombix.wire.osc.OscPacket.Message;
import rombix.wire.osc.OscPacket.Midi;
import rombix.wire.osc.OscPacket.Nil;
import rombix.wire.osc.OscPacket.Rgba;
import rombix.wire.osc.OscPacket.Symbol;
import rombix.wire.osc.OscPacket.TimeTag;

/** Reads and writes OSC 1.0 packets. Strings are written as UTF-8, of which the standard's ASCII is a part. */
public final class OscCodec {
    private static final String BUNDLE = "#bundle";
    private static final int DEEPEST = 16;

    private OscCodec() {
    }

    /** The packet as bytes, at the buffer's position. Throws BufferOverflowException if it does not fit. */
    public static void encode(OscPacket packet, ByteBuffer out) {
        out.order(ByteOrder.BIG_ENDIAN);
        switch (packet) {
            case Message m -> {
                text(m.address(), out);
                StringBuilder tags = new StringBuilder(",");
                m.args().forEach(a -> tag(a, tags));
                text(tags.toString(), out);
                m.args().forEach(a -> arg(a, out));
            }
            case Bundle b -> {
                text(BUNDLE, out);
                out.putLong(b.time().bits());
                for (OscPacket inner : b.packets()) {
                    int sizeAt = out.position();
                    out.putInt(0);
                    encode(inner, out);
                    out.putInt(sizeAt, out.position() - sizeAt - 4);
                }
            }
        }
    }

    private static void tag(Object arg, StringBuilder tags) {
        switch (arg) {
            case Integer _ -> tags.append('i');
            case Long _ -> tags.append('h');
            case Float _ -> tags.append('f');
            case Double _ -> tags.append('d');
            case String _ -> tags.append('s');
            case Symbol _ -> tags.append('S');
            case byte[] _ -> tags.append('b');
            case Boolean b -> tags.append(b ? 'T' : 'F');
            case Character _ -> tags.append('c');
            case Nil _ -> tags.append('N');
            case Impulse _ -> tags.append('I');
            case TimeTag _ -> tags.append('t');
            case Rgba _ -> tags.append('r');
            case Midi _ -> tags.append('m');
            case List<?> list -> {
                tags.append('[');
                list.forEach(a -> tag(a, tags));
                tags.append(']');
            }
            default -> throw new IllegalArgumentException("OSC has no type for " + arg.getClass());
        }
    }

    private static void arg(Object arg, ByteBuffer out) {
        switch (arg) {
            case Integer i -> out.putInt(i);
            case Long l -> out.putLong(l);
            case Float f -> out.putFloat(f);
            case Double d -> out.putDouble(d);
            case String s -> text(s, out);
            case Symbol s -> text(s.text(), out);
            case byte[] b -> {
                out.putInt(b.length).put(b);
                pad(out, b.length);
            }
            case Character c -> out.putInt(c);
            case TimeTag t -> out.putLong(t.bits());
            case Rgba r -> out.putInt(r.bits());
            case Midi m -> out.putInt(m.bits());
            case List<?> list -> list.forEach(a -> arg(a, out));
            default -> {
                // True, false, nil and impulse are told by their tags alone.
            }
        }
    }

    private static void text(String text, ByteBuffer out) {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        out.put(bytes).put((byte) 0);
        pad(out, bytes.length + 1);
    }

    private static void pad(ByteBuffer out, int length) {
        for (int i = length; i % 4 != 0; i++) {
            out.put((byte) 0);
        }
    }

    /**
     * The packet in a buffer, from its position to its limit. Reads nothing beyond, whatever the bytes claim.
     *
     * @throws Malformed with the reason
     */
    public static OscPacket decode(ByteBuffer in) throws Malformed {
        return decode(in.slice().order(ByteOrder.BIG_ENDIAN), 0);
    }

    private static OscPacket decode(ByteBuffer in, int depth) throws Malformed {
        if (in.remaining() == 0) {
            throw new Malformed("an empty packet");
        }
        if (in.remaining() % 4 != 0) {
            throw new Malformed("a size of " + in.remaining() + " bytes, which isn't a multiple of 4");
        }
        return in.get(in.position()) == '#' ? bundle(in, depth) : message(in);
    }

    private static Bundle bundle(ByteBuffer in, int depth) throws Malformed {
        if (depth >= DEEPEST) {
            throw new Malformed("bundles nested more than " + DEEPEST + " deep");
        }
        String head = text(in);
        if (!head.equals(BUNDLE)) {
            throw new Malformed("“" + head + "” where #bundle was expected");
        }
        need(in, 8, "the bundle's time");
        TimeTag time = new TimeTag(in.getLong());
        List<OscPacket> packets = new ArrayList<>();
        while (in.hasRemaining()) {
            need(in, 4, "the size of a bundle's element");
            int size = in.getInt();
            if (size <= 0 || size > in.remaining()) {
                throw new Malformed("a bundle's element claims " + size + " bytes where " + in.remaining()
                        + " are left");
            }
            packets.add(decode(in.slice(in.position(), size).order(ByteOrder.BIG_ENDIAN), depth + 1));
            in.position(in.position() + size);
        }
        return new Bundle(time, packets);
    }

    private static Message message(ByteBuffer in) throws Malformed {
        String address = text(in);
        if (!address.startsWith("/")) {
            throw new Malformed("an address that doesn't begin with /");
        }
        if (!in.hasRemaining()) {
            return new Message(address, List.of()); // Old senders leave the type tags out where there are no arguments.
        }
        String tags = text(in);
        if (!tags.startsWith(",")) {
            throw new Malformed("type tags that don't begin with a comma");
        }
        int[] at = {1};
        List<Object> args = args(tags, at, in, 0);
        if (at[0] < tags.length()) {
            throw new Malformed("a ] without its [");
        }
        if (in.hasRemaining()) {
            throw new Malformed(in.remaining() + " bytes more than the type tags tell of");
        }
        return new Message(address, args);
    }

    private static List<Object> args(String tags, int[] at, ByteBuffer in, int depth) throws Malformed {
        List<Object> args = new ArrayList<>();
        while (at[0] < tags.length()) {
            char tag = tags.charAt(at[0]++);
            if (tag == ']' && depth > 0) {
                return args;
            }
            if (tag == ']') {
                at[0]--;
                return args;
            }
            if (tag == '[') {
                if (depth >= DEEPEST) {
                    throw new Malformed("arrays nested more than " + DEEPEST + " deep");
                }
                args.add(args(tags, at, in, depth + 1));
            } else {
                args.add(arg(tag, in));
            }
        }
        if (depth > 0) {
            throw new Malformed("a [ without its ]");
        }
        return args;
    }

    private static Object arg(char tag, ByteBuffer in) throws Malformed {
        return switch (tag) {
            case 'i' -> need(in, 4, "an int").getInt();
            case 'f' -> need(in, 4, "a float").getFloat();
            case 'h' -> need(in, 8, "a long").getLong();
            case 'd' -> need(in, 8, "a double").getDouble();
            case 't' -> new TimeTag(need(in, 8, "a time").getLong());
            case 'c' -> (char) need(in, 4, "a character").getInt();
            case 'r' -> new Rgba(need(in, 4, "a colour").getInt());
            case 'm' -> new Midi(need(in, 4, "a MIDI message").getInt());
            case 's' -> text(in);
            case 'S' -> new Symbol(text(in));
            case 'b' -> blob(in);
            case 'T' -> true;
            case 'F' -> false;
            case 'N' -> new Nil();
            case 'I' -> new Impulse();
            default -> throw new Malformed("a type tag “" + tag + "” that OSC doesn't have");
        };
    }

    private static byte[] blob(ByteBuffer in) throws Malformed {
        int size = need(in, 4, "a blob's size").getInt();
        int padded = size < 0 || size > in.remaining() ? Integer.MAX_VALUE : size + (4 - size % 4) % 4;
        if (padded > in.remaining()) {
            throw new Malformed("a blob claims " + size + " bytes where " + in.remaining() + " are left");
        }
        byte[] bytes = new byte[size];
        in.get(bytes);
        in.position(in.position() + padded - size);
        return bytes;
    }

    private static String text(ByteBuffer in) throws Malformed {
        int end = in.position();
        while (end < in.limit() && in.get(end) != 0) {
            end++;
        }
        if (end == in.limit()) {
            throw new Malformed("a string without its end");
        }
        byte[] bytes = new byte[end - in.position()];
        in.get(bytes);
        int next = in.position() + 4 - bytes.length % 4;
        if (next > in.limit()) {
            throw new Malformed("a string cut short");
        }
        in.position(next);
        return new String(bytes, StandardCharsets.UTF_8);
    }

    private static ByteBuffer need(ByteBuffer in, int bytes, String what) throws Malformed {
        if (in.remaining() < bytes) {
            throw new Malformed(what + " cut short");
        }
        return in;
    }
}
