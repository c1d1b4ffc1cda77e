package rombix.app.cli;

import java.io.PrintWriter;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import rombix.app.cli.option.Span;
import rombix.core.found.Fitting;
import rombix.core.found.FoundGear;
import rombix.core.found.Proposal;
import rombix.core.store.CardLibrary;
import rombix.links.found.Searching;
import tools.jackson.databind.json.JsonMapper;

/** Lists discovered gear. */
@Command(name = "discover", mixinStandardHelpOptions = true, description = {
        "Lists discovered gear: DNS-SD, SSDP, Art-Net, ports of this computer, retained topics on brokers.",
        "Exit code: 0 found, 1 nothing found."})
final class DiscoverCommand implements Callable<Integer> {
    @Option(names = "--for", converter = Span.class, paramLabel = "TIME", description = "How long to look, such as 10s (default 6s).")
    private long forMillis = 6000;

    @Option(names = "--json", description = "One JSON list.")
    private boolean json;

    @Spec
    private CommandSpec spec = CommandSpec.create();

    @Override
    public Integer call() throws Exception {
        Map<String, FoundGear> found = new ConcurrentHashMap<>();
        try (Searching searching = new Searching(List.of(), g -> {
            if (!g.standIn()) {
                found.put(g.key(), g);
            }
        })) {
            new CountDownLatch(1).await(forMillis, TimeUnit.MILLISECONDS);
        }
        List<Proposal> all = found.values().stream().sorted(Comparator.comparing(FoundGear::how).thenComparing(
                FoundGear::name)).flatMap(g -> Fitting.proposals(g, CardLibrary.shipped().values()).stream()).toList();
        PrintWriter out = spec.commandLine().getOut();
        if (json) {
            out.println(JsonMapper.builder().build().writeValueAsString(all.stream().map(DiscoverCommand::fields)
                    .toList()));
        } else {
            all.forEach(p -> out.printf("%-28s %-11s %-24s %-14s %s%n", p.name(), p.found().protocol().title(), p
                    .found().address(), p.fits() == null ? "" : p.fits().id(), p.found().how().words()));
        }
        return all.isEmpty() ? 1 : 0;
    }

    private static Map<String, Object> fields(Proposal p) {
        Map<String, Object> all = new LinkedHashMap<>();
        all.put("name", p.name());
        all.put("protocol", p.found().protocol().id());
        all.put("address", p.found().address());
        all.put("tls", p.found().tls());
        all.put("card", p.fits() == null ? "" : p.fits().id());
        all.put("how", p.found().how().words());
        all.put("about", p.found().about());
        all.put("topics", p.topics());
        return all;
    }
}
