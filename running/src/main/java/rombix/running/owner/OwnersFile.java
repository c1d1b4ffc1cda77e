package rombix.running.owner;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFileAttributeView;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import rombix.core.store.WholeFile;

/** A file of lines beside the settings that nobody but its owner may read. Safe to use from any thread. */
final class OwnersFile {
    private final Path file;

    OwnersFile(Path file) {
        this.file = file;
    }

    /** In the folder where this user's settings are. */
    static OwnersFile beside(String name) {
        return new OwnersFile(Settings.usual().resolveSibling(name));
    }

    Path path() {
        return file;
    }

    /** @throws IOException where it is there and cannot be read */
    synchronized List<String> lines() throws IOException {
        // A bad byte spoils its own line only.
        return Files.exists(file)
                ? new String(Files.readAllBytes(file), StandardCharsets.UTF_8).lines().toList()
                : List.of();
    }

    /** Adds lines behind those that are there: what another Rombix has added stays. */
    synchronized void add(List<String> lines) throws IOException {
        ready(file);
        byte[] there = Files.readAllBytes(file);
        boolean cut = there.length > 0 && there[there.length - 1] != '\n'; // Left by a process that was killed while writing.
        Files.writeString(file, (cut ? "\n" : "") + String.join("\n", lines) + "\n", StandardOpenOption.APPEND);
    }

    /** Puts lines in place of those that are there: all of them, or none. */
    synchronized void replace(List<String> lines) throws IOException {
        Files.createDirectories(file.toAbsolutePath().getParent());
        Path real = Files.exists(file) ? file.toRealPath() : file;
        WholeFile.write(real, lines.isEmpty() ? "" : String.join("\n", lines) + "\n", WholeFile.Readers.OWNER);
    }

    /** Makes it, empty, where it is not there; only its owner may read it before anything stands in it. */
    private static void ready(Path path) throws IOException {
        Path folder = path.toAbsolutePath().getParent();
        if (folder != null) {
            Files.createDirectories(folder);
        }
        if (!Files.exists(path)) {
            Files.createFile(path);
        }
        PosixFileAttributeView view = Files.getFileAttributeView(path, PosixFileAttributeView.class);
        if (view != null) {
            view.setPermissions(PosixFilePermissions.fromString("rw-------"));
        }
    }
}
