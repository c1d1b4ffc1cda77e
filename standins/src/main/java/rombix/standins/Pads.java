package rombix.standins;

import java.io.IOException;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;

/**
 * A controller with pads, knobs and faders, as a box of MIDI sockets: the MIDI bytes that one end sends reach all the
 * others. Whoever connects can press its pads ({@code printf '\220\044\177' | nc 127.0.0.1 9106} presses the first) and
 * sees its lamps and motors set.
 */
public final class Pads implements AutoCloseable {
    /** The first pad's note; the others follow. */
    public static final int FIRST_PAD = 36;
    private static final int CHUNK = 512;

    private final ServerSocket server;
    private final List<Socket> ends = new CopyOnWriteArrayList<>();

    /** @param port where ends connect; any free one when 0 */
    public Pads(int port) throws IOException {
        server = new ServerSocket();
        server.setReuseAddress(true);
        server.bind(new InetSocketAddress(InetAddress.getLoopbackAddress(), port));
        Thread.ofVirtual().name("pads").start(this::accept);
    }

    public int port() {
        return server.getLocalPort();
    }

    private void accept() {
        try {
            while (!server.isClosed()) {
                Socket end = server.accept();
                end.setTcpNoDelay(true);
                ends.add(end);
                Thread.ofVirtual().name("pads-end").start(() -> pass(end));
            }
        } catch (IOException e) {
            // Closed.
        }
    }

    private void pass(Socket from) {
        byte[] in = new byte[CHUNK];
        try (from) {
            for (int n = from.getInputStream().read(in); n >= 0; n = from.getInputStream().read(in)) {
                for (Socket end : ends) {
                    if (end != from) {
                        send(end, in, n);
                    }
                }
            }
        } catch (IOException e) {
            // That end is unplugged.
        } finally {
            ends.remove(from);
        }
    }

    private void send(Socket end, byte[] bytes, int length) {
        try {
            OutputStream out = end.getOutputStream();
            synchronized (end) {
                out.write(bytes, 0, length);
            }
        } catch (IOException e) {
            ends.remove(end);
        }
    }

    /** How many ends are plugged in. */
    public int ends() {
        return ends.size();
    }

    /** Sends MIDI bytes to all ends, as if its controls were worked. */
    public void play(int... bytes) {
        byte[] out = new byte[bytes.length];
        for (int i = 0; i < bytes.length; i++) {
            out[i] = (byte) bytes[i];
        }
        ends.forEach(end -> send(end, out, out.length));
    }

    @Override
    public void close() throws IOException {
        server.close();
        for (Socket end : ends) {
            end.close();
        }
    }
}
