package rombix.links.link;

import java.io.IOException;
import java.io.InterruptedIOException;
import java.net.InetSocketAddress;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import rombix.core.event.Cause;

/** HOST:PORT, read from a board. */
public final class HostPort {
    private HostPort() {
    }

    /**
     * Looks the host up. It may block: not on the conductor's or the interface's thread. It is asked for on a thread of
     * its own, as whoever waits in the system for a name holds what all virtual threads run on, and cannot be
     * interrupted; whoever waits here can.
     *
     * @throws IOException in plain words, where nobody knows it now
     */
    public static InetSocketAddress resolved(InetSocketAddress address) throws IOException {
        InetSocketAddress known = isNumeric(address)
                ? lookedUp(address)
                : aside("name " + address.getHostString(), () -> lookedUp(address));
        if (known.isUnresolved()) {
            throw new Refused(Cause.NAME_UNKNOWN, address.getHostString());
        }
        return known;
    }

    private static InetSocketAddress lookedUp(InetSocketAddress address) {
        return new InetSocketAddress(address.getHostString(), address.getPort());
    }

    /** Has something done by a thread of the system, and waits for it for as long as it is not interrupted. */
    static <T> T aside(String name, Callable<T> what) throws IOException {
        FutureTask<T> task = new FutureTask<>(what);
        Thread.ofPlatform().daemon().name(name).start(task);
        try {
            return task.get();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new InterruptedIOException("was closed");
        } catch (ExecutionException e) {
            throw new IOException(String.valueOf(e.getCause()), e.getCause());
        }
    }

    /** Whether looking it up asks nobody. */
    public static boolean isNumeric(InetSocketAddress address) {
        String host = address.getHostString();
        return host.matches("[0-9.]+") || host.contains(":");
    }

    /** An address as it is written. */
    public static String words(InetSocketAddress address) {
        return address.getHostString() + ":" + address.getPort();
    }

    /**
     * The address as it is written; its host is not looked up, as that can take half a minute.
     *
     * @throws IllegalArgumentException in plain words
     */
    public static InetSocketAddress of(String address) {
        if (address.isBlank()) {
            throw new IllegalArgumentException("no address yet");
        }
        if (address.contains("@")) { // It is not repeated: what stands before it may be a password.
            throw new IllegalArgumentException(
                    "its address contains a user or password; set them separately and use HOST:PORT as the address");
        }
        int colon = address.lastIndexOf(':');
        try {
            int port = Integer.parseInt(address.substring(colon + 1));
            if (colon > 0 && port > 0 && port < 65_536) {
                return InetSocketAddress.createUnresolved(address.substring(0, colon), port);
            }
        } catch (NumberFormatException e) {
            // Said below.
        }
        throw new IllegalArgumentException("“" + address + "” isn't an address; expected HOST:PORT");
    }
}
