package rombix.links.dmx;

import java.util.List;
import rombix.core.card.Protocol.Reach;
import rombix.links.link.GearReport;
import rombix.links.link.Link;
import rombix.links.link.LinkType;

/** Streaming ACN: {@code UNIVERSE SLOT}; both count from 1. */
public final class Dmx extends LinkType {
    public Dmx() {
        super("dmx", "sACN", "\\S+ \\S+", "UNIVERSE SLOT, such as 1 12", 44, Reach.NETWORK);
    }

    @Override
    public Link open(GearReport report, String address) {
        return new DmxLink(report, address);
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
