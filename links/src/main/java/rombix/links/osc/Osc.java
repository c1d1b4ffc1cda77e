package rombix.links.osc;

import rombix.core.card.Protocol.Reach;
import rombix.links.link.GearReport;
import rombix.links.link.HostPort;
import rombix.links.link.Link;
import rombix.links.link.LinkType;

/** OSC over UDP: {@code /address/of/the/method}. */
public final class Osc extends LinkType {
    public Osc() {
        super("osc", "OSC", "(/|\\{[^{}]+})[^ #*,?\\[\\]]*", "an OSC address such as /studio/scene", 50, Reach.NETWORK);
    }

    @Override
    public Link open(GearReport report, String address) {
        return new OscLink(report, HostPort.of(address));
    }
}
