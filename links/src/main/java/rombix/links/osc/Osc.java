package rombix.links.osc;

import rombix.core.card.Protocol.Reach;
import rombix.links.link.GearReport;
import rombix.links.link.Link;
import rombix.links.link.LinkType;
import rombix.links.link.Target;

/** OSC over UDP: {@code /address/of/the/method}. */
public final class Osc extends LinkType {
    public Osc() {
        super("osc", "OSC", "(/|\\{[^{}]+})[^ #*,?\\[\\]]*", "an OSC address such as /studio/scene", 50, Reach.NETWORK);
    }

    @Override
    public Link open(GearReport report, Target target) {
        return new OscLink(report, target.hostPort());
    }
}
