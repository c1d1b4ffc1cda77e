package rombix.links.mqtt;

import com.hivemq.client.mqtt.datatypes.MqttQos;
import com.hivemq.client.mqtt.mqtt5.Mqtt5AsyncClient;
import com.hivemq.client.mqtt.mqtt5.Mqtt5Client;
import com.hivemq.client.mqtt.mqtt5.exceptions.Mqtt5ConnAckException;
import com.hivemq.client.mqtt.mqtt5.message.subscribe.Mqtt5Subscribe;
import com.hivemq.client.mqtt.mqtt5.message.subscribe.Mqtt5Subscription;
import java.util.List;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;

/** MQTT 5. */
final class Broker5 implements Broker {
    private final Call call;
    private final Mqtt5AsyncClient client;

    Broker5(Call call) {
        this.call = call;
        client = Mqtt5Client.builder().identifier(call.name()).transportConfig().serverAddress(call.at())
                .socketConnectTimeout(CONNECT_SECONDS, TimeUnit.SECONDS).mqttConnectTimeout(CONNECT_SECONDS,
                        TimeUnit.SECONDS)
                .sslConfig(call.tls()).applyTransportConfig().addDisconnectedListener(c -> call
                        .ended().accept(c.getCause()))
                .buildAsync();
    }

    @Override
    public CompletableFuture<?> connect() {
        var connect = client.connectWith().cleanStart(true).keepAlive(call.keepAliveSeconds());
        Will will = call.will();
        if (will != null) {
            connect = connect.willPublish().topic(will.topic()).qos(MqttQos.AT_LEAST_ONCE).retain(true).payload(will
                    .payload()).applyWillPublish();
        }
        byte[] secret = call.secret();
        if (!call.user().isEmpty() || secret != null) {
            var auth = connect.simpleAuth().username(call.user());
            connect = (secret == null ? auth : auth.password(secret)).applySimpleAuth();
        }
        return connect.send();
    }

    @Override
    public CompletableFuture<?> publish(String topic, byte[] payload, MqttQos qos, boolean retain) {
        return client.publishWith().topic(topic).qos(qos).retain(retain).payload(payload).send();
    }

    @Override
    public CompletableFuture<?> follow(Set<String> topics, Taker taker) {
        List<Mqtt5Subscription> all = topics.stream().map(t -> Mqtt5Subscription.builder().topicFilter(t).qos(
                MqttQos.AT_LEAST_ONCE).build()).toList();
        return client.subscribe(Mqtt5Subscribe.builder().addSubscriptions(all).build(), p -> taker.take(p.getTopic()
                .toString(), p.getPayloadAsBytes(), p.isRetain()));
    }

    @Override
    public void unsubscribe(String topic) {
        client.unsubscribeWith().topicFilter(topic).send();
    }

    @Override
    public void disconnect() {
        client.disconnect();
    }

    @Override
    public @Nullable No refusal(Throwable why) {
        return why instanceof Mqtt5ConnAckException answer
                ? switch (answer.getMqttMessage().getReasonCode()) {
                    case BAD_USER_NAME_OR_PASSWORD, NOT_AUTHORIZED -> No.UNKNOWN_USER;
                    case UNSUPPORTED_PROTOCOL_VERSION -> No.OTHER_VERSION;
                    default -> No.ELSE;
                }
                : null;
    }
}
