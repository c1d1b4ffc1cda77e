package rombix.bench.window;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import rombix.bench.measure.Figure;
import rombix.bench.measure.Measured;
import rombix.bench.measure.VirtualScreen;
import rombix.standins.set.StandIns;

/**
 * Resident memory under an X server, each in a process of its own with the stand-ins in this one: the demo board in Live
 * after a minute, after as many presses as in a busy hour, and with 3,168 buttons, against an empty window; and threads.
 */
public final class Memory implements Measured {
    private static final int FEW = 40;

    @Override
    public List<Figure> measure() throws IOException, InterruptedException {
        Optional<VirtualScreen> server = VirtualScreen.start();
        if (server.isEmpty()) {
            return List.of();
        }
        try (VirtualScreen x = server.get(); StandIns gear = StandIns.onFreePorts()) {
            List<String> where = new ArrayList<>();
            gear.addresses().forEach((id, address) -> where.add(id + "=" + address));
            where.add(AtRest.CABLE + "=" + gear.desk().port());
            double empty = read(Resting.run(List.of(), "empty", x.display(), false), "rss").getFirst();
            String worked = Resting.run(where, "worked", x.display(), false);
            System.out.println(worked);
            List<Double> rss = read(worked, "rss");
            double large = read(Resting.run(where, "large", x.display(), false), "rss").getFirst();
            return List.of(Figure.of("memory-live", rss.getFirst(), empty, "MB", 1.6),
                    Figure.of("memory-worked", rss.getLast(), rss.getFirst(), "MB", 1.1),
                    Figure.of("memory-large", large, empty, "MB", 2.2),
                    Figure.of("threads-live", read(worked, "threads").getFirst(), FEW, "", 1));
        }
    }

    private static List<Double> read(String out, String name) throws IOException {
        List<Double> found = new ArrayList<>();
        for (Matcher m = Pattern.compile("(?m)^" + name + " ([0-9.]+)").matcher(out); m.find();) {
            found.add(Double.parseDouble(m.group(1)));
        }
        if (found.isEmpty()) {
            throw new IOException("no “" + name + "” in: " + out);
        }
        return found;
    }
}
