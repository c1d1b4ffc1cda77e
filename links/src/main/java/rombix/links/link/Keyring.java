package rombix.links.link;

import java.nio.file.Path;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** What this computer keeps for its gear, apart from all boards. Safe to use from any thread. */
public interface Keyring {
    /** The secret with a name; empty where there is none here. */
    Optional<String> secret(String name);

    /** The fingerprint of the certificate that was first seen at HOST:PORT; empty where none was. */
    Optional<String> firstSeen(String address);

    /** Keeps the certificate that was seen first. */
    void seen(String address, String fingerprint);

    /** The file in which a link keeps what must outlive it, its owner's alone; null where nothing is kept. */
    default @Nullable Path kept(String name) {
        return null;
    }

    /** Keeps nothing. */
    Keyring NONE = new Keyring() {
        @Override
        public Optional<String> secret(String name) {
            return Optional.empty();
        }

        @Override
        public Optional<String> firstSeen(String address) {
            return Optional.empty();
        }

        @Override
        public void seen(String address, String fingerprint) {
            // It is seen for the first time again.
        }
    };
}
