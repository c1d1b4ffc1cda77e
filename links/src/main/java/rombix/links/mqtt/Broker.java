package rombix.links.mqtt;

import com.hivemq.client.mqtt.MqttClientSslConfig;
import com.hivemq.client.mqtt.datatypes.MqttQos;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import rombix.links.link.Secure;

/** A connection to a broker, in the version of MQTT that both speak. Safe to use from any thread. */
interface Broker {
    /** How long it may take to connect. */
    int CONNECT_SECONDS = 4;

    /**
     * Where it is, and as whom we come.
     *
     * @param at looked up: the client's own threads are all links', and must not wait for a name
     * @param ended told when the connection has ended, with why
     */
    record Call(String name, InetSocketAddress at, @Nullable MqttClientSslConfig tls, int keepAliveSeconds,
            String user,
            byte @Nullable [] secret, @Nullable Will will, Consumer<Throwable> ended) {
    }

    /** What the broker says for us when we are gone. */
    record Will(String topic, byte[] payload) {
    }

    /** How a connection is kept from others, as the client takes it; null where it is not. */
    static @Nullable MqttClientSslConfig tls(@Nullable Secure secure) throws IOException {
        return secure == null
                ? null
                : MqttClientSslConfig.builder().trustManagerFactory(secure.trust()).keyManagerFactory(secure.keys())
                        .hostnameVerifier(secure.names() ? null : (_, _) -> true).build();
    }

    CompletableFuture<?> connect();

    CompletableFuture<?> publish(String topic, byte[] payload, MqttQos qos, boolean retain);

    /** Follows topics by one message. @param taker told of each message, on a thread of the client's */
    CompletableFuture<?> follow(Set<String> topics, Taker taker);

    /** Takes messages that come. */
    interface Taker {
        /** @param kept whether the broker had kept it from before we followed its topic */
        void take(String topic, byte[] payload, boolean kept);
    }

    /** Unsubscribes from a topic. */
    void unsubscribe(String topic);

    void disconnect();

    /** Why the broker did not let us in, as it says itself; null where that is not why. */
    @Nullable
    No refusal(Throwable why);

    /** Why we were not let in. */
    enum No {
        UNKNOWN_USER, OTHER_VERSION, ELSE
    }
}
