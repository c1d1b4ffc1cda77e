package rombix.bench.window;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import rombix.bench.measure.Figure;
import rombix.bench.measure.Measured;
import rombix.bench.measure.VirtualScreen;
import rombix.standins.set.StandIns;

/**
 * What a window costs at rest, each in a process of its own: the demo board in Build and in Live against an empty window,
 * under an X server without a screen and offscreen; how often it paints, and how much of it; and how much a bar paints
 * that runs, against a bare bar in an empty window.
 */
public final class Resting implements Measured {
    private static final int SECONDS = 10;
    private static final Pattern PULSE = Pattern.compile("(?m)^PULSE: \\d+ ");
    private static final Pattern REGION = Pattern.compile("Dirty Region \\d+: .*\\(w:([0-9.]+), h:([0-9.]+)\\)");

    /** Where the gear is, as {@link AtRest} takes it. */
    private final List<String> where = new ArrayList<>();

    /** @param paints how often it painted, {@code area} the largest of what it painted at once, in pixels */
    private record Painted(int pulses, int paints, double area) {
    }

    @Override
    public List<Figure> measure() throws IOException, InterruptedException {
        List<Figure> figures = new ArrayList<>();
        try (StandIns gear = StandIns.onFreePorts()) { // Here: what the gear does is no cost of the deck.
            where.clear();
            gear.addresses().forEach((id, address) -> where.add(id + "=" + address));
            where.add(AtRest.CABLE + "=" + gear.desk().port());
            measure(figures);
        }
        return figures;
    }

    private void measure(List<Figure> figures) throws IOException, InterruptedException {
        Optional<VirtualScreen> server = VirtualScreen.start();
        if (server.isPresent()) {
            try (VirtualScreen x = server.get()) {
                figures.addAll(idle("x", x.display()));
                figures.addAll(paints(x.display()));
            }
        }
        figures.addAll(idle("offscreen", null));
    }

    private List<Figure> idle(String where, @Nullable String display) throws IOException, InterruptedException {
        double empty = cpu("empty", display);
        return List.of(Figure.of("idle-cpu-build-" + where, cpu("build", display), empty, "ms", 2),
                Figure.of("idle-cpu-live-" + where, cpu("live", display), empty, "ms", 2));
    }

    /** Paints, against one a second, and the area of each against a label of 200 by 50; none in Build. */
    private List<Figure> paints(String display) throws IOException, InterruptedException {
        Painted build = painted("build", display);
        Painted live = painted("live", display);
        Painted running = painted("running", display);
        Painted bar = painted("bar", display);
        System.out.printf(Locale.ROOT, "idle: Build %s, Live %s; with a chain running %s; a bare bar %s%n", build, live,
                running, bar);
        return List.of(Figure.of("idle-paints-build", build.paints(), SECONDS, "", 0.1),
                Figure.of("idle-paints-live", live.paints(), SECONDS, "", 1.2),
                Figure.of("idle-paints-area", live.area(), 200.0 * 50, "px", 1),
                Figure.of("busy-paints-area", running.area(), 1280.0 * 800, "px", 0.06),
                Figure.of("busy-paints", running.paints(), bar.paints(), "", 2));
    }

    private double cpu(String what, @Nullable String display) throws IOException, InterruptedException {
        String out = run(what, display, false);
        Matcher m = Pattern.compile("cpu ([0-9.]+)").matcher(out);
        if (!m.find()) {
            throw new IOException("no figure came from “" + what + "”: " + out);
        }
        return Double.parseDouble(m.group(1));
    }

    private Painted painted(String what, String display) throws IOException, InterruptedException {
        String all = run(what, display, true);
        String log = all.substring(all.indexOf(AtRest.BEGIN), all.indexOf(AtRest.END));
        List<String> pulses = Arrays.asList(PULSE.split(log));
        double largest = 0;
        int paints = 0;
        for (String pulse : pulses) {
            int regions = 0;
            for (Matcher m = REGION.matcher(pulse); m.find();) {
                regions++;
                largest = Math.max(largest, Double.parseDouble(m.group(1)) * Double.parseDouble(m.group(2)));
            }
            if (regions == 0 && pulse.contains("Painting")) { // All of it: the toolkit names no region then.
                regions = 1;
                largest = 1280.0 * 800;
            }
            paints += regions;
        }
        return new Painted(pulses.size() - 1, paints, largest);
    }

    private String run(String what, @Nullable String display, boolean logged) throws IOException,
            InterruptedException {
        return run(where, what, display, logged);
    }

    /** The options of the heap, as the launcher has them. */
    private static List<String> jvm() throws IOException {
        return Files.readAllLines(Path.of("app/target/launch.args")).stream().filter(l -> l.startsWith("-X"))
                .toList();
    }

    /** Runs {@link AtRest} in a process of its own, as the launcher would start it, and returns what it printed. */
    static String run(List<String> where, String what, @Nullable String display, boolean logged) throws IOException,
            InterruptedException {
        List<String> command = new ArrayList<>(List.of(ProcessHandle.current().info().command().orElse("java"),
                "-XX:Tier4InvocationThreshold=30000", "-XX:Tier4MinInvocationThreshold=5000",
                "-XX:Tier4CompileThreshold=90000", "-XX:Tier4BackEdgeThreshold=300000",
                "--enable-native-access=ALL-UNNAMED", "--sun-misc-unsafe-memory-access=allow"));
        boolean bare = what.equals("empty") || what.equals("bar");
        command.addAll(bare ? List.of("-XX:+UseSerialGC") : jvm());
        command.addAll(List.of("-cp", System.getProperty("java.class.path")));
        if (logged) {
            command.addAll(List.of("-Djavafx.pulseLogger=true", "-Djavafx.pulseLogger.threshold=-1"));
        }
        command.addAll(List.of(AtRest.class.getName(), what, String.valueOf(SECONDS), String.valueOf(display == null)));
        command.addAll(where);
        ProcessBuilder builder = new ProcessBuilder(command).redirectErrorStream(true);
        if (display == null) {
            builder.environment().remove("DISPLAY");
        } else {
            builder.environment().put("DISPLAY", display);
        }
        Process process = builder.start();
        try (InputStream in = process.getInputStream()) {
            String out = new String(in.readAllBytes(), StandardCharsets.UTF_8);
            process.waitFor();
            return out;
        }
    }
}
