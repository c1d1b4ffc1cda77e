package rombix.core.trust;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import rombix.core.board.Rig;
import rombix.core.computer.Power;
import rombix.core.twin.Order;
import rombix.core.twin.Outline;
import rombix.core.twin.Twin;

/**
 * What a board in play was granted: what it may have this computer do, and which secret it may tell to which gear. It is
 * asked at the moment of sending, by what sends. Immutable; safe to use from any thread.
 */
public final class Grants {
    /** Nothing. */
    public static final Grants NONE = new Grants(Map.of(), Set.of());

    private static final String TYPED = "keys secret";

    private final Map<String, List<Outline>> here;
    /** Names of secrets that may be told to gear or typed. */
    private final Set<String> secrets;

    private Grants(Map<String, List<Outline>> here, Set<String> secrets) {
        this.here = Map.copyOf(here);
        this.secrets = Set.copyOf(secrets);
    }

    /** All that a board asks for: that of a board which is trusted. */
    public static Grants of(Rig rig) {
        List<ComputerUse.Use> uses = ComputerUse.of(rig);
        Set<String> secrets = new HashSet<>();
        rig.board().gear().forEach(g -> secrets.addAll(g.link().secrets()));
        uses.stream().map(ComputerUse.Use::outline).filter(o -> o.to().toString().equals(TYPED) && !o.args().isEmpty())
                .forEach(o -> o.args().getFirst().ifPresent(name -> secrets.add(name.toString())));
        return new Grants(outlines(uses), secrets);
    }

    /** Some powers over this computer, and some secrets, by name. */
    public static Grants of(Rig rig, Set<Power> powers, Set<String> secrets) {
        return new Grants(outlines(powers.isEmpty()
                ? List.of()
                : ComputerUse.of(rig).stream().filter(u -> powers.contains(u.power())).toList()), secrets);
    }

    private static Map<String, List<Outline>> outlines(List<ComputerUse.Use> uses) {
        Map<String, List<Outline>> here = new HashMap<>();
        uses.forEach(u -> here.computeIfAbsent(u.gear(), _ -> new ArrayList<>()).add(u.outline()));
        return here;
    }

    /** Whether a gear may be told this. */
    public boolean allow(String gear, Order.Outgoing packet) {
        return here.getOrDefault(gear, List.of()).stream().anyMatch(o -> o.fits(packet)) && (!packet.address().equals(
                TYPED) || typed(packet));
    }

    /** What is computed may name a secret that was asked for at a press, and none that is kept. */
    private boolean typed(Order.Outgoing packet) {
        String name = packet.args().isEmpty() ? "" : packet.args().getFirst().toString();
        return name.startsWith(Twin.ASKED) || secrets.contains(name);
    }

    /** Whether gear may be told a secret, by its name. */
    public boolean tell(String secret) {
        return secrets.contains(secret);
    }
}
