package rombix.links.desktop;

import rombix.core.card.Protocol.Reach;
import rombix.links.link.GearReport;
import rombix.links.link.Link;
import rombix.links.link.LinkType;
import rombix.links.link.Target;

/** The desktop of this machine: {@code front}, {@code window} or {@code applications}, what is in front. */
public final class Desktop extends LinkType {
    public Desktop() {
        super("desktop", "desktop", "[a-z]+", "front, window or applications", 10, Reach.HERE);
    }

    @Override
    public Link open(GearReport report, Target target) {
        return new DesktopLink(report);
    }

    @Override
    public String presetAddress() {
        return "here";
    }
}
