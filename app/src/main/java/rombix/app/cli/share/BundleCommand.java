package rombix.app.cli.share;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import rombix.app.cli.option.BadCall;
import rombix.core.bundle.Bundle;
import rombix.core.bundle.BundleWriter;
import rombix.core.bundle.Manifest;
import rombix.core.store.BoardFile;

/** Puts a board and all that it needs into one file. */
@Command(name = "bundle", mixinStandardHelpOptions = true, description = {
        "Puts a board into one file, with its cards, pictures and sounds, to open it on another computer.",
        "Secrets, certificates, trust and the log are never in it; addresses only with --addresses."})
public final class BundleCommand implements Callable<Integer> {
    @Parameters(index = "0", paramLabel = "BOARD", description = "The board file.")
    private Path board = Path.of("");

    @Parameters(index = "1", paramLabel = "OUT.rombix", description = "The bundle to write.")
    private Path out = Path.of("");

    @Option(names = "--addresses", description = "With the addresses and user names of its gear.")
    private boolean addresses;

    @Spec
    private CommandSpec spec = CommandSpec.create();

    @Override
    public Integer call() throws Exception {
        if (!Bundle.named(out)) {
            throw new BadCall("The name of a bundle ends with " + Bundle.END + ", such as night" + Bundle.END + ".");
        }
        Manifest made;
        try {
            made = BundleWriter.write(BoardFile.read(board), out, addresses);
        } catch (IOException e) {
            throw new BadCall(out + " can't be written: " + e.getMessage());
        }
        PrintWriter to = spec.commandLine().getOut();
        to.println("%s: %d files, %d kB".formatted(out, made.files().size() + 1, Files.size(out) / 1000));
        made.missing().forEach(m -> to.println("Not in it, as there is no such file: " + m));
        to.flush();
        return 0;
    }
}
