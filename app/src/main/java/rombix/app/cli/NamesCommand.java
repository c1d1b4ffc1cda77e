package rombix.app.cli;

import java.io.PrintWriter;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import rombix.app.cli.option.BadCall;
import rombix.app.view.common.Icons;
import rombix.core.computer.Keys;
import rombix.core.computer.Place;

/** Lists the names used in board files. */
@Command(name = "names", mixinStandardHelpOptions = true, description = {
        "Lists the names that a board file can use: keys, icons and pointer positions.",
        "Exit code: 0 found, 1 nothing found, 2 usage error."})
final class NamesCommand implements Callable<Integer> {
    private static final int MOST = 200;

    @Parameters(index = "0", paramLabel = "KIND", description = "Which names: keys, icons or places.")
    private String kind = "";

    @Parameters(index = "1..*", arity = "0..*", paramLabel = "WORD", description = "Only names that contain all of these words.")
    private List<String> words = List.of();

    @Spec
    private CommandSpec spec = CommandSpec.create();

    @Override
    public Integer call() throws BadCall {
        PrintWriter out = spec.commandLine().getOut();
        int found = switch (kind) {
            case "keys" -> keys(out);
            case "icons" -> icons(out);
            case "places" -> places(out);
            default -> throw new BadCall("“" + kind + "” is not one of keys, icons, places");
        };
        out.flush();
        return found > 0 ? 0 : 1;
    }

    private boolean wanted(String text) {
        String name = text.toLowerCase(Locale.ROOT);
        return words.stream().allMatch(w -> name.contains(w.toLowerCase(Locale.ROOT)));
    }

    private int keys(PrintWriter out) {
        int found = 0;
        for (Map.Entry<String, List<String>> group : Keys.grouped().entrySet()) {
            List<String> keys = wanted(group.getKey())
                    ? group.getValue()
                    : group.getValue().stream().filter(this::wanted).toList();
            if (!keys.isEmpty()) {
                out.printf("%-10s %s%n", group.getKey(), String.join(", ", keys));
            }
            found += keys.size();
        }
        return found;
    }

    private int icons(PrintWriter out) {
        List<String> icons = Icons.find(String.join(" ", words), MOST);
        icons.forEach(out::println);
        if (icons.size() == MOST) {
            out.println("… and more: narrow it down with another word");
        }
        return icons.size();
    }

    private int places(PrintWriter out) {
        List<Place.Form> forms = Place.FORMS.stream().filter(f -> wanted(f.example() + " " + f.meaning())).toList();
        forms.forEach(f -> out.printf("%s%n    %s%n", f.example(), f.meaning()));
        return forms.size();
    }
}
