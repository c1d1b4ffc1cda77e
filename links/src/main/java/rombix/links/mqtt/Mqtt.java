package rombix.links.mqtt;

import rombix.core.card.Protocol.Reach;
import rombix.links.link.GearReport;
import rombix.links.link.Link;
import rombix.links.link.LinkType;
import rombix.links.link.Target;

/** MQTT: {@code topic/of/the/message}. */
public final class Mqtt extends LinkType {
    public Mqtt() {
        super("mqtt", "MQTT", "[^#+]+", "a topic without wildcards", 10, Reach.NETWORK);
    }

    @Override
    public Link open(GearReport report, Target target) {
        return new MqttLink(report, target);
    }

    @Override
    public boolean secures() {
        return true;
    }
}
