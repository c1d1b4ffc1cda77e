package rombix.app.show;

import java.util.Optional;
import rombix.running.owner.Lent;
import rombix.standins.set.StandIns;

/** Lends the passwords of stand-ins while they run in this process. */
public final class StandInSecrets implements Lent {
    @Override
    public Optional<String> secret(String name) {
        return StandIns.secret(name);
    }
}
