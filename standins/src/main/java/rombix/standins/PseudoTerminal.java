package rombix.standins;

import com.sun.jna.LastErrorException;
import com.sun.jna.Native;
import com.sun.jna.Platform;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** One end of a pseudo-terminal (POSIX), whose other end is a serial port to all others on this computer. */
final class PseudoTerminal implements AutoCloseable {
    private static final int READ_WRITE = 2;
    private static final int NO_CONTROLLING = Platform.isMac() ? 0x20000 : 0x100;
    private static final long UNPLUGGED_MILLIS = 50;

    /** Of the C library. */
    private interface Posix extends com.sun.jna.Library {
        int posix_openpt(int flags) throws LastErrorException;

        int grantpt(int fd) throws LastErrorException;

        int unlockpt(int fd) throws LastErrorException;

        String ptsname(int fd);

        int open(String path, int flags) throws LastErrorException;

        long read(int fd, byte[] to, long count) throws LastErrorException;

        long write(int fd, byte[] from, long count) throws LastErrorException;

        int close(int fd) throws LastErrorException;

        int cfmakeraw(byte[] termios);

        int tcgetattr(int fd, byte[] termios) throws LastErrorException;

        int tcsetattr(int fd, int when, byte[] termios) throws LastErrorException;
    }

    private final Posix posix;
    private final int fd;
    /** Kept open, so that nothing is lost while nobody else has it open. */
    private final int other;
    private final String name;
    private final @Nullable Path named;
    private volatile boolean closed;

    private PseudoTerminal(Posix posix, @Nullable Path named) throws IOException {
        this.posix = posix;
        fd = posix.posix_openpt(READ_WRITE | NO_CONTROLLING);
        posix.grantpt(fd);
        posix.unlockpt(fd);
        String device = posix.ptsname(fd);
        other = posix.open(device, READ_WRITE | NO_CONTROLLING);
        byte[] how = new byte[256];
        posix.tcgetattr(other, how);
        posix.cfmakeraw(how);
        posix.tcsetattr(other, 0, how);
        this.named = named;
        if (named != null) {
            Files.deleteIfExists(named);
            Files.createSymbolicLink(named, Path.of(device));
        }
        name = named == null ? device : named.toString();
    }

    /** A new one; empty where this system has none. @param named a link to the port, made anew */
    static Optional<PseudoTerminal> open(@Nullable Path named) {
        if (Platform.isWindows()) {
            return Optional.empty();
        }
        try {
            return Optional.of(new PseudoTerminal(Native.load("c", Posix.class), named));
        } catch (IOException | LastErrorException | UnsatisfiedLinkError e) {
            return Optional.empty();
        }
    }

    /** What others open as a serial port. */
    String name() {
        return name;
    }

    InputStream in() {
        return new InputStream() {
            private final byte[] one = new byte[1];

            @Override
            public int read() throws IOException {
                while (!closed) {
                    try {
                        long count = posix.read(fd, one, 1);
                        return count < 1 ? -1 : one[0] & 0xFF;
                    } catch (LastErrorException e) {
                        pause(); // Nobody has plugged in yet.
                    }
                }
                return -1;
            }
        };
    }

    private static void pause() throws IOException {
        try {
            Thread.sleep(UNPLUGGED_MILLIS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("was closed", e);
        }
    }

    OutputStream out() {
        return new OutputStream() {
            @Override
            public void write(int b) throws IOException {
                write(new byte[]{(byte) b}, 0, 1);
            }

            @Override
            public void write(byte[] from, int at, int length) throws IOException {
                try {
                    posix.write(fd, Arrays.copyOfRange(from, at, at + length), length);
                } catch (LastErrorException e) {
                    throw new IOException("nobody has plugged in", e);
                }
            }
        };
    }

    @Override
    public void close() throws IOException {
        closed = true;
        if (named != null) {
            Files.deleteIfExists(named);
        }
        try {
            posix.close(other);
            posix.close(fd);
        } catch (LastErrorException e) {
            throw new IOException(e);
        }
    }
}
