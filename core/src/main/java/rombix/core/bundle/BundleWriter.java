package rombix.core.bundle;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import rombix.core.board.Board;
import rombix.core.board.Gear;
import rombix.core.board.Rig;
import rombix.core.card.Card;
import rombix.core.card.Card.Item;
import rombix.core.store.BoardFile;
import rombix.core.store.BoardTree;
import rombix.core.store.CardLibrary;
import rombix.core.store.Fingerprint;
import rombix.core.store.WholeFile;

/**
 * Writes a bundle: the board, its cards, its pictures, which are in it, and its sounds. Never in it: secrets,
 * certificates, who was let in or trusted, the log. Two bundles of the same board are the same, byte for byte.
 */
public final class BundleWriter {
    private static final String FILE = "file";
    /** ZIP has a time for each file; this one says nothing. */
    private static final LocalDateTime NO_TIME = LocalDateTime.of(1980, 1, 1, 0, 0);

    private final Rig rig;
    private final boolean addresses;
    private final Map<String, Path> sounds = new LinkedHashMap<>();
    private final Set<String> taken = new HashSet<>();
    private final List<String> missing = new ArrayList<>();

    private BundleWriter(Rig rig, boolean addresses) {
        this.rig = rig;
        this.addresses = addresses;
    }

    /**
     * @param rig a board, with the folder that it lies in
     * @param out the bundle; one that is there is replaced
     * @param addresses whether the addresses and user names of its gear go with it
     * @return what is in it
     */
    public static Manifest write(Rig rig, Path out, boolean addresses) throws IOException {
        return new BundleWriter(rig, addresses).write(out);
    }

    private Manifest write(Path out) throws IOException {
        Board board = rig.board().withGear(rig.board().gear().stream().map(this::gear).toList());
        Map<String, byte[]> texts = new LinkedHashMap<>();
        String name = plain(board.name()) + ".json";
        texts.put(name, bytes(BoardFile.format(board)));
        Map<String, Card> shipped = CardLibrary.shipped();
        used().filter(c -> !c.equals(shipped.get(c.id()))).forEach(c -> texts.put("cards/" + c.id() + ".json", bytes(
                CardLibrary.format(c))));
        limits(texts);
        List<Manifest.Entry> files = new ArrayList<>();
        texts.forEach((file, text) -> files.add(new Manifest.Entry(file, text.length, Fingerprint.of(text))));
        for (Map.Entry<String, Path> s : sounds.entrySet()) {
            try (InputStream in = Files.newInputStream(s.getValue())) {
                files.add(new Manifest.Entry(s.getKey(), Files.size(s.getValue()), Fingerprint.of(in, OutputStream
                        .nullOutputStream(), Long.MAX_VALUE)));
            }
        }
        Manifest manifest = new Manifest(Manifest.FORMAT, board.name(), name, addresses, files, missing);
        WholeFile.write(out, WholeFile.Readers.AS_BEFORE, file -> {
            ZipOutputStream to = new ZipOutputStream(file);
            put(to, Manifest.FILE, bytes(BoardTree.text(manifest)));
            for (Map.Entry<String, byte[]> e : texts.entrySet()) {
                put(to, e.getKey(), e.getValue());
            }
            for (Map.Entry<String, Path> s : sounds.entrySet()) {
                to.putNextEntry(entry(s.getKey()));
                Files.copy(s.getValue(), to);
                to.closeEntry();
            }
            to.finish();
        });
        return manifest;
    }

