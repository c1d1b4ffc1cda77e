package rombix.links.dmx;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import rombix.wire.dmx.SacnPacket;

/** One universe's levels. Guarded by the link's lock. */
final class Universe {
    final int number;
    final byte[] levels = new byte[SacnPacket.SLOTS];
    /** The slots that the master holds down. */
    final BitSet mastered = new BitSet();
    final List<Long> tickets = new ArrayList<>();
    final Moving moving = new Moving();
    boolean dirty;
    int sequence;
    long sentNanos = System.nanoTime() - DmxLink.LONG_AGO_NANOS;

    Universe(int number) {
        this.number = number;
    }

    /** How long until it is to be sent. */
    long left(long now, long keepAliveNanos) {
        return (dirty || !moving.isEmpty() ? DmxLink.FRAME_NANOS : keepAliveNanos) - (now - sentNanos);
    }

    /** What goes out: the levels, those that the master holds down by as much as it does. */
    byte[] out(double master) {
        if (master >= 1 || mastered.isEmpty()) {
            return levels;
        }
        byte[] held = levels.clone();
        mastered.stream().forEach(slot -> held[slot] = (byte) Math.round((held[slot] & 0xFF) * master));
        return held;
    }
}
