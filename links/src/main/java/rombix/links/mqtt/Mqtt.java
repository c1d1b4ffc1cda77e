package rombix.links.mqtt;

import rombix.core.card.Protocol.Reach;
import rombix.links.link.GearReport;
import rombix.links.link.HostPort;
import rombix.links.link.Link;
import rombix.links.link.LinkType;

/** MQTT: {@code topic/of/the/message}. */
public final class Mqtt extends LinkType {
    public Mqtt() {
        super("mqtt", "MQTT", "[^#+]+", "a topic without wildcards", 10, Reach.NETWORK);
    }

    @Override
    public Link open(GearReport report, String address) {
        return new MqttLink(report, HostPort.of(address));
    }
}
