package rombix.torture;

import com.sun.management.ThreadMXBean;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.concurrent.TimeUnit;
import rombix.app.edit.file.PictureFile;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Face;
import rombix.core.board.Page;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.card.Card;
import rombix.core.chain.Chain;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.listen.Listening;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;
import rombix.core.store.CardLibrary;
import rombix.core.traffic.TrafficPacket;
import rombix.core.twin.Twin;
import rombix.core.value.Formula;
import rombix.core.value.FormulaFault;
import rombix.core.value.Template;
import rombix.core.value.TextPattern;
import rombix.core.value.Value;
import rombix.links.sound.SoundFile;
import rombix.wire.Malformed;
import rombix.wire.dmx.ArtNetPacket;
import rombix.wire.dmx.SacnPacket;
import rombix.wire.irc.IrcLine;
import rombix.wire.midi.MidiCodec;
import rombix.wire.midi.MidiEar;
import rombix.wire.midi.MidiStream;
import rombix.wire.osc.OscCodec;
import rombix.wire.osc.OscFraming;

/**
 * Feeds a reader with a million inputs, each a good one that was spoiled: it takes each, or refuses it in the way that is
 * its own, in time and in memory that are bounded.
 */
final class Inputs implements Trial {
    private static final long SOUNDS = 10_000;
    private static final long MOST_NANOS = TimeUnit.SECONDS.toNanos(5);
    private static final long MOST_BYTES = 96L << 20;
    private static final ThreadMXBean THREADS = (ThreadMXBean) ManagementFactory.getThreadMXBean();

    /** Reads something, or says that it is none. */
    private interface Reader {
        void read(byte[] input) throws Malformed, BadFile, FormulaFault;
    }

    private final String of;
    private final double share;
    private final Reader reader;
    private final List<byte[]> seeds;
    private long whole = 1_000_000;

    private Inputs(String of, double share, Reader reader, List<byte[]> seeds) {
        this.of = of;
        this.share = share;
        this.reader = reader;
        this.seeds = seeds;
    }

    /** With as many tries, where each takes long. */
    private Inputs of(long tries) {
        whole = tries;
        return this;
    }

