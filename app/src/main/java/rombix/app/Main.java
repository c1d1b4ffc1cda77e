package rombix.app;

import picocli.CommandLine;
import rombix.app.cli.RombixCommand;

/** Where Rombix starts. Not a JavaFX Application, so that it runs from the class path. */
public final class Main {
    private Main() {
    }

    public static void main(String[] args) {
        int code = new CommandLine(new RombixCommand()).setCaseInsensitiveEnumValuesAllowed(true)
                .setExecutionExceptionHandler(RombixCommand::explain).execute(args);
        System.exit(code);
    }
}
