package rombix.app.cli.option;

import java.io.IOException;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Button;
import rombix.core.board.Rig;
import rombix.core.event.Known;
import rombix.core.find.Nearest;
import rombix.core.trust.Asks;
import rombix.core.trust.Permission;
import rombix.running.RunningDeck;
import rombix.standins.set.StandIns;

/** The gear that a command works with: at the board's addresses, at others, or stand-ins of its own. */
public final class GearAccess implements AutoCloseable {
    private final @Nullable StandIns standIns;
    private final Map<String, String> addresses;

    private GearAccess(@Nullable StandIns standIns, Map<String, String> addresses) {
        this.standIns = standIns;
        this.addresses = addresses;
    }

    public static GearAccess open(Rig rig, Map<String, String> at, boolean standIns) throws BadCall, IOException {
        for (String gear : at.keySet()) {
            if (rig.twin(gear).isEmpty()) {
                throw new BadCall("--at %s: no such gear; the board has %s".formatted(gear,
                        String.join(", ", rig.twins().keySet())));
            }
        }
        StandIns started = standIns ? StandIns.onFreePorts() : null;
        Map<String, String> addresses = new HashMap<>(started == null ? Map.of() : started.addresses());
        addresses.putAll(at);
        return new GearAccess(started, addresses);
    }

    public Map<String, String> addresses() {
        return addresses;
    }

    /** A button of a board, by its id. */
    public static Button button(Rig rig, Path board, String id) throws BadCall {
        return rig.button(id).orElseThrow(() -> new BadCall("%s: no button “%s”; %s".formatted(board, id,
                Nearest.words(id, rig.board().buttons().map(Button::id).toList()))));
    }

    /** What the gear says now: connects what may be reached for a button, and listens until it is quiet. */
    public Known known(Rig rig, Button button, AllowSecrets allow) throws BadCall, InterruptedException {
        Arrivals arrivals = new Arrivals();
        Permission leave = allow.permission(rig, Asks.gear(rig, button)::contains, addresses.keySet(), Set.of());
        try (RunningDeck deck = new RunningDeck(addresses, null)) {
            deck.watch(arrivals);
            deck.allow(leave);
            deck.load(rig);
            arrivals.await(rig.twins().keySet());
            return deck.known();
        }
    }

    @Override
    public void close() throws IOException {
        if (standIns != null) {
            standIns.close();
        }
    }
}
