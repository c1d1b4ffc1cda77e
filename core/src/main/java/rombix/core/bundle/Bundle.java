package rombix.core.bundle;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Enumeration;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.concurrent.atomic.AtomicLong;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipFile;
import rombix.core.board.Board;
import rombix.core.board.Rig;
import rombix.core.card.Card;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;
import rombix.core.store.BoardTree;
import rombix.core.store.CardLibrary;
import rombix.core.store.Fingerprint;
import rombix.core.value.Limits;
import rombix.core.value.Visible;

/**
 * A bundle that was looked at: what is in it is known, and nothing of it is anywhere else yet. It may have been made by
 * anybody: each name, each size and each checksum is checked before the first file is written.
 *
 * @param rig its board, with its cards
 */
public record Bundle(Path file, Manifest manifest, Rig rig) {
    /** How the names of bundles end. */
    public static final String END = ".rombix";
    static final long MOST_BYTES = 500L << 20;
    /** Of a board, or a card: these are taken into memory. */
    static final long MOST_TEXT = 100L << 20;
    static final int MOST_FILES = 10_000;
    static final int MOST_RATIO = 100;
    /** Below that a high ratio says nothing: a text of one sign repeated. */
    private static final long SMALL = 1 << 20;
    private static final AtomicLong NUMBER = new AtomicLong();

    /** Whether a file's name says that it is a bundle. */
    public static boolean named(Path file) {
        return String.valueOf(file.getFileName()).toLowerCase(java.util.Locale.ROOT).endsWith(END);
    }

    /**
     * Looks at a bundle. It may take seconds.
     *
     * @throws BadFile in plain words, where it can't be used
     */
    public static Bundle read(Path file) throws BadFile {
        if (!Files.isRegularFile(file)) {
            throw bad(file, Files.exists(file) ? "isn't a file" : "there is no such file");
        }
        try (ZipFile zip = new ZipFile(file.toFile())) {
            Map<String, ZipEntry> entries = entries(file, zip);
            ZipEntry about = entries.remove(Manifest.FILE);
            if (about == null) {
                throw bad(file, "has no " + Manifest.FILE + ", so it isn't a bundle of Rombix");
            }
            Manifest manifest = BoardTree.read(file.resolveSibling(Manifest.FILE), text(file, zip, about),
                    Manifest.class);
            if (manifest.format() != Manifest.FORMAT) {
                throw bad(file, manifest.format() > Manifest.FORMAT
                        ? "has format %d; this Rombix reads %d. Use a newer Rombix.".formatted(manifest.format(),
                                Manifest.FORMAT)
                        : "has no format that Rombix knows");
            }
            whole(file, zip, manifest, entries);
            return new Bundle(file, manifest, rig(file, zip, manifest, entries));
        } catch (ZipException e) {
            throw bad(file, "isn't a ZIP file, or is damaged: " + e.getMessage());
        } catch (IOException | IllegalArgumentException e) {
            throw bad(file, "can't be read: " + e.getMessage());
        }
    }

    private static BadFile bad(Path file, String why) {
        return new BadFile(file, 0, 0, why);
    }

    /** All entries by their names, none of which leads anywhere else. */
    private static Map<String, ZipEntry> entries(Path file, ZipFile zip) throws BadFile {
        if (zip.size() > MOST_FILES) {
            throw bad(file, "has %d files; the limit is %d".formatted(zip.size(), MOST_FILES));
        }
        Map<String, ZipEntry> entries = new LinkedHashMap<>();
        Map<String, String> same = new HashMap<>();
        long bytes = 0;
        for (Enumeration<? extends ZipEntry> all = zip.entries(); all.hasMoreElements();) {
            ZipEntry e = all.nextElement();
            String wrong = e.isDirectory() ? "is a folder" : BundleNames.wrong(e.getName());
            if (wrong != null) {
                throw bad(file, "a name in it, “%s”, %s".formatted(shown(e.getName()), wrong));
            }
            String other = same.put(BundleNames.same(e.getName()), e.getName());
            if (other != null) {
                throw bad(file, "two names in it, “%s” and “%s”, are one file on some systems".formatted(shown(other),
                        shown(e.getName())));
            }
            bytes += Math.max(0, e.getSize());
            if (bytes > MOST_BYTES) {
                throw bad(file, "has more than %d MB unpacked".formatted(MOST_BYTES >> 20));
            }
            if (e.getSize() > SMALL && e.getSize() / MOST_RATIO > Math.max(1, e.getCompressedSize())) {
                throw bad(file, "“%s” in it is packed more than %d times smaller than it is".formatted(shown(e
                        .getName()), MOST_RATIO));
            }
            entries.put(e.getName(), e);
        }
        return entries;
    }

    private static String shown(String name) {
        return Visible.line(Limits.quoted(name));
    }

    /** Passes on the content of an entry, no more of it than it says that it has; its checksum. */
    private static String passed(ZipFile zip, ZipEntry entry, OutputStream to) throws IOException {
        try (InputStream in = zip.getInputStream(entry)) {
            return Fingerprint.of(in, to, Math.max(0, entry.getSize()));
        }
    }

