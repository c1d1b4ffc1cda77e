package rombix.running.owner;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Optional;
import rombix.links.link.Keyring;

/** The certificates that were seen first, by HOST:PORT: their fingerprints. Safe to use from any thread. */
public final class Certificates {
    /** The next one may be trusted: somebody said so. */
    private static final String ANEW = "anew";

    private final NamedLines lines;

    /** Those that this user's gear has shown. */
    public Certificates() {
        lines = new NamedLines(OwnersFile.beside("certificates"));
    }

    public Certificates(Path file) {
        lines = new NamedLines(new OwnersFile(file));
    }

    /**
     * The one that was seen first; {@link Keyring#UNREADABLE} where one may have been, but the file is damaged: then none
     * is trusted anew without being asked.
     */
    public Optional<String> firstSeen(String address) {
        boolean damaged = lines.damaged();
        String known = lines.get(address).orElse(damaged ? Keyring.UNREADABLE : ANEW);
        return known.equals(ANEW) ? Optional.empty() : Optional.of(known);
    }

    public void seen(String address, String fingerprint) throws IOException {
        lines.set(address, fingerprint);
    }

    /** The next one that is shown there is the first again. */
    public void forget(String address) throws IOException {
        lines.set(address, lines.damaged() ? ANEW : null);
    }
}
