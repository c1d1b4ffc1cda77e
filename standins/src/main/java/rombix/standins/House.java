package rombix.standins;

import io.moquette.broker.Server;
import io.moquette.broker.config.IConfig;
import io.moquette.broker.config.MemoryConfig;
import io.moquette.interception.AbstractInterceptHandler;
import io.moquette.interception.messages.InterceptPublishMessage;
import io.netty.buffer.Unpooled;
import io.netty.handler.codec.mqtt.MqttMessageBuilders;
import io.netty.handler.codec.mqtt.MqttQoS;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Properties;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.function.BiConsumer;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/**
 * The house: an MQTT broker with locks, plugs, a heater, a camera and a music player behind it. Each thing's state is a
 * retained message on its topic; a message on the topic with {@code /set} behind it commands it. A newer plug, a bulb and
 * a sensor say and take all that they know as JSON.
 */
public final class House implements AutoCloseable {
    private static final JsonMapper JSON = new JsonMapper();
    private static final List<String> PLAYLISTS = List.of("slow-orbits", "first-light", "kettle-drums");

    private final Server broker = new Server();
    private final Received came = new Received();
    private final int boundPort;
    private final Map<String, String> states = new ConcurrentHashMap<>();
    private volatile BiConsumer<String, String> overhearing = (_, _) -> {
    };
    private final ExecutorService porter = Executors.newSingleThreadExecutor(
            Thread.ofPlatform().daemon().name("house").factory());

    /** @param port 0 for any free one */
    public House(int port) throws IOException {
        boundPort = free(port);
        Properties settings = new Properties();
        settings.setProperty(IConfig.PORT_PROPERTY_NAME, String.valueOf(boundPort));
        settings.setProperty(IConfig.HOST_PROPERTY_NAME, "127.0.0.1");
        settings.setProperty(IConfig.ALLOW_ANONYMOUS_PROPERTY_NAME, "true");
        settings.setProperty("allow_zero_byte_client_id", "true");
        settings.setProperty(IConfig.PERSISTENCE_ENABLED_PROPERTY_NAME, "false");
        settings.setProperty(IConfig.ENABLE_TELEMETRY_NAME, "false");
        broker.startServer(new MemoryConfig(settings), List.of(new Doorkeeper()));
        List.of("lock/dome-door=LOCKED", "lock/gate=LOCKED", "plug/dew-heaters=OFF", "plug/extractor-fan=OFF",
                "plug/tea-urn=OFF", "heater/temperature=18.5", "heater/target=18", "booth/camera=OFF",
                "music/playing=OFF", "music/playlist=slow-orbits", "music/shuffle=OFF", "music/volume=40")
                .forEach(s -> becomes("house/" + s.substring(0, s.indexOf('=')), s.substring(s.indexOf('=') + 1)));
        becomes("house/plug", "{\"state\":\"OFF\",\"power\":0.4}");
        becomes("house/bulb", "{\"state\":\"OFF\",\"brightness\":127}");
        becomes("house/sensor", "{\"temperature\":4.5,\"humidity\":81}");
    }

    public int port() {
        return boundPort;
    }

    /** A free port, or the one asked for if it is free: the broker itself would say nothing if it were not. */
    private static int free(int port) throws IOException {
        try (ServerSocket probe = new ServerSocket()) {
            probe.setReuseAddress(true);
            probe.bind(new InetSocketAddress(InetAddress.getLoopbackAddress(), port));
            return probe.getLocalPort();
        }
    }

    /** The state on a topic. */
    public Optional<String> state(String topic) {
        return Optional.ofNullable(states.get(topic));
    }

    /** Changes a state by hand, as at the thing itself. */
    public synchronized void becomes(String topic, String state) {
        states.put(topic, state);
        publish(topic, state, true);
    }

    /** Passes on a message that nothing keeps, such as that of a button by the door. */
    public void says(String topic, String text) {
        publish(topic, text, false);
    }

    private void publish(String topic, String text, boolean kept) {
        broker.internalPublish(MqttMessageBuilders.publish().topicName(topic).retained(kept).qos(
                MqttQoS.AT_LEAST_ONCE).payload(Unpooled.copiedBuffer(text, StandardCharsets.UTF_8)).build(), "house");
    }

    /** What came. */
    public Received received() {
        return came;
    }

    /** Has another told of every message that comes, by its topic and its text, on a thread of the broker's. */
    public void overhear(BiConsumer<String, String> another) {
        overhearing = another;
    }

    private final class Doorkeeper extends AbstractInterceptHandler {
        @Override
        public String getID() {
            return "house";
        }

        @Override
        public void onPublish(InterceptPublishMessage message) {
            try {
                String topic = message.getTopicName();
                String payload = message.getPayload().toString(StandardCharsets.UTF_8);
                overhearing.accept(topic, payload);
                came.add(topic + " " + payload);
                if (topic.endsWith("/set")) {
                    porter.execute(() -> command(topic.substring(0, topic.length() - "/set".length()), payload));
                }
            } finally {
                super.onPublish(message);
            }
        }

        @Override
        public void onSessionLoopError(Throwable error) {
            throw new IllegalStateException("the broker failed", error);
        }
    }

    private void command(String topic, String payload) {
        if (!states.containsKey(topic)) {
            return;
        }
        if (payload.startsWith("{")) {
            members(topic, payload);
            return;
        }
        String kind = topic.split("/")[1];
        switch (kind) {
            case "lock" -> {
                if (payload.equals("LOCK") || payload.equals("UNLOCK")) {
                    becomes(topic, payload + "ED");
                }
            }
            case "heater" -> number(payload, 5, 28).ifPresent(n -> becomes(topic, n));
            case "music" -> music(topic, payload);
            default -> flag(topic, payload);
        }
    }

    /** Takes the members that it has; passes over the rest. */
    private void members(String topic, String payload) {
        try {
            ObjectNode now = (ObjectNode) JSON.readTree(states.get(topic));
            JSON.readTree(payload).properties().stream().filter(e -> now.has(e.getKey())).forEach(e -> now.set(e
                    .getKey(), e.getValue()));
            becomes(topic, now.toString());
        } catch (JacksonException | ClassCastException e) {
            // A thing passes over what it does not understand.
        }
    }

    private void music(String topic, String payload) {
        if (topic.endsWith("volume")) {
            number(payload, 0, 100).ifPresent(n -> becomes(topic, n));
        } else if (topic.endsWith("playlist")) {
            if (PLAYLISTS.contains(payload)) {
                becomes(topic, payload);
            }
        } else {
            flag(topic, payload);
        }
    }

    private void flag(String topic, String payload) {
        if (payload.equals("ON") || payload.equals("OFF")) {
            becomes(topic, payload);
        }
    }

    private static Optional<String> number(String payload, double min, double max) {
        try {
            double n = Double.parseDouble(payload);
            return n >= min && n <= max ? Optional.of(payload) : Optional.empty();
        } catch (NumberFormatException e) {
            return Optional.empty();
        }
    }

    @Override
    public void close() {
        porter.shutdown();
        // The broker takes two seconds to be sure that nobody speaks any more; nobody waits for that.
        Thread.ofPlatform().daemon().name("broker stops").start(broker::stopServer);
    }
}
