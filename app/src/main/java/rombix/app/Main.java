package rombix.app;

import java.util.OptionalInt;
import rombix.app.cli.RombixCommand;
import rombix.running.shell.Caller;
import rombix.running.shell.NativeParts;
import rombix.running.shell.TerminalText;

/** Where Rombix starts. Not a JavaFX Application, so that it runs from the class path. */
public final class Main {
    private Main() {
    }

    public static void main(String[] args) {
        if (args.length == 1 && (args[0].equals("--version") || args[0].equals("-V"))) {
            System.out.println(RombixCommand.VERSION); // The library for command lines would take longer to load than to say it.
            return;
        }
        TerminalText.guard();
        OptionalInt elsewhere = Caller.call(args, System.out, System.err);
        if (elsewhere.isEmpty()) {
            NativeParts.prepare();
        }
        System.exit(elsewhere.isPresent() ? elsewhere.getAsInt() : RombixCommand.line(args).execute(args));
    }
}
