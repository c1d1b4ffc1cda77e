package rombix.links.osc;

import java.io.IOException;
import java.net.BindException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.PortUnreachableException;
import java.net.StandardSocketOptions;
import java.nio.BufferOverflowException;
import java.nio.ByteBuffer;
import java.nio.channels.DatagramChannel;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CountDownLatch;
import org.jspecify.annotations.Nullable;
import rombix.core.event.Cause;
import rombix.core.event.Status.Phase;
import rombix.core.twin.Order;
import rombix.core.twin.Twin;
import rombix.core.value.Value;
import rombix.links.link.GearPlaces;
import rombix.links.link.GearReport;
import rombix.links.link.HostPort;
import rombix.links.link.Link;
import rombix.links.link.Loop;
import rombix.links.link.Refused;
import rombix.links.talk.Polls;
import rombix.wire.Malformed;
import rombix.wire.osc.OscCodec;
import rombix.wire.osc.OscPacket;

/**
 * OSC over UDP, both ways over one socket: gear answers to where the greeting came from. UDP tells little of the other
 * end, so the gear is greeted every two seconds: an answer makes it ready, none leaves it silent, and so does a
 * refusal by its host. Commands are still sent, in case something listens there again.
 *
 * <p>
 * Orders are sent on the conductor's own thread: handing a datagram to the system does not wait for anybody.
 */
final class OscLink implements Link {
    private static final int LARGEST = 65_507;
    private static final long GREETING_MILLIS = 2000;
    private static final long PATIENCE_MILLIS = 300;
    private static final int MISSED_BEFORE_SILENT = 2;

    private final GearReport report;
    private final InetSocketAddress address;
    private final ByteBuffer out = ByteBuffer.allocateDirect(LARGEST);
    /** The receiver's. */
    private final ByteBuffer in = ByteBuffer.allocate(LARGEST);
    private final Loop receiver;
    private final Loop greeter;
    private final DatagramChannel channel;
    private final CountDownLatch connected = new CountDownLatch(1);
    private final GearPlaces places;
    private final long aheadMillis;
    private final int receivePort;
    /** Whether answers may come from another port than the one that is sent to. */
    private final boolean anyPort;
    private final Polls polls;
    /** Where it is, once its host is known. */
    private volatile @Nullable InetSocketAddress peer;
    private volatile int unanswered;
    /** Whether the last greeting was refused by its host, as far as is known. */
    private volatile boolean refused;

    OscLink(GearReport report, InetSocketAddress address, GearPlaces places) {
        this.report = report;
        this.address = address;
        this.places = places;
        this.aheadMillis = (long) places.number(Osc.AHEAD, 0);
        this.receivePort = (int) places.number(Osc.RECEIVE, 0);
        this.anyPort = receivePort > 0 || places.text(Osc.ANSWERS).equals(Osc.ANY_PORT);
        try {
            channel = DatagramChannel.open();
            channel.setOption(StandardSocketOptions.SO_BROADCAST, true);
            if (HostPort.isNumeric(address)) {
                connect();
            }
        } catch (IOException e) {
            throw new IllegalArgumentException("no route to " + HostPort.words(address) + ": " + e.getMessage(), e);
        }
        polls = new Polls(report, this::asked, _ -> null); // Before anything comes.
        receiver = Loop.start("osc-in " + report.twin().gear(), this::receive, report::troubled);
        greeter = Loop.start("osc-greeting " + report.twin().gear(), this::greet, report::troubled);
    }

    private void connect() throws IOException {
        InetSocketAddress to = HostPort.resolved(address);
        try {
            if (anyPort) {
                channel.bind(new InetSocketAddress(receivePort));
            } else {
                channel.connect(to);
            }
        } catch (BindException e) {
            throw new Refused(e, Cause.RECEIVE_PORT_TAKEN, String.valueOf(receivePort));
        }
        peer = to;
        connected.countDown();
    }

    private boolean isReached() {
        return peer != null;
    }

    private void greet() throws InterruptedException {
        refused = false;
        try {
            if (!isReached()) {
                connect();
            }
            for (Order.Outgoing packet : report.twin().greeting()) {
                write(places.made(packet));
                report.recordOutgoing("greeting", packet);
            }
        } catch (IOException e) {
            if (isReached()) {
                refused("can't be reached: " + e.getMessage());
            } else {
                refused = true;
                report.off(e);
            }
        }
        Twin twin = report.twin();
        if (!twin.greeting().isEmpty() || !twin.polls().isEmpty()) {
            unanswered++; // Who is asked nothing may be quiet.
        }
        Thread.sleep(PATIENCE_MILLIS);
        if (!refused && (report.phase() != Phase.READY || unanswered > MISSED_BEFORE_SILENT)) {
            report.status(Phase.SILENT, Cause.HAS_NOT_ANSWERED);
        }
        Thread.sleep(GREETING_MILLIS - PATIENCE_MILLIS);
    }

