package rombix.torture;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import rombix.app.edit.Workbench;
import rombix.app.edit.file.BoardWrite;
import rombix.core.store.BadFile;
import rombix.running.owner.OpenedBoard;

/**
 * A process that edits boards as fast as it can, each by a thread of its own, until it is killed. Each edit has a number,
 * which is the board's name; board and number are printed once the edit is said to be safe.
 */
public final class Editor {
    private static final int SAVE_EACH = 7;

    private Editor() {
    }

    /** @param args the folder of the boards, how many edits each gets at most, and the number of the first one of each */
    public static void main(String[] args) throws Exception {
        List<Thread> editing = new ArrayList<>();
        for (int i = 2; i < args.length; i++) {
            int board = i - 2;
            long first = Long.parseLong(args[i]);
            editing.add(Thread.ofPlatform().start(() -> {
                try {
                    edit(board, Path.of(args[0], board + ".json"), first, first + Long.parseLong(args[1]));
                } catch (IOException | BadFile e) {
                    System.out.println(board + " cannot go on: " + e);
                }
            }));
        }
        for (Thread t : editing) {
            t.join();
        }
    }

    private static void edit(int board, Path file, long first, long end) throws IOException, BadFile {
        Workbench bench = new Workbench(OpenedBoard.read(file));
        for (long n = first; n < end; n++) {
            String name = String.valueOf(n);
            bench.edit("name it", b -> b.withName(name));
            Optional<BoardWrite> write = n % SAVE_EACH == 0 ? Optional.of(bench.toSave(file)) : bench.toJournal();
            if (write.isPresent()) {
                write.get().write();
                bench.written(write.get());
            }
            System.out.println(board + " " + n);
        }
    }
}
