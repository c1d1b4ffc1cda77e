package rombix.links.sound;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Consumer;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Card;
import rombix.core.event.Cause;
import rombix.core.event.Gears;
import rombix.core.event.Status.Phase;
import rombix.core.event.Trouble;
import rombix.core.sound.Clip;
import rombix.core.sound.Cue;
import rombix.core.sound.Mix;
import rombix.core.twin.Figures;
import rombix.core.twin.Order;
import rombix.core.twin.Twin.Readings;
import rombix.core.value.Value;
import rombix.links.link.GearReport;
import rombix.links.link.Link;
import rombix.links.link.Reconnector;

/**
 * A player. Its clips are read when it is opened. It plays through the output that its address names, or through another
 * that a step names, and through none else: where that is gone, what plays there ends and says so.
 */
final class SoundLink implements Link {
    private static final long WATCH_MILLIS = 3000;
    private static final String CLIP = "clip";
    private static final String STUCK = "the output has stopped accepting sound";

    /** A clip that was asked for, by the number that it has in the mix. */
    private record Sounding(String clip, long ticket, boolean waited, AudioOutput on) {
    }

    private final GearReport report;
    private final String name;
    private final Function<String, Path> files;
    private final Clips clips = new Clips();
    private final Map<String, Path> named = new TreeMap<>();
    private final Map<String, Path> paths = new ConcurrentHashMap<>();
    private final AtomicLong last = new AtomicLong();
    private final Map<Long, Sounding> sounding = new ConcurrentHashMap<>();
    private final Map<String, AudioOutput> others = new ConcurrentHashMap<>();
    private final Map<String, Value> told = new ConcurrentHashMap<>();
    /** The tickets whose clip is still being read, and is wanted. */
    private final Set<Long> beingRead = new HashSet<>();
    private final Reconnector<AudioOutput> connected;
    private volatile @Nullable AudioOutput main;
    private volatile boolean closed;

    SoundLink(GearReport report, String name, Function<String, Path> files) {
        this.report = report;
        this.name = name;
        this.files = files;
        for (Card.Item item : report.twin().items(CLIP, Readings.NONE)) {
            Value file = item.field("file");
            if (file != null && !file.toString().isBlank()) {
                named.put(item.id(), files.apply(file.toString()));
            }
        }
        connected = new Reconnector<>(report, "sound", new Reconnector.Way<>() {
            @Override
            public AudioOutput connect() throws IOException {
                outputs();
                return new AudioOutput(SoundLink.this.name, SoundLink.this::playing);
            }

            @Override
            public void serve(AudioOutput output) throws IOException, InterruptedException {
                SoundLink.this.serve(output);
            }
        });
    }

    private void serve(AudioOutput output) throws IOException, InterruptedException {
        main = output;
        try {
            tell("level", Value.of(0));
            named.keySet().forEach(this::silent);
            status();
            String gone = null;
            while (gone == null) {
                List<String> now = outputs();
                gone = output.lostReason(now);
                others.forEach((other, on) -> watch(other, on, now));
                named.values().forEach(clips::fresh); // A file that was changed meanwhile is read anew.
                Thread.sleep(WATCH_MILLIS);
            }
            lost(output, gone);
            throw new IOException(gone);
        } finally {
            main = null;
        }
    }

    /** Reads all clips, and says which cannot be. */
    private void status() {
        report.ready();
        named.forEach((id, file) -> clips.of(file).whenComplete((_, e) -> {
            if (e != null && !closed) {
                report.status(Phase.READY, Cause.CLIP_UNREADABLE, Trouble.words(cause(e)));
            }
        }));
    }

    private static Throwable cause(Throwable e) {
        Throwable cause = e.getCause();
        return cause == null ? e : cause;
    }

    /** Tells which outputs there are, where they have changed; the devices that are there now. */
    private List<String> outputs() {
        List<String> devices = AudioOutput.devices();
        Value all = Value.of(devices.toString());
        if (!all.equals(told.put("outputs", all))) {
            List<Value> pairs = new ArrayList<>();
            AudioOutput.names().forEach(n -> pairs.addAll(List.of(Value.of(n), Value.of(n))));
            report.landed("outputs", pairs);
        }
        return devices;
    }

    private void watch(String other, AudioOutput on, List<String> devices) {
        String gone = on.lostReason(devices);
        if (gone != null) {
            others.remove(other, on);
            lost(on, gone);
            on.close();
        }
    }

    /** An output is gone: what played there is over, and its steps say why. */
    private void lost(AudioOutput on, String why) {
        Set<String> over = new HashSet<>();
        sounding.forEach((number, of) -> {
            if (of.on() == on && sounding.remove(number, of)) {
                over.add(of.clip());
                report.failed(of.ticket(), why);
            }
        });
        over.forEach(this::silent);
    }

    private void silent(String clip) {
        tell("playing " + clip, Value.of(false));
        tell("left " + clip, Value.of(0));
        if (!told.containsKey("level " + clip)) {
            tell("level " + clip, Value.of(0));
        }
    }

    private void tell(String reading, Value now) {
        if (!now.equals(told.put(reading, now))) {
            report.landed(reading, List.of(now));
        }
    }

    /** After each block: what ended is answered for, and what plays is told. */
    private void playing(AudioOutput on, List<Mix.Playing> now, List<Long> ended) {
        Set<String> maybeOver = new HashSet<>();
        for (long number : ended) {
            Sounding of = sounding.remove(number);
            if (of != null) {
                maybeOver.add(of.clip());
                if (of.waited()) {
                    report.sent(of.ticket());
                }
            }
        }
        Map<String, Long> left = new HashMap<>();
        now.forEach(p -> left.merge(p.name(), p.left(), Math::max));
        left.forEach((clip, frames) -> {
            tell("playing " + clip, Value.of(true));
            tell("left " + clip, Value.of(frames < 0 ? 0 : Math.ceil((double) frames / Clip.RATE)));
        });
        maybeOver.stream().filter(clip -> sounding.values().stream().noneMatch(s -> s.clip().equals(clip)))
                .forEach(this::silent);
    }