    /** Its host says that nothing listens there. It may listen again when the next command goes out: nobody would tell. */
    private void refused(String why) {
        refused = true;
        report.status(Phase.SILENT, Cause.DATAGRAM_REFUSED, why);
    }

    private String noAnswer() {
        return "no response from " + HostPort.words(address);
    }

    private void receive() throws InterruptedException {
        connected.await(); // Nothing can be received while it is being connected.
        try {
            in.clear();
            InetSocketAddress from = (InetSocketAddress) channel.receive(in);
            in.flip();
            InetSocketAddress to = peer;
            if (anyPort && to != null && !ours(to.getAddress(), from.getAddress())) {
                return; // Somebody else's.
            }
            unanswered = 0;
            if (report.phase() != Phase.READY) {
                polls.begin();
            }
            report.ready();
            take(OscCodec.decode(in));
        } catch (Malformed e) {
            report.ignored(String.valueOf(e.getMessage()));
        } catch (IOException e) {
            if (!receiver.closed()) {
                refused(noAnswer());
            }
        }
    }

    /** Whether an answer is of the gear that is sent to: all that answer a broadcast are. */
    private static boolean ours(InetAddress to, InetAddress from) {
        byte[] host = to.getAddress();
        return to.equals(from) || to.isMulticastAddress() || host.length == 4 && (host[3] & 0xFF) == 0xFF;
    }

    private void take(OscPacket packet) {
        switch (packet) {
            case OscPacket.Message m -> report.landed(m.address(), values(m.args()));
            case OscPacket.Bundle b -> {
                if (!TimedBundles.ALL.whenDue(b, this::take)) {
                    report.ignored("a bundle dated too far ahead, or too many bundles");
                }
            }
        }
    }

    /** What a message carries, in its order; what stands in arrays, too. */
    static List<Value> values(List<?> args) {
        List<Value> values = new ArrayList<>(args.size());
        for (Object arg : args) {
            switch (arg) {
                case List<?> array -> values.addAll(values(array));
                case Float f -> values.add(Value.of(Double.parseDouble(f.toString()))); // 0.49, as it was meant.
                case Number n -> values.add(Value.of(n.doubleValue()));
                case Boolean b -> values.add(Value.of(b));
                case OscPacket.Symbol s -> values.add(Value.of(s.text()));
                case OscPacket.Rgba c -> values.add(Value.of("#%06X".formatted(c.bits() >>> 8)));
                case OscPacket.Impulse _ -> values.add(Value.of(true));
                case OscPacket.Nil _ -> values.add(Value.of(""));
                case OscPacket.TimeTag t -> values.add(Value.of(t.bits() >>> 32));
                case OscPacket.Midi m -> values.add(Value.of("%08X".formatted(m.bits())));
                case byte[] blob -> values.add(Value.of(HexFormat.of().formatHex(blob)));
                default -> values.add(Value.of(arg.toString()));
            }
        }
        return values;
    }

    /** Asks; that an answer comes is seen by what it brings. */
    private CompletableFuture<?> asked(Order.Outgoing question) {
        try {
            if (isReached()) {
                write(places.made(question));
                return CompletableFuture.completedFuture(null);
            }
        } catch (IOException | IllegalArgumentException e) {
            return CompletableFuture.failedFuture(e);
        }
        return CompletableFuture.failedFuture(new IOException("its host name isn't resolved yet"));
    }

    @Override
    public void send(long ticket, Order order) {
        if (!isReached()) {
            report.failed(ticket, "no host “" + address.getHostString() + "” is resolved yet");
            return;
        }
        try {
            for (Order.Outgoing packet : order.packets()) {
                write(places.made(packet));
            }
            if (refused) {
                report.failed(ticket, noAnswer() + "; it was sent anyway");
            } else {
                report.sent(ticket);
            }
        } catch (IOException e) {
            report.failed(ticket, "the network refused: " + e.getMessage());
        } catch (IllegalArgumentException e) {
            report.failed(ticket, String.valueOf(e.getMessage()));
        } catch (BufferOverflowException e) {
            report.failed(ticket, "the message is too long for a datagram");
        }
    }

    private void write(Order.Outgoing packet) throws IOException {
        synchronized (out) {
            out.clear();
            OscCodec.encode(OscArguments.packet(packet, aheadMillis), out);
            InetSocketAddress to = peer;
            out.flip();
            if (anyPort && to != null) {
                channel.send(out, to);
                return;
            }
            try {
                channel.write(out);
            } catch (PortUnreachableException e) { // That was said of an earlier one, and this one was not sent.
                refused(noAnswer());
                channel.write(out);
            }
        }
    }

    @Override
    public boolean goesOn() {
        return true;
    }

    @Override
    public void close() {
        polls.close();
        receiver.close();
        greeter.close();
        try {
            channel.close();
        } catch (IOException e) {
            // It is gone either way.
        }
    }
}
