package rombix.app.cli;

import java.io.PrintWriter;
import java.net.BindException;
import java.util.Arrays;
import java.util.Locale;
import org.slf4j.LoggerFactory;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.ITypeConverter;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParseResult;
import picocli.CommandLine.Spec;
import rombix.core.chain.Gesture;
import rombix.core.store.BadFile;

/** The command {@code rombix}. */
@Command(name = "rombix", mixinStandardHelpOptions = true, version = "Rombix 0.1.0", description = {
        "A desktop control deck: a grid of buttons, one press for the whole chain."}, subcommands = {DemoCommand.class,
                OpenCommand.class, PressCommand.class, ForecastCommand.class, OppositeCommand.class, CheckCommand.class,
                StandInsCommand.class, LogCommand.class, PictureCommand.class})
public final class RombixCommand implements Runnable {
    /** The exit code for a bad call or a bad file. */
    static final int BAD_CALL = CommandLine.ExitCode.USAGE;

    @Spec
    private CommandSpec spec = CommandSpec.create();

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

    /** A call that cannot be carried out; the message says why. */
    static final class BadCall extends Exception {
        private static final long serialVersionUID = 1L;

        BadCall(String message) {
            super(message);
        }
    }

    /** A gesture as files write it. */
    static final class GestureName implements ITypeConverter<Gesture> {
        @Override
        public Gesture convert(String text) {
            for (Gesture g : Gesture.values()) {
                if (g.id().equals(text)) {
                    return g;
                }
            }
            throw new CommandLine.TypeConversionException("expected one of %s, not %s".formatted(String.join(", ",
                    Arrays.stream(Gesture.values()).map(Gesture::id).toList()), text));
        }
    }

    /** A length of time such as {@code 20s}, {@code 500ms}, {@code 2min}; a bare number is seconds. In milliseconds. */
    static final class Span implements ITypeConverter<Long> {
        @Override
        public Long convert(String text) {
            java.util.regex.Matcher m = java.util.regex.Pattern.compile("(\\d+(?:\\.\\d+)?)\\s*(ms|s|min|h)?")
                    .matcher(text.strip().toLowerCase(Locale.ROOT));
            if (!m.matches()) {
                throw new CommandLine.TypeConversionException("expected a time such as 20s or 2min, not " + text);
            }
            String unit = m.group(2) == null ? "s" : m.group(2);
            double factor = switch (unit) {
                case "ms" -> 1;
                case "min" -> 60_000;
                case "h" -> 3_600_000;
                default -> 1000;
            };
            return Math.round(Double.parseDouble(m.group(1)) * factor);
        }
    }
}
