package rombix.app.cli.option;

import java.util.Collection;
import java.util.HashSet;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Predicate;
import picocli.CommandLine.Option;
import rombix.core.board.Gear;
import rombix.core.board.Rig;
import rombix.core.computer.Power;
import rombix.core.trust.Grants;
import rombix.core.trust.Permission;
import rombix.running.owner.Trust;

/** The secrets of this computer that a command lets a board tell to its gear, for as long as it runs. */
public final class AllowSecrets {
    @Option(names = "--allow-secret", split = ",", paramLabel = "NAME", description = "Secrets that an untrusted board may send to its gear in this call, separated by commas.")
    private Set<String> allowed = Set.of();

    /**
     * What a board may do for a command: all of it where it is trusted; else what was allowed.
     *
     * @param reaches the gear that the command needs, by its id
     * @param elsewhere the gear that is reached where its owner says: it may be told its secret
     * @throws BadCall where such gear is told a secret that was not allowed
     */
    public Permission permission(Rig rig, Predicate<String> reaches, Collection<String> elsewhere, Set<Power> powers)
            throws BadCall {
        if (Trust.of(Set.copyOf(elsewhere)).missing(rig).isEmpty()) {
            return Permission.TRUSTED;
        }
        Set<String> secrets = new HashSet<>(allowed);
        TreeMap<String, String> missing = new TreeMap<>();
        for (Gear gear : rig.board().gear()) {
            for (String secret : gear.link().secrets()) {
                if (elsewhere.contains(gear.id())) {
                    secrets.add(secret);
                } else if (reaches.test(gear.id()) && !allowed.contains(secret)) {
                    missing.put(secret, gear.name() + " at " + gear.link().address());
                }
            }
        }
        if (!missing.isEmpty()) {
            throw new BadCall(
                    "This board would send %s, and it isn't trusted on this computer. Add --allow-secret %s, or open it and trust it."
                            .formatted(
                                    String.join(", ", missing.entrySet().stream().map(e -> "your secret “" + e.getKey()
                                            + "” to " + e.getValue()).toList()),
                                    String.join(",", missing.keySet())));
        }
        return new Permission(reaches, r -> Grants.of(r, powers, secrets));
    }
}
