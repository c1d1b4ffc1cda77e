package rombix.standins;

import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import rombix.wire.osc.OscPacket.Message;

/**
 * The lamps' cue lists, over OSC: {@code /cues/LIST/go}, {@code back} and {@code release}. Each change of a list's cue
 * is told as {@code /cues/LIST/cue} with its number, 0 while the list is released. {@code /cues/hello} is its hello.
 */
public final class Cues implements AutoCloseable {
    /** How many cues each list has. */
    private static final Map<String, Integer> LISTS = Map.of("house-lights", 6, "dome-walk", 4);

    private final OscServer server;
    private final Received came = new Received();
    private final Map<String, Integer> at = new LinkedHashMap<>();

    /** @param port 0 for any free one */
    public Cues(int port) throws IOException {
        LISTS.keySet().stream().sorted().forEach(l -> at.put(l, 0));
        server = new OscServer("cues", port, "/cues/hello");
        server.serve(new Served(), this);
    }

    public int port() {
        return server.port();
    }

    /** The number of the cue that a list is at, 0 while it is released. */
    public synchronized int cue(String list) {
        return at.getOrDefault(list, 0);
    }

    /** What came. */
    public Received received() {
        return came;
    }

    private final class Served implements OscServer.Gear {
        @Override
        public List<Message> everything() {
            return at.keySet().stream().map(Cues.this::is).toList();
        }

        @Override
        public Message alive() {
            return everything().getFirst();
        }

        @Override
        public void take(Message m) {
            came.add(m.address() + " " + m.args());
            String[] parts = m.address().split("/");
            if (parts.length == 4 && parts[1].equals("cues") && LISTS.containsKey(parts[2])) {
                work(parts[2], parts[3]);
            }
        }
    }

    /** Works a list by hand, as on the desk itself; at its last cue it stays there. */
    public synchronized void work(String list, String key) {
        int max = LISTS.getOrDefault(list, 0);
        at.computeIfPresent(list, (_, now) -> switch (key) {
            case "go" -> Math.min(max, now + 1);
            case "back" -> Math.max(0, now - 1);
            case "release" -> 0;
            default -> now;
        });
        server.tell(is(list));
    }

    private Message is(String list) {
        return new Message("/cues/" + list + "/cue", cue(list));
    }

    @Override
    public void close() {
        server.close();
    }
}
