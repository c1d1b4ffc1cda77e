package rombix.links.link;

import java.net.InetSocketAddress;

/** HOST:PORT, read from a board. */
public final class HostPort {
    private HostPort() {
    }

    /** An address as it is written. */
    public static String words(InetSocketAddress address) {
        return address.getHostString() + ":" + address.getPort();
    }

    /** @throws IllegalArgumentException in plain words */
    public static InetSocketAddress of(String address) {
        if (address.isBlank()) {
            throw new IllegalArgumentException("no address yet");
        }
        int colon = address.lastIndexOf(':');
        try {
            int port = Integer.parseInt(address.substring(colon + 1));
            if (colon > 0 && port > 0 && port < 65_536) {
                return new InetSocketAddress(address.substring(0, colon), port);
            }
        } catch (NumberFormatException e) {
            // Said below.
        }
        throw new IllegalArgumentException("“" + address + "” is not an address; expected HOST:PORT");
    }
}
