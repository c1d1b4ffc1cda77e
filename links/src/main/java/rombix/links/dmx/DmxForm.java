package rombix.links.dmx;

import java.net.InetSocketAddress;
import java.nio.ByteBuffer;
import java.util.Collection;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rombix.core.card.value.As;
import rombix.core.twin.Order;
import rombix.wire.Malformed;
import rombix.wire.dmx.SacnPacket;

/** How the levels of universes stand in packets: what a protocol of DMX over IP brings. Safe to use from any thread. */
interface DmxForm {
    /** A packet, and where it goes; to the gear's own address where that is null. */
    record Parcel(byte[] bytes, @Nullable InetSocketAddress to) {
    }

    /** What came: the levels of a universe, or that somebody is there. */
    sealed interface Came {}

    /** @param source who sent them; {@code ended} where it sends them no more */
    record Levels(int universe, byte[] levels, int priority, Object source, boolean ended) implements Came {
    }

    /** Somebody is there. */
    record Node(String name) implements Came {
    }

    int firstUniverse();

    int lastUniverse();

    /** The levels of a universe. */
    Parcel data(int universe, int sequence, byte[] levels);

    /** That a universe is not sent any more; nothing where the protocol does not say so. */
    List<Parcel> end(int universe, int sequence, byte[] levels);

    /** What follows when all that is due together was sent. */
    List<Parcel> after(int sequence);

    /** What is said now and then, whether levels change or not. */
    List<Parcel> now(Collection<Integer> universes);

    /** How often that is, in nanoseconds. */
    long nowNanos();

    /** The groups in which levels are sent to several, for those who listen. */
    Set<String> groups(Collection<Integer> universes);

    /** Where others send to. */
    int port();

    /** What a packet says; null where it is of no concern. */
    @Nullable
    Came read(ByteBuffer bytes) throws Malformed;

    /** The name that people know it by. */
    String title();

    /** Why a packet has no place on the wire; null where it has. */
    default @Nullable String wrong(Order.Outgoing packet) {
        String[] words = packet.address().split(" ");
        try {
            int universe = (int) Double.parseDouble(words[0]);
            int slot = (int) Double.parseDouble(words[1]);
            int slots = packet.forms().stream().mapToInt(As::slots).sum();
            if (universe >= firstUniverse() && universe <= lastUniverse() && slot >= 1
                    && slot + slots - 1 <= SacnPacket.SLOTS) {
                return null;
            }
        } catch (NumberFormatException | ArrayIndexOutOfBoundsException e) {
            // Said below.
        }
        return "“" + packet.address() + "” isn't a universe from " + firstUniverse() + " to " + lastUniverse()
                + " and a slot from 1 to 512 with room for the value";
    }
}
