package rombix.app.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import rombix.core.store.BadFile;
import rombix.core.store.CardLibrary;

/** What can be done with cards. */
@Command(name = "cards", mixinStandardHelpOptions = true, description = {
        "Checks cards: one finding per line, with its place and what was expected.",
        "Exit code: 0 no findings, 1 findings, 2 a bad call."})
final class CardsCommand implements Callable<Integer> {
    @Parameters(index = "0", paramLabel = "check", description = "What to do: check.")
    private String what = "";

    @Parameters(index = "1..*", arity = "1..*", paramLabel = "FILE", description = "The cards' files.")
    private List<Path> files = List.of();

    @Spec
    private CommandSpec spec = CommandSpec.create();

    @Override
    public Integer call() throws BadCall {
        if (!what.equals("check")) {
            throw new BadCall("cards can be checked: rombix cards check FILE…");
        }
        PrintWriter out = spec.commandLine().getOut();
        int wrong = 0;
        for (Path file : files) {
            List<BadFile> findings = check(file);
            findings.forEach(f -> out.println(f.getMessage()));
            if (findings.isEmpty()) {
                out.println(file + ": no problems found");
            }
            wrong += findings.size();
        }
        out.flush();
        return wrong == 0 ? 0 : 1;
    }

    private static List<BadFile> check(Path file) {
        try {
            return CardLibrary.check(file, Files.readString(file));
        } catch (IOException e) {
            return List.of(new BadFile(file, 0, 0, "cannot be read as text"));
        }
    }
}
