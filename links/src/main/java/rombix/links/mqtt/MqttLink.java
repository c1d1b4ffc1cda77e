package rombix.links.mqtt;

import com.hivemq.client.mqtt.MqttClientSslConfig;
import com.hivemq.client.mqtt.datatypes.MqttQos;
import com.hivemq.client.mqtt.mqtt3.Mqtt3AsyncClient;
import com.hivemq.client.mqtt.mqtt3.Mqtt3Client;
import com.hivemq.client.mqtt.mqtt3.exceptions.Mqtt3ConnAckException;
import com.hivemq.client.mqtt.mqtt3.message.publish.Mqtt3Publish;
import com.hivemq.client.mqtt.mqtt3.message.subscribe.Mqtt3Subscribe;
import com.hivemq.client.mqtt.mqtt3.message.subscribe.Mqtt3Subscription;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import java.util.UUID;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.regex.Pattern;
import javax.net.ssl.SSLException;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Figures;
import rombix.core.card.Order;
import rombix.core.card.Twin;
import rombix.core.engine.Status.Phase;
import rombix.core.value.Value;
import rombix.links.link.Connected;
import rombix.links.link.GearPlaces;
import rombix.links.link.GearReport;
import rombix.links.link.HostPort;
import rombix.links.link.Link;
import rombix.links.link.Polls;
import rombix.links.link.Refused;
import rombix.links.link.Secure;
import rombix.links.link.Target;
import rombix.wire.Malformed;

/** MQTT 3.1.1: publishes commands with QoS 1, follows the topics of the card's readings, and reconnects by itself. */
final class MqttLink implements Link {
    private static final int CONNECT_SECONDS = 4;

    private final GearReport report;
    private final Target target;
    private final GearPlaces places;
    private final Polls polls;
    private final String where;
    private volatile Mqtt3AsyncClient client;
    private final Connected<Session> connected;
    private volatile boolean closed;
    /** Ends with the present session, with why. */
    private volatile CompletableFuture<Throwable> ended = new CompletableFuture<>();

    /** A session with the broker. */
    private final class Session implements AutoCloseable {
        @Override
        public void close() {
            client.disconnect();
        }
    }

    MqttLink(GearReport report, Target target) {
        this.report = report;
        this.target = target;
        this.places = new GearPlaces(report.twin(), target);
        this.polls = new Polls(report, this::asked);
        this.where = HostPort.words(target.hostPort());
        client = client(null);
        connected = new Connected<>(report, "mqtt", new Connected.Way<>() {
            @Override
            public Session connect() throws IOException, InterruptedException {
                return open();
            }

            @Override
            public void serve(Session session) throws IOException, InterruptedException {
                subscribe();
                greet();
                report.ready();
                await(ended);
                throw new IOException("no broker at " + where);
            }
        });
    }

    private Mqtt3AsyncClient client(@Nullable MqttClientSslConfig tls) {
        String named = places.text(Mqtt.CLIENT);
        return Mqtt3Client.builder().identifier(named.isBlank()
                ? "rombix-" + UUID.randomUUID().toString().substring(0, 8)
                : named)
                .transportConfig().serverHost(target.hostPort().getHostString())
                .serverPort(target.hostPort().getPort()).socketConnectTimeout(CONNECT_SECONDS, TimeUnit.SECONDS)
                .mqttConnectTimeout(CONNECT_SECONDS, TimeUnit.SECONDS)
                .sslConfig(tls)
                .applyTransportConfig().addDisconnectedListener(c -> ended.complete(c.getCause())).buildAsync();
    }

    private Session open() throws IOException, InterruptedException {
        ended = new CompletableFuture<>();
        String secret = target.secret();
        Secure secure = target.secure();
        if (secure != null) { // What is known of certificates may have changed.
            client = client(MqttClientSslConfig.builder().trustManagerFactory(secure.trust())
                    .hostnameVerifier(secure.names() ? null : (_, _) -> true).build());
        }
        var connect = client.connectWith().cleanSession(true).keepAlive((int) places.number(Mqtt.KEEP_ALIVE, 5));
        String will = places.text(Mqtt.WILL_TOPIC);
        if (!will.isBlank()) {
            connect = connect.willPublish().topic(will).qos(MqttQos.AT_LEAST_ONCE).retain(true)
                    .payload(bytes(places.text(
                            Mqtt.GONE)))
                    .applyWillPublish();
        }
        if (!target.user().isEmpty() || secret != null) {
            var auth = connect.simpleAuth().username(target.user());
            connect = (secret == null ? auth : auth.password(secret.getBytes(StandardCharsets.UTF_8)))
                    .applySimpleAuth();
        }
        try {
            Mqtt3AsyncClient connecting = client;
            // Nobody may wait for it any more by the time that it is there.
            await(connect.send().whenComplete((_, e) -> {
                if (e == null && closed) {
                    connecting.disconnect();
                }
            }));
            if (secure != null) {
                secure.shaken();
            }
            return new Session();
        } catch (IOException e) {
            throw refused(e, secure);
        }
    }

