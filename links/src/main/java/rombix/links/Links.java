package rombix.links;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Board;
import rombix.core.board.FollowedReadings;
import rombix.core.board.Gear;
import rombix.core.board.Rig;
import rombix.core.card.Card;
import rombix.core.card.Setting;
import rombix.core.event.Cause;
import rombix.core.event.Event;
import rombix.core.event.Gears;
import rombix.core.event.Glide;
import rombix.core.event.Status;
import rombix.core.event.Status.Phase;
import rombix.core.found.FoundGear;
import rombix.core.sight.Pixels;
import rombix.core.sight.Sights;
import rombix.core.time.Clock;
import rombix.core.touch.Switchboard;
import rombix.core.touch.Touch;
import rombix.core.traffic.Traffic;
import rombix.core.traffic.WhyNot;
import rombix.core.trust.Grants;
import rombix.core.trust.Permission;
import rombix.core.twin.Order;
import rombix.core.twin.Twin;
import rombix.core.value.Value;
import rombix.links.found.Searching;
import rombix.links.link.ConnectionTest;
import rombix.links.link.GearReport;
import rombix.links.link.GrantedKeyring;
import rombix.links.link.Keyring;
import rombix.links.link.Link;
import rombix.links.link.LinkType;
import rombix.links.link.Target;

/** The links of a board's gear. */
public final class Links implements Gears, AutoCloseable {
    private final Clock clock;
    private final Consumer<Event> deck;
    private final Map<String, Wired> wired = new ConcurrentHashMap<>();

    private final Keyring keyring;
    private final Traffic traffic;
    private volatile boolean inSight = true;
    private volatile Consumer<Touch.Mqtt> touched = _ -> {
    };
    /** Guarded by this. */
    private boolean closed;
    /** The gear of which all is to be heard. Guarded by this. */
    private final Set<String> overheard = new HashSet<>();
    /** What the board may do. */
    private volatile Grants grants = Grants.NONE;
    private volatile FollowedReadings followed = new FollowedReadings(Board.empty(""));

    private record Wired(Gear gear, String address, boolean leave, GearReport report, Link link) {
        /** Whether it is reached as it was. */
        boolean reached(Gear now, String at, boolean may) {
            return gear.link().equals(now.link()) && address.equals(at) && leave == may;
        }

        /** Whether it is still what a board says: its gear and its card are as they were. */
        boolean holds(Gear now, Twin twin) {
            return gear.equals(now) && report.twin().card().equals(twin.card());
        }

        /** Whether it goes on though its gear is called or described otherwise: all that it does by itself is the same. */
        boolean goesOn(Twin twin) {
            Card was = report.twin().card();
            Card is = twin.card();
            return link.goesOn() && was.greeting().equals(is.greeting()) && was.polls().equals(is.polls()) && was
                    .settings().equals(is.settings());
        }

        void close() {
            report.detach();
            link.close();
        }
    }

    /** @param deck where what comes in is posted; called from any thread */
    public Links(Clock clock, Consumer<Event> deck) {
        this(clock, deck, Keyring.NONE);
    }

    /** @param keyring what gear wants that no board holds */
    public Links(Clock clock, Consumer<Event> deck, Keyring keyring) {
        this.clock = clock;
        this.deck = deck;
        this.keyring = keyring;
        this.traffic = new Traffic(clock);
    }

    /**
     * Makes the links those of a board: gear that is as before keeps its link. Call it after the board was loaded.
     *
     * @param overrides addresses that take the place of the board's, by gear
     */
    public void connect(Rig rig, Map<String, String> overrides) {
        connect(rig, overrides, Permission.TRUSTED);
    }

    /** @param leave what the board may do; gear that it may not reach is only said to be there */
    public synchronized void connect(Rig rig, Map<String, String> overrides, Permission leave) {
        if (closed) {
            return;
        }
        Grants now = leave.grants().apply(rig);
        grants = now;
        Keyring keys = new GrantedKeyring(keyring, now);
        Map<String, Wired> before = new HashMap<>(wired);
        List<Gear> anew = new ArrayList<>();
        for (Gear gear : rig.board().gear()) {
            String address = overrides.getOrDefault(gear.id(), gear.link().address());
            Wired old = before.get(gear.id());
            Twin twin = rig.twin(gear.id()).orElse(null);
            boolean may = leave.reaches().test(gear.id());
            Wired same = old != null && old.reached(gear, address, may) ? old : null;
            if (twin == null || same != null && same.holds(gear, twin)) {
                before.remove(gear.id());
            } else if (same != null && same.goesOn(twin)) {
                wired.put(gear.id(), new Wired(gear, address, may, same.report(), same.link()));
                same.report().become(twin);
                same.link().described();
                before.remove(gear.id());
            } else {
                anew.add(gear);
            }
        }
        // What was said of the links before is true of none: they say no more before the first of the new ones speaks.
        for (Gear gear : anew) {
            Wired old = before.get(gear.id());
            if (old != null) {
                old.report().detach();
                deck.accept(new Event.Linked(gear.id(), Status.UNTRIED));
            }
        }
        for (Gear gear : anew) {
            Wired old = before.remove(gear.id());
            if (old != null) {
                old.close();
            }
            String address = overrides.getOrDefault(gear.id(), gear.link().address());
            boolean may = leave.reaches().test(gear.id());
            GearReport report = new GearReport(rig.twin(gear.id()).orElseThrow(), clock, deck, traffic);
            wired.put(gear.id(), new Wired(gear, address, may, report, may
                    ? open(report, new Target(address, gear.link(), keys, named -> Path.of(rig.file(named))))
                    : guest(report)));
        }
        before.forEach((id, gone) -> {
            wired.remove(id);
            gone.close();
        });
        wired.forEach((id, w) -> w.link().granted(now));
        wired.forEach((id, w) -> w.link().sights(() -> Sights.of(rig.board(), id)));
        wired.forEach((id, w) -> w.link().calls(Switchboard.topics(rig.board(), id), t -> touched.accept(t)));
        List.copyOf(overheard).forEach(id -> overhear(id, true));
        followed = new FollowedReadings(rig.board());
        wired.forEach((id, w) -> w.report().shown(reading -> inSight || followed.has(id, reading)));
    }

