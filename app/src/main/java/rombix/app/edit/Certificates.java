package rombix.app.edit;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Optional;

/** The certificates that were seen first, by HOST:PORT: their fingerprints. Safe to use from any thread. */
public final class Certificates {
    private final NamedLines lines;

    /** Those that this user's gear has shown. */
    public Certificates() {
        lines = new NamedLines(OwnersFile.beside("certificates"));
    }

    public Certificates(Path file) {
        lines = new NamedLines(new OwnersFile(file));
    }

    public Optional<String> firstSeen(String address) {
        return lines.get(address);
    }

    public void seen(String address, String fingerprint) throws IOException {
        lines.set(address, fingerprint);
    }

    /** The next one that is shown there is the first again. */
    public void forget(String address) throws IOException {
        lines.set(address, null);
    }
}
