package rombix.core.bundle;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import rombix.core.board.Gear;
import rombix.core.board.Rig;
import rombix.core.card.Card;
import rombix.core.edit.GearEdits;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;
import rombix.core.store.Fingerprint;

/** A board as one file, and files that only look like that. */
class BundleTest {
    private static final Path DEMO = Path.of("../demo/star-night.json");

    @TempDir
    private Path folder;
    private Path zip;

    @BeforeEach
    void place() {
        zip = folder.resolve("night.rombix");
    }

    @Test
    void aBoardComesBackWithItsCardsAndSoundsAndWithoutSecretsAndAddresses() throws Exception {
        Rig rig = BoardFile.read(DEMO);
        Manifest manifest = BundleWriter.write(rig, zip, false);
        assertThat(manifest.missing()).isEmpty();
        assertThat(manifest.files()).extracting(Manifest.Entry::file).contains("star-night.json").anyMatch(
                f -> f.endsWith(".wav") || f.endsWith(".ogg") || f.endsWith(".flac"));
        Bundle bundle = Bundle.read(zip);
        Path board = bundle.unpack(folder.resolve("Unpacked"), bundle.rig());
        Rig again = BoardFile.read(board);
        assertThat(again.board().pages()).isEqualTo(rig.board().pages());
        assertThat(again.board().gear()).allMatch(g -> g.link().user() == null && (g.link().address().isEmpty() || g
                .link().protocol().descriptor().presetAddress().equals(g.link().address())));
        again.board().gear().stream().flatMap(g -> g.lists().values().stream().flatMap(List::stream)).filter(i -> i
                .fields().get("file") instanceof String).forEach(i -> assertThat(
                        Path.of(again.file((String) i.fields()
                                .get("file"))))
                        .isRegularFile());
        byte[] first = Files.readAllBytes(zip);
        BundleWriter.write(rig, zip, false);
        assertThat(Files.readAllBytes(zip)).isEqualTo(first);
        BundleWriter.write(rig, zip, true);
        assertThat(Bundle.read(zip).rig().board().gear()).extracting(g -> g.link().address()).isEqualTo(rig.board()
                .gear().stream().map(g -> g.link().address()).toList());
    }

    /** Bundles were written that no Rombix would open, after all their sounds had been read into memory. */
    @Test
    void aBundleThatNobodyCouldOpenIsNotWritten() throws Exception {
        Rig rig = BoardFile.read(DEMO);
        Path sound = folder.resolve("long.wav");
        try (RandomAccessFile file = new RandomAccessFile(sound.toFile(), "rw")) {
            file.setLength(501L << 20); // It takes no room: nothing is written in it.
        }
        Rig longer = rig.with(GearEdits.listed(rig.board(), "player", "clip", List.of(new Card.Item("long", "Long", Map
                .of("file", sound.toString())))));
        assertThatThrownBy(() -> BundleWriter.write(longer, zip, false)).hasMessageContaining("the limit is 500 MB");
        assertThat(zip).doesNotExist();
    }

    /** A bundle of these files, with a manifest that says so. */
    private void bundle(Map<String, byte[]> files) throws IOException {
        StringBuilder entries = new StringBuilder();
        files.forEach((name, bytes) -> entries.append(entries.isEmpty() ? "" : ",").append(
                "{\"file\": \"%s\", \"bytes\": %d, \"sha256\": \"%s\"}".formatted(name.replace("\\", "\\\\").replace(
                        "\"", "\\\""), bytes.length, Fingerprint.of(bytes))));
        bundle("{\"rombix-bundle\": 1, \"name\": \"N\", \"board\": \"b.json\", \"files\": [" + entries + "]}", files);
    }

