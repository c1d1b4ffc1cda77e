package rombix.app;

import java.io.File;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import java.util.OptionalInt;
import rombix.app.cli.RombixCommand;
import rombix.core.bundle.Bundle;
import rombix.running.shell.Caller;
import rombix.running.shell.NativeParts;
import rombix.running.shell.TerminalText;

/** Where Rombix starts. Not a JavaFX Application, so that it runs from the class path. */
public final class Main {
    private Main() {
    }

    public static void main(String[] given) {
        Optional<String> known = known(given);
        if (known.isPresent()) {
            System.out.print(known.get());
            return;
        }
        String[] args = commanded(given);
        TerminalText.guard();
        OptionalInt elsewhere = Caller.call(args, System.out, System.err);
        if (elsewhere.isEmpty()) {
            NativeParts.prepare();
        }
        System.exit(elsewhere.isPresent() ? elsewhere.getAsInt() : RombixCommand.line(args).execute(args));
    }

    /** What is said to anyone who asks: the library for command lines would take longer to load than to say it. */
    static Optional<String> known(String[] args) {
        return switch (args.length == 1 ? args[0] : "") {
            case "--version", "-V" -> Optional.of(RombixCommand.VERSION + System.lineSeparator());
            case "--help", "-h" -> help();
            default -> Optional.empty();
        };
    }

    private static Optional<String> help() {
        try (InputStream text = Main.class.getResourceAsStream("help.txt")) {
            return text == null
                    ? Optional.empty()
                    : Optional.of(new String(text.readAllBytes(), StandardCharsets.UTF_8));
        } catch (IOException e) {
            return Optional.empty(); // The command says it itself.
        }
    }

    /** A bundle alone is opened: so a desktop calls the program as somebody double-clicks one. */
    static String[] commanded(String[] args) {
        return args.length == 1 && args[0].endsWith(Bundle.END) && new File(args[0]).exists()
                ? new String[]{"open", args[0]}
                : args;
    }
}
