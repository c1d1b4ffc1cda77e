package rombix.links.desktop;

import java.io.IOException;
import java.nio.MappedByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFileAttributeView;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * The keys that are down now, in a file that outlives a killed process: who finds it next lets them go. Each running
 * Rombix has one of its own, locked; the file is mapped, so that keeping a key costs no call of the system. One thread's.
 */
final class HeldFile implements AutoCloseable {
    private static final int SIZE = 1024;
    private static final int MOST = 8;

    private final @Nullable FileChannel channel;
    private final @Nullable MappedByteBuffer map;
    private final List<String> found = new ArrayList<>();

    /** @param beside the first file's path; null where nothing is kept */
    HeldFile(@Nullable Path beside) {
        FileChannel mine = null;
        MappedByteBuffer mapped = null;
        for (int i = 1; beside != null && i <= MOST; i++) {
            try {
                FileChannel open = open(beside.resolveSibling(beside.getFileName() + "-" + i));
                if (!locked(open)) {
                    open.close();
                    continue;
                }
                MappedByteBuffer all = open.map(FileChannel.MapMode.READ_WRITE, 0, SIZE);
                found.addAll(read(all));
                if (mine == null) {
                    mine = open;
                    mapped = all;
                } else {
                    write(all, List.of());
                    open.close();
                }
            } catch (IOException e) {
                // Then what is held is known to this process alone.
            }
        }
        channel = mine;
        map = mapped;
        keep(List.of());
    }

    private static FileChannel open(Path file) throws IOException {
        Path folder = file.toAbsolutePath().getParent();
        if (folder != null) {
            Files.createDirectories(folder);
        }
        FileChannel open = FileChannel.open(file, StandardOpenOption.CREATE, StandardOpenOption.READ,
                StandardOpenOption.WRITE);
        PosixFileAttributeView view = Files.getFileAttributeView(file, PosixFileAttributeView.class);
        if (view != null) {
            view.setPermissions(PosixFilePermissions.fromString("rw-------"));
        }
        return open;
    }

    private static boolean locked(FileChannel open) throws IOException {
        try {
            FileLock lock = open.tryLock(); // It ends with the channel, or with the process.
            return lock != null;
        } catch (OverlappingFileLockException e) {
            return false;
        }
    }

    private static List<String> read(MappedByteBuffer from) {
        byte[] bytes = new byte[SIZE];
        from.get(0, bytes);
        String text = new String(bytes, StandardCharsets.UTF_8);
        return Stream.of(text.substring(0, Math.max(0, text.indexOf('\0'))).split("\n")).filter(l -> !l.isBlank())
                .toList();
    }

    private static void write(MappedByteBuffer to, Collection<String> keys) {
        byte[] bytes = String.join("\n", keys).getBytes(StandardCharsets.UTF_8);
        to.put(0, Arrays.copyOf(bytes, SIZE - 1));
        to.put(SIZE - 1, (byte) 0);
    }

    /** What was held by one who was killed. */
    List<String> found() {
        return found;
    }

    /** Keeps what is down now; call it before a key goes down, and after one came up. */
    void keep(Collection<String> keys) {
        if (map != null) {
            write(map, keys);
        }
    }

    @Override
    public void close() {
        try {
            if (channel != null) {
                channel.close();
            }
        } catch (IOException e) {
            // It is of no use any more.
        }
    }
}
