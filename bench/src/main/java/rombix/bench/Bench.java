package rombix.bench;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import rombix.bench.measure.Figure;
import rombix.bench.measure.Measured;
import rombix.bench.web.Browsers;
import rombix.bench.window.Autosaving;
import rombix.bench.window.Frames;
import rombix.bench.window.KeysOut;
import rombix.bench.window.Memory;
import rombix.bench.window.Resting;
import rombix.bench.window.Starting;
import tools.jackson.databind.json.JsonMapper;

/** Runs the measurements, prints them as a table and writes them as JSON. */
public final class Bench {
    private static final Path OUT = Path.of("bench/target/figures.json");

    private Bench() {
    }

    /** @param args the names of the groups to measure; all where there are none */
    public static void main(String[] args) throws Exception {
        Map<String, Measured> all = new LinkedHashMap<>();
        all.put("press", new Press());
        all.put("wires", new Wires());
        all.put("asked", new Asked());
        all.put("keys", new KeysOut());
        all.put("seeing", new Seeing());
        all.put("sounding", new SoundLatency());
        all.put("touch", new Touched());
        all.put("lateness", new Lateness());
        all.put("waiting", new Waiting());
        all.put("swapped", new Swapped());
        all.put("moments", new Moments());
        all.put("burst", new Burst());
        all.put("forecast", new Forecasts());
        all.put("fades", new Fades());
        all.put("frames", new Frames());
        all.put("flood", new Flooded());
        all.put("logged", new Logged());
        all.put("idle", new Resting());
        all.put("memory", new Memory());
        all.put("start", new Starting());
        all.put("readings", new Readings());
        all.put("scale", new BoardSizes());
        all.put("edit", new Edited());
        all.put("autosave", new Autosaving());
        all.put("web", new Browsers());
        List<String> wanted = args.length == 0 ? List.copyOf(all.keySet()) : List.of(args);
        List<Figure> figures = new ArrayList<>();
        List<String> missing = new ArrayList<>();
        System.out.printf("%-20s %12s %12s %8s  %-6s %s%n", "figure", "Rombix", "baseline", "ratio", "unit", "");
        for (String name : wanted) {
            Measured group = all.get(name);
            if (group == null) {
                System.err.println("no figures “" + name + "”; there are " + all.keySet());
                System.exit(2);
                return;
            }
            List<Figure> measured;
            try {
                measured = group.measure();
            } catch (Exception e) {
                missing.add(name); // The others are measured all the same.
                System.out.println(name + " can't be measured: " + e);
                continue;
            }
            for (Figure f : measured) {
                figures.add(f);
                System.out.printf(Locale.ROOT, "%-20s %12.3f %12.3f %8.2f  %-6s %s%n", f.figure(), f.rombix(), f
                        .baseline(), f.ratio(), f.unit(),
                        f.reach() == 0
                                ? ""
                                : f.verdict() + " (" + f.reach() + ")");
            }
        }
        Files.createDirectories(OUT.getParent());
        Files.writeString(OUT, JsonMapper.builder().build().writerWithDefaultPrettyPrinter().writeValueAsString(
                figures));
        if (!missing.isEmpty()) {
            System.out.println("not measured: " + String.join(", ", missing));
        }
        System.exit(missing.isEmpty() ? 0 : 1); // What was measured may have left threads that go on.
    }
}
