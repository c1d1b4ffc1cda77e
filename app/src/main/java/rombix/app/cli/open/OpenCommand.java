package rombix.app.cli.open;

import java.nio.file.Files;
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
import rombix.app.cli.option.Allow;
import rombix.app.cli.option.BadCall;
import rombix.app.cli.option.GuestWords;
import rombix.app.cli.option.LaunchOptions;
import rombix.app.cli.option.Span;
import rombix.app.cli.option.WebOptions;
import rombix.app.cli.play.Playing;
import rombix.app.show.Display;
import rombix.core.board.Board;
import rombix.core.bundle.Bundle;
import rombix.core.edit.Edits;
import rombix.core.event.Mode;
import rombix.core.store.BoardFile;
import rombix.core.trust.Ask;
import rombix.running.LeftBehind;
import rombix.running.RunningDeck;
import rombix.running.input.TriggerInputs;
import rombix.running.log.LogStore;
import rombix.running.owner.OpenedBoard;
import rombix.running.owner.Settings;
import rombix.running.owner.Trust;
import rombix.running.shell.Caller;
import rombix.running.shell.Doorkeeper;
import rombix.web.BrowserPages;
import rombix.web.access.AccessList;

/** Opens a board in a window. */
@Command(name = "open", mixinStandardHelpOptions = true, description = {"Opens a board in a window.",
        "Without a display it runs without a window: press buttons from a shell, a controller, keys or OSC."})
public final class OpenCommand implements Callable<Integer> {
    @Parameters(paramLabel = "BOARD", description = "The board file, or a bundle.")
    private Path board = Path.of("");

    @Option(names = "--for", converter = Span.class, paramLabel = "TIME", description = "Close after this time, such as 20s.")
    private @Nullable Long forMillis;

    @Option(names = "--live", description = "Start in Live.")
    private boolean live;

    @Option(names = "--trust", description = "Trust the board and everything it asks for. Until then, a board from elsewhere opens for viewing only.")
    private boolean trust;

    @Mixin
    private Allow allow = new Allow();

    @Mixin
    private WebOptions web = new WebOptions();

    private final Playing.Lines lines;

    public OpenCommand(Playing.Lines lines) {
        this.lines = lines;
    }

    @Override
    public Integer call() throws Exception {
        if (Bundle.named(board)) {
            return bundle();
        }
        run(lines, new LaunchOptions(board, Map.of(), forMillis, live, trust, allow, web), () -> {
        }, _ -> {
        });
        return 0;
    }

    /** A bundle is looked at over the board that was open last, or a new one, before anything of it is unpacked. */
    private int bundle() throws Exception {
        Bundle.read(board); // A bad one is told before anything opens.
        if (!Display.available()) {
            throw new BadCall("Without a display, unpack it first: rombix unpack %s FOLDER".formatted(board));
        }
        List<Path> recent = new Settings().recentBoards();
        Path under = recent.isEmpty()
                ? fresh(Path.of(System.getProperty("user.home"), "Rombix"))
                : recent.getFirst();
        run(lines, new LaunchOptions(under, Map.of(), forMillis, false, false, allow, web), () -> {
        }, window -> window.session().window().files().open(board));
        return 0;
    }

    /** A new board in a folder, with an empty page. */
    static Path fresh(Path folder) throws java.io.IOException {
        Files.createDirectories(folder);
        String name = Edits.freshId("my-board", "board", id -> Files.exists(folder.resolve(id + ".json")));
        Path file = folder.resolve(name + ".json");
        BoardFile.save(file, Board.empty("My board"));
        return file;
    }

    /** What has to be so before a window opens. */
    interface Ready {
        void run() throws Exception;
    }

    /**
     * Shows a board until its window is closed, or for a time; where there is no display it runs without a window.
     *
     * @param lines what carries out the commands of a shell
     * @param ready waits for what else the board needs
     * @param shown told of the window, on the interface's thread
     */
    static void run(Playing.Lines lines, LaunchOptions wanted, Ready ready, Consumer<OpenWindow> shown)
            throws Exception {
        Path board = wanted.board();
        OptionalInt open = Caller.call(new String[]{"show", board.toString()}, System.out, System.err);
        if (open.isPresent()) {
            return; // Two that write one file would overwrite each other.
        }
        LoggerFactory.getILoggerFactory();
        boolean display = Display.available();
        Thread toolkit = Thread.ofPlatform().daemon().unstarted(OpenWindow::begin);
        if (display) {
            toolkit.start(); // Meanwhile:
        }
        OpenedBoard read = OpenedBoard.read(board); // A bad board is told before anything opens.
        Trust trust = Trust.of(wanted.addresses().keySet());
        if (wanted.trusted()) {
            trust.agree(read.rig());
        }
        wanted.allow().agree(trust, read.rig());
        List<Ask> missing = trust.missing(read.rig());
        if (!missing.isEmpty() && (!display || wanted.live())) {
            System.out.print(GuestWords.of(board, read.rig().board().name(), missing));
        }
        if (display) {
            toolkit.join();
            ready.run();
            OpenWindow.show(lines, wanted, read, trust, missing.isEmpty(), shown);
        } else {
            ready.run();
            withoutWindow(lines, wanted, read, trust);
        }
    }

    /** Plays a board that commands in a shell work, keys, controllers and OSC; nothing is shown. */
    private static void withoutWindow(Playing.Lines lines, LaunchOptions wanted, OpenedBoard read, Trust trust)
            throws Exception {
        System.out.println("There is no display, so Rombix runs without a window" + (wanted.forMillis() == null
                ? " until stopped (Ctrl+C)."
                : "."));
        read.notices().forEach(System.out::println);
        LogStore log = LogStore.ofBoard(LogStore.beside(read.file()), System.out::println);
        String osc = wanted.addresses().get(TriggerInputs.OSC);
        try (RunningDeck deck = new RunningDeck(wanted.addresses(), log);
                BrowserPages pages = new BrowserPages(deck, new AccessList(), new Settings());
                Doorkeeper door = ShellDoor.of(lines, Playing.in(deck, pages, () -> false))) {
            pages.whenNoticed(System.out::println);
            PagesOn.begin(pages, wanted.web()).forEach(System.out::println);
            deck.listen(_ -> {
            }, osc == null ? null : Integer.valueOf(osc), Runnable::run);
            deck.whenLogTroubled(why -> System.out.println(why.isEmpty()
                    ? "The log can be written again."
                    : "The log can't be written: " + why + ". Rombix keeps trying; the show goes on."));
            if (!door.keep(read.file())) {
                System.out.println(ShellDoor.elsewhere(read.file()));
            }
            if (deck.play(read.rig(), trust).isEmpty()) {
                LeftBehind.of(deck).ifPresent(OpenCommand::after);
                if (wanted.live()) {
                    deck.whenReached(read.rig(), () -> deck.mode(Mode.LIVE, true));
                }
            }
            Long millis = wanted.forMillis();
            Thread.sleep(millis == null ? Long.MAX_VALUE : millis);
        }
    }

    private static void after(LeftBehind left) {
        if (left.always()) {
            left.end();
        }
        System.out.println(left.words() + (left.always()
                ? " It was ended now."
                : " Open the board in a window to end it, or run the end of its chains yourself."));
    }
}
