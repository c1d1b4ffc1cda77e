package rombix.links.line;

import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetSocketAddress;
import java.net.PortUnreachableException;
import rombix.core.twin.MessageReader.Message;
import rombix.core.twin.Order;
import rombix.links.link.HostPort;
import rombix.links.link.Refused;
import rombix.links.talk.Talk;
import rombix.links.talk.Wire;

/** One message a datagram. To an address that is no single one's, all that answer are heard. */
final class DatagramWire implements Wire {
    private static final int LARGEST = 65_507;
    private static final int LOOK_MILLIS = 100;

    private final DatagramSocket socket;
    private final InetSocketAddress to;
    private final LineForm form;
    private final byte[] in = new byte[LARGEST];

    DatagramWire(InetSocketAddress to, LineForm form) throws IOException {
        this.to = to;
        this.form = form;
        socket = new DatagramSocket();
        socket.setBroadcast(true);
        socket.setSoTimeout(LOOK_MILLIS);
    }

    @Override
    public void write(Order.Outgoing packet) throws IOException {
        byte[] bytes = form.bytes(packet);
        if (bytes.length > LARGEST) {
            throw new IllegalArgumentException("the message is too long for a datagram");
        }
        socket.send(new DatagramPacket(bytes, bytes.length, to));
    }

    @Override
    public Message read() throws IOException {
        DatagramPacket packet = new DatagramPacket(in, in.length);
        try {
            socket.receive(packet);
        } catch (PortUnreachableException e) {
            throw Refused.noAnswer(HostPort.words(to), e);
        }
        return form.message(in, packet.getLength());
    }

    @Override
    public void close() {
        socket.close();
    }
}
