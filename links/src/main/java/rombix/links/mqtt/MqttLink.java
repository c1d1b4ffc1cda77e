package rombix.links.mqtt;

import com.hivemq.client.mqtt.datatypes.MqttQos;
import com.hivemq.client.mqtt.lifecycle.MqttClientDisconnectedContext;
import com.hivemq.client.mqtt.mqtt3.Mqtt3AsyncClient;
import com.hivemq.client.mqtt.mqtt3.Mqtt3Client;
import com.hivemq.client.mqtt.mqtt3.message.publish.Mqtt3Publish;
import java.net.InetSocketAddress;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.UUID;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import rombix.core.card.Order;
import rombix.core.value.Value;
import rombix.links.GearReport;
import rombix.links.Link;
import rombix.wire.Malformed;

/** MQTT 3.1.1: publishes commands with QoS 1, follows the topics of the card's readings, and reconnects by itself. */
public final class MqttLink implements Link {
    private final GearReport report;
    private final InetSocketAddress address;
    private final Mqtt3AsyncClient client;
    private volatile boolean closed;

    public MqttLink(GearReport report, InetSocketAddress address) {
        this.report = report;
        this.address = address;
        client = Mqtt3Client.builder().identifier("rombix-" + UUID.randomUUID().toString().substring(0, 8))
                .serverHost(address.getHostString()).serverPort(address.getPort())
                .automaticReconnect().initialDelay(500, TimeUnit.MILLISECONDS).maxDelay(4, TimeUnit.SECONDS)
                .applyAutomaticReconnect()
                .addConnectedListener(_ -> subscribe())
                .addDisconnectedListener(this::lost).buildAsync();
        client.connectWith().cleanSession(true).keepAlive(10).send();
    }

    private void subscribe() {
        List<String> topics = report.twin().arrivals().stream().map(t -> t.replaceAll("\\{[^}]*}", "+")).distinct()
                .toList();
        CompletableFuture<?>[] all = topics.stream().map(topic -> client.subscribeWith().topicFilter(topic)
                .qos(MqttQos.AT_LEAST_ONCE).callback(this::take).send()).toArray(CompletableFuture[]::new);
        CompletableFuture.allOf(all).whenComplete((_, e) -> {
            if (e == null) {
                report.ready();
            } else if (!closed) {
                report.off("the broker refuses its topics: " + e.getMessage());
            }
        });
    }

    private void lost(MqttClientDisconnectedContext context) {
        if (closed) {
            context.getReconnector().reconnect(false);
        } else {
            report.off("no broker at " + address.getHostString() + ":" + address.getPort());
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
        CompletableFuture.allOf(all).whenComplete((_, e) -> {
            if (e == null) {
                report.sent(ticket);
            } else {
                report.failed(ticket, "the broker did not take it: " + e.getMessage());
            }
        });
    }

    @Override
    public void close() {
        closed = true;
        client.disconnect();
    }
}
