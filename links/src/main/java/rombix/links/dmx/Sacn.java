package rombix.links.dmx;

import java.net.InetSocketAddress;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rombix.links.link.GearPlaces;
import rombix.wire.Malformed;
import rombix.wire.dmx.SacnExtended;
import rombix.wire.dmx.SacnPacket;

/** Streaming ACN (E1.31). */
final class Sacn implements DmxForm {
    /** How often it is said that a universe ends (E1.31, 6.2.6). */
    private static final int GOODBYES = 3;
    private static final int USUAL_PRIORITY = 100;

    private final UUID identity;
    private final boolean multicast;
    private final int priority;
    private final int sync;
    private final boolean discovery;
    private final String name;

    Sacn(UUID identity, boolean multicast, GearPlaces places) {
        this.identity = identity;
        this.multicast = multicast;
        priority = (int) places.number(Dmx.PRIORITY, USUAL_PRIORITY);
        sync = (int) places.number(Dmx.SYNC, 0);
        discovery = multicast && places.yes(Dmx.DISCOVERY);
        String named = places.text(Dmx.SOURCE);
        name = named.isBlank() ? "Rombix" : named;
    }

    @Override
    public int firstUniverse() {
        return 1;
    }

    @Override
    public int lastUniverse() {
        return 63_999; // E1.31-2018, section 9.1.1.
    }

    private @Nullable InetSocketAddress group(int universe) {
        return multicast ? new InetSocketAddress(address(universe), SacnPacket.PORT) : null;
    }

    private static String address(int universe) {
        return "239.255." + (universe >> 8) + "." + (universe & 0xFF);
    }

    private Parcel parcel(int universe, int sequence, boolean ended, byte[] levels) {
        return new Parcel(new SacnPacket(identity, name, priority, sequence & 0xFF, ended, universe, ended ? 0 : sync,
                levels).encode(), group(universe));
    }

    @Override
    public Parcel data(int universe, int sequence, byte[] levels) {
        return parcel(universe, sequence, false, levels);
    }

    @Override
    public List<Parcel> end(int universe, int sequence, byte[] levels) {
        List<Parcel> all = new ArrayList<>();
        for (int i = 0; i < GOODBYES; i++) {
            all.add(parcel(universe, sequence + i, true, levels));
        }
        return all;
    }

    @Override
    public List<Parcel> after(int sequence) {
        return sync == 0
                ? List.of()
                : List.of(new Parcel(SacnExtended.sync(identity, sequence & 0xFF, sync), group(
                        sync)));
    }

    @Override
    public List<Parcel> now(Collection<Integer> universes) {
        return !discovery || universes.isEmpty()
                ? List.of()
                : List.of(new Parcel(SacnExtended.discovery(identity, name, List.copyOf(universes)),
                        new InetSocketAddress(SacnExtended.DISCOVERY_GROUP, SacnPacket.PORT)));
    }

    @Override
    public long nowNanos() {
        return TimeUnit.SECONDS.toNanos(10); // E1.31, 4.3.
    }

    @Override
    public Set<String> groups(Collection<Integer> universes) {
        return universes.stream().map(Sacn::address).collect(Collectors.toSet());
    }

    @Override
    public int port() {
        return SacnPacket.PORT;
    }

    @Override
    public @Nullable Came read(ByteBuffer bytes) throws Malformed {
        if (bytes.remaining() > 22 && bytes.getInt(bytes.position() + 18) == 8) {
            return null; // Synchronisation or discovery.
        }
        SacnPacket packet = SacnPacket.decode(bytes);
        return packet.source().equals(identity)
                ? null
                : new Levels(packet.universe(), packet.levels(), packet.priority(), packet.source(), packet.ended());
    }

    @Override
    public String title() {
        return "sACN";
    }
}
