package rombix.app;

import java.io.File;
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
        if (given.length == 1 && (given[0].equals("--version") || given[0].equals("-V"))) {
            System.out.println(RombixCommand.VERSION); // The library for command lines would take longer to load than to say it.
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

    /** A bundle alone is opened: so a desktop calls the program as somebody double-clicks one. */
    static String[] commanded(String[] args) {
        return args.length == 1 && args[0].endsWith(Bundle.END) && new File(args[0]).exists()
                ? new String[]{"open", args[0]}
                : args;
    }
}
