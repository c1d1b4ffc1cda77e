package rombix.links.osc;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.PortUnreachableException;
import java.nio.BufferOverflowException;
import java.nio.ByteBuffer;
import java.nio.channels.DatagramChannel;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import rombix.core.card.As;
import rombix.core.card.Order;
import rombix.core.engine.Status.Phase;
import rombix.core.value.Value;
import rombix.links.link.GearReport;
import rombix.links.link.HostPort;
import rombix.links.link.Link;
import rombix.links.link.Loop;
import rombix.wire.Malformed;
import rombix.wire.osc.OscCodec;
import rombix.wire.osc.OscPacket;

/**
 * OSC over UDP, both ways over one socket: gear answers to where the greeting came from. UDP tells little of the other
 * end, so the gear is greeted every two seconds: an answer makes it ready, none leaves it silent (commands go out all
 * the same), and a refusal by its host makes it off.
 *
 * <p>
 * Orders are sent on the conductor's own thread: handing a datagram to the system does not wait for anybody.
 */
final class OscLink implements Link {
    /** What is dated further ahead than this is taken for a clock that is wrong, and dropped. */
    private static final long LATEST_MILLIS = 3_600_000;
    private static final int LARGEST = 65_507;
    private static final long GREETING_MILLIS = 2000;
    private static final long PATIENCE_MILLIS = 300;
    private static final int MISSED_BEFORE_SILENT = 3;

    private final GearReport report;
    private final InetSocketAddress address;
    private final ByteBuffer out = ByteBuffer.allocateDirect(LARGEST);
    /** The receiver's. */
    private final ByteBuffer in = ByteBuffer.allocate(LARGEST);
    private final Loop receiver;
    private final Loop greeter;
    private final DatagramChannel channel;
    private final CountDownLatch connected = new CountDownLatch(1);
    private volatile int unanswered;

    OscLink(GearReport report, InetSocketAddress address) {
        this.report = report;
        this.address = address;
        try {
            channel = DatagramChannel.open();
            if (HostPort.isNumeric(address)) {
                connect();
            }
        } catch (IOException e) {
            throw new IllegalArgumentException("no way to " + HostPort.words(address) + ": " + e.getMessage(), e);
        }
        receiver = Loop.start("osc-in " + report.twin().gear(), this::receive, report::troubled);
        greeter = Loop.start("osc-greeting " + report.twin().gear(), this::greet, report::troubled);
    }

    private void connect() throws IOException {
        channel.connect(HostPort.resolved(address));
        connected.countDown();
    }

    private void greet() throws InterruptedException {
        boolean refused = false;
        try {
            if (!channel.isConnected()) {
                connect();
            }
            for (Order.Outgoing packet : report.twin().greeting()) {
                write(packet);
            }
        } catch (PortUnreachableException e) {
            refused = true;
        } catch (IOException e) {
            report.off(channel.isConnected() ? "cannot be reached: " + e.getMessage() : String.valueOf(e.getMessage()));
            refused = true;
        }
        unanswered++;
        Thread.sleep(PATIENCE_MILLIS);
        if (!refused && (report.phase() != Phase.OFF && unanswered > MISSED_BEFORE_SILENT
                || report.phase() == Phase.CONNECTING)) {
            report.status(Phase.SILENT, "silent",
                    "It has not answered, so its readings are unknown. Commands are still sent.");
        }
        Thread.sleep(GREETING_MILLIS - PATIENCE_MILLIS);
    }

    private void refused() {
        report.off("no answer at " + HostPort.words(address));
    }

    private void receive() throws InterruptedException {
        connected.await(); // Nothing can be received while it is being connected.
        try {
            in.clear();
            channel.receive(in);
            in.flip();
            unanswered = 0;
            report.ready();
            take(OscCodec.decode(in));
        } catch (Malformed e) {
            report.ignored(String.valueOf(e.getMessage()));
        } catch (IOException e) {
            if (!receiver.closed()) {
                refused();
            }
        }
    }

    private void take(OscPacket packet) {
        switch (packet) {
            case OscPacket.Message m -> report.landed(m.address(), values(m.args()));
            case OscPacket.Bundle b -> whenDue(b, this::take);
        }
    }

    /** Hands on what a bundle holds when its time tag says, and at once where that has gone by. */
    static void whenDue(OscPacket.Bundle bundle, Consumer<OscPacket> to) {
        long millis = bundle.time().millisFrom(Instant.now());
        if (millis == 0) {
            bundle.packets().forEach(to);
        } else if (millis <= LATEST_MILLIS) {
            CompletableFuture.delayedExecutor(millis, TimeUnit.MILLISECONDS).execute(() -> bundle.packets().forEach(
                    to));
        }
    }

    /** What a message carries, in its order; what stands in arrays, too. */
    static List<Value> values(List<?> args) {
        List<Value> values = new ArrayList<>(args.size());
        for (Object arg : args) {
            switch (arg) {
                case List<?> array -> values.addAll(values(array));
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

    @Override
    public void send(long ticket, Order order) {
        if (!channel.isConnected()) {
            report.failed(ticket, "no host “" + address.getHostString() + "” is known yet");
            return;
        }
        try {
            for (Order.Outgoing packet : order.packets()) {
                write(packet);
            }
            report.sent(ticket);
        } catch (PortUnreachableException e) {
            refused();
            report.failed(ticket, "no answer at " + HostPort.words(address));
        } catch (IOException e) {
            report.failed(ticket, "the network refused it: " + e.getMessage());
        } catch (BufferOverflowException e) {
            report.failed(ticket, "the message is too long for one datagram");
        }
    }

    private void write(Order.Outgoing packet) throws IOException {
        synchronized (out) {
            out.clear();
            OscCodec.encode(new OscPacket.Message(packet.address(), OscArguments.of(packet)), out);
            channel.write(out.flip());
        }
    }

    @Override
    public void close() {
        receiver.close();
        greeter.close();
        try {
            channel.close();
        } catch (IOException e) {
            // It is gone either way.
        }
    }
}
