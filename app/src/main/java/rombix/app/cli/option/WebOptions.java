package rombix.app.cli.option;

import java.net.InetAddress;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Option;

/** Whether pages are shown in browsers, and at which address. */
public final class WebOptions {
    @Option(names = "--web", description = "Show pages in a browser on a phone, tablet or other computer.")
    private boolean web;

    @Option(names = "--on", paramLabel = "ADDRESS", description = "With --web: this computer's address in the network to use. Without it, only browsers on this computer can connect.")
    private @Nullable String on;

    /** Where; empty where no pages are shown. */
    public Optional<InetAddress> at() throws BadCall {
        if (!web) {
            if (on != null) {
                throw new BadCall("--on needs --web");
            }
            return Optional.empty();
        }
        try {
            return Optional.of(on == null ? InetAddress.getLoopbackAddress() : InetAddress.ofLiteral(on));
        } catch (IllegalArgumentException e) {
            throw new BadCall("--on " + on + ": not a numeric address such as 192.168.1.20");
        }
    }
}
