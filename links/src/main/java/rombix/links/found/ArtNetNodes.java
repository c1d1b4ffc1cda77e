package rombix.links.found;

import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetSocketAddress;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import rombix.core.card.Protocol;
import rombix.core.found.FoundGear;
import rombix.core.found.FoundGear.How;
import rombix.wire.Malformed;
import rombix.wire.dmx.ArtNetPacket;

/** Nodes that answer to a poll of Art-Net. They answer to the port of the protocol, or to where the poll came from. */
final class ArtNetNodes implements AutoCloseable {
    private final Consumer<FoundGear> found;
    private final List<DatagramSocket> sockets = new ArrayList<>();

    /** @param port where nodes listen, and answer to */
    ArtNetNodes(List<Networks.Network> networks, int port, Consumer<FoundGear> found) {
        this.found = found;
        listen(port);
        byte[] poll = ArtNetPacket.encode(new ArtNetPacket.Poll());
        for (Networks.Network network : networks) {
            try {
                DatagramSocket socket = new DatagramSocket(new InetSocketAddress(network.own(), 0));
                sockets.add(socket);
                socket.setBroadcast(true);
                socket.send(new DatagramPacket(poll, poll.length, network.all(), port));
            } catch (IOException e) {
                // Another network may have it.
            }
        }
        sockets.forEach(s -> Answers.read("art-net nodes", s, this::take));
    }

    private void listen(int port) {
        try {
            DatagramSocket shared = new DatagramSocket(null);
            shared.setReuseAddress(true);
            shared.bind(new InetSocketAddress(port));
            sockets.add(shared);
        } catch (IOException e) {
            // Another program has it: those that answer to where the poll came from are found all the same.
        }
    }

    private void take(DatagramPacket in) throws Malformed {
        if (ArtNetPacket
                .decode(ByteBuffer.wrap(in.getData(), 0, in.getLength())) instanceof ArtNetPacket.PollReply r) {
            String universes = r.universes().stream().map(String::valueOf).collect(Collectors.joining(", "));
            found.accept(new FoundGear(How.ART_NET, r.longName().isBlank() ? r.shortName() : r.longName(),
                    universes.isEmpty() ? "" : (r.universes().size() == 1 ? "universe " : "universes ") + universes,
                    Protocol.of("artnet"), in.getAddress()
                            .getHostAddress() + ":" + ArtNetPacket.PORT));
        }
    }

    @Override
    public void close() {
        sockets.forEach(DatagramSocket::close);
    }
}
