package rombix.app.cli.share;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import rombix.app.cli.option.BadCall;
import rombix.core.board.Gear;
import rombix.core.board.Rig;
import rombix.core.bundle.Bundle;
import rombix.core.bundle.Manifest;
import rombix.core.bundle.Matching;
import rombix.core.store.BoardFile;
import rombix.core.store.CardExchange;
import rombix.core.trust.Ask;
import rombix.core.trust.Asks;

/** Looks into a bundle, and unpacks it. */
@Command(name = "unpack", mixinStandardHelpOptions = true, description = {
        "Unpacks a bundle into a new folder; without a folder it only lists what is in it and what the board asks for.",
        "With --match, its gear is reached as the gear of a board of yours: the same card first, then what it can do.",
        "Nothing is connected or run: the board opens as a guest until you trust it."})
public final class UnpackCommand implements Callable<Integer> {
    @Parameters(index = "0", paramLabel = "BUNDLE", description = "The bundle.")
    private Path file = Path.of("");

    @Parameters(index = "1", arity = "0..1", paramLabel = "FOLDER", description = "A folder that doesn't exist yet.")
    private @Nullable Path folder;

    @Option(names = "--match", paramLabel = "BOARD", description = "A board with your gear.")
    private @Nullable Path match;

    @Option(names = "--use", paramLabel = "THEIRS=MINE", description = "With --match: the ids of a gear of theirs and of yours; an empty one keeps theirs as it is.")
    private Map<String, String> use = new LinkedHashMap<>();

    @Spec
    private CommandSpec spec = CommandSpec.create();

    @Override
    public Integer call() throws Exception {
        Bundle bundle = Bundle.read(file);
        PrintWriter out = spec.commandLine().getOut();
        list(bundle, out);
        CardExchange.Exchanged fitted = new CardExchange.Exchanged(bundle.rig(), List.of());
        if (match != null) {
            fitted = matched(bundle.rig(), BoardFile.read(match), out);
        } else if (!use.isEmpty()) {
            throw new BadCall("--use needs --match BOARD.");
        }
        if (folder != null) {
            try {
                out.println("Unpacked: " + bundle.unpack(folder, fitted.rig()));
            } catch (IOException e) {
                throw new BadCall(String.valueOf(e.getMessage()));
            }
        }
        out.flush();
        return fitted.lost().isEmpty() ? 0 : 1;
    }

    private static void list(Bundle bundle, PrintWriter out) {
        out.println("“%s”, %d kB".formatted(bundle.manifest().name(), bundle.bytes() / 1000));
        for (Manifest.Entry e : bundle.manifest().files()) {
            out.println("  %s, %d bytes".formatted(e.file(), e.bytes()));
        }
        bundle.manifest().missing().forEach(m -> out.println("  missing: " + m));
        for (Ask ask : Asks.of(bundle.rig(), List.of())) {
            out.println("  %s: %s %s".formatted(ask.kind().title(), ask.name(), ask.words()));
        }
    }

    private CardExchange.Exchanged matched(Rig theirs, Rig mine, PrintWriter out) throws BadCall {
        Matching matching = new Matching(theirs, mine);
        Map<String, Matching.Choice> choices = new HashMap<>(matching.proposed());
        for (Map.Entry<String, String> e : use.entrySet()) {
            String their = e.getKey();
            String own = e.getValue();
            if (theirs.board().gear(their).isEmpty() || !own.isEmpty() && mine.board().gear(own).isEmpty()) {
                throw new BadCall("--use %s=%s: there is no such gear.".formatted(their, own));
            }
            choices.put(their, own.isEmpty() ? new Matching.Choice.New() : new Matching.Choice.Mine(own));
        }
        for (Gear g : theirs.board().gear()) {
            out.println("  %s → %s".formatted(g.name(), choices.get(g.id()) instanceof Matching.Choice.Mine m
                    ? mine.board().gear(m.gear()).map(Gear::name).orElse(m.gear())
                    : "as it is"));
        }
        CardExchange.Exchanged fitted = matching.applied(choices);
        fitted.lost().forEach(l -> out.println("  has no counterpart: " + l));
        return fitted;
    }
}