    /** What is larger nobody could open. */
    private void limits(Map<String, byte[]> texts) throws IOException {
        if (texts.size() + sounds.size() >= Bundle.MOST_FILES) {
            throw new IOException("it would have %d files; the limit is %d".formatted(texts.size() + sounds.size() + 1,
                    Bundle.MOST_FILES));
        }
        long bytes = 0;
        for (Map.Entry<String, byte[]> t : texts.entrySet()) {
            bytes += t.getValue().length;
            if (t.getValue().length > Bundle.MOST_TEXT) {
                throw new IOException(
                        "“%s” has %d MB; the limit is %d MB".formatted(t.getKey(), t.getValue().length >> 20,
                                Bundle.MOST_TEXT >> 20));
            }
        }
        for (Path sound : sounds.values()) {
            bytes += Files.size(sound);
        }
        if (bytes > Bundle.MOST_BYTES) {
            throw new IOException("its files have %d MB together; the limit is %d MB".formatted(bytes >> 20,
                    Bundle.MOST_BYTES >> 20));
        }
    }

    private static void put(ZipOutputStream to, String name, byte[] bytes) throws IOException {
        to.putNextEntry(entry(name));
        to.write(bytes);
        to.closeEntry();
    }

    private static ZipEntry entry(String name) {
        ZipEntry entry = new ZipEntry(name);
        entry.setTimeLocal(NO_TIME);
        return entry;
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    /** A name that any system takes. */
    private static String plain(String name) {
        String plain = name.toLowerCase(Locale.ROOT).replaceAll("[^\\p{L}\\p{N}]+", "-").replaceAll("^-|-$",
                "");
        String cut = plain.substring(0, Math.min(plain.length(), 60));
        return cut.isEmpty() || BundleNames.wrong(cut + ".json") != null ? "board" : cut;
    }

    /** The cards that its gear and its fixtures have. */
    private Stream<Card> used() {
        Set<String> ids = new HashSet<>();
        rig.board().gear().forEach(g -> {
            ids.add(g.card());
            g.patch().forEach(f -> ids.add(f.personality()));
        });
        return rig.cards().values().stream().filter(c -> ids.contains(c.id()));
    }

    private Gear gear(Gear gear) {
        Map<String, List<Item>> lists = new LinkedHashMap<>();
        // In order, so that sounds of the same name get the same numbers each time.
        new TreeMap<>(gear.lists()).forEach((list, items) -> lists.put(list, items.stream().map(this::item).toList()));
        Gear listed = gear.withLists(lists);
        return addresses ? listed.withLink(plain(gear.link())) : bare(listed);
    }

    /** A gear as anybody may see it: how it is reached is left out, and whose certificate is taken. */
    static Gear bare(Gear gear) {
        Gear.Link plain = plain(gear.link());
        return gear.withLink(plain.reached(plain.protocol(), plain.protocol().descriptor().presetAddress()).withUser(
                null).withSecret(null));
    }

    private static Gear.Link plain(Gear.Link link) {
        return link.withTls(link.tls() == null ? null : new Gear.Tls(Gear.Tls.Trust.ROOTS, null));
    }

    /** An item whose sound goes along, under the name that it has in the bundle. */
    private Item item(Item item) {
        if (!(item.fields().get(FILE) instanceof String named)) {
            return item;
        }
        Path from = Path.of(rig.file(named));
        if (!Files.isRegularFile(from) || !Rig.sound(named)) {
            missing.add(named);
            return item;
        }
        Map<String, Object> fields = new LinkedHashMap<>(item.fields());
        fields.put(FILE, kept(named.replace('\\', '/'), from));
        return new Item(item.id(), item.name(), fields);
    }

    private String kept(String named, Path from) {
        String last = named.substring(named.lastIndexOf('/') + 1);
        String name = BundleNames.wrong(named) == null ? named : "sounds/" + last;
        if (BundleNames.wrong(name) != null) {
            name = "sounds/sound" + last.substring(Math.max(0, last.lastIndexOf('.')));
        }
        String free = name;
        for (int n = 2; !from.equals(sounds.get(free)) && !taken.add(BundleNames.same(free)); n++) {
            int dot = name.lastIndexOf('.');
            free = name.substring(0, dot) + "-" + n + name.substring(dot);
        }
        sounds.put(free, from);
        return free;
    }
}
