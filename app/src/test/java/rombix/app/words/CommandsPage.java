package rombix.app.words;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import picocli.CommandLine;
import picocli.CommandLine.Help.Ansi;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.PositionalParamSpec;
import rombix.app.cli.RombixCommand;

/** What is written down of the command line, made from the commands themselves. Run it to write it anew. */
public final class CommandsPage {
    /** The page of the guide. */
    static final Path PAGE = Path.of("../docs/guide/commands.md");
    /** What {@code --help} says at once. */
    static final Path HELP = Path.of("src/main/resources/rombix/app/help.txt");

    private CommandsPage() {
    }

    public static void main(String[] args) throws IOException {
        Files.writeString(PAGE, text());
        Files.writeString(HELP, help());
    }

    static String help() {
        return RombixCommand.line().getUsageMessage(Ansi.OFF).replace(System.lineSeparator(), "\n");
    }

    /** The page in Markdown. */
    static String text() {
        StringBuilder page = new StringBuilder("""
                # Command line

                [Back to the guide](../guide.md)

                This page is made from the commands' own help; `./rombix COMMAND --help` prints the same.

                """);
        CommandLine line = RombixCommand.line();
        List<Map.Entry<String, CommandLine>> all = line.getSubcommands().entrySet().stream().filter(e -> !e.getValue()
                .getCommandSpec().usageMessage().hidden()).sorted(Map.Entry.comparingByKey()).toList();
        all.forEach(
                e -> command(RombixCommand.line(e.getKey()).getSubcommands().get(e.getKey()).getCommandSpec(), page));
        return page.toString().stripTrailing() + "\n";
    }

    private static void command(CommandSpec spec, StringBuilder page) {
        page.append("## ").append(spec.name()).append("\n\n");
        page.append("    ./").append(synopsis(spec)).append("\n\n");
        for (String paragraph : spec.usageMessage().description()) {
            page.append(plain(paragraph)).append("\n\n");
        }
        List<String> rows = new ArrayList<>();
        for (PositionalParamSpec p : spec.positionalParameters()) {
            rows.add(row("`" + p.paramLabel() + "`", p.description()));
        }
        for (OptionSpec o : spec.options()) {
            if (!o.hidden() && !o.usageHelp() && !o.versionHelp()) {
                String names = String.join(", ", o.names());
                rows.add(row("`" + names + (o.arity().max() > 0 ? " " + o.paramLabel() : "") + "`", o.description()));
            }
        }
        if (!rows.isEmpty()) {
            page.append("| argument | meaning |\n|---|---|\n");
            rows.forEach(page::append);
            page.append("\n");
        }
    }

    private static String synopsis(CommandSpec spec) {
        return spec.commandLine().getHelp().synopsis(0).replaceAll("\\s*\\R\\s*", " ").replace("[-hV] ", "")
                .replace("[-h] ",
                        "")
                .strip();
    }

    private static String row(String name, String[] description) {
        return "| " + name.replace("|", "\\|") + " | "
                + plain(String.join(" ", Arrays.asList(description))).replace("|",
                        "\\|")
                + " |\n";
    }

    private static String plain(String text) {
        return Ansi.OFF.string(text.replace("%n", " ").replace("%%", "%")).strip();
    }
}
