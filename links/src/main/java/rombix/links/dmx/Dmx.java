package rombix.links.dmx;

import java.util.List;
import rombix.core.card.Protocol.Reach;
import rombix.links.link.GearReport;
import rombix.links.link.Link;
import rombix.links.link.LinkType;
import rombix.links.link.Target;

/** Streaming ACN: {@code UNIVERSE SLOT}; both count from 1. */
public final class Dmx extends LinkType {
    private static final String UNIVERSE = "(\\{[^{}]+}|[1-9]\\d{0,3}|[1-5]\\d{4}|6[0-3]\\d{3})";
    private static final String SLOT = "(\\{[^{}]+}|[1-9]\\d?|[1-4]\\d\\d|50\\d|51[0-2])";

    public Dmx() {
        super("dmx", "sACN", UNIVERSE + " " + SLOT, "UNIVERSE SLOT, such as 1 12; universes go to 63999, slots to 512",
                44, Reach.NETWORK);
    }

    @Override
    public Link open(GearReport report, Target target) {
        return new DmxLink(report, target.address(), target.keyring());
    }

    @Override
    public String presetAddress() {
        return "multicast";
    }

    @Override
    public List<String> addressWords() {
        return List.of("multicast");
    }
}
