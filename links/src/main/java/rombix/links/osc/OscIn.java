package rombix.links.osc;

import java.io.IOException;
import java.net.BindException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.ByteBuffer;
import java.nio.channels.DatagramChannel;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import rombix.core.touch.Touch;
import rombix.links.link.Loop;
import rombix.wire.Malformed;
import rombix.wire.osc.OscCodec;
import rombix.wire.osc.OscPacket;

/** Listens for OSC messages that pull triggers, on this machine's loopback. Safe to use from any thread. */
public final class OscIn implements AutoCloseable {
    private static final int LARGEST = 65_507;

    private final Consumer<Touch> touched;
    private final ByteBuffer in = ByteBuffer.allocate(LARGEST);
    private @Nullable DatagramChannel channel;
    private @Nullable Loop loop;
    private int port = -1;
    private String trouble = "";

    /** @param touched told of each message, on the receiving thread; must not block */
    public OscIn(Consumer<Touch> touched) {
        this.touched = touched;
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
            DatagramChannel opened = DatagramChannel.open();
            try {
                opened.bind(new InetSocketAddress(InetAddress.getLoopbackAddress(), at));
            } catch (IOException e) {
                opened.close();
                throw e;
            }
            channel = opened;
            loop = Loop.start("osc-triggers", () -> receive(opened), this::lost);
        } catch (BindException e) {
            trouble = "another program listens at port " + at;
        } catch (IOException e) {
            trouble = "cannot listen at port " + at + ": " + e.getMessage();
        }
    }

    private void receive(DatagramChannel from) throws IOException {
        in.clear();
        from.receive(in);
        try {
            take(OscCodec.decode(in.flip()));
        } catch (Malformed e) {
            // What is no OSC presses nothing.
        }
    }

    private synchronized void lost(Throwable e) {
        if (channel != null) {
            trouble = "a message could not be taken at port " + port() + ": " + e;
        }
    }

    private void take(OscPacket packet) {
        switch (packet) {
            // An impulse is something that happens, without a value: it presses and releases.
            case OscPacket.Message m -> touched.accept(new Touch.Osc(m.address(), OscLink.values(m.args().stream()
                    .filter(a -> !(a instanceof OscPacket.Impulse)).toList())));
            case OscPacket.Bundle b -> OscLink.whenDue(b, this::take);
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
