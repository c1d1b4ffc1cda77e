package rombix.running.shell;

import java.io.IOException;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;

/** Where the Rombix that has a board open listens for commands: a socket that only its owner can reach. */
final class CommandSocket {
    /** What a caller says first: the version of how they talk. */
    static final int VERSION = 1;
    /** What comes back: a text for the output or the error output, or the exit code; or that another board is open. */
    static final byte OUT = 'o';
    static final byte ERR = 'e';
    static final byte CODE = 'x';
    static final byte NOT_HERE = 'n';

    /** The address of a socket may have about a hundred characters. */
    private static final int LONGEST_NAME = 40;

    private CommandSocket() {
    }

    /** The board's own name, whichever way it was written. */
    static Path real(Path board) throws IOException {
        return board.toRealPath();
    }

    /** The folder of all sockets. */
    static Path folder() {
        String runtime = System.getenv("XDG_RUNTIME_DIR");
        return runtime == null || runtime.isEmpty()
                ? Path.of(System.getProperty(NativeParts.SHARED, System.getProperty("java.io.tmpdir")),
                        "rombix-" + System.getProperty("user.name"))
                : Path.of(runtime, "rombix");
    }

    /** Makes the folder where there is none; nobody else may look into it. */
    static void makeFolder() throws IOException {
        Path folder = folder();
        if (!FileSystems.getDefault().supportedFileAttributeViews().contains("posix")) {
            Files.createDirectories(folder);
            return;
        }
        if (!Files.isDirectory(folder)) {
            Files.createDirectories(folder, PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString(
                    "rwx------")));
        }
        if (!ownedByCaller() || Files.getPosixFilePermissions(folder).size() > 3) {
            throw new IOException(folder + " is accessible to other users");
        }
    }

    /** The socket for a board. */
    static Path of(Path realBoard) {
        StringBuilder name = new StringBuilder();
        String file = String.valueOf(realBoard.getFileName());
        for (int i = 0; i < Math.min(LONGEST_NAME, file.length()); i++) {
            char c = file.charAt(i);
            name.append(c < 128 && Character.isLetterOrDigit(c) ? c : '-');
        }
        return folder().resolve(name + "-" + Integer.toHexString(realBoard.toString().hashCode()) + ".sock");
    }

    /** Whether the folder belongs to this user; in another user's folder they could intercept commands. */
    static boolean ownedByCaller() throws IOException {
        return Files.getOwner(folder()).equals(Files.getOwner(Path.of(System.getProperty("user.home"))));
    }
}
