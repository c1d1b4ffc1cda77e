package rombix.app.cli.open;

import java.io.IOException;
import java.net.InetAddress;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import rombix.app.cli.option.BadCall;
import rombix.app.cli.option.WebOptions;
import rombix.web.BrowserPages;
import rombix.web.WebServer;
import rombix.web.access.Invitations.Invitation;
import rombix.web.access.Right;

/** Pages in a browser, as the command line asks for them or as they were on before. */
final class PagesOn {
    private PagesOn() {
    }

    /** Turns them on where they are to be. @return what the owner should know, with a code for the first device */
    static List<String> begin(BrowserPages pages, WebOptions wanted) throws BadCall {
        Optional<InetAddress> asked = wanted.at();
        Optional<InetAddress> at = asked.or(pages::remembered);
        if (at.isEmpty()) {
            return List.of();
        }
        try {
            pages.on(at.get());
        } catch (IOException e) {
            return List.of(String.valueOf(e.getMessage()));
        }
        List<String> lines = new ArrayList<>();
        WebServer server = pages.server().orElseThrow();
        lines.add("Pages in a browser: " + server.address());
        server.fingerprint().ifPresent(f -> lines.add("Certificate (SHA-256): " + f));
        if (asked.isPresent()) {
            Invitation code = server.invitations().open(Set.of(), Set.of(Right.PRESS, Right.STOP_ALL));
            lines.add("Code: " + code.code() + " (for one device, valid for 2 minutes)");
        }
        return lines;
    }
}
