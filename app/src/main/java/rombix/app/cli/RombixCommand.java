package rombix.app.cli;

import java.io.PrintWriter;
import java.net.BindException;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.Callable;
import java.util.function.Function;
import org.slf4j.LoggerFactory;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Help;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParseResult;
import picocli.CommandLine.Spec;
import rombix.app.cli.look.CheckCommand;
import rombix.app.cli.look.ForecastCommand;
import rombix.app.cli.look.OppositeCommand;
import rombix.app.cli.look.TrafficCommand;
import rombix.app.cli.look.WhyCommand;
import rombix.app.cli.open.Begin;
import rombix.app.cli.open.DemoCommand;
import rombix.app.cli.open.OpenCommand;
import rombix.app.cli.open.StandInsCommand;
import rombix.app.cli.option.BadCall;
import rombix.app.cli.play.Playing;
import rombix.app.cli.play.PressCommand;
import rombix.app.cli.play.ReadCommand;
import rombix.app.cli.play.ReleaseCommand;
import rombix.app.cli.play.SetCommand;
import rombix.app.cli.play.ShowCommand;
import rombix.app.cli.play.DevicesCommand;
import rombix.app.cli.play.StatusCommand;
import rombix.app.cli.play.StopCommand;
import rombix.app.cli.play.TurnCommand;
import rombix.app.cli.share.BundleCommand;
import rombix.app.cli.share.DiffCommand;
import rombix.app.cli.share.MergeCommand;
import rombix.app.cli.share.PartCommand;
import rombix.app.cli.share.PasteCommand;
import rombix.app.cli.share.PrintCommand;
import rombix.app.cli.share.UnpackCommand;
import rombix.app.show.Display;
import rombix.core.store.BadFile;
import rombix.running.owner.Settings;

/** The command {@code rombix}. */
@Command(name = "rombix", mixinStandardHelpOptions = true, version = RombixCommand.VERSION, description = {
        "A desktop control deck: a grid of buttons, one press for the whole chain.",
        "Without arguments it opens the board that was open last."})
public final class RombixCommand implements Callable<Integer> {
    /** What {@code --version} says. */
    public static final String VERSION = "Rombix 0.1.0";
    /** Without colours: control characters that are printed are made visible. */
    private static final Help.ColorScheme PLAIN = Help.defaultColorScheme(Help.Ansi.OFF);
    /** As a shell has it of a command that was interrupted. */
    private static final int INTERRUPTED = 130;
    /** The exit code for a bad call or a bad file. */
    static final int BAD_CALL = CommandLine.ExitCode.USAGE;

    /** A command, and how it is made where it is asked for. */
    private record Entry(Class<? extends Callable<Integer>> type, Function<Playing.Stage, Callable<Integer>> make) {
    }

    private static final List<Entry> COMMANDS = List.of(
            new Entry(DemoCommand.class, _ -> new DemoCommand(RombixCommand::line)),
            new Entry(OpenCommand.class, _ -> new OpenCommand(RombixCommand::line)),
            new Entry(PressCommand.class, PressCommand::new), new Entry(ReleaseCommand.class, ReleaseCommand::new),
            new Entry(TurnCommand.class, TurnCommand::new), new Entry(StatusCommand.class, StatusCommand::new),
            new Entry(DevicesCommand.class, DevicesCommand::new),
            new Entry(ReadCommand.class, ReadCommand::new),
            new Entry(TrafficCommand.class, TrafficCommand::new), new Entry(WhyCommand.class, WhyCommand::new),
            new Entry(SetCommand.class, SetCommand::new), new Entry(StopCommand.class, StopCommand::new),
            new Entry(ShowCommand.class, ShowCommand::new),
            new Entry(ForecastCommand.class, ForecastCommand::new),
            new Entry(OppositeCommand.class, OppositeCommand::new),
            new Entry(CheckCommand.class, CheckCommand::new),
            new Entry(BundleCommand.class, _ -> new BundleCommand()), new Entry(UnpackCommand.class,
                    _ -> new UnpackCommand()),
            new Entry(PartCommand.class, _ -> new PartCommand()), new Entry(PasteCommand.class,
                    _ -> new PasteCommand()),
            new Entry(PrintCommand.class, _ -> new PrintCommand()),
            new Entry(DiffCommand.class, _ -> new DiffCommand()),
            new Entry(MergeCommand.class, _ -> new MergeCommand()),
            new Entry(CardsCommand.class, _ -> new CardsCommand()),
            new Entry(NamesCommand.class, _ -> new NamesCommand()),
            new Entry(DiscoverCommand.class, _ -> new DiscoverCommand()),
            new Entry(StandInsCommand.class, _ -> new StandInsCommand()),
            new Entry(SecretsCommand.class, _ -> new SecretsCommand()),
            new Entry(SendersCommand.class, _ -> new SendersCommand()),
            new Entry(LogCommand.class, _ -> new LogCommand()), new Entry(PictureCommand.class,
                    _ -> new PictureCommand()),
            new Entry(WarmUpCommand.class, _ -> new WarmUpCommand(RombixCommand::line)));

    @Spec
    private CommandSpec spec = CommandSpec.create();

    /** The command line, ready for these arguments: of all commands only the one that is asked for is looked into. */
    public static CommandLine line(String... args) {
        return line(Playing.ALONE, args);
    }

    /** @param stage gives those commands that press something their board in play */
    public static CommandLine line(Playing.Stage stage, String... args) {
        CommandLine line = new CommandLine(new RombixCommand());
        for (Entry c : COMMANDS) {
            Command about = Objects.requireNonNull(c.type().getAnnotation(Command.class));
            if (args.length > 0 && args[0].equals(about.name())) {
                line.addSubcommand(about.name(), c.make().apply(stage));
            } else {
                CommandSpec named = CommandSpec.create().name(about.name());
                named.usageMessage().description(about.description()).hidden(about.hidden());
                line.addSubcommand(about.name(), named);
            }
        }
        return line.setColorScheme(PLAIN).setCaseInsensitiveEnumValuesAllowed(true)
                .setExecutionExceptionHandler(RombixCommand::explain);
    }

    @Override
    public Integer call() throws Exception {
        if (Display.available()) {
            return Begin.run(RombixCommand::line, new Settings());
        }
        spec.commandLine().usage(spec.commandLine().getOut());
        return 0;
    }

    /** What went wrong, in one line, without a stack trace. */
    public static int explain(Exception e, CommandLine command, ParseResult parsed) {
        PrintWriter err = command.getErr();
        switch (e) {
            case BadFile _,BadCall _ -> err.println(e.getMessage());
            case InterruptedException _ -> {
                return INTERRUPTED; // Somebody meant it to end: there is nothing to say.
            }
            case BindException b -> err.println("A port that the stand-ins need is in use (" + b.getMessage()
                    + "). If another Rombix runs them, stop it, or use --stand-ins, which picks free ports.");
            default -> {
                LoggerFactory.getLogger(RombixCommand.class).error("{} failed", command.getCommandName(), e);
                err.println("Rombix had to stop: " + e);
            }
        }
        err.flush();
        return e instanceof BadFile || e instanceof BadCall ? BAD_CALL : CommandLine.ExitCode.SOFTWARE;
    }
}
