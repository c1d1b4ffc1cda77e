package rombix.running.log;

import ch.qos.logback.classic.Level;
import ch.qos.logback.classic.Logger;
import ch.qos.logback.classic.LoggerContext;
import ch.qos.logback.classic.spi.Configurator;
import ch.qos.logback.classic.spi.ILoggingEvent;
import ch.qos.logback.core.ConsoleAppender;
import ch.qos.logback.core.encoder.LayoutWrappingEncoder;
import ch.qos.logback.core.spi.ContextAwareBase;
import java.util.Map;

/**
 * Where Rombix's own log goes: its lines to the error output, and of libraries only what matters. Set up here and not by
 * a file, because reading one takes longer than many a command. A file that is named by {@code logback.configurationFile}
 * takes its place.
 */
public final class ProcessLog extends ContextAwareBase implements Configurator {
    private static final String PATTERN = "%d{HH:mm:ss.SSS} %-5level %logger{0}: %msg%n";
    private static final Map<String, Level> LEVELS = Map.of(Logger.ROOT_LOGGER_NAME, Level.WARN, "rombix", Level.INFO,
            "io.moquette", Level.ERROR, "io.netty", Level.ERROR, "com.hivemq", Level.ERROR,
            "org.apache.fontbox", Level.ERROR, // It warns of an empty table in the font of the icons.
            "javax.jmdns", Level.OFF); // It tells of packets of others that it can't read, with stack traces.

    @Override
    public ExecutionStatus configure(LoggerContext of) {
        if (System.getProperty("logback.configurationFile") != null) {
            return ExecutionStatus.INVOKE_NEXT_IF_ANY;
        }
        set(of);
        return ExecutionStatus.DO_NOT_INVOKE_NEXT_IF_ANY;
    }

    static void set(LoggerContext of) {
        CleanLayout layout = new CleanLayout();
        layout.setContext(of);
        layout.setPattern(PATTERN);
        layout.start();
        LayoutWrappingEncoder<ILoggingEvent> encoder = new LayoutWrappingEncoder<>();
        encoder.setContext(of);
        encoder.setLayout(layout);
        encoder.start();
        ConsoleAppender<ILoggingEvent> console = new ConsoleAppender<>();
        console.setContext(of);
        console.setTarget("System.err");
        console.setEncoder(encoder);
        console.start();
        LEVELS.forEach((name, level) -> of.getLogger(name).setLevel(level));
        of.getLogger(Logger.ROOT_LOGGER_NAME).addAppender(console);
    }
}
