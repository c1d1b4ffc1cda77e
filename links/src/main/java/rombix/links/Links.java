package rombix.links;

import java.util.HashMap;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Consumer;
import rombix.core.board.Gear;
import rombix.core.board.Rig;
import rombix.core.card.Order;
import rombix.core.card.Twin;
import rombix.core.engine.Clock;
import rombix.core.engine.Event;
import rombix.core.engine.Gears;
import rombix.core.engine.Glide;
import rombix.core.engine.Status.Phase;
import rombix.links.link.GearReport;
import rombix.links.link.Link;
import rombix.links.link.LinkType;

/** The links of a board's gear. */
public final class Links implements Gears, AutoCloseable {
    private final Clock clock;
    private final Consumer<Event> deck;
    private final Map<String, Wired> wired = new ConcurrentHashMap<>();

    private record Wired(Gear gear, String address, Link link) {
    }

    /** @param deck where what comes in is posted; called from any thread */
    public Links(Clock clock, Consumer<Event> deck) {
        this.clock = clock;
        this.deck = deck;
    }

    /**
     * Makes the links those of a board: gear that is as before keeps its link. Call it after the board was loaded.
     *
     * @param overrides addresses that take the place of the board's, by gear
     */
    public synchronized void connect(Rig rig, Map<String, String> overrides) {
        Map<String, Wired> before = new HashMap<>(wired);
        for (Gear gear : rig.board().gear()) {
            Twin twin = rig.twin(gear.id()).orElse(null);
            String address = overrides.getOrDefault(gear.id(), gear.link().address());
            Wired old = before.get(gear.id());
            if (twin == null || old != null && old.gear().equals(gear) && Objects.equals(old.address(), address)) {
                before.remove(gear.id());
                continue;
            }
            if (old != null) {
                old.link().close();
                before.remove(gear.id());
            }
            wired.put(gear.id(), new Wired(gear, address, open(new GearReport(twin, clock, deck), address)));
        }
        before.forEach((id, gone) -> {
            wired.remove(id);
            gone.link().close();
        });
    }

    private static Link open(GearReport report, String address) {
        try {
            if (report.twin().protocol().descriptor() instanceof LinkType type) {
                return type.open(report, address);
            }
            throw new IllegalArgumentException("no link speaks " + report.twin().protocol().title());
        } catch (IllegalArgumentException e) {
            report.status(Phase.OFF, String.valueOf(e.getMessage()), "Set its address.");
            return new NoLink(report);
        }
    }

    /** Stands where an address makes no sense. */
    private record NoLink(GearReport report) implements Link {
        @Override
        public void send(long ticket, Order order) {
            report.failed(ticket, "has no address that could be used");
        }

        @Override
        public void close() {
            // Nothing is open.
        }
    }

    @Override
    public void send(long ticket, Order order) {
        Wired to = wired.get(order.gear());
        if (to == null) {
            deck.accept(new Event.OrderDone(ticket, clock.nanos(), "no link to " + order.gear()));
        } else {
            to.link().send(ticket, order);
        }
    }

    @Override
    public boolean glide(Glide glide) {
        Wired to = wired.get(glide.ramp().gear());
        return to != null && to.link().glide(glide);
    }

    @Override
    public void halt(Glide glide) {
        Wired to = wired.get(glide.ramp().gear());
        if (to != null) {
            to.link().halt(glide);
        }
    }

    @Override
    public synchronized void close() {
        wired.values().forEach(w -> w.link().close());
        wired.clear();
    }
}
