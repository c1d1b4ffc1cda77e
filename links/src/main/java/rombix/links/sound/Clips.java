package rombix.links.sound;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import rombix.core.sound.Clip;
import rombix.core.thread.Idle;

/** The clips of a player, read beforehand, one after the other, and anew when their file has changed. */
final class Clips implements AutoCloseable {
    private record Read(FileTime changed, CompletableFuture<Clip> clip) {
    }

    private final Map<Path, Read> read = new ConcurrentHashMap<>();
    /** One at a time, so that a board with many clips leaves cores to the rest. */
    private final ExecutorService reader = Idle.executor("clips");

    /** The clip of a file, when it is read; done already where it was. Fails with words that say why it is not. */
    CompletableFuture<Clip> of(Path file) {
        Read known = read.get(file);
        return known == null || known.clip().isCompletedExceptionally() ? fresh(file) : known.clip();
    }

    /** As {@link #of}, once it was seen whether the file is still the one that was read. */
    CompletableFuture<Clip> fresh(Path file) {
        FileTime changed = changed(file);
        return read.compute(file, (_, before) -> before != null && before.changed().equals(changed) && !before.clip()
                .isCompletedExceptionally()
                        ? before
                        : new Read(changed, CompletableFuture.supplyAsync(() -> read(file), reader)))
                .clip();
    }

    private static FileTime changed(Path file) {
        try {
            return Files.getLastModifiedTime(file);
        } catch (IOException e) {
            return FileTime.fromMillis(0);
        }
    }

    private static Clip read(Path file) {
        try {
            return SoundFile.read(file);
        } catch (IOException e) {
            throw new CompletionException(e.getMessage(), e);
        }
    }

    @Override
    public void close() {
        reader.shutdownNow();
        read.clear();
    }
}
