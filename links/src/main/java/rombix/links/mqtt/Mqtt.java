package rombix.links.mqtt;

import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import rombix.core.card.Protocol.Reach;
import rombix.core.card.Setting;
import rombix.core.value.Value;
import rombix.core.value.ValueType;
import rombix.links.link.GearReport;
import rombix.links.link.Link;
import rombix.links.link.LinkType;
import rombix.links.link.Service;
import rombix.links.link.Target;

/** MQTT: {@code topic/of/the/message}. */
public final class Mqtt extends LinkType {
    static final String KEEP_ALIVE = "keep-alive";
    static final String CLIENT = "client";
    static final String WILL_TOPIC = "will-topic";
    static final String THERE = "there";
    static final String GONE = "gone";

    public Mqtt() {
        super("mqtt", "MQTT", "[^#+]+", "a topic without wildcards", 10, Reach.NETWORK);
    }

    @Override
    public Link open(GearReport report, Target target) {
        return new MqttLink(report, target);
    }

    @Override
    public List<Service> services() {
        return List.of(new Service("_mqtt._tcp"), Service.overTls("_secure-mqtt._tcp"));
    }

    @Override
    public boolean topics() {
        return true;
    }

    @Override
    public boolean keeps() {
        return true;
    }

    @Override
    public AutoCloseable kept(Target target, Consumer<Set<String>> kept) {
        return new KeptTopics(target, kept);
    }

    @Override
    public String inAddress(String text) {
        return text.replaceAll("[#+]", "-"); // Nothing that is chosen may address more than one topic.
    }

    @Override
    public List<Setting> settings() {
        return List.of(Setting.number(KEEP_ALIVE, "Keep-alive", "s", 1, 600, 5.0,
                "How soon a lost broker is noticed."),
                Setting.text(CLIENT, "Client name",
                        "Client identifier of Rombix at the broker. Default: a generated one."),
                Setting.text(WILL_TOPIC,
                        "Status topic",
                        "Shows others whether Rombix is connected."),
                new Setting(THERE, "Birth message", ValueType.TEXT, null, null, null, List.of(), Value.of("online"),
                        "Retained on the status topic while Rombix is connected."),
                new Setting(GONE, "Will message",
                        ValueType.TEXT, null, null, null, List.of(), Value.of("offline"),
                        "Published by the broker when the connection is lost."));
    }

    @Override
    public boolean secures() {
        return true;
    }

    @Override
    public boolean textual() {
        return true;
    }
}
