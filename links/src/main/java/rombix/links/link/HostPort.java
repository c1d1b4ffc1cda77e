package rombix.links.link;

import java.io.IOException;
import java.net.InetSocketAddress;

/** HOST:PORT, read from a board. */
public final class HostPort {
    private HostPort() {
    }

    /**
     * Looks the host up. It may block: not on the conductor's or the interface's thread.
     *
     * @throws IOException in plain words, where nobody knows it now
     */
    public static InetSocketAddress resolved(InetSocketAddress address) throws IOException {
        InetSocketAddress known = new InetSocketAddress(address.getHostString(), address.getPort());
        if (known.isUnresolved()) {
            throw new IOException("no host “" + address.getHostString() + "” is known here");
        }
        return known;
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
            throw new IllegalArgumentException("its address has a user or a password in it; set the user and the"
                    + " secret beside the address, which is HOST:PORT");
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
        throw new IllegalArgumentException("“" + address + "” is not an address; expected HOST:PORT");
    }
}
