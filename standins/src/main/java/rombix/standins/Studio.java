package rombix.standins;

import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import rombix.wire.osc.OscPacket.Message;

/** The studio: scenes, layers, stream, record and replay clips, over OSC. {@code /studio/hello} is its hello. */
public final class Studio implements AutoCloseable {
    public static final Map<String, String> SCENES = ordered("waiting-card", "Waiting Card", "host-desk", "Host Desk",
            "main-scope", "Main Scope", "wide-field", "Wide Field", "sky-map", "Sky Map", "guest-chair", "Guest Chair",
            "clouded-out", "Clouded Out", "closing-card", "Closing Card");
    public static final Map<String, String> LAYERS = ordered("lower-third", "Lower Third", "viewer-alerts",
            "Viewer Alerts", "countdown", "Countdown", "seeing-graph", "Seeing Graph");
    private static final String SET_LAYER = "/studio/set/layer/";

    private final OscServer server;
    private final Received came = new Received();
    private final Map<String, Boolean> shown = new LinkedHashMap<>();
    private String scene = "sky-map";
    private boolean streaming;
    private boolean recording;
    private int clips;

    /** @param port 0 for any free one */
    public Studio(int port) throws IOException {
        LAYERS.keySet().forEach(l -> shown.put(l, false));
        server = new OscServer("studio", port, "/studio/hello");
        server.serve(new Served(), this);
    }

    public int port() {
        return server.port();
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

    /** What came. */
    public Received received() {
        return came;
    }

    public synchronized boolean recording() {
        return recording;
    }

    public synchronized boolean shown(String layer) {
        return shown.getOrDefault(layer, false);
    }

    /** Works it by hand, as on the studio's own screen. @param what such as {@code scene} or {@code layer/countdown} */
    public synchronized void work(String what, Object to) {
        set("/studio/set/" + what, to);
    }

    /** How many datagrams could not be read. */
    public long malformed() {
        return server.malformed();
    }

    private final class Served implements OscServer.Gear {
        @Override
        public void take(Message m) {
            came.add(m.address() + " " + m.args());
            synchronized (Studio.this) {
                if (m.address().equals("/studio/replay/keep")) {
                    clips++;
                    server.tell(is("clips", clips));
                } else if (!m.args().isEmpty()) {
                    set(m.address(), m.args().getFirst());
                }
            }
        }

        @Override
        public Message alive() {
            return is("scene", scene());
        }

        @Override
        public List<Message> everything() {
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
    }

    private void set(String address, Object arg) {
        if (address.equals("/studio/set/scene") && SCENES.containsKey(arg.toString())) {
            scene = arg.toString();
            server.tell(is("scene", scene));
        } else if (address.equals("/studio/set/stream")) {
            streaming = yes(arg);
            server.tell(is("stream", streaming ? 1 : 0));
        } else if (address.equals("/studio/set/record")) {
            recording = yes(arg);
            server.tell(is("record", recording ? 1 : 0));
        } else if (address.startsWith(SET_LAYER)) {
            String layer = address.substring(SET_LAYER.length());
            if (shown.containsKey(layer)) {
                shown.put(layer, yes(arg));
                server.tell(is("layer/" + layer, yes(arg) ? 1 : 0));
            }
        }
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

    private static Map<String, String> ordered(String... idsAndNames) {
        Map<String, String> map = new LinkedHashMap<>();
        for (int i = 0; i < idsAndNames.length; i += 2) {
            map.put(idsAndNames[i], idsAndNames[i + 1]);
        }
        return map;
    }

    @Override
    public void close() {
        server.close();
    }
}
