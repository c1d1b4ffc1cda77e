package rombix.standins.set;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.parallel.ResourceLock;
import rombix.standins.DemoLogin;

@ResourceLock("MIDI ports")
class StandInsTest {
    /** Any board could name the secret of the stand-ins, and a password that everybody knows was sent to its gear. */
    @Test
    void theirSecretIsKnownOnlyWhileTheyRun() throws Exception {
        assertThat(StandIns.secret(DemoLogin.SECRET)).isEmpty();
        try (StandIns _ = StandIns.onFreePorts(); StandIns _ = StandIns.onFreePorts()) {
            assertThat(StandIns.secret(DemoLogin.SECRET)).isPresent();
        }
        assertThat(StandIns.secret(DemoLogin.SECRET)).isEmpty();
    }
}
