package rombix.running;

import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import rombix.core.board.Board.AfterCrash;
import rombix.core.board.Rig;
import rombix.running.log.Aftermath;
import rombix.running.log.LogStore;

/** What was held or ran on a deck's board when Rombix was killed, and the two ways to have done with it. */
public final class LeftBehind {
    private static final Logger LOG = LoggerFactory.getLogger(LeftBehind.class);

    private final RunningDeck deck;
    private final LogStore log;
    private final Rig rig;
    private final Aftermath left;

    private LeftBehind(RunningDeck deck, LogStore log, Rig rig, Aftermath left) {
        this.deck = deck;
        this.log = log;
        this.rig = rig;
        this.left = left;
    }

    /** What is to be ended, or asked about; empty where there is nothing, or the board never has it ended. */
    public static Optional<LeftBehind> of(RunningDeck deck) {
        Rig rig = deck.rig();
        LogStore log = deck.log();
        if (log == null) {
            return Optional.empty();
        }
        try {
            LeftBehind all = new LeftBehind(deck, log, rig, new Aftermath(log.leftOver()).of(rig));
            if (all.left.isEmpty() || rig.board().afterCrash() == AfterCrash.NEVER) {
                all.forget();
                return Optional.empty();
            }
            return Optional.of(all);
        } catch (LogStore.Trouble e) {
            LOG.warn("the list of running chains can't be read: {}", e.getMessage());
            return Optional.empty();
        }
    }

    /** In words: {@code Rombix was killed while “Host talk” was held.} */
    public String words() {
        return "Rombix was killed while " + left.words(rig) + ".";
    }

    /** Whether the board has it ended without asking. */
    public boolean always() {
        return rig.board().afterCrash() == AfterCrash.ALWAYS;
    }

    /** Ends it once the gear answers, or is known not to. */
    public void end() {
        deck.whenReached(rig, () -> {
            left.ends(rig, deck.known()).forEach(deck::run);
            forget();
        });
    }

    /** Leaves it as it is and stops asking about it. */
    public void forget() {
        try {
            log.forget();
        } catch (LogStore.Trouble e) {
            LOG.warn("the list of running chains is read again: {}", e.getMessage());
        }
    }
}
