package rombix.links.dmx;

import java.nio.ByteBuffer;
import java.util.Collection;
import java.util.List;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import rombix.links.link.GearPlaces;
import rombix.wire.Malformed;
import rombix.wire.dmx.ArtNetPacket;

/** Art-Net 4. */
final class ArtNetForm implements DmxForm {
    private static final int NO_PRIORITY = 100;

    private final boolean sync;

    ArtNetForm(GearPlaces places) {
        sync = places.yes(ArtNet.SYNC);
    }

    private static Parcel parcel(ArtNetPacket packet) {
        return new Parcel(ArtNetPacket.encode(packet), null);
    }

    @Override
    public int firstUniverse() {
        return 0;
    }

    @Override
    public int lastUniverse() {
        return ArtNetPacket.LAST_UNIVERSE;
    }

    @Override
    public Parcel data(int universe, int sequence, byte[] levels) {
        return parcel(new ArtNetPacket.Dmx(1 + Math.floorMod(sequence, 255), universe, levels));
    }

    @Override
    public List<Parcel> end(int universe, int sequence, byte[] levels) {
        return List.of();
    }

    @Override
    public List<Parcel> after(int sequence) {
        return sync ? List.of(parcel(new ArtNetPacket.Sync())) : List.of();
    }

    @Override
    public List<Parcel> now(Collection<Integer> universes) {
        return List.of(parcel(new ArtNetPacket.Poll()));
    }

    @Override
    public long nowNanos() {
        return TimeUnit.MILLISECONDS.toNanos(2800); // Controllers ask every 2.5 to 3 s.
    }

    @Override
    public Set<String> groups(Collection<Integer> universes) {
        return Set.of(); // It knows broadcast alone.
    }

    @Override
    public int port() {
        return ArtNetPacket.PORT;
    }

    @Override
    public @Nullable Came read(ByteBuffer bytes) throws Malformed {
        return switch (ArtNetPacket.decode(bytes)) {
            case ArtNetPacket.Dmx d -> new Levels(d.universe(), d.levels(), NO_PRIORITY, "desk", false);
            case ArtNetPacket.PollReply r -> new Node(r.shortName());
            default -> null;
        };
    }

    @Override
    public String title() {
        return "Art-Net";
    }
}
