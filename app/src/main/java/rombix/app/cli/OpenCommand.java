package rombix.app.cli;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.concurrent.Callable;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.slf4j.LoggerFactory;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import rombix.app.show.Session;
import rombix.core.engine.Mode;
import rombix.core.trust.Ask;
import rombix.running.owner.OpenedBoard;
import rombix.running.owner.Settings;
import rombix.running.owner.Trust;
import rombix.running.shell.Caller;
import rombix.running.shell.Doorkeeper;

/** Opens a board in a window. */
@Command(name = "open", mixinStandardHelpOptions = true, description = "Opens a board in a window.")
final class OpenCommand implements Callable<Integer> {
    @Parameters(paramLabel = "BOARD", description = "The board file.")
    private Path board = Path.of("");

    @Option(names = "--for", converter = Span.class, paramLabel = "TIME", description = "Close after this time, such as 20s.")
    private @Nullable Long forMillis;

    @Option(names = "--live", description = "Go live at once.")
    private boolean live;

    @Option(names = "--trust", description = "Trust the board: agree to all that it brings. A board from elsewhere is opened to look, until it is trusted.")
    private boolean trust;

    @Mixin
    private Allow allow = new Allow();

    private final Playing.Lines lines;

    OpenCommand(Playing.Lines lines) {
        this.lines = lines;
    }

    @Override
    public Integer call() throws Exception {
        run(lines, new Wanted(board, Map.of(), forMillis, live, trust, allow), () -> {
        }, _ -> {
        });
        return 0;
    }

    /** What has to be so before a window opens. */
    interface Ready {
        void run() throws Exception;
    }

    /**
     * What is opened, and how.
     *
     * @param addresses addresses that take the place of the board's, by gear
     * @param forMillis for how long; until the window is closed where it is null
     * @param live whether the show begins at once
     * @param trusted whether all is agreed to that the board brings
     * @param allow what else it may do with this computer meanwhile
     */
    record Wanted(Path board, Map<String, String> addresses, @Nullable Long forMillis, boolean live, boolean trusted,
            Allow allow) {
    }

    /**
     * Shows a board until its window is closed, or for a time.
     *
     * @param lines what carries out the commands of a shell
     * @param ready waits for what else the window needs
     * @param shown told of the window, on the interface's thread
     */
    static void run(Playing.Lines lines, Wanted wanted, Ready ready, Consumer<Session> shown) throws Exception {
        Path board = wanted.board();
        Long forMillis = wanted.forMillis();
        OptionalInt open = Caller.call(new String[]{"show", board.toString()}, System.out, System.err);
        if (open.isPresent()) {
            return; // Two that write one file would overwrite each other.
        }
        Settings settings = new Settings();
        boolean offscreen = !Session.hasDisplay();
        LoggerFactory.getILoggerFactory();
        Thread toolkit = Thread.ofPlatform().daemon().start(() -> Session.startToolkit(offscreen)); // Meanwhile:
        OpenedBoard read = OpenedBoard.read(board); // A bad board is told before anything opens.
        Trust trust = Trust.of(wanted.addresses().keySet());
        if (wanted.trusted()) {
            trust.agree(read.rig());
        }
        wanted.allow().agree(trust, read.rig());
        List<Ask> missing = trust.missing(read.rig());
        if (offscreen) {
            System.out.println("There is no display, so Rombix runs offscreen"
                    + (forMillis == null ? " until it is stopped (Ctrl+C)." : "."));
        }
        if (!missing.isEmpty() && (offscreen || wanted.live())) {
            System.out.print(GuestWords.of(board, read.rig().board().name(), missing));
        }
        toolkit.join();
        ready.run();
        try (Session session = Session.open(read, wanted.addresses(), Session.logOf(board), _ -> {
        }, trust); Doorkeeper door = new Doorkeeper((args, out, err) -> answer(lines, session, args, out, err))) {
            Session.onInterface(() -> {
                session.window().bench().mode(Mode.BUILD);
                Path[] last = new Path[1];
                Runnable opened = () -> {
                    Path now = session.window().bench().file();
                    if (!now.equals(last[0])) { // Not at each edit.
                        last[0] = now;
                        if (!door.keep(now)) {
                            session.window().files()
                                    .tell(List.of("“" + now.getFileName() + "” is open in another Rombix, "
                                            + "too. Close one of them, or save this one under another name."));
                        }
                        settings.opened(now);
                        session.window().files().forgetful(settings.trouble());
                    }
                };
                session.window().bench().watch(opened);
                opened.run();
                session.window().hint(settings);
                shown.accept(session);
                return true;
            });
            if (wanted.live() && missing.isEmpty()) {
                session.goLive();
            }
            session.await(forMillis);
        }
    }

    /** Carries out a command of a shell in the window's deck. */
    private static int answer(Playing.Lines lines, Session session, String[] args, PrintWriter out, PrintWriter err) {
        int code = lines.of(Playing.in(session), args).setOut(out).setErr(err).execute(args);
        out.flush();
        err.flush();
        return code;
    }
}
