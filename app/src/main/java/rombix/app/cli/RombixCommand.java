package rombix.app.cli;

import java.io.PrintWriter;
import java.net.BindException;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.Callable;
import org.slf4j.LoggerFactory;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParseResult;
import picocli.CommandLine.Spec;
import rombix.core.store.BadFile;

/** The command {@code rombix}. */
@Command(name = "rombix", mixinStandardHelpOptions = true, version = "Rombix 0.1.0", description = {
        "A desktop control deck: a grid of buttons, one press for the whole chain."})
public final class RombixCommand implements Runnable {
    /** The exit code for a bad call or a bad file. */
    static final int BAD_CALL = CommandLine.ExitCode.USAGE;

    private static final List<Class<? extends Callable<Integer>>> COMMANDS = List.of(DemoCommand.class,
            OpenCommand.class, PressCommand.class, ForecastCommand.class, OppositeCommand.class, CheckCommand.class,
            StandInsCommand.class, LogCommand.class, PictureCommand.class, WarmUpCommand.class);

    @Spec
    private CommandSpec spec = CommandSpec.create();

    /** The command line, ready for these arguments: of all commands only the one that is asked for is looked into. */
    public static CommandLine line(String... args) {
        CommandLine line = new CommandLine(new RombixCommand());
        for (Class<?> c : COMMANDS) {
            Command about = Objects.requireNonNull(c.getAnnotation(Command.class));
            if (args.length > 0 && args[0].equals(about.name())) {
                line.addSubcommand(about.name(), c);
            } else {
                CommandSpec named = CommandSpec.create().name(about.name());
                named.usageMessage().description(about.description()).hidden(about.hidden());
                line.addSubcommand(about.name(), named);
            }
        }
        return line.setCaseInsensitiveEnumValuesAllowed(true).setExecutionExceptionHandler(RombixCommand::explain);
    }

    @Override
    public void run() {
        spec.commandLine().usage(spec.commandLine().getOut());
    }

    /** What went wrong, in one line, without a stack trace. */
    public static int explain(Exception e, CommandLine command, ParseResult parsed) {
        PrintWriter err = command.getErr();
        switch (e) {
            case BadFile _,BadCall _ -> err.println(e.getMessage());
            case BindException b -> err.println("A port that the stand-ins need is taken (" + b.getMessage()
                    + "). Are they running already? Stop the other, or use --stand-ins, which takes free ports.");
            default -> {
                LoggerFactory.getLogger(RombixCommand.class).error("{} failed", command.getCommandName(), e);
                err.println("Rombix could not go on: " + e);
            }
        }
        err.flush();
        return e instanceof BadFile || e instanceof BadCall ? BAD_CALL : CommandLine.ExitCode.SOFTWARE;
    }
}
