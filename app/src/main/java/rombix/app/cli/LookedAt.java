package rombix.app.cli;

import java.nio.file.Path;
import java.util.Collection;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Predicate;
import rombix.app.show.Session;
import rombix.core.board.Rig;
import rombix.core.card.Twin.Readings;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;
import rombix.core.trust.Leave;
import rombix.running.Show;
import rombix.running.owner.Trust;

/**
 * What a command looks at without working it: a board in the Rombix that has it open, or on gear that the command
 * connects itself, for as long as it looks.
 *
 * @param readings what is known of a gear now, by its id
 * @param alone whether the command has connected the gear itself
 */
record LookedAt(Rig rig, Show show, Function<String, Readings> readings, boolean alone) implements AutoCloseable {

    /** @param gear the one that is looked at, by its id; empty for all, which a board from elsewhere may not reach */
    static LookedAt of(Playing.Stage stage, Path board, String gear, AllowSecrets secrets)
            throws BadCall, BadFile, InterruptedException {
        Session session = stage.session();
        if (session != null) {
            Rig rig = Session.onInterface(() -> session.window().bench().rig());
            known(rig, gear);
            return new LookedAt(rig, session.show(),
                    id -> Session.onInterface(() -> session.window().deck().state().readings(
                            id)),
                    false);
        }
        Rig rig = BoardFile.read(board);
        known(rig, gear);
        if (gear.isEmpty() && !Trust.of(Set.of()).missing(rig).isEmpty()) {
            throw new BadCall(
                    "%s is not trusted yet, so none of its gear is reached: open it and agree first, or name one with --gear."
                            .formatted(board));
        }
        Predicate<String> reached = gear.isEmpty() ? _ -> true : gear::equals;
        Leave leave = secrets.leave(rig, reached, Set.of(), Set.of());
        Arrivals arrivals = new Arrivals();
        Show show = new Show(Map.of(), arrivals, null);
        show.allow(leave);
        show.load(rig);
        Collection<String> awaited = rig.twins().keySet().stream().filter(reached).toList();
        arrivals.await(awaited);
        return new LookedAt(rig, show, id -> reading -> show.known().readings().getOrDefault(id, Map.of()).get(reading),
                true);
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
            show.close();
        }
    }
}