    @Override
    public void send(long ticket, Order order) {
        AudioOutput output = main;
        if (closed || output == null) {
            report.failed(ticket, closed ? "is closing" : "the output “" + name + "” isn't available");
            return;
        }
        try {
            for (Order.Outgoing packet : order.packets()) {
                if (!packet(ticket, packet, output)) {
                    report.failed(ticket, STUCK);
                    return;
                }
            }
            if (order.packets().stream().noneMatch(p -> p.address().split(" ", 2)[0].equals("play"))) {
                report.sent(ticket); // A clip is answered for when it plays, or has played.
            }
        } catch (IllegalArgumentException | IndexOutOfBoundsException e) {
            report.failed(ticket, Trouble.words(e));
        }
    }

    /** @return false if an output is stuck */
    private boolean packet(long ticket, Order.Outgoing packet, AudioOutput output) {
        String[] words = packet.address().split(" ", 2);
        List<Value> args = packet.args();
        String clip = words.length > 1 ? words[1] : "";
        return switch (words[0]) {
            case "play" -> {
                play(ticket, clip, args, output);
                yield true; // It answers for itself.
            }
            case "stop" -> {
                long frames = Math.max(Mix.SOON, Clip.frames(args.getFirst().asNumber()));
                yield everywhere(mix -> {
                    if (clip.isEmpty()) {
                        mix.stopAll(frames);
                    } else {
                        mix.stop(clip, frames);
                    }
                });
            }
            case "level" -> {
                double decibels = args.getFirst().asNumber();
                tell(packet.address(), Value.of(decibels));
                yield everywhere(mix -> {
                    if (clip.isEmpty()) {
                        mix.level(decibels);
                    } else {
                        mix.level(clip, decibels);
                    }
                });
            }
            default -> throw new IllegalArgumentException("unsupported function “" + packet.address() + "”");
        };
    }

    /** @return false if an output is stuck */
    private boolean everywhere(Consumer<Mix> what) {
        AudioOutput output = main;
        boolean taken = output == null || output.ask(what);
        for (AudioOutput other : others.values()) {
            taken &= other.ask(what);
        }
        return taken;
    }

    private void play(long ticket, String clip, List<Value> args, AudioOutput usual) {
        Path file = paths.computeIfAbsent(args.get(0).toString(), files);
        CompletableFuture<Clip> read = clips.of(file);
        if (read.isDone()) {
            begin(ticket, clip, args, usual, read);
            return;
        }
        synchronized (this) {
            beingRead.add(ticket);
        }
        long since = System.nanoTime();
        long age = TimeUnit.MILLISECONDS.toNanos(report.twin().card().ageMillis());
        read.whenComplete((_, _) -> {
            if (!stillWanted(ticket)) {
                report.failed(ticket, "stopped");
            } else if (System.nanoTime() - since > age) {
                report.failed(ticket, "“" + file.getFileName() + "” was still loading and is ready now. It took "
                        + Figures.span((System.nanoTime() - since) / 1e6));
            } else {
                begin(ticket, clip, args, usual, read);
            }
        });
    }

    private synchronized boolean stillWanted(long ticket) {
        return beingRead.remove(ticket);
    }

    private void begin(long ticket, String clip, List<Value> args, AudioOutput usual, CompletableFuture<Clip> read) {
        try {
            Cue cue = new Cue(clip, read.join(), args.get(1).asNumber(), args.get(2).toString().equals("again"),
                    frames(args, 5), frames(args, 6), frames(args, 3), frames(args, 4), args.get(7).asNumber());
            boolean beside = args.get(8).toString().equals("beside");
            boolean waited = args.get(10).asFlag() && ticket != Gears.NO_ANSWER;
            AudioOutput on = args.get(9).toString().isEmpty() ? usual : other(args.get(9).toString(), usual);
            long number = last.incrementAndGet();
            sounding.put(number, new Sounding(clip, ticket, waited, on));
            if (!on.ask(mix -> mix.play(number, cue, beside))) {
                sounding.remove(number);
                report.failed(ticket, STUCK);
                return;
            }
            tell("level " + clip, args.get(1));
            if (!waited) {
                report.sent(ticket);
            }
        } catch (IOException | RuntimeException e) {
            report.failed(ticket, Trouble.words(e instanceof RuntimeException ? cause(e) : e));
        }
    }

    private static long frames(List<Value> args, int index) {
        return Clip.frames(args.get(index).asNumber());
    }

    private synchronized AudioOutput other(String wanted, AudioOutput usual) throws IOException {
        if (wanted.equals(name)) {
            return usual;
        }
        AudioOutput there = others.get(wanted);
        if (there == null) {
            there = new AudioOutput(wanted, this::playing);
            others.put(wanted, there);
        }
        return there;
    }

    @Override
    public void cancel(long ticket) {
        stillWanted(ticket);
        sounding.forEach((number, of) -> {
            if (of.ticket() == ticket) {
                of.on().ask(mix -> mix.stopTicket(number));
            }
        });
    }

    @Override
    public void stop() {
        synchronized (this) {
            beingRead.clear();
        }
        everywhere(mix -> mix.stopAll(Mix.SOON));
    }

    @Override
    public void close() {
        closed = true;
        connected.close();
        others.values().forEach(AudioOutput::close);
        sounding.values().stream().filter(Sounding::waited).forEach(s -> report.failed(s.ticket(), "was closed"));
        sounding.clear();
        clips.close();
    }
}
