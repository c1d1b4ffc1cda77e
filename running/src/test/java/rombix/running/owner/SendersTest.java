package rombix.running.owner;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.net.InetAddress;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class SendersTest {
    @Test
    void computersAreNamedByTheirAddressesAndForgotten(@TempDir Path folder) {
        Senders senders = new Senders(new Settings(folder.resolve("settings.properties")));
        assertThat(senders.all()).isEmpty();
        senders.allow("192.168.1.20");
        senders.allow(" 10.0.0.3 ");
        assertThat(senders.all()).containsExactly(InetAddress.ofLiteral("192.168.1.20"), InetAddress.ofLiteral(
                "10.0.0.3"));
        assertThat(senders.forget("192.168.1.20")).isTrue();
        assertThat(senders.forget("192.168.1.21")).isFalse();
        assertThat(senders.all()).hasSize(1);
        assertThatThrownBy(() -> senders.allow("the booth")).hasMessageContaining("isn't a numeric address");
    }
}
