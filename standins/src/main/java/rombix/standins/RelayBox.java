package rombix.standins;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * A box of four relays at a serial port: {@code SET n ON}, {@code SET n OFF}, {@code STATE}; a change by hand is told.
 * The port is a pseudo-terminal where this system has one, else it is reached over TCP.
 */
public final class RelayBox implements AutoCloseable {
    private static final int RELAYS = 4;

    private final boolean[] on = new boolean[RELAYS];
    private final Received came = new Received();
    private final @Nullable PseudoTerminal terminal;
    private final @Nullable ServerSocket server;
    private volatile @Nullable OutputStream out;

    /**
     * @param named where the port is to be found; the name that the system gives where null
     * @param port where it is reached where there is no pseudo-terminal; 0 for any free one
     */
    public RelayBox(java.nio.file.@Nullable Path named, int port) throws IOException {
        Optional<PseudoTerminal> pair = PseudoTerminal.open(named);
        terminal = pair.orElse(null);
        if (pair.isPresent()) {
            server = null;
            Thread.ofPlatform().daemon().name("relays").start(() -> serve(pair.get().in(), pair.get().out()));
        } else {
            server = new ServerSocket();
            server.setReuseAddress(true);
            server.bind(new InetSocketAddress(InetAddress.getLoopbackAddress(), port));
            Thread.ofVirtual().name("relays").start(this::accept);
        }
    }

    /** Where it is reached, as boards write it. */
    public String address() {
        return terminal != null ? terminal.name() : server == null ? "" : "127.0.0.1:" + server.getLocalPort();
    }

    public synchronized boolean on(int relay) {
        return on[relay - 1];
    }

    /** What came. */
    public Received received() {
        return came;
    }

    /** Switches a relay by hand. */
    public synchronized void turn(int relay, boolean to) {
        on[relay - 1] = to;
        OutputStream there = out;
        if (there != null) {
            say(there, "RELAY %d %s".formatted(relay, word(relay)));
        }
    }

    private String word(int relay) {
        return on(relay) ? "ON" : "OFF";
    }

    private void accept() {
        while (server != null && !server.isClosed()) {
            try (Socket socket = server.accept()) {
                serve(socket.getInputStream(), socket.getOutputStream());
            } catch (IOException e) {
                // Closed, or gone.
            }
        }
    }

    private void serve(InputStream in, OutputStream to) {
        out = to;
        StringBuilder line = new StringBuilder();
        try {
            for (int b = in.read(); b >= 0; b = in.read()) {
                if (b == '\n') {
                    synchronized (this) { // A change by hand is told before the answer, or after it.
                        say(to, answer(line.toString().strip()));
                    }
                    line.setLength(0);
                } else if (line.length() < 80) {
                    line.append((char) b);
                }
            }
        } catch (IOException e) {
            // Unplugged.
        } finally {
            out = null;
        }
    }

    private String answer(String line) {
        came.add(line);
        if (line.matches("SET [1-4] (ON|OFF)")) {
            on[line.charAt(4) - '1'] = line.endsWith("ON");
            return "DONE";
        }
        if (line.equals("STATE")) {
            StringBuilder all = new StringBuilder("STATE");
            for (int i = 1; i <= RELAYS; i++) {
                all.append(' ').append(i).append('=').append(word(i));
            }
            return all.toString();
        }
        return "ERROR what is “" + line + "”?";
    }

    private static void say(OutputStream to, String line) {
        try {
            to.write((line + "\n").getBytes(StandardCharsets.UTF_8));
            to.flush();
        } catch (IOException e) {
            // Nobody listens.
        }
    }

    @Override
    public void close() throws IOException {
        if (terminal != null) {
            terminal.close();
        }
        if (server != null) {
            server.close();
        }
    }
}
