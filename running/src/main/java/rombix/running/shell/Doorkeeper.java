package rombix.running.shell;

import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.net.StandardProtocolFamily;
import java.net.UnixDomainSocketAddress;
import java.nio.channels.Channels;
import java.nio.channels.ServerSocketChannel;
import java.nio.channels.SocketChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Listens for commands about the board that is open, each of which is carried out on a thread of its own. Safe to use
 * from any thread.
 */
public final class Doorkeeper implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(Doorkeeper.class);

    /** Carries a command out. */
    @FunctionalInterface
    public interface Handler {
        /** @return the exit code */
        int run(String[] args, PrintWriter out, PrintWriter err);
    }

    private final Handler handler;
    private @Nullable ServerSocketChannel listening;
    private @Nullable Path board;
    private @Nullable Path door;
    private @Nullable BoardLock lock;

    public Doorkeeper(Handler handler) {
        this.handler = handler;
    }

    /**
     * Listens for commands about this board from now on, and about no other. One that cannot be listened for is logged.
     *
     * @return whether no other Rombix has this board open
     */
    public synchronized boolean keep(Path file) {
        try {
            Path real = CommandSocket.real(file);
            if (real.equals(board)) {
                return true;
            }
            close();
            lock = BoardLock.of(real);
            CommandSocket.makeFolder();
            Path at = CommandSocket.of(real);
            if (Files.exists(at) && somebodyAnswers(at)) {
                return false; // Another Rombix has this board open, and was first.
            }
            Files.deleteIfExists(at);
            ServerSocketChannel server = ServerSocketChannel.open(StandardProtocolFamily.UNIX);
            server.bind(UnixDomainSocketAddress.of(at));
            listening = server;
            board = real;
            door = at;
            Thread.ofPlatform().daemon().name("commands").start(() -> listen(server, real));
        } catch (BoardLock.Taken e) {
            return false; // Wherever the other one keeps its sockets.
        } catch (IOException e) {
            LOG.warn("shell commands can't reach this Rombix: {}", e.getMessage());
        }
        return true;
    }

    private static boolean somebodyAnswers(Path at) {
        try (SocketChannel channel = SocketChannel.open(UnixDomainSocketAddress.of(at))) {
            return channel.isConnected();
        } catch (IOException e) {
            return false;
        }
    }

    private void listen(ServerSocketChannel server, Path real) {
        while (server.isOpen()) {
            try {
                SocketChannel caller = server.accept();
                Thread.ofVirtual().name("command").start(() -> serve(caller, real));
            } catch (IOException e) {
                if (server.isOpen()) {
                    LOG.warn("a command was lost: {}", e.getMessage());
                }
            }
        }
    }

    private void serve(SocketChannel caller, Path real) {
        try (caller) {
            DataInputStream in = new DataInputStream(Channels.newInputStream(caller));
            DataOutputStream out = new DataOutputStream(Channels.newOutputStream(caller));
            int version = in.readByte();
            String about = in.readUTF();
            if (version != CommandSocket.VERSION || !about.equals(real.toString())) {
                out.writeByte(CommandSocket.NOT_HERE);
                return;
            }
            String[] args = new String[in.readShort()];
            for (int i = 0; i < args.length; i++) {
                args[i] = in.readUTF();
            }
            // Whoever asked may go away: then nobody waits for the rest.
            Thread serving = Thread.currentThread();
            Thread.ofVirtual().start(() -> {
                try {
                    while (in.read() >= 0) {
                        // Nothing more is said.
                    }
                } catch (IOException e) {
                    // Gone.
                }
                serving.interrupt();
            });
            int code = handler.run(args, new PrintWriter(new Told(out, CommandSocket.OUT)),
                    new PrintWriter(new Told(out,
                            CommandSocket.ERR)));
            synchronized (out) {
                out.writeByte(CommandSocket.CODE);
                out.writeInt(code);
                out.flush();
            }
        } catch (IOException e) {
            LOG.debug("a command went away", e);
        }
    }

    /** Sends what is printed at each flush. */
    private static final class Told extends StringWriter {
        private final DataOutputStream out;
        private final byte what;

        Told(DataOutputStream out, byte what) {
            this.out = out;
            this.what = what;
        }

        @Override
        public void flush() {
            byte[] text = toString().getBytes(StandardCharsets.UTF_8);
            getBuffer().setLength(0);
            try {
                synchronized (out) {
                    if (text.length > 0) {
                        out.writeByte(what);
                        out.writeInt(text.length);
                        out.write(text);
                        out.flush();
                    }
                }
            } catch (IOException e) {
                Thread.currentThread().interrupt(); // Nobody listens any more.
            }
        }
    }

    /** Listens no more. */
    @Override
    public synchronized void close() {
        try {
            if (listening != null) {
                listening.close();
            }
            if (door != null) {
                Files.deleteIfExists(door);
            }
            if (lock != null) {
                lock.close();
            }
        } catch (IOException e) {
            LOG.debug("the socket was gone", e);
        }
        listening = null;
        board = null;
        door = null;
        lock = null;
    }
}
