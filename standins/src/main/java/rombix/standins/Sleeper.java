package rombix.standins;

import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.util.HexFormat;
import java.util.Locale;

/** A computer that sleeps until it is sent its own number sixteen times behind six bytes of 255: Wake-on-LAN. */
public final class Sleeper implements AutoCloseable {
    private static final int TIMES = 16;
    private static final int LARGEST = 1500;

    private final DatagramSocket socket;
    private final String wanted;
    private volatile boolean awake;

    /**
     * @param port 0 for any free one
     * @param mac its number, as twelve hexadecimal digits with colons or without
     */
    public Sleeper(int port, String mac) throws IOException {
        wanted = "ff".repeat(6) + mac.replace(":", "").toLowerCase(Locale.ROOT).repeat(TIMES);
        socket = new DatagramSocket(port, InetAddress.getLoopbackAddress());
        Thread.ofVirtual().name("sleeper").start(this::sleep);
    }

    private void sleep() {
        DatagramPacket in = new DatagramPacket(new byte[LARGEST], LARGEST);
        while (!socket.isClosed()) {
            try {
                socket.receive(in);
                awake |= HexFormat.of().formatHex(in.getData(), 0, in.getLength()).contains(wanted);
            } catch (IOException e) {
                // Closed.
            }
        }
    }

    public int port() {
        return socket.getLocalPort();
    }

    public boolean awake() {
        return awake;
    }

    @Override
    public void close() {
        socket.close();
    }
}
