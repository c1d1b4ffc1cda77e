package rombix.links.dmx;

import java.util.List;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.UUID;
import rombix.core.card.Protocol.Reach;
import rombix.core.card.Setting;
import rombix.core.value.Value;
import rombix.core.value.ValueType;
import rombix.links.link.GearPlaces;
import rombix.links.link.Keyring;
import rombix.wire.dmx.ArtNetPacket;
import rombix.wire.dmx.SacnPacket;
import rombix.links.link.GearReport;
import rombix.links.link.Link;
import rombix.links.link.LinkType;
import rombix.links.link.Target;
import rombix.core.store.WholeFile;

/** Streaming ACN: {@code UNIVERSE SLOT}; both count from 1. */
public final class Dmx extends LinkType {
    private static final String UNIVERSE = "(\\{[^{}]+}|[1-9]\\d{0,3}|[1-5]\\d{4}|6[0-3]\\d{3})";
    static final String SLOT = "(\\{[^{}]+}|[1-9]\\d?|[1-4]\\d\\d|50\\d|51[0-2])";

    static final String PRIORITY = "priority";
    static final String SOURCE = "source";
    static final String SYNC = "sync";
    static final String DISCOVERY = "discovery";
    static final String LISTEN = "listen";
    static final String KEEP_ALIVE = "keep-alive";

    public Dmx() {
        super("dmx", "sACN", UNIVERSE + " " + SLOT + "|master",
                "UNIVERSE SLOT, such as 1 12, or master; universes go to 63999, slots to 512",
                44, Reach.NETWORK);
    }

    @Override
    public Link open(GearReport report, Target target) {
        GearPlaces places = new GearPlaces(report.twin(), target);
        return new DmxLink(report, target, places, new Sacn(identity(target.keyring()), target.address().equals(
                DmxLink.MULTICAST), places));
    }

    /** One for this computer, as long as it keeps one: a new one at each start would be one more source (E1.31, 5.6). */
    private static UUID identity(Keyring keyring) {
        Path kept = keyring.kept("sacn-identity");
        if (kept == null) {
            return UUID.randomUUID();
        }
        try {
            if (Files.exists(kept)) {
                return UUID.fromString(Files.readString(kept).strip());
            }
            UUID fresh = UUID.randomUUID();
            Files.createDirectories(kept.toAbsolutePath().getParent());
            WholeFile.write(kept, fresh.toString(), WholeFile.Readers.OWNER);
            return fresh;
        } catch (IOException | IllegalArgumentException e) {
            return UUID.randomUUID(); // What cannot be kept is new each time.
        }
    }

    /** @param usual the port where nothing is set; other programs on this computer keep theirs to themselves */
    static Setting listens(int usual) {
        return Setting.number(LISTEN, "Receive port", "", 0, 65_535, (double) usual,
                "Port for replies of nodes and levels of other consoles, which become readings; 0 is off. "
                        + SacnPacket.PORT + " is the standard for sACN, " + ArtNetPacket.PORT
                        + " for Art-Net. Default: off for gear on this computer.");
    }

    static Setting keepAlive() {
        return Setting.number(KEEP_ALIVE, "Refresh interval", "ms", 100, 4000, 800.0,
                "How often unchanged levels are sent again.");
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
        return List.of(Setting.number(PRIORITY, "Priority", "", 0, 200, 100.0,
                "If several sources send a universe, the highest priority wins."),
                Setting.text(SOURCE, "Source name",
                        "The name that nodes and consoles show."),
                listens(0), keepAlive(), Setting.number(SYNC,
                        "Sync universe", "", 0, 63_999, 0.0,
                        "Universe of the sync packets; 0 is off."),
                new Setting(DISCOVERY, "Universe discovery", ValueType.FLAG, null, null, null, List.of(),
                        Value.of(true),
                        "Announces the universes it sends every ten seconds, over multicast."));
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
