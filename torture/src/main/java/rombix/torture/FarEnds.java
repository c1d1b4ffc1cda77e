package rombix.torture;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import rombix.standins.set.StandIns;
import rombix.wire.Malformed;
import rombix.wire.dmx.SacnPacket;
import rombix.wire.osc.OscCodec;
import rombix.wire.osc.OscPacket;

/** The far end of gear of five protocols, where each press and each release that arrives is counted. */
final class FarEnds implements AutoCloseable {
    /** The gear of the demo that is counted. */
    static final String[] GEAR = {"studio", "desk", "lamps", "house", "chat"};

    private static final int HOST_MUTE = 20;
    private static final int HOST_LEVEL = 30;
    private static final int DESK_KEY = 1;
    private static final String GATE = "house/lock/gate/set";

    private final StandIns standIns = StandIns.onFreePorts();
    private final DatagramSocket studio = new DatagramSocket(0, InetAddress.getLoopbackAddress());
    private final DatagramSocket lamps = new DatagramSocket(0, InetAddress.getLoopbackAddress());
    private final ServerSocket chat = new ServerSocket(0, 50, InetAddress.getLoopbackAddress());
    private final Socket desk = new Socket(InetAddress.getLoopbackAddress(), standIns.desk().port());
    private final Map<String, AtomicInteger> presses = new ConcurrentHashMap<>();
    private final Map<String, AtomicInteger> releases = new ConcurrentHashMap<>();

    FarEnds() throws IOException {
        standIns.house().overhear((topic, text) -> {
            if (topic.equals(GATE)) {
                count("house", !text.equals("LOCK"));
            }
        });
        clear();
        daemon(this::studio);
        daemon(this::lamps);
        daemon(this::chat);
        daemon(this::desk);
    }

    private interface Listening {
        void run() throws IOException;
    }

    private static void daemon(Listening what) {
        Thread.ofVirtual().start(() -> {
            try {
                what.run();
            } catch (IOException e) {
                // It was closed.
            }
        });
    }

    /** Where each is reached, by gear. */
    Map<String, String> addresses() {
        Map<String, String> all = new HashMap<>(standIns.addresses());
        all.put("studio", "127.0.0.1:" + studio.getLocalPort());
        all.put("lamps", "127.0.0.1:" + lamps.getLocalPort());
        all.put("chat", "127.0.0.1:" + chat.getLocalPort());
        return all;
    }

    /** Counts from none. */
    void clear() {
        for (String g : GEAR) {
            presses.put(g, new AtomicInteger());
            releases.put(g, new AtomicInteger());
        }
    }

    private void count(String gear, boolean press) {
        AtomicInteger of = (press ? presses : releases).get(gear);
        if (of != null) {
            of.incrementAndGet();
        }
    }

    boolean pressed() {
        return presses.values().stream().allMatch(n -> n.get() > 0);
    }

    /** As {@link #pressed}, whatever one of them has heard. */
    boolean pressedBut(String gear) {
        return presses.entrySet().stream().allMatch(e -> e.getKey().equals(gear) || e.getValue().get() > 0);
    }

    boolean released() {
        return releases.values().stream().allMatch(n -> n.get() > 0);
    }

    /** How often each was pressed. */
    Map<String, Integer> presses() {
        return numbers(presses);
    }

    /** How often each was released. */
    Map<String, Integer> releases() {
        return numbers(releases);
    }

    private static Map<String, Integer> numbers(Map<String, AtomicInteger> of) {
        Map<String, Integer> all = new TreeMap<>();
        of.forEach((gear, n) -> all.put(gear, n.get()));
        return all;
    }

    private void studio() throws IOException {
        DatagramPacket packet = new DatagramPacket(new byte[2048], 2048);
        boolean streaming = false;
        while (true) {
            studio.receive(packet);
            try {
                OscPacket got = OscCodec.decode(ByteBuffer.wrap(packet.getData(), 0, packet.getLength()));
                if (got instanceof OscPacket.Message m && m.address().equals("/studio/set/stream")) {
                    count("studio", Boolean.TRUE.equals(m.args().getFirst()));
                }
                streaming = got instanceof OscPacket.Message m && m.address().equals("/studio/set/stream")
                        ? Boolean.TRUE.equals(m.args().getFirst())
                        : streaming;
                ByteBuffer answer = ByteBuffer.allocate(256);
                OscCodec.encode(new OscPacket.Message("/studio/stream", List.of(streaming)), answer);
                studio.send(new DatagramPacket(answer.array(), answer.position(), packet.getSocketAddress()));
            } catch (Malformed e) {
                // Only what can be understood counts.
            }
        }
    }

    private void lamps() throws IOException {
        DatagramPacket packet = new DatagramPacket(new byte[2048], 2048);
        int last = 0;
        while (true) {
            lamps.receive(packet);
            try {
                int now = SacnPacket.decode(ByteBuffer.wrap(packet.getData(), 0, packet.getLength()))
                        .levels()[DESK_KEY - 1] & 255;
                if (now != last) {
                    count("lamps", now > 0);
                }
                last = now;
            } catch (Malformed e) {
                // Only what can be understood counts.
            }
        }
    }

    private void chat() throws IOException {
        while (true) {
            Socket s = chat.accept();
            daemon(() -> room(s));
        }
    }

    private volatile boolean slow;

    private void room(Socket s) throws IOException {
        try (s;
                BufferedReader in = new BufferedReader(new InputStreamReader(s.getInputStream(),
                        StandardCharsets.UTF_8))) {
            for (String line = in.readLine(); line != null; line = in.readLine()) {
                String answer = null;
                if (line.startsWith("USER")) {
                    answer = ":s 001 rombix :Welcome";
                } else if (line.startsWith("PING")) {
                    answer = ":s PONG s " + line.substring(5);
                } else if (line.equals("MODE #star-night")) {
                    answer = ":s 324 rombix #star-night +" + (slow ? "m" : "");
                } else if (line.startsWith("MODE #star-night ")) {
                    slow = line.contains("+m");
                    count("chat", slow);
                    answer = ":s MODE #star-night " + (slow ? "+m" : "-m");
                }
                if (answer != null) {
                    s.getOutputStream().write((answer + "\r\n").getBytes(StandardCharsets.UTF_8));
                }
            }
        }
    }

    /** The desk says to all who are plugged in what was set; whoever comes is told all of it, channel by channel. */
    private void desk() throws IOException {
        InputStream in = desk.getInputStream();
        int before = 0;
        int number = 0;
        int last = 0;
        int host = 0;
        for (int b = in.read(); b >= 0; b = in.read()) {
            if (before == 0xB0 && number < 0) {
                number = b;
            } else if (before == 0xB0) {
                if (number == HOST_MUTE) {
                    host = b;
                    count("desk", b < 64);
                } else if (number == HOST_LEVEL && last == HOST_MUTE) { // That was for somebody who came.
                    (host < 64 ? presses : releases).getOrDefault("desk", new AtomicInteger()).decrementAndGet();
                }
                last = number;
                before = 0;
            } else {
                before = b;
                number = -1;
            }
        }
    }

    @Override
    public void close() throws IOException {
        desk.close();
        chat.close();
        studio.close();
        lamps.close();
        standIns.close();
    }
}
