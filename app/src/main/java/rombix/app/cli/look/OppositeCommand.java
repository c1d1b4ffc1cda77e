package rombix.app.cli.look;

import java.io.PrintWriter;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import rombix.app.cli.play.Playing;
import rombix.core.board.StepWords;
import rombix.core.chain.Chain;
import rombix.core.chain.Step;
import rombix.core.forecast.Opposite;
import rombix.core.store.BoardFile;

/** Makes the chain that undoes a button's chain. */
@Command(name = "opposite", mixinStandardHelpOptions = true, description = {
        "Prints the chain that undoes a button's chain, and lists what can't be undone.",
        "With --stand-ins or --live it uses the present readings."})
public final class OppositeCommand implements Callable<Integer> {
    @Mixin
    private ChainArgs chain = new ChainArgs();

    @Option(names = "--json", description = "The chain in the format of a board file.")
    private boolean json;

    @Spec
    private CommandSpec spec = CommandSpec.create();
    private final Playing.Stage stage;

    public OppositeCommand(Playing.Stage stage) {
        this.stage = stage;
    }

    @Override
    public Integer call() throws Exception {
        ChainArgs.Chosen of = chain.choose(stage);
        Opposite opposite = Opposite.of(of.rig(), of.known(), of.chain(), of.gesture().id());
        StepWords words = new StepWords(of.rig(), g -> id -> of.known().readings().getOrDefault(g, Map.of()).get(id));
        PrintWriter out = spec.commandLine().getOut();
        if (json) {
            out.print(BoardFile.format(opposite.chain()));
        } else {
            print(out, opposite.chain(), words, "");
            if (!opposite.left().isEmpty()) {
                out.printf("%nCan't be undone:%n");
                opposite.left().forEach(l -> out.println("  " + words.of(l.what()) + " — " + l.why()));
            }
        }
        out.flush();
        return 0;
    }

    private static void print(PrintWriter out, Chain chain, StepWords words, String indent) {
        for (Step step : chain.steps()) {
            out.println(indent + words.of(step));
            List<Chain> inner = step.inner();
            for (Chain c : inner) {
                print(out, c, words, indent + "    ");
                if (inner.size() > 1) {
                    out.println(indent + "  ·");
                }
            }
        }
    }
}
