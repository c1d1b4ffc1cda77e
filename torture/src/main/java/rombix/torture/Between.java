package rombix.torture;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.SocketException;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import org.jspecify.annotations.Nullable;

/** Stands between a link and its gear over TCP, and lets the gear be in trouble. Safe to use from any thread. */
final class Between implements AutoCloseable {
    /** How the gear is. */
    enum How {
        /** All passes. */
        WELL,
        /** It was killed: connections are reset, and nobody listens. */
        KILLED,
        /** Nothing is read any more, nothing is said, nothing is closed. */
        FROZEN,
        /** A byte a second passes, either way. */
        SLOW,
        /** What is said to it is taken and is lost; nothing comes back. */
        HALF_OPEN
    }

    private static final long A_BYTE_NANOS = TimeUnit.SECONDS.toNanos(1);
    private static final long LOOK_NANOS = TimeUnit.MILLISECONDS.toNanos(5);

    private final int gear;
    private final int port;
    private final Set<Socket> open = ConcurrentHashMap.newKeySet();
    private volatile @Nullable ServerSocket server;
    private volatile How how = How.WELL;

    Between(int gear) throws IOException {
        this.gear = gear;
        this.port = listen(0);
    }

    String address() {
        return "127.0.0.1:" + port;
    }

    private int listen(int at) throws IOException {
        ServerSocket next = new ServerSocket();
        next.setReuseAddress(true);
        next.bind(new InetSocketAddress(InetAddress.getLoopbackAddress(), at));
        server = next;
        Thread.ofVirtual().start(() -> {
            while (!next.isClosed()) {
                try {
                    Socket near = next.accept();
                    Socket far = new Socket(InetAddress.getLoopbackAddress(), gear);
                    open.add(near);
                    open.add(far);
                    Thread.ofVirtual().start(() -> pass(near, far, false));
                    Thread.ofVirtual().start(() -> pass(far, near, true));
                } catch (IOException e) {
                    // The next one may come through.
                }
            }
        });
        return next.getLocalPort();
    }

    private void pass(Socket from, Socket to, boolean back) {
        byte[] some = new byte[4096];
        try (from; to) {
            InputStream in = from.getInputStream();
            OutputStream out = to.getOutputStream();
            while (true) {
                How now = how;
                if (now == How.FROZEN) {
                    LockSupport.parkNanos(LOOK_NANOS);
                    continue;
                }
                int length = in.read(some, 0, now == How.SLOW ? 1 : some.length);
                if (length < 0) {
                    return;
                }
                while (how == How.FROZEN) {
                    LockSupport.parkNanos(LOOK_NANOS);
                }
                if (how == How.HALF_OPEN) {
                    continue;
                }
                out.write(some, 0, length);
                if (now == How.SLOW) {
                    LockSupport.parkNanos(A_BYTE_NANOS);
                }
            }
        } catch (IOException e) {
            // One of them is gone.
        } finally {
            open.remove(from);
            open.remove(to);
        }
    }

    void become(How next) throws IOException {
        How before = how;
        how = next;
        ServerSocket listening = server;
        if (next == How.KILLED && listening != null) {
            listening.close();
            for (Socket s : open) {
                try {
                    s.setSoLinger(true, 0);
                    s.close();
                } catch (SocketException e) {
                    // It was closed already.
                }
            }
        } else if (before == How.KILLED && next == How.WELL) {
            listen(port);
        }
    }

    @Override
    public void close() throws IOException {
        become(How.KILLED);
    }
}
