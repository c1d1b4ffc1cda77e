package rombix.app.cli.option;

import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import picocli.CommandLine.Option;
import rombix.core.board.Button;
import rombix.core.board.Rig;
import rombix.core.computer.Power;
import rombix.core.trust.Ask;
import rombix.core.trust.Asks;
import rombix.running.owner.Trust;

/** The powers over this computer that a command gives to a board, for as long as it runs. */
public final class Allow {
    @Option(names = "--allow", split = ",", paramLabel = "POWER", description = "Powers over this computer to grant to an untrusted board for this call, separated by commas: keys, pointer, programs, files, windows, clipboard, system.")
    private List<String> allow = List.of();

    Set<Power> powers() throws BadCall {
        Set<Power> powers = EnumSet.noneOf(Power.class);
        for (String id : allow) {
            powers.add(
                    Power.of(id).orElseThrow(() -> new BadCall("--allow %s: no such power; there are %s".formatted(id,
                            ids(EnumSet.allOf(Power.class))))));
        }
        return powers;
    }

    private static String ids(Set<Power> powers) {
        return powers.stream().map(Power::id).collect(Collectors.joining(", "));
    }

    /** Refuses a button of a board that is not trusted where it wants more of this computer than is allowed. */
    void check(Rig rig, Button button, Set<String> elsewhere) throws BadCall {
        Set<Power> allowed = powers();
        Set<Power> wanted = EnumSet.noneOf(Power.class);
        if (!Trust.of(elsewhere).missing(rig).isEmpty()) {
            wanted.addAll(Asks.powers(rig, button, elsewhere));
        }
        wanted.removeAll(allowed);
        if (!wanted.isEmpty()) {
            throw new BadCall(
                    "“%s” %s, and this board isn't trusted on this computer. Add --allow %s, or open it and trust it."
                            .formatted(button.name(),
                                    wanted.stream().map(Power::words).collect(Collectors.joining(", ")), ids(
                                            wanted)));
        }
    }

    /** Agrees, until Rombix is closed, to what a board wants of this computer by the powers that are allowed. */
    public void agree(Trust trust, Rig rig) throws BadCall {
        Set<Power> allowed = powers();
        trust.agreeForNow(trust.missing(rig).stream().filter(a -> a.kind() == Ask.Kind.WORKS_HERE && allowed.stream()
                .anyMatch(p -> a.key().startsWith("power " + p.id() + " "))).toList());
    }
}