    /** One for each reader. */
    static List<Trial> all() throws Exception {
        Map<String, Card> cards = CardLibrary.shipped();
        Path here = Path.of("x.json");
        Rig demo = BoardFile.read(Path.of("demo/star-night.json"));
        Twin studio = demo.twin("studio").orElseThrow();
        List<Twin> talking = List.of(demo.twin("projector").orElseThrow(), demo.twin("camera").orElseThrow(), demo.twin(
                "music").orElseThrow(), demo.twin("relays").orElseThrow());
        Board small = Board.empty("B").withGear(List.of(demo.board().gear(Holding.GATE).orElseThrow()))
                .withPages(List.of(Page.empty("p", "P")
                        .withButtons(List.of(new Button(
                                "b", "B", 0, 0, 1, 1, Button.Busy.QUEUE, List.of(new State("s", "S",
                                        Face.PLAIN, State.STAY, null, Map.of(Gesture.PRESS, Chain.of(new Step.Wait(50),
                                                Holding.orderStep(Holding.GATE, "unlock",
                                                        Map.of("lock", Value.of("gate"))))),
                                        Map.of())),
                                Map.of())))));
        List<byte[]> shipped = new ArrayList<>();
        for (String card : new String[]{"lamp-cues", "desktop"}) {
            try (var in = CardLibrary.class.getResourceAsStream("/rombix/cards/" + card + ".json")) {
                shipped.add(in == null ? new byte[0] : in.readAllBytes());
            }
        }
        return List.of(
                new Inputs("osc", 1, b -> OscCodec.decode(ByteBuffer.wrap(b)), List.of(bytes(
                        "/a/b\0\0\0\0,ifs\0\0\0\0\0\0\0\7\0\0\0\0text\0\0\0\0"),
                        bytes(
                                "#bundle\0\0\0\0\0\0\0\0\1\0\0\0\14/a\0\0,i\0\0\0\0\0\7"))),
                new Inputs("midi", 1, b -> {
                    MidiCodec.decode(b);
                    new MidiStream(_ -> {
                    }).feed(b, 0, b.length);
                }, List.of(new byte[]{(byte) 0x90, 60, 100, (byte) 0xB0, 7, 1, (byte) 0xF0, 1, 2, (byte) 0xF7})),
                new Inputs("sacn", 1, b -> SacnPacket.decode(ByteBuffer.wrap(b)), List.of(new SacnPacket(
                        new java.util.UUID(1, 2), "x", 100, 3, false, 1, new byte[64]).encode())),
                new Inputs("artnet", 1, b -> ArtNetPacket.decode(ByteBuffer.wrap(b)), List.of(ArtNetPacket.encode(
                        new ArtNetPacket.Dmx(1, 3, new byte[64])),
                        ArtNetPacket.encode(new ArtNetPacket.PollReply(new byte[4],
                                "node", "a node", List.of(0))))),
                new Inputs("midi-words", 1, b -> {
                    MidiEar ear = new MidiEar((_, _) -> {
                    });
                    new MidiStream(m -> {
                        try {
                            ear.take(m, 0);
                        } catch (Malformed e) {
                            // That is what it is to say.
                        }
                    }).feed(b, 0, b.length);
                }, List.of(new byte[]{(byte) 0xF0, 0x7F, 0x7F, 2, 1, 1, 0x31, 0, 0x32, (byte) 0xF7, (byte) 0xB0, 99, 2,
                        98, 3, 6, 4, 38, 5})),
                stream("osc-slip", OscFraming.SLIP), stream("osc-lengths", OscFraming.LENGTH),
                new Inputs("messages", 2, b -> {
                    for (Twin twin : talking) {
                        for (String from : new String[]{"line", "text", "bytes", "/state"}) {
                            twin.land(from, List.of(Value.of(text(b))));
                        }
                    }
                }, List.of(bytes(
                        "{\"state\": {\"playing\": true, \"volume\": 0.5}, \"playlists\": {\"a\": {\"name\": \"A\"}}}"),
                        bytes("{\"preset\": \"3\", \"pan\": -88.5, \"tracking\": true}"), bytes("POWER=WARMING"), bytes(
                                "STATE 1=ON 2=OFF 3=OFF 4=ON"))),
                new Inputs("patterns", 3, b -> {
                    int half = b.length / 2;
                    try {
                        var found = new TextPattern(text(Arrays.copyOf(b, half))).in(text(Arrays.copyOfRange(b, half,
                                b.length)).repeat(500));
                        for (int i = 0; i < 10 && found.find(); i++) {
                            found.group();
                        }
                    } catch (IllegalArgumentException e) {
                        throw new Malformed(String.valueOf(e.getMessage()));
                    }
                }, List.of(bytes("^((a+)+|b{2,5})*$aaaaaaaaaaaaaaaaaa"),
                        bytes("(?<value>\\d+(\\.\\d+)?)xx12.5 POWER=7 x 12345"))),
                new Inputs("lines", 2,
                        b -> Listening
                                .to(List.of(new TrafficPacket(1, Instant.EPOCH, "g", TrafficPacket.Way.IN, "", "line",
                                        List.of(Value.of(text(b).repeat(200))), null, List.of(),
                                        TrafficPacket.Fate.UNREAD, ""))),
                        List.of(bytes(
                                "LEVEL=42 MUTE=ON"), bytes("power: on"), bytes("{\"a\": {\"b\": 1}}"))),
                new Inputs("irc", 1, b -> IrcLine.decode(text(b)), List.of(bytes(
                        ":a!b@c PRIVMSG #room :hello there"), bytes("@tag=1 :s 324 me #room +nt"))),
                new Inputs("readings", 1, b -> studio.land(text(b), List.of(Value.of(text(b)), Value.of(b.length))),
                        studio.fixedArrivals().stream().sorted().map(Inputs::bytes).toList()),
                new Inputs("templates", 1, b -> {
                    Template template = new Template(text(b));
                    template.match("a/b/c");
                    template.fill(_ -> Value.of("x"));
                }, List.of(bytes("muted/{channel}"), bytes("{lamp.universe} {lamp.level}"))),
                new Inputs("formulas", 3, b -> new Formula(text(b)).value(n -> n.length() % 2 == 0
                        ? Value.of(n.length())
                        : Value.of(n)), List.of(bytes("{desk:level/host} > -10 && {round} == 2"), bytes(
                                "ROUND(MAX({a}, 3.5) / 7, 2) + IF(CONTAINS(\"abc\", \"b\"), 1, 0)"))),
                new Inputs("boards", 8, b -> BoardFile.parse(here, text(b), cards), List.of(bytes(BoardFile.format(
                        small)))),
                new Inputs("cards", 4, b -> CardLibrary.check(here, text(b)), shipped),
                new Inputs("pictures", 6, Inputs::picture, pictures()),
                new Inputs("sounds", 6, Inputs::sound, sounds()).of(SOUNDS));
    }

