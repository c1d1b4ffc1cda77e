package rombix.app.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
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
import rombix.core.card.Card;
import rombix.core.card.Protocol;
import rombix.core.listen.CardMaking;
import rombix.core.store.BadFile;
import rombix.core.store.BoardFile;
import rombix.core.store.CardLibrary;
import rombix.core.store.CardRows.Row;
import rombix.core.store.CardRows;
import rombix.core.store.StepExample;
import tools.jackson.databind.json.JsonMapper;

/** What can be done with cards. */
@Command(name = "cards", mixinStandardHelpOptions = true, description = {
        "Creates, shows and checks cards. check FILE…: one finding per line, with its place and what was expected.",
        "show CARD: the readings and commands of a built-in card or of one in a file, each command also as a step in a board file. new FILE: an empty card; in the window, custom gear gets its card by listening (Alt+B).",
        "Exit code: 0 done or no findings, 1 findings, 2 usage error."})
final class CardsCommand implements Callable<Integer> {
    private static final String ENDING = "\\.json$";

    @Parameters(index = "0", paramLabel = "WHAT", description = "The action: check, show or new.")
    private String what = "";

    @Parameters(index = "1..*", arity = "1..*", paramLabel = "FILE", description = "Card files; for show also the id of a built-in card.")
    private List<Path> files = List.of();

    @Option(names = "--title", paramLabel = "TITLE", description = "The card's title, for new.")
    private @Nullable String title;

    @Option(names = "--json", description = "One JSON object per line.")
    private boolean json;

    @Spec
    private CommandSpec spec = CommandSpec.create();

    @Override
    public Integer call() throws BadCall, BadFile {
        PrintWriter out = spec.commandLine().getOut();
        int code = 0;
        for (Path file : files) {
            code = Math.max(code, switch (what) {
                case "check" -> checked(file, out);
                case "show" -> shown(file, out);
                case "new" -> made(file, out);
                default -> throw new BadCall("“" + what + "” is not one of check, show, new");
            });
        }
        out.flush();
        return code;
    }

    private int checked(Path file, PrintWriter out) {
        List<BadFile> findings = check(file);
        for (BadFile f : findings) {
            out.println(json
                    ? line(Map.of("file", file.toString(), "line", f.line(), "column", f.column(), "message", f
                            .reason()))
                    : f.getMessage());
        }
        if (findings.isEmpty() && !json) {
            out.println(file + ": no problems found");
        }
        return findings.isEmpty() ? 0 : 1;
    }

    private static List<BadFile> check(Path file) {
        try {
            return CardLibrary.check(file, Files.readString(file));
        } catch (IOException e) {
            return List.of(new BadFile(file, 0, 0, "can't be read as text"));
        }
    }

    private int shown(Path named, PrintWriter out) throws BadCall, BadFile {
        Card card = CardLibrary.shipped().get(named.toString());
        if (card == null) {
            try {
                card = CardLibrary.read(named, Files.readString(named));
            } catch (IOException e) {
                throw new BadCall("“" + named + "” is neither a built-in card nor a readable file");
            }
        }
        Card shown = card;
        for (Protocol protocol : shown.protocols()) {
            if (!json) {
                out.println(card.title() + ", " + protocol.title());
            }
            for (Row row : CardRows.of(card, protocol)) {
                if (json) {
                    Map<String, Object> all = new LinkedHashMap<>();
                    all.put("card", card.id());
                    all.put("protocol", protocol.id());
                    all.put("kind", row.command() ? "command" : "reading");
                    all.put("id", row.id());
                    all.put("title", row.title());
                    all.put("wire", row.wire());
                    shown.command(row.id()).filter(_ -> row.command()).ifPresent(c -> all.put("step", StepExample.of(
                            shown, c, "GEAR")));
                    out.println(line(all));
                } else {
                    out.printf("  %-8s %-34s %s%n", row.command() ? "command" : "reading", row.title(), row.wire());
                    shown.command(row.id()).filter(_ -> row.command()).ifPresentOrElse(c -> out.printf(
                            "           %s%n", StepExample.of(shown, c, "GEAR")),
                            () -> out.printf("           %s%n",
                                    row.id()));
                }
            }
        }
        return 0;
    }

    private static String line(Map<String, ?> fields) {
        return JsonMapper.builder().build().writeValueAsString(fields);
    }

    private int made(Path file, PrintWriter out) throws BadCall {
        String id = String.valueOf(file.getFileName()).replaceFirst(ENDING, "");
        if (Files.exists(file)) {
            throw new BadCall("“" + file + "” already exists");
        }
        try {
            Path folder = file.toAbsolutePath().getParent();
            if (folder != null) {
                Files.createDirectories(folder);
            }
            BoardFile.make(file, CardLibrary.format(CardMaking.empty(id, title == null ? id : title)));
            out.println(file + ": empty card written");
        } catch (IOException e) {
            throw new BadCall("“" + file + "” can't be written: " + e.getMessage());
        }
        return 0;
    }
}
