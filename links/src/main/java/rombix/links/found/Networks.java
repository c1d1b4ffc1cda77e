package rombix.links.found;

import java.io.IOException;
import java.net.InetAddress;
import java.net.NetworkInterface;
import java.util.List;
import java.util.stream.Stream;

/** The networks that this computer is on. */
final class Networks {
    /** One of them, with our address on it. */
    record Network(NetworkInterface face, InetAddress own, InetAddress all) {
    }

    private Networks() {
    }

    /** All that are up and know IPv4; this computer's own is the last. */
    static List<Network> all() {
        try {
            return NetworkInterface.networkInterfaces().filter(Networks::serves).flatMap(Networks::of)
                    .sorted((a, b) -> Boolean
                            .compare(a.own().isLoopbackAddress(), b.own().isLoopbackAddress()))
                    .toList();
        } catch (IOException e) {
            return List.of();
        }
    }

    private static boolean serves(NetworkInterface face) {
        try {
            return face.isUp() && (face.isLoopback() || face.supportsMulticast());
        } catch (IOException e) {
            return false;
        }
    }

    private static Stream<Network> of(NetworkInterface face) {
        return face.getInterfaceAddresses().stream().filter(a -> a.getAddress().getAddress().length == 4).limit(1).map(
                a -> new Network(face, a.getAddress(), a.getBroadcast() == null ? a.getAddress() : a.getBroadcast()));
    }
}
