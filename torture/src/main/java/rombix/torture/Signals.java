package rombix.torture;

import java.io.File;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import rombix.core.store.BoardFile;

/** A command in a process of its own that a signal ends while it holds something for a while: it is put back, once. */
final class Signals implements Trial {
    private static final long PATIENCE_NANOS = TimeUnit.SECONDS.toNanos(40);

    @Override
    public String name() {
        return "ended-by-signals";
    }

    @Override
    public long whole() {
        return 200;
    }

    @Override
    public double share() {
        return 5;
    }

    @Override
    public Outcome suffer(Budget budget) throws Exception {
        Path folder = Files.createTempDirectory("signals");
        Path board = folder.resolve("b.json");
        BoardFile.save(board, Holding.rig().board());
        try (FarEnds ends = new FarEnds()) {
            for (int i = 0; budget.take(); i++) {
                end(budget, ends, folder, board, i % 2 == 0 ? "TERM" : "INT");
            }
        }
        return budget.outcome("SIGTERM and SIGINT in turn");
    }

    private static Map<String, Integer> released(FarEnds ends) {
        Map<String, Integer> all = new TreeMap<>(ends.releases());
        all.remove("desk"); // A cable does not leave its process.
        return all;
    }

    private static void end(Budget budget, FarEnds ends, Path folder, Path board, String signal) throws Exception {
        List<String> command = new ArrayList<>(List.of(ProcessHandle.current().info().command().orElseThrow(),
                "-XX:TieredStopAtLevel=1", "--enable-native-access=ALL-UNNAMED", "-Duser.home=" + folder, "-cp", System
                        .getProperty("java.class.path"),
                "rombix.app.Main", "press", board.toString(), Holding.AWHILE));
        ends.addresses().forEach((id, at) -> {
            if (!id.equals("desk")) {
                command.addAll(List.of("--at", id + "=" + at));
            }
        });
        ends.clear();
        ProcessBuilder builder = new ProcessBuilder(command).redirectErrorStream(true).redirectOutput(new File(folder
                .toFile(), "out.txt"));
        builder.environment().remove("DISPLAY");
        Process press = builder.start();
        long until = System.nanoTime() + PATIENCE_NANOS;
        while (!ends.pressedBut("desk")) {
            if (System.nanoTime() - until > 0 || !press.isAlive()) {
                budget.breach("the press did not arrive: " + Files.readString(folder.resolve("out.txt")));
                press.destroyForcibly();
                return;
            }
            LockSupport.parkNanos(TimeUnit.MILLISECONDS.toNanos(5));
        }
        ends.clear();
        new ProcessBuilder("kill", "-" + signal, String.valueOf(press.pid())).start().waitFor();
        if (!press.waitFor(PATIENCE_NANOS, TimeUnit.NANOSECONDS)) {
            press.destroyForcibly();
            budget.breach("SIG" + signal + " did not end it");
            return;
        }
        Map<String, Integer> released = released(ends);
        for (until = System.nanoTime() + PATIENCE_NANOS / 4; released.containsValue(0) && System.nanoTime()
                - until < 0; released = released(ends)) {
            LockSupport.parkNanos(TimeUnit.MILLISECONDS.toNanos(20)); // What was sent last is still read.
        }
        LockSupport.parkNanos(TimeUnit.MILLISECONDS.toNanos(20)); // Were there a second one, it would come now.
        released = released(ends);
        if (released.values().stream().anyMatch(n -> n != 1)) {
            budget.breach("SIG" + signal + ": put back " + released);
        }
    }
}
