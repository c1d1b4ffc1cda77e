package rombix.links.osc;

import java.io.IOException;
import java.net.BindException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.ByteBuffer;
import java.nio.channels.DatagramChannel;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import rombix.core.touch.Touch;
import rombix.links.link.Loop;
import rombix.wire.Malformed;
import rombix.wire.osc.OscCodec;
import rombix.wire.osc.OscPacket;

/**
 * Listens for OSC messages that pull triggers: on this machine's loopback, and where its owner has named others, from
 * those, too. Safe to use from any thread.
 */
public final class OscIn implements AutoCloseable {
    private static final int LARGEST = 65_507;

    private final Consumer<Touch> touched;
    private final Supplier<Set<InetAddress>> senders;
    private final ByteBuffer in = ByteBuffer.allocate(LARGEST);
    private @Nullable DatagramChannel channel;
    private @Nullable Loop loop;
    private int port = -1;
    private String trouble = "";
    private List<String> named = List.of();

    /** @param touched told of each message, on the receiving thread; must not block */
    public OscIn(Consumer<Touch> touched) {
        this(touched, Set::of);
    }

    /** @param senders from where else messages are taken; asked when it begins to listen */
    public OscIn(Consumer<Touch> touched, Supplier<Set<InetAddress>> senders) {
        this.touched = touched;
        this.senders = senders;
    }

    /** Listens at a port from now on (0 for any that is free), or nowhere when it is negative. */
    public synchronized void listen(int at) {
        if (at == port && (channel != null || at < 0)) {
            return;
        }
        close();
        port = at;
        trouble = "";
        if (at < 0) {
            return;
        }
        try {
            Set<InetAddress> others = senders.get();
            named = others.stream().map(InetAddress::getHostAddress).toList();
            DatagramChannel opened = DatagramChannel.open();
            try {
                opened.bind(others.isEmpty()
                        ? new InetSocketAddress(InetAddress.getLoopbackAddress(), at)
                        : new InetSocketAddress(at));
            } catch (IOException e) {
                opened.close();
                throw e;
            }
            channel = opened;
            loop = Loop.start("osc-triggers", () -> receive(opened, others), this::lost);
        } catch (BindException e) {
            trouble = "another program is using port " + at;
        } catch (IOException e) {
            trouble = "can't listen on port " + at + ": " + e.getMessage();
        }
    }

    private void receive(DatagramChannel from, Set<InetAddress> others) throws IOException {
        in.clear();
        InetSocketAddress sender = (InetSocketAddress) from.receive(in);
        if (!sender.getAddress().isLoopbackAddress() && !others.contains(sender.getAddress())) {
            return; // Nobody who was named.
        }
        try {
            take(OscCodec.decode(in.flip()));
        } catch (Malformed e) {
            // What is no OSC presses nothing.
        }
    }

    private synchronized void lost(Throwable e) {
        if (channel != null) {
            trouble = "a message was lost on port " + port() + ": " + e;
        }
    }

    private void take(OscPacket packet) {
        switch (packet) {
            // An impulse is something that happens, without a value: it presses and releases.
            case OscPacket.Message m -> touched.accept(new Touch.Osc(m.address(), OscLink.values(m.args().stream()
                    .filter(a -> !(a instanceof OscPacket.Impulse)).toList())));
            case OscPacket.Bundle b -> TimedBundles.ALL.whenDue(b, this::take);
        }
    }

    /** Where it listens; -1 where it does not. */
    public synchronized int port() {
        try {
            return channel == null ? -1 : ((InetSocketAddress) channel.getLocalAddress()).getPort();
        } catch (IOException e) {
            return -1;
        }
    }

    /** The computers from which it takes messages, beside this one. */
    public synchronized List<String> senders() {
        return named;
    }

    /** Why it cannot listen, in words; empty where nothing is wrong. */
    public synchronized String trouble() {
        return trouble;
    }

    @Override
    public synchronized void close() {
        DatagramChannel open = channel;
        channel = null;
        port = -1;
        if (loop != null) {
            loop.close();
        }
        if (open != null) {
            try {
                open.close();
            } catch (IOException e) {
                // It is gone either way.
            }
        }
    }
}
