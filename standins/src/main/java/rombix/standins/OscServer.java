package rombix.standins;

import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.SocketAddress;
import java.nio.ByteBuffer;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import rombix.wire.Malformed;
import rombix.wire.osc.OscCodec;
import rombix.wire.osc.OscPacket.Message;
import rombix.wire.osc.OscPacket;

/**
 * Serves OSC on loopback for a gear. Whoever says hello is told all that the gear shows, and from then on every change,
 * whoever made it; who says it again is only told that the gear is there.
 */
final class OscServer implements AutoCloseable {
    private static final int LARGEST = 65_507;

    /** What is served. Its methods are called on the server's thread. */
    interface Gear {
        /** All that it shows. */
        List<Message> everything();

        /** A message that says that it is there. */
        Message alive();

        /** Takes any message but the hello; what it does not understand it passes over. */
        void take(Message message);
    }

    private final String hello;
    private final String name;
    private final DatagramSocket socket;
    private final Set<SocketAddress> listeners = ConcurrentHashMap.newKeySet();
    private volatile long malformed;

    /**
     * @param port 0 for any free one
     * @param hello the address that says hello
     */
    OscServer(String name, int port, String hello) throws IOException {
        this.name = name;
        this.hello = hello;
        socket = new DatagramSocket(new InetSocketAddress(InetAddress.getLoopbackAddress(), port));
    }

    /** @param lock what guards the gear's state; held from asking the gear to telling, so that nothing old is told last */
    void serve(Gear gear, Object lock) {
        Thread.ofVirtual().name(name).start(() -> receive(gear, lock));
    }

    int port() {
        return socket.getLocalPort();
    }

    /** How many datagrams could not be read. */
    long malformed() {
        return malformed;
    }

    private void receive(Gear gear, Object lock) {
        DatagramPacket in = new DatagramPacket(new byte[LARGEST], LARGEST);
        while (!socket.isClosed()) {
            try {
                in.setLength(LARGEST);
                socket.receive(in);
                take(OscCodec.decode(ByteBuffer.wrap(in.getData(), 0, in.getLength())), in.getSocketAddress(), gear,
                        lock);
            } catch (Malformed e) {
                malformed++;
            } catch (IOException e) {
                // Closed, or a listener that has gone away; the next one is served all the same.
            }
        }
    }

    private void take(OscPacket packet, SocketAddress from, Gear gear, Object lock) throws IOException {
        switch (packet) {
            case OscPacket.Bundle b -> {
                for (OscPacket inner : b.packets()) {
                    take(inner, from, gear, lock);
                }
            }
            case Message m when m.address().equals(hello) -> {
                synchronized (lock) {
                    for (Message report : listeners.add(from) ? gear.everything() : List.of(gear.alive())) {
                        send(report, from);
                    }
                }
            }
            case Message m -> gear.take(m);
        }
    }

    /** Tells all listeners. */
    void tell(Message report) {
        for (SocketAddress listener : listeners) {
            try {
                send(report, listener);
            } catch (IOException e) {
                listeners.remove(listener);
            }
        }
    }

    private void send(Message message, SocketAddress to) throws IOException {
        ByteBuffer out = ByteBuffer.allocate(LARGEST);
        OscCodec.encode(message, out);
        socket.send(new DatagramPacket(out.array(), out.position(), to));
    }

    @Override
    public void close() {
        socket.close();
    }
}
