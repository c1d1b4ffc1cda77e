package rombix.app.cli.play;

import java.io.IOException;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.slf4j.LoggerFactory;
import picocli.CommandLine;
import rombix.app.cli.option.Arrivals;
import rombix.app.cli.option.BadCall;
import rombix.app.cli.option.GearAccess;
import rombix.app.cli.option.PlayOptions;
import rombix.core.board.Button;
import rombix.core.board.Rig;
import rombix.core.event.Happening;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;
import rombix.core.thread.Bounded;
import rombix.core.touch.DeckPort;
import rombix.core.trust.Permission;
import rombix.running.RunningDeck;
import rombix.web.BrowserPages;
import rombix.running.log.LogStore;

/**
 * A board in play for a command: in the Rombix that has it open, or on gear that the command connects itself. What is
 * run on real gear is logged either way.
 */
public final class Playing implements AutoCloseable {
    /** Who presses, as the log names it. */
    static final String SOURCE = "command line";

    /** Gives a command its board in play. */
    public interface Stage {
        /**
         * @param button the id of the button that is worked: of a guest no gear but its own is reached
         * @param options where the gear is reached, and what else a guest may do meanwhile
         */
        Playing open(Path board, String button, PlayOptions options)
                throws BadFile, BadCall,
                IOException;

        /** The deck that plays the board already; null where the command has to connect the gear itself. */
        default @Nullable RunningDeck deck() {
            return null;
        }

        /** The pages in browsers of that deck; null where there is none. */
        default @Nullable BrowserPages pages() {
            return null;
        }

        /** Brings the window in front that shows the board; whether there is one. */
        default boolean toFront() {
            return false;
        }
    }

    /** The command line for some arguments, whose commands get their board in play from a stage. */
    public interface Lines {
        CommandLine of(Stage stage, String... args);
    }

    /** The gear is connected for the command alone. */
    public static final Stage ALONE = Playing::alone;

    private static final long QUIET_MILLIS = 500;

    private final Rig rig;
    private final RunningDeck deck;
    private final DeckPort port;
    private final @Nullable GearAccess gear;
    private final RunningDeck.Watching watching;
    private final Bounded<Happening> happenings;

    private Playing(Rig rig, RunningDeck deck, DeckPort port, @Nullable GearAccess gear, RunningDeck.Watching watching,
            Bounded<Happening> happenings) {
        this.rig = rig;
        this.deck = deck;
        this.port = port;
        this.gear = gear;
        this.watching = watching;
        this.happenings = happenings;
    }

    private static Playing alone(Path board, String button, PlayOptions options)
            throws BadFile,
            BadCall, IOException {
        Rig rig = BoardFile.read(board);
        Button worked = GearAccess.button(rig, board, button);
        GearAccess gear = options.reach(rig);
        Permission leave;
        try {
            leave = options.permission(rig, worked, gear.addresses().keySet());
        } catch (BadCall e) {
            gear.close();
            throw e;
        }
        Bounded<Happening> happenings = new Bounded<>(Arrivals.MOST_WAITING, Bounded.Full.DROP_OLDEST);
        LogStore log = options.standIns()
                ? null
                : LogStore.ofBoard(LogStore.beside(board), LoggerFactory
                        .getLogger(Playing.class)::warn);
        RunningDeck deck = new RunningDeck(gear.addresses(), log);
        RunningDeck.Watching watching = deck.watch(happenings::offer);
        deck.allow(leave);
        deck.load(rig);
        return new Playing(rig, deck, deck.port(SOURCE), gear, watching, happenings);
    }

    /**
     * In a deck that plays the board already. What its commands hold, they hold until one of them releases it.
     *
     * @param pages its pages in browsers
     * @param toFront brings its window in front; whether there is one
     */
    public static Stage in(RunningDeck deck, BrowserPages pages, BooleanSupplier toFront) {
        DeckPort port = deck.port(SOURCE);
        return new Stage() {
            @Override
            public Playing open(Path board, String button, PlayOptions options) {
                Bounded<Happening> happenings = new Bounded<>(Arrivals.MOST_WAITING, Bounded.Full.DROP_OLDEST);
                RunningDeck.Watching watching = deck.watch(happenings::offer);
                return new Playing(deck.rig(), deck, port, null, watching, happenings);
            }

            @Override
            public RunningDeck deck() {
                return deck;
            }

            @Override
            public BrowserPages pages() {
                return pages;
            }

            @Override
            public boolean toFront() {
                return toFront.getAsBoolean();
            }
        };
    }

    Rig rig() {
        return rig;
    }

    /** The way of commands to the deck. */
    DeckPort port() {
        return port;
    }

    /** Waits until the gear that a button works answers, where it was only just connected. */
    void settle(Button button) throws InterruptedException {
        if (gear != null) {
            Arrivals.settle(happenings, button.gear());
        }
    }

    /** What happens to one who follows. */
    interface Follower {
        void happened(Happening happening) throws InterruptedException;
    }

    /**
     * Works a button and tells what happens to it, until the chains that this started have ended and the button's face is
     * what it is to be. Where the command has the gear alone, that is when nothing runs any more.
     *
     * @param taps whether it is pressed and released in its time
     */
    void follow(Consumer<DeckPort> work, Button button, boolean taps, Follower follower) throws InterruptedException {
        happenings.drain();
        Happening taken = new Happening.Armed(false); // Behind the work: what that starts has started.
        work.accept(port);
        deck.then(() -> happenings.offer(taken));
        if (gear != null) {
            untilRested(taken, button, follower);
        } else {
            untilEnded(taken, button, taps, follower);
        }
    }

    private void untilRested(Happening taken, Button button, Follower follower) throws InterruptedException {
        boolean begun = false;
        boolean all = false;
        while (true) {
            Happening h = all && !begun ? happenings.poll(QUIET_MILLIS, TimeUnit.MILLISECONDS) : happenings.take();
            if (h == null || h instanceof Happening.Rested) {
                return;
            }
            begun |= h instanceof Happening.Started;
            all |= h == taken;
            if (!(h instanceof Happening.Faulted f) || f.button().equals(button.id())) {
                follower.happened(h);
            }
        }
    }

    private void untilEnded(Happening taken, Button button, boolean taps, Follower follower)
            throws InterruptedException {
        Map<Long, Boolean> runs = new LinkedHashMap<>();
        boolean all = false;
        boolean onItsWay = false;
        boolean held = false; // By this press, which is released in its time.
        while (!all || runs.containsValue(true) || onItsWay || held) {
            Happening h = happenings.take();
            boolean ours = switch (h) {
                case Happening.Started s -> {
                    if (s.button().equals(button.id()) && (!all || held || s.source().equals("stopped"))) {
                        runs.put(s.run(), true);
                    }
                    yield false;
                }
                case Happening.Settled e -> {
                    runs.computeIfPresent(e.run(), (_, _) -> false);
                    yield false;
                }
                case Happening.Shows s -> {
                    boolean its = s.button().equals(button.id());
                    onItsWay = its ? s.onItsWay() >= 0 : onItsWay;
                    held = its && taps ? s.held() : held;
                    yield false;
                }
                case Happening.Ran r -> runs.containsKey(r.line().run());
                case Happening.Asked a -> runs.containsKey(a.run());
                case Happening.Said s -> s.button().equals(button.id());
                case Happening.Faulted f -> f.button().equals(button.id());
                default -> false;
            };
            all |= h == taken;
            if (ours) {
                follower.happened(h);
            }
        }
    }

    @Override
    public void close() throws IOException {
        watching.close();
        if (gear != null) {
            deck.close();
            gear.close();
        }
    }
}
