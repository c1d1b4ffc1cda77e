package rombix.links.mqtt;

import com.hivemq.client.mqtt.datatypes.MqttQos;
import com.hivemq.client.mqtt.exceptions.ConnectionClosedException;
import com.hivemq.client.mqtt.exceptions.MqttSessionExpiredException;
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
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.Consumer;
import javax.net.ssl.SSLException;
import org.jspecify.annotations.Nullable;
import rombix.core.event.Cause;
import rombix.core.event.Status.Phase;
import rombix.core.touch.TopicFilter;
import rombix.core.touch.Touch;
import rombix.core.twin.Figures;
import rombix.core.twin.Landings;
import rombix.core.twin.Order;
import rombix.core.value.Value;
import rombix.links.link.GearPlaces;
import rombix.links.link.GearReport;
import rombix.links.link.HostPort;
import rombix.links.link.Link;
import rombix.links.link.Reconnector;
import rombix.links.link.Refused;
import rombix.links.link.Secure;
import rombix.links.link.Target;
import rombix.links.link.Web;
import rombix.links.talk.Polls;
import rombix.wire.Malformed;

/** MQTT, 3.1.1 or 5 where a broker takes that alone: publishes commands with QoS 1, follows the topics of the card's readings, and reconnects by itself. */
final class MqttLink implements Link {
    static { // Of the client's timers one thread is enough, and none has to wake each second to clear them.
        System.setProperty("rx2.purge-enabled", "false");
        System.setProperty("rx2.computation-threads", "1");
    }

    private static final String EVERYTHING = "#";
    private static final int CONNECT_SECONDS = Broker.CONNECT_SECONDS;

    private final GearReport report;
    private final Target target;
    private final GearPlaces places;
    private final Polls polls;
    private final String where;
    /** The broker that is reached now, or was last; null before the first. */
    private volatile @Nullable Broker client;
    /** Whether it is spoken to in MQTT 5. The link's thread alone. */
    private boolean five;
    private final Reconnector<Session> connected;
    /** The topics that are followed in this session. */
    private final Set<String> followed = ConcurrentHashMap.newKeySet();
    private volatile boolean closed;
    /** Whether all topics are followed, for somebody who listens. */
    private volatile boolean overheard;
    /** The topic filters of the board's triggers, and who is told of what comes there. */
    private volatile Calls calls = new Calls(Set.of(), _ -> {
    });
    /** Ends with the present session, with why. */
    private volatile CompletableFuture<Throwable> ended = new CompletableFuture<>();

    private record Calls(Set<String> topics, Consumer<Touch.Mqtt> touched) {
    }

    /** A session with the broker. */
    private final class Session implements AutoCloseable {
        @Override
        public void close() {
            disconnect();
        }
    }

    private void disconnect() {
        Broker now = client;
        if (now != null) {
            now.disconnect();
        }
    }

    MqttLink(GearReport report, Target target) {
        this.report = report;
        this.target = target;
        this.places = new GearPlaces(report.twin(), target);
        this.polls = new Polls(report, this::asked, _ -> null);
        this.where = HostPort.words(target.hostPort());
        connected = new Reconnector<>(report, "mqtt", new Reconnector.Way<>() {
            @Override
            public Session connect() throws IOException, InterruptedException {
                return open();
            }

            @Override
            public void serve(Session session) throws IOException, InterruptedException {
                subscribe();
                greet();
                report.ready();
                followAnew(); // What was asked for meanwhile.
                polls.begin();
                await(ended);
                throw new Refused(Cause.NO_ANSWER, where);
            }
        });
    }

    /** Calls the broker in the version that it took last; in the other one where it knows that alone. */
    private Session open() throws IOException, InterruptedException {
        try {
            return open(five);
        } catch (OtherVersion e) {
            five = !five;
            return open(five);
        }
    }

    /** The broker does not know this version. */
    private static final class OtherVersion extends IOException {
        private static final long serialVersionUID = 1;
    }

