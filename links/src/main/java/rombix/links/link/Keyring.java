package rombix.links.link;

import java.nio.file.Path;
import java.util.Optional;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import rombix.core.event.Cause;
import rombix.core.trust.Redactor;

/** What this computer keeps for its gear, apart from all boards. Safe to use from any thread. */
public interface Keyring {
    /** The secret with a name; empty where there is none here. */
    Optional<String> secret(String name);

    /** Whether the board may have its gear told the secret with a name. */
    default boolean mayTell(String name) {
        return true;
    }

    /**
     * A secret for gear to be told.
     *
     * @throws Refused where the board may not tell it, or there is none
     */
    default String secretFor(String name, Supplier<Refused> missing) throws Refused {
        if (!mayTell(name)) {
            throw new Refused(Cause.SECRET_NOT_ALLOWED, name);
        }
        String told = secret(name).orElseThrow(missing);
        Redactor.PROCESS.remember(name, told);
        return told;
    }

    /** The fingerprint of the certificate that was first seen at HOST:PORT; empty where none was. */
    Optional<String> firstSeen(String address);

    /** Keeps the certificate that was seen first. */
    void seen(String address, String fingerprint);

    /** The file in which a link keeps what must outlive it, its owner's alone; null where nothing is kept. */
    default @Nullable Path kept(String name) {
        return null;
    }

    /** In place of the fingerprint of a certificate that may have been seen: what was known of it is damaged. */
    String UNREADABLE = "?";

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
