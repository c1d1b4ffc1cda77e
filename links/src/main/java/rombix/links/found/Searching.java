package rombix.links.found;

import java.util.List;
import java.util.ArrayList;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Consumer;
import rombix.core.card.Protocol;
import rombix.core.card.Protocol.Reach;
import rombix.core.found.FoundGear;
import rombix.core.found.FoundGear.How;
import rombix.links.link.LinkType;
import rombix.links.link.Target;
import rombix.wire.dmx.ArtNetPacket;
import rombix.wire.ssdp.SsdpMessage;

/**
 * A search for gear that says by itself that it is here, until it is closed. It asks once, of all at once; what did not
 * say that it is there is not tried. Safe to use from any thread.
 */
public final class Searching implements AutoCloseable {
    /** Where gear listens that is asked whether it is there. */
    record Ports(int ssdp, int artNet) {
    }

    private static final Ports USUAL = new Ports(SsdpMessage.PORT, ArtNetPacket.PORT);

    private final Consumer<FoundGear> found;
    private final Set<String> asked = ConcurrentHashMap.newKeySet();
    /** Guarded by this. */
    private final List<AutoCloseable> parts = new ArrayList<>();
    private boolean closed;

    /**
     * Begins at once, and does not block.
     *
     * @param brokers those that the board knows already: what they keep is looked at, too
     * @param found told of each, on any thread; of the same one again where more is known of it
     */
    public Searching(List<Target> brokers, Consumer<FoundGear> found) {
        this(brokers, Networks.all(), USUAL, found);
    }

    Searching(List<Target> brokers, List<Networks.Network> networks, Ports ports, Consumer<FoundGear> found) {
        this.found = found;
        begin(() -> {
            ports();
            return () -> {
            };
        });
        begin(() -> new ArtNetNodes(networks, ports.artNet(), this::tell));
        begin(() -> new Ssdp(networks, ports.ssdp(), this::tell));
        begin(() -> new DnsSd(networks, this::tell));
        brokers.forEach(b -> topics(b, new FoundGear(How.TOPICS, b.address(), "", b.link().protocol(), b.address())));
    }

    private interface Part {
        AutoCloseable begin();
    }

    private void begin(Part part) {
        Thread.ofPlatform().daemon().name("discovered").start(() -> {
            AutoCloseable begun = part.begin();
            synchronized (this) {
                if (!closed) {
                    parts.add(begun);
                    return;
                }
            }
            end(begun);
        });
    }

    private void tell(FoundGear gear) {
        found.accept(gear);
        if (gear.protocol().descriptor() instanceof LinkType type && type.keeps() && gear.topics().isEmpty()) {
            topics(Target.found(gear), gear);
        }
    }

    /** Looks at what a broker keeps for everybody; once. */
    private void topics(Target broker, FoundGear gear) {
        if (gear.protocol().descriptor() instanceof LinkType type && asked.add(broker.address())) {
            begin(() -> type.kept(broker, kept -> found.accept(new FoundGear(How.TOPICS, gear.name(), gear.about(), gear
                    .protocol(), gear.address(), gear.host(), gear.tls(), gear.settings(), kept))));
        }
    }

    /** The ports of this computer that gear may be plugged into. */
    private void ports() {
        for (Protocol protocol : Protocol.all()) {
            Protocol.Descriptor type = protocol.descriptor();
            if (type.reach() == Reach.PORT || type.reach() == Reach.EITHER) {
                type.ports()
                        .forEach(port -> found.accept(new FoundGear(How.PORT, port, type.portWord(), protocol, port)));
            }
        }
    }

    @Override
    public void close() {
        List<AutoCloseable> all;
        synchronized (this) {
            closed = true;
            all = List.copyOf(parts);
        }
        all.forEach(p -> Thread.startVirtualThread(() -> end(p))); // It may take seconds.
    }

    private static void end(AutoCloseable part) {
        try {
            part.close();
        } catch (Exception e) {
            // It is over either way.
        }
    }
}