    private void bundle(String manifest, Map<String, byte[]> files) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream to = new ZipOutputStream(out)) {
            if (!manifest.isEmpty()) {
                to.putNextEntry(new ZipEntry("manifest.json"));
                to.write(manifest.getBytes(StandardCharsets.UTF_8));
            }
            for (Map.Entry<String, byte[]> e : files.entrySet()) {
                to.putNextEntry(new ZipEntry(e.getKey()));
                to.write(e.getValue());
            }
        }
        Files.write(zip, out.toByteArray());
    }

    private static byte[] board() {
        return "{\"rombix\": 1, \"name\": \"N\", \"gear\": [], \"pages\": []}".getBytes(StandardCharsets.UTF_8);
    }

    private static Map<String, byte[]> with(String name, byte[] bytes) {
        Map<String, byte[]> files = new LinkedHashMap<>();
        files.put("b.json", board());
        files.put(name, bytes);
        return files;
    }

    @ParameterizedTest
    @ValueSource(strings = {"../b.wav", "sounds/../../b.wav", "/etc/b.wav", "C:/b.wav", "C:b.wav", "..\\b.wav",
            "sounds\\b.wav", "//server/b.wav", "sounds/./b.wav", "sounds//b.wav", "CON.wav", "sounds/nul.wav",
            "com1.wav", "aux/b.wav", ".hidden.wav", "sounds/.b.wav", "sounds/b.wav.", "sounds/b.wav ",
            "a/b/c/d/e/f/g/h/i.wav",
            "b.wav:stream.wav", "sounds/a\u0000b.wav", "sounds/a\nb.wav", "run.sh", "b.exe", "cards/x.sh", "B.JSON",
            "sounds/a|b.wav", "cards/sub/x.json", "b.wav/", "trust", ".rombix/log"})
    void aNameThatLeadsElsewhereOrIsOfNoKindIsRefused(String name) throws Exception {
        bundle(with(name, name.endsWith("/") ? new byte[0] : new byte[]{1, 2, 3}));
        assertThatThrownBy(() -> Bundle.read(zip)).isInstanceOf(BadFile.class).hasMessageContaining("night.rombix");
        try (Stream<Path> left = Files.list(folder)) {
            assertThat(left).containsExactly(zip);
        }
    }

    @Test
    void whatIsNotAsItSaysIsRefused() throws Exception {
        refused("isn't a ZIP file", () -> Files.writeString(zip, "hello"));
        refused("isn't a ZIP file", () -> Files.write(zip, new byte[0]));
        refused("no manifest.json", () -> bundle("", Map.of("b.json", board())));
        refused("expected", () -> bundle("[]", Map.of("b.json", board())));
        refused("format 2", () -> bundle(
                "{\"rombix-bundle\": 2, \"name\": \"N\", \"board\": \"b.json\", \"files\": []}", Map.of()));
        refused("though its manifest doesn't say so", () -> bundle(
                "{\"rombix-bundle\": 1, \"name\": \"N\", \"board\": \"b.json\", \"files\": []}", Map.of("b.json",
                        board())));
        refused("isn't in it", () -> bundle(
                "{\"rombix-bundle\": 1, \"name\": \"N\", \"board\": \"b.json\", \"files\": [{\"file\": \"b.json\", \"bytes\": 1, \"sha256\": \"0\"}]}",
                Map.of()));
        refused("isn't what its manifest says", () -> bundle(
                "{\"rombix-bundle\": 1, \"name\": \"N\", \"board\": \"b.json\", \"files\": [{\"file\": \"b.json\", \"bytes\": %d, \"sha256\": \"0\"}]}"
                        .formatted(board().length),
                Map.of("b.json", board())));
        refused("no board", () -> bundle(Map.of("c.json", board())));
        refused("more than 100 times smaller", () -> bundle(with("sounds/zeros.wav", new byte[4 << 20])));
        refused("one file on some systems", () -> bundle(Map.of("b.json", board(), "sounds/A.wav", new byte[1],
                "sounds/a.wav", new byte[1])));
        refused("cards/x.json", () -> bundle(with("cards/x.json", "{".getBytes(StandardCharsets.UTF_8))));
        refused("b.json", () -> bundle(Map.of("b.json", "{\"rombix\": 1, \"pages\": 7}".getBytes(
                StandardCharsets.UTF_8))));
        refused("UTF-8", () -> bundle(Map.of("b.json", new byte[]{(byte) 0xFF, (byte) 0xFE})));
    }

    private interface Making {
        void make() throws Exception;
    }

    private void refused(String why, Making making) throws Exception {
        making.make();
        assertThatThrownBy(() -> Bundle.read(zip)).as(why).isInstanceOf(BadFile.class).hasMessageContaining(why);
    }

    @Test
    void nothingIsHalfUnpacked() throws Exception {
        BundleWriter.write(BoardFile.read(DEMO), zip, false);
        Bundle bundle = Bundle.read(zip);
        bundle(Map.of("b.json", board())); // Another takes its place behind our back.
        Path to = folder.resolve("Unpacked");
        assertThatThrownBy(() -> bundle.unpack(to, bundle.rig())).isInstanceOf(IOException.class)
                .hasMessageContaining("changed meanwhile");
        assertThat(to).doesNotExist();
        try (Stream<Path> left = Files.list(folder)) {
            assertThat(left).containsExactly(zip);
        }
        Files.createDirectory(to);
        assertThatThrownBy(() -> bundle.unpack(to, bundle.rig())).hasMessageContaining("exists already");
    }

    @Test
    void gearIsMatchedByCardAndThenByWhatItCanDo() throws Exception {
        Rig theirs = BoardFile.read(DEMO);
        Rig mine = theirs.with(GearEdits.change(theirs.board(), "desk", g -> g.withId("my-desk").withName("Big desk")
                .withLink(g.link().reached(g.link().protocol(), "Hall Desk"))));
        Matching matching = new Matching(theirs, mine);
        Map<String, Matching.Choice> proposed = matching.proposed();
        assertThat(proposed.get("desk")).isEqualTo(new Matching.Choice.Mine("my-desk"));
        Gear desk = matching.applied(proposed).rig().board().gear("desk").orElseThrow();
        assertThat(desk.link().address()).isEqualTo("Hall Desk");
        assertThat(desk.name()).isEqualTo("Big desk");
        assertThat(matching.applied(proposed).lost()).isEmpty();
        assertThat(matching.applied(Map.of("desk", new Matching.Choice.StandIn("here"))).rig().board().gear("desk")
                .orElseThrow().link().address()).isEqualTo("here");
    }

    /** What another gear can't do is told before it is agreed to, with the buttons that it touches. */
    @Test
    void whatHasNoCounterpartIsTold() throws Exception {
        Rig theirs = BoardFile.read(DEMO);
        Rig mine = theirs
                .with(GearEdits.listed(theirs.board(), "desk", "channel", List.of(new rombix.core.card.Card.Item(
                        "host", "Host", Map.of("number", 1)))));
        assertThat(new Matching(theirs, mine).of("desk").getFirst().lost()).isNotEmpty().allMatch(l -> l.startsWith(
                "“"));
    }
}