    private Session open(boolean inFive) throws IOException, InterruptedException {
        ended = new CompletableFuture<>();
        CompletableFuture<Throwable> end = ended;
        String secret = target.secret();
        Secure secure = target.secure(); // What is known of certificates may have changed.
        String named = places.text(Mqtt.CLIENT);
        String will = places.text(Mqtt.WILL_TOPIC);
        Broker.Call call = new Broker.Call(named.isBlank()
                ? "rombix-" + UUID.randomUUID().toString().substring(0, 8)
                : named, HostPort.resolved(target.hostPort()),
                Broker.tls(secure),
                (int) places.number(Mqtt.KEEP_ALIVE, 5), target
                        .user(),
                secret == null ? null : bytes(secret), will.isBlank()
                        ? null
                        : new Broker.Will(will, bytes(places.text(Mqtt.GONE))),
                end::complete);
        Broker calling = inFive ? new Broker5(call) : new Broker3(call);
        try {
            // Nobody may wait for it any more by the time that it is there.
            await(calling.connect().whenComplete((_, e) -> {
                if (e == null && closed) {
                    calling.disconnect();
                }
            }));
            if (secure != null) {
                secure.shaken();
            }
            client = calling;
            return new Session();
        } catch (IOException e) {
            throw refused(e, calling, secure);
        }
    }

    private IOException refused(IOException e, Broker calling, @Nullable Secure secure) {
        for (Throwable why = e; why != null; why = why.getCause()) {
            Broker.No no = calling.refusal(why);
            if (no == Broker.No.OTHER_VERSION) {
                return new OtherVersion();
            }
            if (no != null) {
                return no == Broker.No.UNKNOWN_USER ? Web.unknown(target) : new Refused(e, Cause.BROKER_REFUSES);
            }
            if (why instanceof SSLException && secure != null) {
                return secure.refused(why);
            }
        }
        return Refused.noAnswer(where, e);
    }

    /**
     * The topics to be followed: those that are known in full, whatever stands in their places, and for items that the
     * gear has yet to list whatever stands at their level. None is followed twice.
     */
    static Set<String> topics(Landings landings) {
        Set<String> topics = new TreeSet<>();
        landings.open().forEach(t -> topics.add(t.toString().replaceAll("\\{[^}]*}", "+")));
        topics.addAll(landings.fixed());
        return TopicFilter.widest(topics);
    }

    /** Says that we are there, and what the card wants to be said. */
    private void greet() throws IOException, InterruptedException {
        String will = places.text(Mqtt.WILL_TOPIC);
        if (!will.isBlank()) {
            await(publish(will, bytes(places.text(Mqtt.THERE)), MqttQos.AT_LEAST_ONCE, true).orTimeout(CONNECT_SECONDS,
                    TimeUnit.SECONDS));
        }
        for (Order.Outgoing packet : report.twin().greeting()) {
            report.recordOutgoing("greeting", packet);
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
        } catch (IOException | RuntimeException | Error e) {
            return CompletableFuture.failedFuture(e);
        }
    }

    /** Publishes with what its card says of it: once at least and not kept, where it says nothing. */
    private CompletableFuture<?> publish(Order.Outgoing packet) {
        Value qos = packet.head().get("qos");
        Value retain = packet.head().get("retain");
        StringBuilder all = new StringBuilder();
        packet.args().forEach(a -> all.append(payload(a)));
        return publish(packet.address(), bytes(all.toString()), Objects.requireNonNullElse(MqttQos.fromCode(qos == null
                ? 1
                : (int) qos.asNumber()), MqttQos.AT_LEAST_ONCE), retain != null && retain.asFlag());
    }

    private CompletableFuture<?> publish(String topic, byte[] payload, MqttQos qos, boolean retain) {
        Broker now = client;
        return now == null
                ? CompletableFuture.failedFuture(new IOException("is not connected"))
                : now.publish(topic, payload, qos, retain);
    }

    private Set<String> wanted() {
        return wanted(topics(report.landings()), calls.topics(), overheard);
    }

    /**
     * What is to be followed: nothing twice, or a broker would say it twice. All else that is overheard comes beside it:
     * what a broker kept of a topic it says only to those who ask for that topic.
     */
    static Set<String> wanted(Set<String> card, Set<String> triggers, boolean overheard) {
        Set<String> all = new TreeSet<>(card);
        all.addAll(triggers);
        Set<String> wanted = new TreeSet<>(TopicFilter.widest(all));
        if (overheard) {
            wanted.add(EVERYTHING);
        }
        return wanted;
    }