    private IOException refused(IOException e, @Nullable Secure secure) {
        for (Throwable why = e; why != null; why = why.getCause()) {
            if (why instanceof Mqtt3ConnAckException answer) {
                return new Refused(switch (answer.getMqttMessage().getReturnCode()) {
                    case BAD_USER_NAME_OR_PASSWORD, NOT_AUTHORIZED -> "the broker does not take this user or password";
                    default -> "the broker refuses the connection";
                }, target.link().secret() == null
                        ? "It may want a user and a secret: set them in the gear's window."
                        : "Check the user, and replace the secret “" + target.link().secret()
                                + "” in the gear's window.");
            }
            if (why instanceof SSLException && secure != null) {
                return secure.refused(why);
            }
        }
        return new IOException("no broker at " + where, e);
    }

    /**
     * The topics to be followed: those that are known in full, whatever stands in their places, and for items that the
     * gear has yet to list whatever stands at their level. None is followed twice.
     */
    static Set<String> topics(Twin twin) {
        Set<String> topics = new TreeSet<>();
        twin.openArrivals().forEach(t -> topics.add(t.toString().replaceAll("\\{[^}]*}", "+")));
        List<Pattern> open = topics.stream().map(t -> Pattern.compile(Pattern.quote(t).replace("+", "\\E[^/]*\\Q")))
                .toList();
        twin.fixedArrivals().stream().filter(t -> open.stream().noneMatch(o -> o.matcher(t).matches())).forEach(
                topics::add);
        return topics;
    }

    /** Says that we are there, and what the card wants to be said. */
    private void greet() throws IOException, InterruptedException {
        String will = places.text(Mqtt.WILL_TOPIC);
        if (!will.isBlank()) {
            await(client.publishWith().topic(will).qos(MqttQos.AT_LEAST_ONCE).retain(true).payload(bytes(places.text(
                    Mqtt.THERE))).send().orTimeout(CONNECT_SECONDS, TimeUnit.SECONDS));
        }
        for (Order.Outgoing packet : report.twin().greeting()) {
            await(publish(places.made(packet)).orTimeout(CONNECT_SECONDS, TimeUnit.SECONDS));
        }
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    private CompletableFuture<?> asked(Order.Outgoing question) {
        try {
            return report.phase() == Phase.READY
                    ? publish(places.made(question)).orTimeout(CONNECT_SECONDS, TimeUnit.SECONDS)
                    : CompletableFuture.failedFuture(new IOException("is not connected"));
        } catch (IOException | IllegalArgumentException e) {
            return CompletableFuture.failedFuture(e);
        }
    }

    /** Publishes with what its card says of it: once at least and not kept, where it says nothing. */
    private CompletableFuture<?> publish(Order.Outgoing packet) {
        Value qos = packet.head().get("qos");
        Value retain = packet.head().get("retain");
        StringBuilder all = new StringBuilder();
        packet.args().forEach(a -> all.append(payload(a)));
        return client.publishWith().topic(packet.address()).qos(Objects.requireNonNullElse(MqttQos.fromCode(qos == null
                ? 1
                : (int) qos.asNumber()), MqttQos.AT_LEAST_ONCE)).retain(retain != null && retain.asFlag())
                .payload(bytes(
                        all.toString()))
                .send();
    }

    /** Follows all topics of the card by one message. */
    private void subscribe() throws IOException, InterruptedException {
        List<Mqtt3Subscription> topics = topics(report.twin()).stream().map(t -> Mqtt3Subscription.builder()
                .topicFilter(t).qos(MqttQos.AT_LEAST_ONCE).build()).toList();
        if (topics.isEmpty()) {
            return;
        }
        try {
            await(client.subscribe(Mqtt3Subscribe.builder().addSubscriptions(topics).build(), this::take)
                    .orTimeout(CONNECT_SECONDS, TimeUnit.SECONDS));
        } catch (IOException e) {
            throw e.getCause() instanceof TimeoutException
                    ? new IOException("the broker at " + where + " does not answer", e)
                    : new IOException("the broker refuses its topics: " + e.getMessage(), e);
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

    /** A value as text; yes and no are words of ours, which no gear knows. */
    static String payload(Value value) {
        return value instanceof Value.Flag flag ? String.valueOf(flag.on()) : value.toString();
    }

    @Override
    public void send(long ticket, Order order) {
        long age = report.twin().card().ageMillis();
        CompletableFuture<?>[] all;
        try {
            List<CompletableFuture<?>> sent = new ArrayList<>();
            for (Order.Outgoing packet : order.packets()) {
                sent.add(publish(places.made(packet)));
            }
            all = sent.toArray(CompletableFuture[]::new);
        } catch (IOException | IllegalArgumentException e) {
            report.failed(ticket, String.valueOf(e.getMessage()));
            return;
        }
        // A broker that does not answer is left: what waits for it is dropped then, and does not go out later.
        CompletableFuture.allOf(all).orTimeout(age, TimeUnit.MILLISECONDS).whenComplete((_, e) -> {
            if (e == null) {
                report.sent(ticket);
            } else if (e instanceof TimeoutException) {
                report.failed(ticket, "the broker did not confirm it within " + Figures.span(age));
                ended.complete(new IOException("the broker does not answer"));
            } else {
                report.failed(ticket, "the broker did not take it");
            }
        });
    }

    @Override
    public void close() {
        closed = true;
        polls.close();
        connected.close();
        client.disconnect();
    }
}
