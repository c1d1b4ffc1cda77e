package rombix.running.log;

import static org.assertj.core.api.Assertions.assertThat;

import ch.qos.logback.classic.Level;
import ch.qos.logback.classic.LoggerContext;
import ch.qos.logback.classic.spi.Configurator;
import ch.qos.logback.classic.spi.ILoggingEvent;
import ch.qos.logback.classic.spi.LoggingEvent;
import ch.qos.logback.core.ConsoleAppender;
import java.nio.charset.StandardCharsets;
import java.util.ServiceLoader;
import org.junit.jupiter.api.Test;

/** Rombix's own log. */
class ProcessLogTest {
    private final LoggerContext context = new LoggerContext();

    private boolean logged(String name, Level level) {
        return context.getLogger(name).isEnabledFor(level);
    }

    @Test
    void itsLinesAreCleanAndLibrariesAreQuiet() {
        ProcessLog.set(context);
        assertThat(logged("rombix.running.Player", Level.INFO)).isTrue();
        assertThat(logged("org.some.Library", Level.INFO)).isFalse();
        assertThat(logged("org.some.Library", Level.WARN)).isTrue();
        assertThat(logged("io.netty.Bell", Level.WARN)).isFalse();
        ConsoleAppender<ILoggingEvent> console = (ConsoleAppender<ILoggingEvent>) context.getLogger("ROOT")
                .iteratorForAppenders().next();
        assertThat(console.getTarget()).isEqualTo("System.err");
        LoggingEvent event = new LoggingEvent("", context.getLogger("rombix.running.Player"), Level.INFO,
                "bell \u001b[2J", null, new Object[0]);
        assertThat(new String(console.getEncoder().encode(event), StandardCharsets.UTF_8)).contains(
                "INFO  Player: bell ").doesNotContain("\u001b").endsWith(System.lineSeparator());
    }

    /** A malformed packet of somebody in the network wrote a stack trace for each of its listeners. */
    @Test
    void packetsOfOthersThatCannotBeReadAreNotToldInTheTerminal() {
        ProcessLog.set(context);
        assertThat(logged("javax.jmdns.impl.SocketListener", Level.ERROR)).isFalse();
        assertThat(logged("rombix", Level.ERROR)).isTrue();
    }

    @Test
    void itIsFoundWhereNoFileIsNamed() {
        assertThat(ServiceLoader.load(Configurator.class)).hasOnlyElementsOfType(ProcessLog.class).isNotEmpty();
    }
}
