package rombix.running.owner;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import rombix.links.link.Keyring;

/** Gives links the secrets and certificates of this user. */
public record ThisComputer(Secrets secrets, Certificates certificates) implements Keyring {
    private static final Logger LOG = LoggerFactory.getLogger(ThisComputer.class);

    public ThisComputer() {
        this(new Secrets(), new Certificates());
    }

    @Override
    public Optional<String> secret(String name) {
        return secrets.take(name);
    }

    @Override
    public Optional<String> firstSeen(String address) {
        return certificates.firstSeen(address);
    }

    @Override
    public @Nullable Path kept(String name) {
        return Settings.usual().resolveSibling(name);
    }

    @Override
    public void seen(String address, String fingerprint) {
        try {
            certificates.seen(address, fingerprint);
        } catch (IOException e) {
            LOG.warn("the certificate of {} can't be remembered: {}", address, e.getMessage());
        }
    }
}
