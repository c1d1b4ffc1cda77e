package rombix.standins;

import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.SocketAddress;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import rombix.wire.Malformed;
import rombix.wire.osc.OscCodec;
import rombix.wire.osc.OscPacket;
import rombix.wire.osc.OscPacket.Message;

/**
 * The studio: scenes, layers, stream, record and replay clips, over OSC. Whoever says {@code /studio/hello} is told all
 * that it shows, and from then on every change, whoever made it.
 */
public final class Studio implements AutoCloseable {
    private static final Map<String, String> SCENES = ordered("waiting-card", "Waiting Card", "host-desk", "Host Desk",
            "main-scope", "Main Scope", "wide-field", "Wide Field", "sky-map", "Sky Map", "guest-chair", "Guest Chair",
            "clouded-out", "Clouded Out", "closing-card", "Closing Card");
    private static final Map<String, String> LAYERS = ordered("lower-third", "Lower Third", "viewer-alerts",
            "Viewer Alerts", "countdown", "Countdown", "seeing-graph", "Seeing Graph");
    private static final int LARGEST = 65_507;

    private final DatagramSocket socket;
    private final Set<SocketAddress> listeners = ConcurrentHashMap.newKeySet();
    private final Map<String, Boolean> shown = new LinkedHashMap<>();
    private String scene = "sky-map";
    private boolean streaming;
    private boolean recording;
    private int clips;
    private long malformed;

    /** @param port 0 for any free one */
    public Studio(int port) throws IOException {
        socket = new DatagramSocket(new InetSocketAddress(InetAddress.getLoopbackAddress(), port));
        LAYERS.keySet().forEach(l -> shown.put(l, false));
        Thread.ofVirtual().name("studio").start(this::serve);
    }

    public int port() {
        return socket.getLocalPort();
    }

    /** The id of the scene on air. */
    public synchronized String scene() {
        return scene;
    }

    public synchronized boolean streaming() {
        return streaming;
    }

    public synchronized int clips() {
        return clips;
    }

    /** How many datagrams could not be read. */
    public synchronized long malformed() {
        return malformed;
    }

    private void serve() {
        DatagramPacket in = new DatagramPacket(new byte[LARGEST], LARGEST);
        while (!socket.isClosed()) {
            try {
                in.setLength(LARGEST);
                socket.receive(in);
                take(OscCodec.decode(ByteBuffer.wrap(in.getData(), 0, in.getLength())), in.getSocketAddress());
            } catch (Malformed e) {
                synchronized (this) {
                    malformed++;
                }
            } catch (IOException e) {
                // Closed, or a listener that has gone away; the next one is served all the same.
            }
        }
    }

    private synchronized void take(OscPacket packet, SocketAddress from) throws IOException {
        switch (packet) {
            case OscPacket.Bundle b -> {
                for (OscPacket inner : b.packets()) {
                    take(inner, from);
                }
            }
            case Message m -> take(m, from);
        }
    }

    private void take(Message m, SocketAddress from) throws IOException {
        String address = m.address();
        if (address.equals("/studio/hello")) {
            boolean known = !listeners.add(from);
            for (Message report : known ? List.of(is("scene", scene)) : everything()) {
                send(report, from);
            }
        } else if (address.equals("/studio/replay/keep")) {
            clips++;
            tell(is("clips", clips));
        } else if (!m.args().isEmpty()) {
            Object arg = m.args().getFirst();
            if (address.equals("/studio/set/scene") && SCENES.containsKey(arg.toString())) {
                scene = arg.toString();
                tell(is("scene", scene));
            } else if (address.equals("/studio/set/stream")) {
                streaming = yes(arg);
                tell(is("stream", streaming ? 1 : 0));
            } else if (address.equals("/studio/set/record")) {
                recording = yes(arg);
                tell(is("record", recording ? 1 : 0));
            } else if (address.startsWith("/studio/set/layer/")) {
                String layer = address.substring("/studio/set/layer/".length());
                if (shown.containsKey(layer)) {
                    shown.put(layer, yes(arg));
                    tell(is("layer/" + layer, yes(arg) ? 1 : 0));
                }
            }
        }
    }

    private List<Message> everything() {
        List<Message> all = new ArrayList<>();
        all.add(listed("scenes", SCENES));
        all.add(listed("layers", LAYERS));
        all.add(is("scene", scene));
        all.add(is("stream", streaming ? 1 : 0));
        all.add(is("record", recording ? 1 : 0));
        all.add(is("clips", clips));
        shown.forEach((layer, on) -> all.add(is("layer/" + layer, on ? 1 : 0)));
        return all;
    }

    private static Message listed(String what, Map<String, String> things) {
        List<Object> args = new ArrayList<>();
        things.forEach((id, name) -> {
            args.add(id);
            args.add(name);
        });
        return new Message("/studio/" + what, args);
    }

    private static Message is(String what, Object value) {
        return new Message("/studio/" + what, value);
    }

    private static boolean yes(Object arg) {
        return arg instanceof Boolean b ? b : arg instanceof Number n && n.doubleValue() >= 0.5;
    }

    private void tell(Message report) {
        for (SocketAddress listener : listeners) {
            try {
                send(report, listener);
            } catch (IOException e) {
                listeners.remove(listener);
            }
        }
    }

    private void send(Message message, SocketAddress to) throws IOException {
        ByteBuffer out = ByteBuffer.allocate(LARGEST);
        OscCodec.encode(message, out);
        socket.send(new DatagramPacket(out.array(), out.position(), to));
    }

    private static Map<String, String> ordered(String... idsAndNames) {
        Map<String, String> map = new LinkedHashMap<>();
        for (int i = 0; i < idsAndNames.length; i += 2) {
            map.put(idsAndNames[i], idsAndNames[i + 1]);
        }
        return map;
    }

    @Override
    public void close() {
        socket.close();
    }
}
