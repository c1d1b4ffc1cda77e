package rombix.links.dmx;

import java.util.List;
import rombix.core.card.Protocol.Reach;
import rombix.core.card.Setting;
import rombix.core.value.Value;
import rombix.core.value.ValueType;
import rombix.links.link.GearPlaces;
import rombix.links.link.GearReport;
import rombix.links.link.Link;
import rombix.links.link.LinkType;
import rombix.links.link.Target;
import rombix.wire.dmx.ArtNetPacket;

/** Art-Net 4: {@code UNIVERSE SLOT}; universes count from 0, slots from 1. */
public final class ArtNet extends LinkType {
    static final String SYNC = "sync";

    public ArtNet() {
        super("artnet", "Art-Net", "(\\{[^{}]+}|\\d{1,5}) " + Dmx.SLOT + "|master",
                "UNIVERSE SLOT, such as 0 12, or master; universes go from 0 to 32767, slots to 512", 44,
                Reach.NETWORK);
    }

    @Override
    public Link open(GearReport report, Target target) {
        GearPlaces places = new GearPlaces(report.twin(), target);
        return new DmxLink(report, target, places, new ArtNetForm(places));
    }

    @Override
    public boolean connects(Target target) {
        return false;
    }

    @Override
    public boolean bothWays() {
        return true;
    }

    @Override
    public List<Setting> settings() {
        return List.of(Dmx.listens(ArtNetPacket.PORT), Dmx.keepAlive(),
                new Setting(SYNC, "Synchronised", ValueType.FLAG, null, null,
                        null, List.of(), Value.of(false),
                        "Universes that change together are output together (ArtSync)."));
    }
}
