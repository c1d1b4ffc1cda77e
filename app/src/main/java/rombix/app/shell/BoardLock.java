package rombix.app.shell;

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
    private final @Nullable FileLock lock;

    private BoardLock(Path file, FileChannel channel, @Nullable FileLock lock) {
        this.file = file;
        this.channel = channel;
        this.lock = lock;
    }

    /** That of a board; null where none can be made, as its folder cannot be written. */
    static @Nullable BoardLock of(Path board) {
        Path file = board.resolveSibling("." + board.getFileName() + ".lock");
        try {
            FileChannel open = FileChannel.open(file, StandardOpenOption.CREATE, StandardOpenOption.WRITE,
                    LinkOption.NOFOLLOW_LINKS);
            try {
                return new BoardLock(file, open, open.tryLock());
            } catch (OverlappingFileLockException e) {
                return new BoardLock(file, open, null);
            } catch (IOException e) {
                open.close();
                return null;
            }
        } catch (IOException e) {
            return null;
        }
    }

    /** Whether no other has the board open. */
    boolean mine() {
        return lock != null;
    }

    @Override
    public void close() throws IOException {
        if (lock != null) {
            Files.deleteIfExists(file);
        }
        channel.close();
    }
}
