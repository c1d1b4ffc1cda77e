package rombix.bench.window;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import rombix.bench.measure.Figure;
import rombix.bench.measure.Measured;
import rombix.bench.measure.VirtualScreen;

/**
 * How long whole processes take: the demo's window until it is to be seen against an empty window, and commands against
 * {@code java -version}. The launcher has built all it needs before.
 */
public final class Starting implements Measured {
    private static final int TIMES = 9;
    private static final int WINDOWS = 5;
    private static final int LONGEST_SECONDS = 40;
    private static final Path HOME = home();

    private static Path home() {
        try {
            return Files.createTempDirectory("starting");
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    @Override
    public List<Figure> measure() throws IOException, InterruptedException {
        String java = ProcessHandle.current().info().command().orElse("java");
        String board = "demo/star-night.json";
        begin(null, "./rombix", "--prepare").waitFor();
        double bare = command(java, "-version");
        List<Figure> figures = new ArrayList<>(List.of(
                Figure.of("start-version", rombix("--version"), bare, "ms", 4),
                Figure.of("start-help", rombix("--help"), bare, "ms", 4),
                Figure.of("start-check", rombix("check", board), bare, "ms", 8)));
        Optional<VirtualScreen> server = VirtualScreen.start();
        if (server.isPresent()) {
            try (VirtualScreen x = server.get()) {
                List<Long> ours = new ArrayList<>();
                List<Long> empty = new ArrayList<>();
                for (int i = 0; i < WINDOWS; i++) {
                    empty.add(window(x, "empty", java, "-XX:+UseSerialGC", "--enable-native-access=ALL-UNNAMED",
                            "--sun-misc-unsafe-memory-access=allow", "-cp", System.getProperty("java.class.path"),
                            EmptyWindow.class.getName()));
                    ours.add(window(x, "Rombix", "./rombix", "demo"));
                }
                figures.add(Figure.of("start-window", Figure.percentile(ours, 0.5) / 1e6, Figure.percentile(empty, 0.5)
                        / 1e6, "ms", 2));
                Process demo = begin(x.display(), "./rombix", "demo");
                await(x, "Rombix");
                figures.add(Figure.of("start-press", rombix("press", HOME.resolve("Rombix/star-night.json").toString(),
                        "host-desk"), bare, "ms", 6));
                demo.destroy();
                demo.waitFor();
            }
        }
        return figures;
    }

    private static double rombix(String... args) throws IOException, InterruptedException {
        List<String> all = new ArrayList<>(List.of("./rombix"));
        all.addAll(List.of(args));
        return command(all.toArray(String[]::new));
    }

    /** The median of some runs, in milliseconds. */
    private static double command(String... command) throws IOException, InterruptedException {
        List<Long> took = new ArrayList<>();
        for (int i = 0; i < TIMES; i++) {
            long start = System.nanoTime();
            Process process = begin(null, command);
            process.waitFor();
            took.add(System.nanoTime() - start);
        }
        return Figure.percentile(took, 0.5) / 1e6;
    }

    private static long window(VirtualScreen x, String title, String... command)
            throws IOException, InterruptedException {
        long start = System.nanoTime();
        Process process = begin(x.display(), command);
        await(x, title);
        long took = System.nanoTime() - start;
        process.descendants().forEach(ProcessHandle::destroy);
        process.destroy();
        process.waitFor();
        return took;
    }

    private static void await(VirtualScreen x, String title) throws IOException, InterruptedException {
        long until = System.nanoTime() + TimeUnit.SECONDS.toNanos(LONGEST_SECONDS);
        while (!x.shows(title)) {
            if (System.nanoTime() - until > 0) {
                throw new IOException("no window “" + title + "” came");
            }
            LockSupport.parkNanos(TimeUnit.MILLISECONDS.toNanos(10));
        }
    }

    private static Process begin(@org.jspecify.annotations.Nullable String display, String... command)
            throws IOException {
        ProcessBuilder builder = new ProcessBuilder(command).redirectErrorStream(true).redirectOutput(
                ProcessBuilder.Redirect.DISCARD);
        builder.environment().put("ROMBIX_JAVA_OPTS", "-Duser.home=" + HOME);
        builder.environment().put("XDG_RUNTIME_DIR", HOME.toString());
        if (display != null) {
            builder.environment().put("DISPLAY", display);
        }
        return builder.start();
    }
}
