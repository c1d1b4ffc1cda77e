package rombix.running.owner;

import java.util.Optional;

/** Secrets that something in this process lends for as long as it runs, as stand-ins do theirs; found as a service. */
public interface Lent {
    /** The secret with a name, where it is lent now. */
    Optional<String> secret(String name);
}