    /** Has another told of messages at the topics of the board's triggers, on any thread; it must not block. */
    public void touches(Consumer<Touch.Mqtt> told) {
        touched = told;
    }

    /** What goes out to the gear and comes in. */
    public Traffic traffic() {
        return traffic;
    }

    /** Why a gear cannot be worked: the whole way to it, tried now. It may take some seconds. */
    public WhyNot why(String gear) {
        Wired of = wired.get(gear);
        if (of == null || !(of.report().twin().protocol().descriptor() instanceof LinkType type)) {
            return WhyNot.none("the board has no such gear", "");
        }
        if (!of.leave()) {
            return WhyNot.none("the board is a guest: its gear isn't connected",
                    "Trust the board to connect its gear.");
        }
        return ConnectionTest.walk(of.report(), type,
                new Target(of.address(), of.gear().link(), new GrantedKeyring(keyring, grants),
                        Path::of));
    }

    /**
     * Looks for gear that says by itself that it is here, until that is closed.
     *
     * @param found told of each, on any thread
     */
    public Searching search(Consumer<FoundGear> found) {
        return new Searching(wired.values().stream().filter(w -> w.leave() && w.report().twin().protocol()
                .descriptor() instanceof LinkType type && type.keeps()).map(w -> new Target(w.address(), w.gear()
                        .link(), new GrantedKeyring(keyring, grants), Path::of))
                .toList(), found);
    }

    /** @param all whether all readings are in sight now; else only those count that the board follows */
    public void inSight(boolean all) {
        inSight = all;
    }

    /** Has all be handed on that a gear says, so that a card can be made of it, until that is over. */
    public synchronized void overhear(String gear, boolean all) {
        if (all) {
            overheard.add(gear);
        } else {
            overheard.remove(gear);
        }
        Wired of = wired.get(gear);
        if (of != null) {
            of.link().overhear(all);
        }
    }

    /** See {@link Link#light}. */
    public void light(String gear, Map<Integer, Map<Integer, Integer>> slots) {
        Wired of = wired.get(gear);
        if (of != null) {
            of.link().light(slots);
        }
    }

    /** What the screens of a gear show now; null where there is nothing to be seen. It may block. */
    public @Nullable Pixels look(String gear) {
        Wired of = wired.get(gear);
        return of == null ? null : of.link().look();
    }

    private static Link open(GearReport report, Target target) {
        try {
            if (!(report.twin().protocol().descriptor() instanceof LinkType type)) {
                throw new IllegalArgumentException(
                        "there is no link for the protocol " + report.twin().protocol().title());
            }
            if (!type.secures() && (target.link().tls() != null || target.link().secret() != null)) {
                report.status(Phase.OFF, Cause.NEITHER_SECRETS_NOR_TLS, type.title());
                return new NoLink(report, "isn't connected, as its protocol supports neither secrets nor TLS");
            }
            for (Setting setting : report.twin().settings()) {
                Value set = target.link().settings().get(setting.id());
                String wrong = set == null ? null : setting.wrong(set);
                if (wrong != null) { // What holds where nothing is set may be the opposite of what was meant.
                    report.status(Phase.OFF, Cause.WRONG_SETTING, wrong);
                    return new NoLink(report, "isn't connected: " + wrong);
                }
            }
            return type.open(report, target);
        } catch (IllegalArgumentException e) {
            report.status(Phase.OFF, Cause.WRONG_ADDRESS, String.valueOf(e.getMessage()));
            return new NoLink(report, "has no usable address");
        }
    }

    private static Link guest(GearReport report) {
        report.status(Phase.OFF, Cause.GUEST);
        return new NoLink(report, "isn't connected, as this board is a guest");
    }

    /** Stands where nothing is reached. */
    private record NoLink(GearReport report, String why) implements Link {
        @Override
        public void send(long ticket, Order order) {
            report.failed(ticket, why);
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
            traffic.out(ticket, order);
            to.link().send(ticket, order);
        }
    }

    @Override
    public void refused(Order order, String why) {
        traffic.refused(order, why);
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
    public void cancel(long ticket, Order order) {
        Wired to = wired.get(order.gear());
        if (to != null) {
            to.link().cancel(ticket);
        }
    }

    @Override
    public void stop() {
        wired.values().forEach(w -> w.link().stop());
    }

    @Override
    public synchronized void close() {
        closed = true;
        wired.values().forEach(Wired::close);
        wired.clear();
    }
}
