package rombix.links.mqtt;

import com.hivemq.client.mqtt.datatypes.MqttQos;
import com.hivemq.client.mqtt.mqtt3.Mqtt3AsyncClient;
import com.hivemq.client.mqtt.mqtt3.Mqtt3Client;
import com.hivemq.client.mqtt.mqtt3.message.publish.Mqtt3Publish;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.UUID;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import rombix.core.card.Order;
import rombix.core.value.Value;
import rombix.links.link.Connected;
import rombix.links.link.GearReport;
import rombix.links.link.HostPort;
import rombix.links.link.Link;
import rombix.wire.Malformed;

/** MQTT 3.1.1: publishes commands with QoS 1, follows the topics of the card's readings, and reconnects by itself. */
final class MqttLink implements Link {
    private static final int CONNECT_SECONDS = 4;

    private final GearReport report;
    private final InetSocketAddress address;
    private final Mqtt3AsyncClient client;
    private final Connected<Session> connected;
    /** Ends with the present session, with why. */
    private volatile CompletableFuture<Throwable> ended = new CompletableFuture<>();

    /** A session with the broker. */
    private final class Session implements AutoCloseable {
        @Override
        public void close() {
            client.disconnect();
        }
    }

    MqttLink(GearReport report, InetSocketAddress address) {
        this.report = report;
        this.address = address;
        client = Mqtt3Client.builder().identifier("rombix-" + UUID.randomUUID().toString().substring(0, 8))
                .serverHost(address.getHostString()).serverPort(address.getPort())
                .transportConfig().socketConnectTimeout(
                        CONNECT_SECONDS, TimeUnit.SECONDS)
                .mqttConnectTimeout(CONNECT_SECONDS, TimeUnit.SECONDS)
                .applyTransportConfig().addDisconnectedListener(c -> ended.complete(c.getCause())).buildAsync();
        connected = new Connected<>(report, "mqtt", new Connected.Way<>() {
            @Override
            public Session connect() throws IOException, InterruptedException {
                return open();
            }

            @Override
            public void serve(Session session) throws IOException, InterruptedException {
                subscribe();
                report.ready();
                await(ended);
                throw new IOException("no broker at " + HostPort.words(address));
            }
        });
    }

    private Session open() throws IOException, InterruptedException {
        ended = new CompletableFuture<>();
        try {
            await(client.connectWith().cleanSession(true).keepAlive(5).send());
            return new Session();
        } catch (IOException e) {
            throw new IOException("no broker at " + HostPort.words(address), e);
        }
    }

    private void subscribe() throws IOException, InterruptedException {
        List<String> topics = report.twin().arrivals().stream().map(t -> t.replaceAll("\\{[^}]*}", "+")).distinct()
                .toList();
        try {
            await(CompletableFuture.allOf(topics.stream().map(topic -> client.subscribeWith().topicFilter(topic)
                    .qos(MqttQos.AT_LEAST_ONCE).callback(this::take).send()).toArray(CompletableFuture[]::new)));
        } catch (IOException e) {
            throw new IOException("the broker refuses its topics: " + e.getMessage(), e);
        }
    }

    private static void await(CompletableFuture<?> what) throws IOException, InterruptedException {
        try {
            what.get();
        } catch (ExecutionException e) {
            Throwable cause = e.getCause() == null ? e : e.getCause();
            throw new IOException(String.valueOf(cause.getMessage()), cause);
        }
    }

    private void take(Mqtt3Publish publish) {
        try {
            report.landed(publish.getTopic().toString(), List.of(Value.of(text(publish.getPayloadAsBytes()))));
        } catch (Malformed e) {
            report.ignored(publish.getTopic() + ": " + e.getMessage());
        }
    }

    private static String text(byte[] payload) throws Malformed {
        try {
            return StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(payload)).toString();
        } catch (CharacterCodingException e) {
            throw new Malformed("a payload that is no text");
        }
    }

    @Override
    public void send(long ticket, Order order) {
        CompletableFuture<?>[] all = order.packets().stream().map(p -> client.publishWith().topic(p.address())
                .qos(MqttQos.AT_LEAST_ONCE)
                .payload((p.args().isEmpty() ? "" : p.args().getFirst().toString()).getBytes(StandardCharsets.UTF_8))
                .send()).toArray(CompletableFuture[]::new);
        // A broker that does not answer is left: what waits for it is dropped then, and does not go out later.
        CompletableFuture.allOf(all).orTimeout(AGE_NANOS, TimeUnit.NANOSECONDS).whenComplete((_, e) -> {
            if (e == null) {
                report.sent(ticket);
            } else if (e instanceof TimeoutException) {
                report.failed(ticket, "the broker did not confirm it within 2 s");
                ended.complete(new IOException("the broker does not answer"));
            } else {
                report.failed(ticket, "the broker did not take it");
            }
        });
    }

    @Override
    public void close() {
        connected.close();
        client.disconnect();
    }
}
