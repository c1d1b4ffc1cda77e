package rombix.running.shell;

import java.io.IOException;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.attribute.FileAttribute;
import java.nio.file.attribute.PosixFilePermission;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Comparator;
import java.util.Set;
import java.util.stream.Stream;
import org.slf4j.LoggerFactory;
import rombix.running.owner.Settings;

/**
 * Where libraries unpack their native parts before they load them: into a folder of this process alone, which nobody but
 * this user can write. Left to themselves, some take what lies in a folder of the system that everybody can write.
 */
public final class NativeParts {
    /** The folder for temporary files as the system gave it: what other processes look into, too. */
    public static final String SHARED = "rombix.tmpdir";

    private static final FileAttribute<Set<PosixFilePermission>> OWNERS = PosixFilePermissions.asFileAttribute(
            PosixFilePermissions.fromString("rwx------"));

    private NativeParts() {
    }

    /** Makes the folder, and has all libraries use it; before any of them is loaded. It is removed when Rombix ends. */
    public static void prepare() {
        Path own;
        try {
            own = folder(Settings.usual().resolveSibling("native"));
        } catch (IOException e) {
            LoggerFactory.getLogger(NativeParts.class).warn( // Not kept: a log that isn't needed takes long to set up.
                    "native libraries are kept for this run only: {}", e.getMessage());
            try {
                own = Files.createTempDirectory("rombix-native"); // Others can neither read it nor put another in its place.
            } catch (IOException none) {
                throw new IllegalStateException(
                        "Rombix needs a folder that only you can write to, and can't create one: "
                                + none.getMessage(),
                        none);
            }
        }
        Path made = own;
        System.setProperty(SHARED, System.getProperty("java.io.tmpdir"));
        for (String name : Set.of("java.io.tmpdir", "jna.tmpdir", "org.sqlite.tmpdir", "jnativehook.lib.path",
                "org.lwjgl.system.SharedLibraryExtractPath")) {
            System.setProperty(name, made.toString());
        }
        Runtime.getRuntime().addShutdownHook(Thread.ofPlatform().name("native parts").unstarted(() -> remove(made)));
    }

    /**
     * A new folder for this process, within one that is checked.
     *
     * @throws IOException in plain words, where others could write there
     */
    static Path folder(Path within) throws IOException {
        boolean posix = FileSystems.getDefault().supportedFileAttributeViews().contains("posix");
        if (!Files.isDirectory(within, LinkOption.NOFOLLOW_LINKS)) {
            Files.createDirectories(within.toAbsolutePath().getParent());
            make(within, posix);
        }
        if (posix) {
            Set<PosixFilePermission> may = Files.getPosixFilePermissions(within, LinkOption.NOFOLLOW_LINKS);
            if (may.contains(PosixFilePermission.GROUP_WRITE) || may.contains(PosixFilePermission.OTHERS_WRITE)) {
                throw new IOException(within + " is writable by other users");
            }
        }
        // Nobody else can write here, so the name need not be random; random numbers take long to set up.
        Path own = within.resolve(ProcessHandle.current().pid() + "-" + Long.toHexString(System.nanoTime()));
        make(own, posix);
        if (posix && !Files.getOwner(own).equals(Files.getOwner(within, LinkOption.NOFOLLOW_LINKS))) {
            Files.delete(own);
            throw new IOException(within + " belongs to another user");
        }
        sweep(within);
        return own;
    }

    private static void make(Path folder, boolean posix) throws IOException {
        if (posix) {
            Files.createDirectory(folder, OWNERS);
        } else {
            Files.createDirectory(folder);
        }
    }

    /** Removes what processes left that were killed. */
    private static void sweep(Path within) throws IOException {
        try (Stream<Path> all = Files.list(within)) {
            all.filter(p -> !alive(p.getFileName().toString())).forEach(NativeParts::remove);
        }
    }

    private static boolean alive(String folder) {
        try {
            return ProcessHandle.of(Long.parseLong(folder.substring(0, Math.max(0, folder.indexOf('-'))))).isPresent();
        } catch (NumberFormatException e) {
            return true; // Nothing of ours.
        }
    }

    private static void remove(Path folder) {
        try (Stream<Path> all = Files.walk(folder)) {
            all.sorted(Comparator.reverseOrder()).forEach(p -> p.toFile().delete());
        } catch (IOException e) {
            // The next start removes it.
        }
    }
}
