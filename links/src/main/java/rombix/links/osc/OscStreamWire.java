package rombix.links.osc;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.net.Socket;
import java.nio.BufferOverflowException;
import java.nio.ByteBuffer;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import rombix.core.twin.MessageReader.Message;
import rombix.core.twin.Order;
import rombix.links.link.Target;
import rombix.links.talk.Wire;
import rombix.wire.Malformed;
import rombix.wire.osc.OscCodec;
import rombix.wire.osc.OscFraming;
import rombix.wire.osc.OscPacket;

/** OSC over TCP. */
final class OscStreamWire implements Wire {
    private static final int CONNECT_MILLIS = 3000;
    private static final int LOOK_MILLIS = 500;
    private static final int LARGEST = 65_536;

    private final Socket socket;
    private final OscFraming framing;
    private final OscFraming.Reader reader;
    private final long aheadMillis;
    /** Takes what a bundle holds, when its time tag says. */
    private final Consumer<Message> later;
    private final Deque<Message> read = new ArrayDeque<>();
    private final ByteBuffer out = ByteBuffer.allocate(LARGEST);

    OscStreamWire(Target target, OscFraming framing, long aheadMillis, Consumer<Message> later) throws IOException {
        this.framing = framing;
        this.aheadMillis = aheadMillis;
        this.later = later;
        socket = target.connect(CONNECT_MILLIS);
        socket.setSoTimeout(LOOK_MILLIS);
        socket.setKeepAlive(true);
        reader = framing.reader(new BufferedInputStream(socket.getInputStream()));
    }

    @Override
    public void write(Order.Outgoing packet) throws IOException {
        out.clear();
        try {
            OscCodec.encode(OscArguments.packet(packet, aheadMillis), out);
        } catch (BufferOverflowException e) {
            throw new IllegalArgumentException("the message is too long", e);
        }
        byte[] bytes = new byte[out.flip().remaining()];
        out.get(bytes);
        socket.getOutputStream().write(framing.frame(bytes));
        socket.getOutputStream().flush();
    }

    @Override
    public @Nullable Message read() throws IOException, Malformed {
        while (read.isEmpty()) {
            byte[] bytes = reader.next();
            if (bytes == null) {
                return null;
            }
            take(OscCodec.decode(ByteBuffer.wrap(bytes)));
        }
        return read.poll();
    }

    /** What is dated is handed on when it is due, past those who read; all else in its turn. */
    private void take(OscPacket packet) {
        switch (packet) {
            case OscPacket.Message m -> read.add(message(m));
            case OscPacket.Bundle b when b.time().millisFrom(Instant.now()) == 0 -> b.packets().forEach(this::take);
            case OscPacket.Bundle b -> TimedBundles.ALL.whenDue(b, this::whenDue);
        }
    }

    private void whenDue(OscPacket packet) {
        switch (packet) {
            case OscPacket.Message m -> later.accept(message(m));
            case OscPacket.Bundle b -> TimedBundles.ALL.whenDue(b, this::whenDue);
        }
    }

    private static Message message(OscPacket.Message m) {
        return new Message(m.address(), OscLink.values(m.args()));
    }

    @Override
    public void close() {
        try {
            socket.close();
        } catch (IOException e) {
            // It is gone either way.
        }
    }
}
