package rombix.app.cli.option;

import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import rombix.core.board.Button;
import rombix.core.board.Rig;
import rombix.core.trust.Asks;
import rombix.core.trust.Permission;

/** Where a command that works a button reaches the gear, and what it lets a board do that is not trusted. */
public final class PlayOptions {
    @Option(names = "--at", paramLabel = "GEAR=HOST:PORT", description = "Use another address for this gear than the board's; for MIDI, the name of a port.")
    private Map<String, String> at = new LinkedHashMap<>();

    @Option(names = "--stand-ins", description = "Start stand-ins for the gear on free ports and use them.")
    private boolean standIns;

    @Mixin
    private Allow powers = new Allow();

    @Mixin
    private AllowSecrets secrets = new AllowSecrets();

    /** Reaches the gear where these options say. */
    public GearAccess reach(Rig rig) throws BadCall, IOException {
        return GearAccess.open(rig, at, standIns);
    }

    /** Whether nothing real is worked, so that nothing is logged. */
    public boolean standIns() {
        return standIns;
    }

    /**
     * What a board may do for the sake of a button. To work it is leave to reach what it works; all is reached, so that
     * the rest of the board is as it is, where the board is trusted.
     *
     * @param elsewhere the gear that is reached where its owner says
     * @throws BadCall where it wants more than is allowed
     */
    public Permission permission(Rig rig, Button button, Set<String> elsewhere) throws BadCall {
        powers.check(rig, button, elsewhere);
        return secrets.permission(rig, Asks.gear(rig, button)::contains, elsewhere, powers.powers());
    }
}
