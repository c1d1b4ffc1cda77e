package rombix.app;

import rombix.app.cli.RombixCommand;

/** Where Rombix starts. Not a JavaFX Application, so that it runs from the class path. */
public final class Main {
    private Main() {
    }

    public static void main(String[] args) {
        System.exit(RombixCommand.line(args).execute(args));
    }
}
