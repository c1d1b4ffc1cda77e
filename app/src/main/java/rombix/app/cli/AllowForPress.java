package rombix.app.cli;

import java.util.Set;
import picocli.CommandLine.Mixin;
import rombix.core.board.Button;
import rombix.core.board.Rig;
import rombix.core.trust.Asks;
import rombix.core.trust.Leave;

/** What a command that works a button lets a board do that is not trusted. */
final class AllowForPress {
    @Mixin
    private Allow powers = new Allow();

    @Mixin
    private AllowSecrets secrets = new AllowSecrets();

    /**
     * What a board may do for the sake of a button. To work it is leave to reach what it works; all is reached, so that
     * the rest of the board is as it is, where the board is trusted.
     *
     * @param elsewhere the gear that is reached where its owner says
     * @throws BadCall where it wants more than is allowed
     */
    Leave leave(Rig rig, Button button, Set<String> elsewhere) throws BadCall {
        powers.check(rig, button, elsewhere);
        return secrets.leave(rig, Asks.gear(rig, button)::contains, elsewhere, powers.powers());
    }
}