    private static Inputs stream(String of, OscFraming framing) {
        return new Inputs(of, 1, b -> {
            try {
                OscFraming.Reader in = framing.reader(new ByteArrayInputStream(b));
                for (byte[] packet = in.next(); packet != null; packet = in.next()) {
                    OscCodec.decode(ByteBuffer.wrap(packet));
                }
            } catch (IOException e) {
                throw new Malformed(String.valueOf(e.getMessage()));
            }
        }, List.of(framing.frame(bytes("/a\0\0,i\0\0\0\0\0\7"))));
    }

    private static void picture(byte[] bytes) throws Malformed {
        if (PictureFile.drawn(new Board.Picture("p", "p", Base64.getEncoder().encodeToString(bytes))) == null) {
            throw new Malformed("no picture");
        }
    }

    /** Reads a file with such a content; its ending goes by how it begins. */
    private static void sound(byte[] bytes) throws Malformed {
        int first = bytes.length == 0 ? 0 : bytes[0];
        Path file = null;
        try {
            file = Files.createTempFile("sound", first == 'O' ? ".ogg" : first == 'f' ? ".flac" : ".mp3");
            SoundFile.read(Files.write(file, bytes));
        } catch (IOException e) {
            throw new Malformed(String.valueOf(e.getMessage()));
        } finally {
            if (file != null) {
                file.toFile().delete();
            }
        }
    }

    private static List<byte[]> sounds() throws IOException {
        List<byte[]> all = new ArrayList<>();
        for (String name : new String[]{"star-sting.flac", "comet-sting.ogg", "dome-sting.mp3"}) {
            all.add(Files.readAllBytes(Path.of("demo/sounds", name)));
        }
        return all;
    }

