package rombix.standins.midi;

import java.io.IOException;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/** A box of sockets on loopback into which {@link Cable cables} are plugged: bytes in from each, bytes out to all. */
public final class Sockets implements AutoCloseable {
    private static final int CHUNK = 512;

    /** Takes what one cable sends, on that cable's thread. */
    public interface Bytes {
        void take(byte[] bytes, int length);
    }

    private final String name;
    private final ServerSocket server;
    private final List<Socket> plugged = new CopyOnWriteArrayList<>();

    /** @param port where cables are plugged in; any free one when 0 */
    public Sockets(String name, int port) throws IOException {
        this.name = name;
        server = new ServerSocket();
        server.setReuseAddress(true);
        server.bind(new InetSocketAddress(InetAddress.getLoopbackAddress(), port));
    }

    public int port() {
        return server.getLocalPort();
    }

    /** How many cables are plugged in. */
    int count() {
        return plugged.size();
    }

    /** Begins to take cables. @param each what takes the bytes of a cable */
    public void serve(Function<Socket, Bytes> each) {
        Thread.ofVirtual().name(name).start(() -> {
            while (!server.isClosed()) {
                try {
                    Socket cable = server.accept();
                    cable.setTcpNoDelay(true);
                    plugged.add(cable);
                    Bytes bytes = each.apply(cable);
                    Thread.ofVirtual().name(name + " cable").start(() -> read(cable, bytes));
                    if (server.isClosed()) {
                        cable.close();
                    }
                } catch (IOException e) {
                    // Closed, or a cable pulled out again at once.
                }
            }
        });
    }

    private void read(Socket cable, Bytes to) {
        byte[] in = new byte[CHUNK];
        try (cable) {
            for (int n = cable.getInputStream().read(in); n >= 0; n = cable.getInputStream().read(in)) {
                to.take(in, n);
            }
        } catch (IOException e) {
            // Unplugged.
        } finally {
            plugged.remove(cable);
        }
    }

    /** Sends bytes to all cables but one. */
    public void send(byte[] bytes, int length, @Nullable Socket but) {
        for (Socket cable : plugged) {
            if (cable != but) {
                try {
                    OutputStream out = cable.getOutputStream();
                    synchronized (cable) {
                        out.write(bytes, 0, length);
                    }
                } catch (IOException e) {
                    plugged.remove(cable);
                }
            }
        }
    }

    @Override
    public void close() throws IOException {
        server.close();
        for (Socket cable : plugged) {
            cable.close();
        }
    }
}
