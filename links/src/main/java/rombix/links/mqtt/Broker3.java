package rombix.links.mqtt;

import com.hivemq.client.mqtt.datatypes.MqttQos;
import com.hivemq.client.mqtt.mqtt3.Mqtt3AsyncClient;
import com.hivemq.client.mqtt.mqtt3.Mqtt3Client;
import com.hivemq.client.mqtt.mqtt3.exceptions.Mqtt3ConnAckException;
import com.hivemq.client.mqtt.mqtt3.message.subscribe.Mqtt3Subscribe;
import com.hivemq.client.mqtt.mqtt3.message.subscribe.Mqtt3Subscription;
import java.util.List;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;

/** MQTT 3.1.1. */
final class Broker3 implements Broker {
    private final Call call;
    private final Mqtt3AsyncClient client;

    Broker3(Call call) {
        this.call = call;
        client = Mqtt3Client.builder().identifier(call.name()).transportConfig().serverAddress(call.at())
                .socketConnectTimeout(CONNECT_SECONDS, TimeUnit.SECONDS).mqttConnectTimeout(CONNECT_SECONDS,
                        TimeUnit.SECONDS)
                .sslConfig(call.tls()).applyTransportConfig().addDisconnectedListener(c -> call
                        .ended().accept(c.getCause()))
                .buildAsync();
    }

    @Override
    public CompletableFuture<?> connect() {
        var connect = client.connectWith().cleanSession(true).keepAlive(call.keepAliveSeconds());
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
        List<Mqtt3Subscription> all = topics.stream().map(t -> Mqtt3Subscription.builder().topicFilter(t).qos(
                MqttQos.AT_LEAST_ONCE).build()).toList();
        return client.subscribe(Mqtt3Subscribe.builder().addSubscriptions(all).build(), p -> taker.take(p.getTopic()
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
        return why instanceof Mqtt3ConnAckException answer
                ? switch (answer.getMqttMessage().getReturnCode()) {
                    case BAD_USER_NAME_OR_PASSWORD, NOT_AUTHORIZED -> No.UNKNOWN_USER;
                    case UNSUPPORTED_PROTOCOL_VERSION -> No.OTHER_VERSION;
                    default -> No.ELSE;
                }
                : null;
    }
}
