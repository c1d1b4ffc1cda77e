package rombix.app.cli;

import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.TimeUnit;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;
import rombix.app.cli.play.Playing;
import rombix.app.show.DemoBoard;
import rombix.app.show.Session;
import rombix.core.event.Mode;
import rombix.running.input.TriggerInputs;
import rombix.running.log.LogStore;
import rombix.running.shell.Caller;
import rombix.running.shell.Doorkeeper;
import rombix.standins.set.StandIns;

/** Runs the code of a start, for the JDK's start-up cache. Used by the build. */
@Command(name = "warm-up", hidden = true, description = "Performs a start for the start-up cache. Used when Rombix is built.")
final class WarmUpCommand implements Callable<Integer> {
    private static final long SHOWN_MILLIS = 1500;
    private static final int LONGEST_SECONDS = 60;

    /** What is started: a window, a command, or a call of a Rombix that runs. */
    enum Start {
        WINDOW, COMMAND, CALL
    }

    @Parameters(index = "0", paramLabel = "START", description = "window, command or call.")
    private Start start = Start.COMMAND;

    @Parameters(index = "1..*", arity = "0..*", paramLabel = "JAVA", description = "For a call: the JVM that calls, and its options.")
    private List<String> caller = List.of();

    private final Playing.Lines lines;

    WarmUpCommand(Playing.Lines lines) {
        this.lines = lines;
    }

    @Override
    public Integer call() throws Exception {
        Path folder = Files.createTempDirectory("rombix-warm-up");
        Path board = DemoBoard.copy(folder, true);
        switch (start) {
            case WINDOW -> window(board);
            case COMMAND -> commands(board.toString());
            case CALL -> call(board);
        }
        return 0;
    }

    /** Has a process of its own press a button here, which makes its cache as it ends. */
    private void call(Path board) throws Exception {
        try (Doorkeeper door = new Doorkeeper((_, out, _) -> {
            out.println("warm");
            out.flush();
            return 0;
        })) {
            door.keep(board);
            List<String> call = new ArrayList<>(caller);
            call.addAll(List.of(Caller.class.getName(), "press", board.toString(), "host-desk"));
            Process process = new ProcessBuilder(call).inheritIO().start();
            if (!process.waitFor(LONGEST_SECONDS, TimeUnit.SECONDS)) {
                process.destroyForcibly();
            }
        }
    }

    private void run(String... args) {
        PrintWriter nowhere = new PrintWriter(PrintWriter.nullWriter());
        lines.of(Playing.ALONE, args).setOut(nowhere).setErr(nowhere).execute(args);
    }

    private void commands(String board) {
        for (String[] args : new String[][]{{"--help"}, {"--version"}, {"check", board}, {"check", "--json", board},
                {"forecast", board, "doors-open"}}) {
            run(args);
        }
    }

    private static void window(Path board) throws Exception {
        Session.startToolkit(true);
        try (StandIns gear = StandIns.onFreePorts()) {
            Map<String, String> addresses = new HashMap<>(gear.addresses());
            addresses.put(TriggerInputs.OSC, "0");
            try (Session session = Session.open(board, addresses, LogStore.beside(board), _ -> {
            })) {
                session.await(SHOWN_MILLIS);
                for (Mode mode : new Mode[]{Mode.REHEARSE, Mode.LIVE, Mode.BUILD}) {
                    Session.onInterface(() -> {
                        session.window().bench().mode(mode);
                        return true;
                    });
                    session.await(SHOWN_MILLIS);
                }
            }
        }
    }
}
