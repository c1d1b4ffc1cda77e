package rombix.running.shell;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import org.jspecify.annotations.Nullable;

/**
 * Says that a board is open in this process, in a file beside it: so that two that were started with other settings, or
 * by other users, know of each other. The system takes it back when the process ends, however it ends.
 */
final class BoardLock implements AutoCloseable {
    private final Path file;
    private final FileChannel channel;

    private BoardLock(Path file, FileChannel channel) {
        this.file = file;
        this.channel = channel;
    }

    /** A board is open elsewhere. */
    static final class Taken extends Exception {
        private static final long serialVersionUID = 1;
    }

    /** Takes that of a board; null where none can be made, because its folder can't be written. */
    static @Nullable BoardLock of(Path board) throws Taken {
        Path file = board.resolveSibling("." + board.getFileName() + ".lock");
        try {
            FileChannel open = FileChannel.open(file, StandardOpenOption.CREATE, StandardOpenOption.WRITE,
                    LinkOption.NOFOLLOW_LINKS);
            if (locked(open)) {
                return new BoardLock(file, open);
            }
            open.close();
        } catch (IOException e) {
            return null;
        }
        throw new Taken();
    }

    private static boolean locked(FileChannel open) throws IOException {
        try {
            FileLock lock = open.tryLock(); // It ends with the channel, or with the process.
            return lock != null;
        } catch (OverlappingFileLockException e) {
            return false;
        }
    }

    @Override
    public void close() throws IOException {
        Files.deleteIfExists(file);
        channel.close();
    }
}
