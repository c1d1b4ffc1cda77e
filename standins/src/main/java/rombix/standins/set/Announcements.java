package rombix.standins.set;

import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.MulticastSocket;
import java.net.NetworkInterface;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import javax.jmdns.JmDNS;
import javax.jmdns.ServiceInfo;
import org.jspecify.annotations.Nullable;
import rombix.wire.Malformed;
import rombix.wire.ssdp.SsdpMessage;

/** What stand-ins say of themselves on this computer's own network, and nowhere else, so that they can be found. */
public final class Announcements implements AutoCloseable {
    private static final int LARGEST = 2048;

    /** Something to be told by DNS-SD. @param type such as {@code _osc._udp} */
    public record Service(String type, String name, int port, Map<String, String> about) {
    }

    private final List<AutoCloseable> parts = new ArrayList<>();
    private boolean closed;

    /** Begins to answer, and does not block; where this system does not let it, there is none. */
    public Announcements(List<Service> services) {
        Thread.ofPlatform().daemon().name("announcements").start(() -> announce(services));
    }

    private void announce(List<Service> services) {
        try {
            JmDNS on = JmDNS.create(InetAddress.getLoopbackAddress(), "larkmoor");
            if (!keep(on)) {
                return;
            }
            for (Service s : services) {
                on.registerService(ServiceInfo.create(s.type() + ".local.", s.name(), s.port(), 0, 0, s.about()));
            }
        } catch (IOException e) {
            // They are reached all the same.
        }
    }

    /** Answers to searches by SSDP. @param location where the device describes itself */
    public Announcements device(int port, String location, String id) {
        try {
            MulticastSocket socket = new MulticastSocket(null);
            socket.setReuseAddress(true);
            socket.bind(new InetSocketAddress(port));
            socket.joinGroup(new InetSocketAddress(SsdpMessage.GROUP, 0), NetworkInterface.getByInetAddress(InetAddress
                    .getLoopbackAddress()));
            keep(socket);
            Thread.ofVirtual().name("device").start(() -> answer(socket, SsdpMessage.answer(location, id).encode()));
        } catch (IOException e) {
            // It is reached all the same.
        }
        return this;
    }

    private static void answer(DatagramSocket socket, byte[] answer) {
        DatagramPacket in = new DatagramPacket(new byte[LARGEST], LARGEST);
        while (!socket.isClosed()) {
            try {
                in.setLength(LARGEST);
                socket.receive(in);
                if (in.getAddress().isLoopbackAddress()
                        && SsdpMessage.decode(in.getData(), in.getLength()).isSearch()) {
                    socket.send(new DatagramPacket(answer, answer.length, in.getSocketAddress()));
                }
            } catch (Malformed e) {
                // Somebody else's.
            } catch (IOException e) {
                // Closed.
            }
        }
    }

    /** Whether it is not over yet; ends what comes too late. */
    private synchronized boolean keep(AutoCloseable part) {
        if (closed) {
            end(part);
            return false;
        }
        parts.add(part);
        return true;
    }

    private static void end(@Nullable AutoCloseable part) {
        try {
            if (part != null) {
                part.close();
            }
        } catch (Exception e) {
            // It is over either way.
        }
    }

    /** Does not wait until all have heard that they are gone. */
    @Override
    public synchronized void close() {
        closed = true;
        parts.forEach(p -> Thread.ofPlatform().daemon().start(() -> end(p)));
    }
}
