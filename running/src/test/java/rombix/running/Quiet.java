package rombix.running;

import ch.qos.logback.classic.Level;
import ch.qos.logback.classic.Logger;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.slf4j.LoggerFactory;

/** Keeps errors of a class out of the log that tests provoke, until it is closed. Tests may do so side by side. */
public final class Quiet implements AutoCloseable {
    private static final Map<Logger, Integer> WANTED = new ConcurrentHashMap<>();
    private final Logger logger;

    public Quiet(Class<?> about) {
        logger = (Logger) LoggerFactory.getLogger(about);
        WANTED.merge(logger, 1, Integer::sum);
        logger.setLevel(Level.OFF);
    }

    @Override
    public void close() {
        WANTED.computeIfPresent(logger, (l, n) -> {
            if (n == 1) {
                l.setLevel(null);
            }
            return n == 1 ? null : n - 1;
        });
    }
}
