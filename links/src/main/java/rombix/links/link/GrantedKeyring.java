package rombix.links.link;

import java.nio.file.Path;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rombix.core.trust.Grants;

/** A keyring of which a board may use only what it was granted. */
public record GrantedKeyring(Keyring all, Grants grants) implements Keyring {
    @Override
    public boolean mayTell(String name) {
        return grants.tell(name);
    }

    @Override
    public Optional<String> secret(String name) {
        return all.secret(name);
    }

    @Override
    public Optional<String> firstSeen(String address) {
        return all.firstSeen(address);
    }

    @Override
    public void seen(String address, String fingerprint) {
        all.seen(address, fingerprint);
    }

    @Override
    public @Nullable Path kept(String name) {
        return all.kept(name);
    }
}
