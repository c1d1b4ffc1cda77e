package rombix.core.store;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFileAttributeView;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.concurrent.atomic.AtomicLong;
import java.util.stream.Stream;

/**
 * The one way in which a file is written: all of it or nothing, beside it first, forced to disk, and renamed. What lies
 * beside is made new; a link that somebody put there is never followed.
 */
public final class WholeFile {
    private static final AtomicLong NUMBER = new AtomicLong();
    private static final String END = ".new";
    private static final int TRIES = 5;

    /** Who may read a file: the same users as before, or its owner only. */
    public enum Readers {
        AS_BEFORE, OWNER
    }

    private WholeFile() {
    }

    public static void write(Path file, String text, Readers readers) throws IOException {
        write(file, text.getBytes(StandardCharsets.UTF_8), readers);
    }

    public static void write(Path file, byte[] bytes, Readers readers) throws IOException {
        write(file, readers, out -> out.write(bytes));
    }

    /** What a file is to hold, written bit by bit. */
    @FunctionalInterface
    public interface Content {
        void to(OutputStream out) throws IOException;
    }

    /** Writes it, where it is or would be; a link there is replaced. */
    public static void write(Path file, Readers readers, Content content) throws IOException {
        Path whole = file.toAbsolutePath();
        sweep(whole);
        Path beside = make(whole);
        try {
            try (FileChannel out = FileChannel.open(beside, StandardOpenOption.WRITE, LinkOption.NOFOLLOW_LINKS)) {
                permissions(whole, beside, readers);
                OutputStream to = new BufferedOutputStream(Channels.newOutputStream(out));
                content.to(to);
                to.flush();
                out.force(true);
            }
            Files.move(beside, whole, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        } catch (IOException | RuntimeException e) {
            try { // What is partial may take the room that is missing.
                Files.deleteIfExists(beside);
            } catch (IOException again) {
                e.addSuppressed(again);
            }
            throw e;
        }
    }

    /** A new file beside it, of this process alone. */
    private static Path make(Path whole) throws IOException {
        for (int i = 1;; i++) {
            Path beside = whole.resolveSibling("." + whole.getFileName() + "." + ProcessHandle.current().pid() + "-"
                    + NUMBER.incrementAndGet() + END);
            try {
                FileChannel.open(beside, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE).close();
                return beside;
            } catch (FileAlreadyExistsException e) {
                if (i == TRIES) {
                    throw new IOException(beside + " is in the way", e);
                }
            }
        }
    }

    /** Takes away what processes left beside it that were killed as they wrote. */
    private static void sweep(Path whole) {
        String begin = "." + whole.getFileName() + ".";
        Path folder = whole.getParent();
        if (folder == null) {
            return;
        }
        try (Stream<Path> all = Files.list(folder)) {
            for (Path p : all.filter(f -> f.getFileName().toString().startsWith(begin) && f.getFileName().toString()
                    .endsWith(END)).toList()) {
                String name = p.getFileName().toString();
                String process = name.substring(begin.length(), Math.max(begin.length(), name.length() - END.length()))
                        .replaceFirst("-.*", "");
                if (process.matches("\\d{1,10}") && ProcessHandle.of(Long.parseLong(process)).isEmpty()) {
                    Files.deleteIfExists(p);
                }
            }
        } catch (IOException e) {
            // It lies there, and hurts nobody.
        }
    }

    /** Renames a damaged file, so that a new one can take its place and nothing is lost; says to what. */
    public static Path aside(Path file) throws IOException {
        Path aside = file.resolveSibling(file.getFileName() + ".damaged");
        for (int n = 2; Files.exists(aside); n++) {
            aside = aside.resolveSibling(file.getFileName() + ".damaged-" + n);
        }
        return Files.move(file, aside);
    }

    private static void permissions(Path of, Path to, Readers readers) throws IOException {
        PosixFileAttributeView view = Files.getFileAttributeView(to, PosixFileAttributeView.class,
                LinkOption.NOFOLLOW_LINKS);
        if (view == null) {
            return; // Elsewhere a folder's own hold.
        }
        if (readers == Readers.OWNER) {
            view.setPermissions(PosixFilePermissions.fromString("rw-------"));
        } else if (Files.exists(of)) {
            view.setPermissions(Files.getPosixFilePermissions(of));
        }
    }
}