    private static List<byte[]> pictures() throws Exception {
        var image = new java.awt.image.BufferedImage(9, 7, java.awt.image.BufferedImage.TYPE_INT_ARGB);
        List<byte[]> all = new ArrayList<>();
        for (String form : new String[]{"png", "gif", "bmp"}) {
            Path file = Files.createTempFile("picture", "." + form);
            javax.imageio.ImageIO.write(form.equals("bmp")
                    ? new java.awt.image.BufferedImage(9, 7, java.awt.image.BufferedImage.TYPE_INT_RGB)
                    : image, form, file.toFile());
            all.add(Files.readAllBytes(file));
        }
        all.add(bytes("<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 9 9'><path d='M1 1h7v7z' fill='#fa3'"
                + " stroke='red' stroke-dasharray='2 1'/></svg>"));
        return all;
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.ISO_8859_1);
    }

    private static String text(byte[] bytes) {
        return new String(bytes, StandardCharsets.UTF_8);
    }

    @Override
    public String name() {
        return "reads-" + of;
    }

    @Override
    public long whole() {
        return whole;
    }

    @Override
    public double share() {
        return share / 4;
    }

    @Override
    public Outcome suffer(Budget budget) throws InterruptedException {
        for (byte[] seed : seeds) {
            try {
                reader.read(seed);
            } catch (Malformed | BadFile | FormulaFault e) { // Then nothing but its refusals would be tried.
                budget.breach("a good one is refused: " + e.getMessage());
            }
        }
        List<Worst> worst = new ArrayList<>();
        List<Thread> feeding = new ArrayList<>();
        for (int i = 0; i < Runtime.getRuntime().availableProcessors(); i++) {
            Worst own = new Worst();
            worst.add(own);
            SplittableRandom chance = new SplittableRandom(i);
            feeding.add(Thread.ofPlatform().start(() -> feed(budget, chance, own)));
        }
        for (Thread t : feeding) {
            t.join();
        }
        return budget.outcome("%.0f %% refused; at most %d ms, %d KB".formatted(100.0 * worst.stream().mapToLong(
                w -> w.refused).sum() / Math.max(1, budget.tries()), worst.stream().mapToLong(w -> w.nanos).max()
                        .orElse(0) / 1_000_000,
                worst.stream().mapToLong(w -> w.bytes).max().orElse(0) >> 10));
    }

    /** What one of those who feed has seen. */
    private static final class Worst {
        private long refused;
        private long nanos;
        private long bytes;
    }

    private void feed(Budget budget, SplittableRandom chance, Worst worst) {
        while (budget.take()) {
            byte[] input = spoiled(seeds.get(chance.nextInt(seeds.size())), chance);
            long allocated = THREADS.getCurrentThreadAllocatedBytes();
            long start = System.nanoTime();
            try {
                reader.read(input);
            } catch (Malformed | BadFile | FormulaFault e) {
                worst.refused++;
            } catch (RuntimeException | Error e) {
                budget.breach(e + " at " + (e.getStackTrace().length == 0 ? "?" : e.getStackTrace()[0]) + " for "
                        + Base64.getEncoder().encodeToString(input));
            }
            long took = System.nanoTime() - start;
            long bytes = THREADS.getCurrentThreadAllocatedBytes() - allocated;
            worst.nanos = Math.max(worst.nanos, took);
            worst.bytes = Math.max(worst.bytes, bytes);
            if (took > MOST_NANOS || bytes > MOST_BYTES) {
                budget.breach("took %d ms and %d MB for %s".formatted(took / 1_000_000, bytes >> 20, Base64.getEncoder()
                        .encodeToString(input)));
            }
        }
    }

    /** A good input with some bytes changed, added, taken away, or doubled. */
    static byte[] spoiled(byte[] good, SplittableRandom chance) {
        byte[] bytes = good.clone();
        for (int n = chance.nextInt(4); n >= 0 && bytes.length > 0; n--) {
            int at = chance.nextInt(bytes.length);
            switch (chance.nextInt(6)) {
                case 0 -> bytes[at] = (byte) chance.nextInt(256);
                case 1 -> bytes[at] ^= (byte) (1 << chance.nextInt(8));
                case 2 -> bytes = joined(bytes, at, new byte[0], Math.min(bytes.length, at + 1 + chance.nextInt(8)));
                case 3 -> bytes = joined(bytes, at, bytes("0123456789\"{}[]()-+*/^.,:eE".substring(chance.nextInt(
                        26))), at);
                case 4 -> { // A piece of it again.
                    int end = Math.min(bytes.length, at + 1 + chance.nextInt(64));
                    bytes = joined(bytes, end, java.util.Arrays.copyOfRange(bytes, at, end), end);
                }
                default -> { // One byte many times.
                    byte[] many = new byte[chance.nextInt(200)];
                    java.util.Arrays.fill(many, bytes[at]);
                    bytes = joined(bytes, at, many, at);
                }
            }
        }
        return bytes;
    }

    private static byte[] joined(byte[] bytes, int head, byte[] middle, int tail) {
        byte[] all = new byte[head + middle.length + bytes.length - tail];
        System.arraycopy(bytes, 0, all, 0, head);
        System.arraycopy(middle, 0, all, head, middle.length);
        System.arraycopy(bytes, tail, all, head + middle.length, bytes.length - tail);
        return all;
    }
}