    /** Follows all topics of the card and of the board's triggers by one message. */
    private void subscribe() throws IOException, InterruptedException {
        Broker now = client;
        followed.clear();
        Set<String> topics = wanted();
        if (topics.isEmpty() || now == null) {
            return;
        }
        followed.addAll(topics);
        try {
            await(now.follow(topics, this::take).orTimeout(CONNECT_SECONDS, TimeUnit.SECONDS));
        } catch (IOException e) {
            throw switch (e.getCause()) {
                case TimeoutException _ -> new Refused(e, Cause.STOPPED_ANSWERING);
                case ConnectionClosedException _,MqttSessionExpiredException _ -> new Refused(e, Cause.ENDED);
                case null, default -> new Refused(e, Cause.TOPICS_REFUSED, String.valueOf(e.getMessage()));
            };
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

    private void take(String topic, byte[] payload, boolean kept) {
        try {
            String text = text(payload);
            if (report.landed(topic, List.of(Value.of(text))).listed()) {
                followAnew();
            }
            if (!kept) {
                calls.touched().accept(new Touch.Mqtt(report.twin().gear(), topic, text));
            }
        } catch (Malformed e) {
            report.ignored(topic + ": " + e.getMessage());
        }
    }

    @Override
    public boolean goesOn() {
        return true;
    }

    @Override
    public void described() {
        followAnew();
    }

    @Override
    public void calls(Set<String> topics, Consumer<Touch.Mqtt> touched) {
        calls = new Calls(Set.copyOf(topics), touched);
        followAnew();
    }

    @Override
    public void overhear(boolean all) {
        overheard = all;
        followAnew();
    }

    /** Follows what is to be followed by now, such as the topics of what the gear has just listed, and no more of it. */
    private synchronized void followAnew() {
        Broker now = client;
        if (now == null || report.phase() != Phase.READY) {
            return; // It follows all of it as soon as it is connected.
        }
        Set<String> wanted = wanted();
        Set<String> more = new TreeSet<>(wanted);
        more.removeAll(followed);
        Set<String> no = new TreeSet<>(followed);
        no.removeAll(wanted);
        followed.addAll(more);
        followed.removeAll(no);
        if (!more.isEmpty()) {
            now.follow(more, this::take).whenComplete((_, e) -> {
                if (e != null) {
                    report.troubled(new IOException("the broker refuses topics: " + e.getMessage(), e));
                }
            });
        }
        no.forEach(now::unsubscribe);
    }

    private static String text(byte[] payload) throws Malformed {
        try {
            return StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(payload)).toString();
        } catch (CharacterCodingException e) {
            throw new Malformed("a payload that isn't text");
        }
    }

    /** A value as text; yes and no are words of ours, which no gear knows. */
    static String payload(Value value) {
        return value instanceof Value.Flag flag ? String.valueOf(flag.on()) : value.toString();
    }

    @Override
    public void send(long ticket, Order order) {
        long age = report.twin().card().ageMillis();
        long wired = report.now();
        CompletableFuture<?>[] all;
        try {
            List<CompletableFuture<?>> sent = new ArrayList<>();
            for (Order.Outgoing packet : places.made(order)) {
                sent.add(publish(packet));
            }
            all = sent.toArray(CompletableFuture[]::new);
        } catch (IOException | IllegalArgumentException e) {
            report.failed(ticket, String.valueOf(e.getMessage()));
            return;
        }
        // A broker that does not answer is left: what waits for it is dropped then, and does not go out later.
        CompletableFuture.allOf(all).orTimeout(age, TimeUnit.MILLISECONDS).whenComplete((_, e) -> {
            if (e == null) {
                report.sent(ticket, wired, "");
            } else if (e instanceof TimeoutException) {
                report.failed(ticket, "the broker didn't confirm within " + Figures.span(age));
                ended.complete(new Refused(Cause.STOPPED_ANSWERING));
            } else {
                report.failed(ticket, "the broker didn't accept it");
            }
        });
    }

    @Override
    public void close() {
        closed = true;
        polls.close();
        connected.close();
        String will = places.text(Mqtt.WILL_TOPIC);
        if (!will.isBlank() && report.phase() == Phase.READY) { // Who leaves says so himself.
            publish(will, bytes(places.text(Mqtt.GONE)), MqttQos.AT_LEAST_ONCE, true).orTimeout(1, TimeUnit.SECONDS)
                    .whenComplete((_, _) -> disconnect());
        } else {
            disconnect();
        }
    }
}
