package rombix.torture;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.SplittableRandom;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;
import rombix.running.owner.OpenedBoard;

/**
 * Kills a process that edits boards: what it had said was safe is there afterwards, and all of it can be read. One kill
 * meets several boards, each at some moment of its own.
 */
final class Kills implements Trial {
    private static final int BOARDS = 8;
    private static final int MOST_MILLIS = 150;
    private static final int WARM_EDITS = 40;

    @Override
    public String name() {
        return "killed-while-editing";
    }

    @Override
    public long whole() {
        return 1000;
    }

    @Override
    public double share() {
        return 6;
    }

    @Override
    public Outcome suffer(Budget budget) throws Exception {
        Path folder = Files.createTempDirectory("killed");
        for (int b = 0; b < BOARDS; b++) {
            BoardFile.save(folder.resolve(b + ".json"), Holding.rig().board());
        }
        long[] safe = new long[BOARDS];
        Path cache = folder.resolve("editor.aot"); // Most of an editor's time would be its start.
        editor(List.of("-XX:+UnlockDiagnosticVMOptions", "-XX:-AOTRecordTraining", "-XX:AOTCacheOutput=" + cache),
                folder, WARM_EDITS, safe).waitFor();
        SplittableRandom chance = new SplittableRandom(1);
        long edits = 0;
        while (kill(budget, folder, cache, safe, chance.nextInt(MOST_MILLIS))) {
            edits = Arrays.stream(safe).sum();
        }
        return budget.outcome(edits + " edits were said to be safe");
    }

    /** One kill; false where there is to be no other. */
    private static boolean kill(Budget budget, Path folder, Path cache, long[] safe, int millis) throws IOException,
            InterruptedException {
        Process editor = editor(List.of("-XX:AOTCache=" + cache), folder, Long.MAX_VALUE / 2, safe);
        long[] said = safe.clone();
        try (BufferedReader out = new BufferedReader(new InputStreamReader(editor.getInputStream(),
                StandardCharsets.UTF_8))) {
            String first = out.readLine(); // One edit is safe: by now it is on its way.
            take(String.valueOf(first), said, budget);
            Thread.sleep(millis);
            editor.toHandle().destroyForcibly(); // The process itself would close what it has said.
            List<String> lines = out.lines().toList();
            for (String line : lines.subList(0, Math.max(0, lines.size() - 1))) { // The last one may be cut off.
                take(line, said, budget);
            }
        } finally {
            editor.destroyForcibly().waitFor();
        }
        for (int b = 0; b < BOARDS; b++) {
            if (!budget.take()) {
                return false;
            }
            try {
                String name = OpenedBoard.read(folder.resolve(b + ".json")).rig().board().name();
                long there = name.matches("\\d+") ? Long.parseLong(name) : 0;
                if (there < said[b]) {
                    budget.breach("edit %d was said to be safe, and %d is the last that is there".formatted(said[b],
                            there));
                }
                safe[b] = Math.max(said[b], there);
            } catch (BadFile e) {
                budget.breach("can't be read: " + e.getMessage());
                return false;
            }
        }
        return true;
    }

    private static void take(String line, long[] said, Budget budget) {
        if (!line.matches("\\d+ \\d+")) {
            budget.breach("an editor: " + line);
            return;
        }
        int board = Integer.parseInt(line.substring(0, line.indexOf(' ')));
        said[board] = Math.max(said[board], Long.parseLong(line.substring(line.indexOf(' ') + 1)));
    }

    private static Process editor(List<String> options, Path folder, long most, long[] safe) throws IOException {
        List<String> command = new ArrayList<>(List.of(ProcessHandle.current().info().command().orElseThrow(),
                "-XX:TieredStopAtLevel=1", "-XX:+UseSerialGC"));
        command.addAll(options);
        command.addAll(List.of("-cp", System.getProperty("java.class.path"), Editor.class.getName(), folder.toString(),
                String.valueOf(most)));
        Arrays.stream(safe).forEach(n -> command.add(String.valueOf(n + 1)));
        return new ProcessBuilder(command).redirectError(ProcessBuilder.Redirect.DISCARD).start();
    }
}