    private static String text(Path file, ZipFile zip, ZipEntry entry) throws IOException, BadFile {
        if (entry.getSize() > MOST_TEXT) {
            throw bad(file, "“%s” in it has more than %d MB".formatted(shown(entry.getName()), MOST_TEXT >> 20));
        }
        try (InputStream in = zip.getInputStream(entry)) {
            byte[] bytes = in.readNBytes((int) Math.max(0, entry.getSize()));
            return StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(bytes)).toString();
        } catch (CharacterCodingException e) {
            throw bad(file, "has a text in it that isn't UTF-8");
        }
    }

    /** Checks that there is all that the manifest names, as it says, and nothing else. */
    private static void whole(Path file, ZipFile zip, Manifest manifest, Map<String, ZipEntry> entries)
            throws IOException, BadFile {
        Map<String, ZipEntry> left = new HashMap<>(entries);
        for (Manifest.Entry e : manifest.files()) {
            ZipEntry there = left.remove(e.file());
            if (there == null) {
                throw bad(file, "“%s” isn't in it, though its manifest says so".formatted(shown(e.file())));
            }
            if (there.getSize() != e.bytes() || !passed(zip, there, OutputStream.nullOutputStream()).equals(e
                    .sha256())) {
                throw bad(file, "“%s” in it isn't what its manifest says; it may be damaged".formatted(shown(e
                        .file())));
            }
        }
        if (!left.isEmpty()) {
            throw bad(file, "“%s” is in it, though its manifest doesn't say so".formatted(shown(left.keySet().iterator()
                    .next())));
        }
    }

    private static Rig rig(Path file, ZipFile zip, Manifest manifest, Map<String, ZipEntry> entries)
            throws IOException, BadFile {
        Map<String, Card> cards = CardLibrary.shipped();
        for (Map.Entry<String, ZipEntry> e : entries.entrySet()) {
            if (e.getKey().startsWith("cards/")) {
                Card card = CardLibrary.read(Path.of(e.getKey()), text(file, zip, e.getValue()));
                cards.put(card.id(), card);
            }
        }
        ZipEntry board = entries.get(manifest.board());
        if (board == null) {
            throw bad(file, "has no board in it");
        }
        Board read = BoardFile.parse(Path.of(manifest.board()), text(file, zip, board), cards);
        return Rig.of(read, cards);
    }

    /** How long all files are together. */
    public long bytes() {
        return manifest.files().stream().mapToLong(Manifest.Entry::bytes).sum();
    }

    /**
     * Unpacks it into a folder that is not there yet: all of it, or nothing.
     *
     * @param as the board as it is to be: that of the bundle, matched with other gear, whose cards come along
     * @return the board's file
     * @throws IOException in plain words
     */
    public Path unpack(Path folder, Rig as) throws IOException {
        Path to = folder.toAbsolutePath().normalize();
        if (Files.exists(to)) {
            throw new IOException("“" + to + "” exists already. Choose another folder.");
        }
        Files.createDirectories(to.getParent());
        Path beside = to.resolveSibling("." + to.getFileName() + "-" + ProcessHandle.current().pid() + "-" + NUMBER
                .incrementAndGet() + ".new");
        try {
            Files.createDirectory(beside);
            copy(beside);
            Map<String, Card> shipped = CardLibrary.shipped();
            for (Card card : as.cards().values()) {
                if (!card.equals(rig.cards().get(card.id())) && !card.equals(shipped.get(card.id()))) {
                    Path file = CardLibrary.file(beside.resolve(manifest.board()), card.id());
                    Files.createDirectories(file.getParent());
                    BoardFile.make(file, CardLibrary.format(card));
                }
            }
            BoardFile.make(beside.resolve(manifest.board()), BoardFile.format(as.board()));
            Files.move(beside, to, StandardCopyOption.ATOMIC_MOVE);
        } catch (IOException | RuntimeException e) {
            remove(beside);
            throw e;
        }
        return to.resolve(manifest.board());
    }

    private void copy(Path folder) throws IOException {
        Map<String, Manifest.Entry> wanted = new LinkedHashMap<>();
        manifest.files().forEach(e -> wanted.put(e.file(), e));
        try (ZipFile zip = new ZipFile(file.toFile())) {
            for (Manifest.Entry e : wanted.values()) {
                Path to = folder.resolve(e.file()).normalize();
                ZipEntry entry = zip.getEntry(e.file());
                if (entry == null || BundleNames.wrong(e.file()) != null || !to.startsWith(folder)) {
                    throw new IOException("the bundle was changed meanwhile");
                }
                Files.createDirectories(to.getParent());
                try (OutputStream out = Files.newOutputStream(to)) {
                    if (!passed(zip, entry, out).equals(e.sha256())) {
                        throw new IOException("the bundle was changed meanwhile");
                    }
                }
            }
        }
    }

    private static void remove(Path folder) {
        try (Stream<Path> all = Files.walk(folder)) {
            for (Path p : all.sorted(java.util.Comparator.reverseOrder()).toList()) {
                Files.deleteIfExists(p);
            }
        } catch (IOException e) {
            // What is left is hidden and of no use to anybody.
        }
    }
}
