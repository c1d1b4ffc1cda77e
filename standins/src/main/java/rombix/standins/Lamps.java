package rombix.standins;

import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.ByteBuffer;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import rombix.wire.Malformed;
import rombix.wire.dmx.ArtNetPacket;
import rombix.wire.dmx.SacnPacket;

/**
 * The lamps: five fixtures on universe 1, as a streaming ACN receiver. Desk Key and Desk Fill take level and warmth, the
 * Dome Ring level and colour, Walkway and Warm Room a level.
 */
public final class Lamps implements AutoCloseable {
    /**
     * A fixture; slots count from 1, 0 where it has none.
     *
     * @param colour the first of its red, green and blue slots
     */
    public record Fixture(String name, int level, int warmth, int colour) {
    }

    public static final List<Fixture> FIXTURES = List.of(new Fixture("Desk Key", 1, 2, 0),
            new Fixture("Desk Fill", 3, 4, 0), new Fixture("Dome Ring", 10, 0, 11), new Fixture("Walkway", 20, 0, 0),
            new Fixture("Warm Room", 21, 0, 0));

    private static final int LARGEST = 1500;

    private final DatagramSocket socket;
    private @Nullable DatagramSocket node;
    private final byte[] slots = new byte[SacnPacket.SLOTS];
    private int lastSequence = -1;
    private long packets;
    private long ignored;
    private long ends;
    private @Nullable UUID source;

    /** @param port 0 for any free one */
    public Lamps(int port) throws IOException {
        socket = new DatagramSocket(new InetSocketAddress(InetAddress.getLoopbackAddress(), port));
        Thread.ofVirtual().name("lamps").start(this::serve);
    }

    /**
     * Is an Art-Net node as well, from now on: its universe 0 is the same slots, and it answers polls. Where another
     * program has that port, it is none.
     *
     * @param at 0 for any free one
     * @return the port; -1 where it is none
     */
    public int node(int at) {
        try {
            DatagramSocket socket = new DatagramSocket(new InetSocketAddress(InetAddress.getLoopbackAddress(), at));
            node = socket;
            Thread.ofVirtual().name("node").start(() -> serve(socket));
            return socket.getLocalPort();
        } catch (IOException e) {
            return -1;
        }
    }

    private void serve(DatagramSocket socket) {
        byte[] here = ArtNetPacket.encode(new ArtNetPacket.PollReply(InetAddress.getLoopbackAddress().getAddress(),
                "Larkmoor lamps", "Larkmoor lamps", List.of(0)));
        DatagramPacket in = new DatagramPacket(new byte[LARGEST], LARGEST);
        while (!socket.isClosed()) {
            try {
                in.setLength(LARGEST);
                socket.receive(in);
                switch (ArtNetPacket.decode(ByteBuffer.wrap(in.getData(), 0, in.getLength()))) {
                    case ArtNetPacket.Poll _ -> socket.send(new DatagramPacket(here, here.length, in
                            .getSocketAddress()));
                    case ArtNetPacket.Dmx d -> take(d);
                    default -> {
                    }
                }
            } catch (Malformed e) {
                synchronized (this) {
                    ignored++;
                }
            } catch (IOException e) {
                // Closed.
            }
        }
    }

    private synchronized void take(ArtNetPacket.Dmx came) {
        if (came.universe() == 0) {
            packets++;
            System.arraycopy(came.levels(), 0, slots, 0, came.levels().length);
        }
    }

    /** How often it was said that the universe ends. */
    public synchronized long ends() {
        return ends;
    }

    /** Whose packet came last, by its identity. */
    public synchronized @Nullable UUID source() {
        return source;
    }

    public int port() {
        return socket.getLocalPort();
    }

    /** A slot's level, from 0 to 255; slots count from 1. */
    public synchronized int slot(int number) {
        return slots[number - 1] & 0xFF;
    }

    /** How many packets with levels came. */
    public synchronized long packets() {
        return packets;
    }

    /** How many came that were malformed, out of sequence or for another universe. */
    public synchronized long ignored() {
        return ignored;
    }

    private void serve() {
        DatagramPacket in = new DatagramPacket(new byte[LARGEST], LARGEST);
        while (!socket.isClosed()) {
            try {
                in.setLength(LARGEST);
                socket.receive(in);
                take(SacnPacket.decode(ByteBuffer.wrap(in.getData(), 0, in.getLength())));
            } catch (Malformed e) {
                synchronized (this) {
                    ignored++;
                }
            } catch (IOException e) {
                // Closed.
            }
        }
    }

    /** A packet that is up to 20 behind the last is late and passed over (E1.31, 6.7.2). */
    private synchronized void take(SacnPacket packet) {
        int behind = (byte) (packet.sequence() - lastSequence);
        if (packet.universe() != 1 || lastSequence >= 0 && behind <= 0 && behind > -20) {
            ignored++;
            return;
        }
        source = packet.source();
        if (packet.ended()) { // Whoever comes next counts from anywhere.
            ends++;
            lastSequence = -1;
            return;
        }
        lastSequence = packet.sequence();
        packets++;
        System.arraycopy(packet.levels(), 0, slots, 0, packet.levels().length);
    }

    @Override
    public void close() {
        socket.close();
        if (node != null) {
            node.close();
        }
    }
}
