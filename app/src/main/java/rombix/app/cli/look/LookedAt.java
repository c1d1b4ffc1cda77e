package rombix.app.cli.look;

import java.nio.file.Path;
import java.util.Collection;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;
import rombix.app.cli.option.AllowSecrets;
import rombix.app.cli.option.Arrivals;
import rombix.app.cli.option.BadCall;
import rombix.app.cli.play.Playing;
import rombix.core.board.Rig;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;
import rombix.core.trust.Permission;
import rombix.core.twin.Twin.Readings;
import rombix.running.RunningDeck;
import rombix.running.owner.Trust;

/**
 * What a command looks at without working it: a board in the Rombix that has it open, or on gear that the command
 * connects itself, for as long as it looks.
 *
 * @param alone whether the command has connected the gear itself
 */
record LookedAt(Rig rig, RunningDeck deck, boolean alone) implements AutoCloseable {

    /** @param gear the one that is looked at, by its id; empty for all, which a board from elsewhere may not reach */
    static LookedAt of(Playing.Stage stage, Path board, String gear, AllowSecrets secrets)
            throws BadCall, BadFile, InterruptedException {
        RunningDeck open = stage.deck();
        if (open != null) {
            known(open.rig(), gear);
            return new LookedAt(open.rig(), open, false);
        }
        Rig rig = BoardFile.read(board);
        known(rig, gear);
        if (gear.isEmpty() && !Trust.of(Set.of()).missing(rig).isEmpty()) {
            throw new BadCall(
                    "%s isn't trusted yet, so it isn't connected to its gear. Open it and trust it first, or choose one with --gear."
                            .formatted(board));
        }
        Predicate<String> reached = gear.isEmpty() ? _ -> true : gear::equals;
        Permission leave = secrets.permission(rig, reached, Set.of(), Set.of());
        Arrivals arrivals = new Arrivals();
        RunningDeck deck = new RunningDeck(Map.of(), null);
        deck.watch(arrivals);
        deck.allow(leave);
        deck.load(rig);
        Collection<String> awaited = rig.twins().keySet().stream().filter(reached).toList();
        arrivals.await(awaited);
        return new LookedAt(rig, deck, true);
    }

    /** What is known of a gear now, by its id. */
    Readings readings(String gear) {
        return deck.feed().state().readings(gear);
    }

    private static void known(Rig rig, String gear) throws BadCall {
        if (!gear.isEmpty() && rig.twin(gear).isEmpty()) {
            throw new BadCall("there is no gear “%s” on this board; it has %s".formatted(gear, String.join(", ", rig
                    .twins().keySet())));
        }
    }

    @Override
    public void close() {
        if (alone) {
            deck.close();
        }
    }
}
