package rombix.core.bundle;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
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
        List<Manifest.Entry> files = new ArrayList<>();
        texts.forEach((file, text) -> files.add(new Manifest.Entry(file, text.length, Fingerprint.of(text))));
        Map<String, byte[]> all = new LinkedHashMap<>();
        for (Map.Entry<String, Path> s : sounds.entrySet()) {
            byte[] sound = Files.readAllBytes(s.getValue());
            all.put(s.getKey(), sound);
            files.add(new Manifest.Entry(s.getKey(), sound.length, Fingerprint.of(sound)));
        }
        Manifest manifest = new Manifest(Manifest.FORMAT, board.name(), name, addresses, files, missing);
        ByteArrayOutputStream zip = new ByteArrayOutputStream();
        try (ZipOutputStream to = new ZipOutputStream(zip)) {
            put(to, Manifest.FILE, bytes(BoardTree.text(manifest)));
            for (Map.Entry<String, byte[]> e : texts.entrySet()) {
                put(to, e.getKey(), e.getValue());
            }
            for (Map.Entry<String, byte[]> e : all.entrySet()) {
                put(to, e.getKey(), e.getValue());
            }
        }
        WholeFile.write(out, zip.toByteArray(), WholeFile.Readers.AS_BEFORE);
        return manifest;
    }

    private static void put(ZipOutputStream to, String name, byte[] bytes) throws IOException {
        ZipEntry entry = new ZipEntry(name);
        entry.setTimeLocal(NO_TIME);
        to.putNextEntry(entry);
        to.write(bytes);
        to.closeEntry();
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    /** A name that any system takes. */
    private static String plain(String name) {
        String plain = name.toLowerCase(java.util.Locale.ROOT).replaceAll("[^\\p{L}\\p{N}]+", "-").replaceAll("^-|-$",
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
        Map<String, List<Item>> lists = new HashMap<>();
        gear.lists().forEach((list, items) -> lists.put(list, items.stream().map(this::item).toList()));
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
        if (!Files.isRegularFile(from)
                || BundleNames.wrong("sounds/x" + named.replaceFirst("^.*(?=\\.[^.]*$)", "")) != null) {
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
