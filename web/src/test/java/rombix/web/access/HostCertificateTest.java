package rombix.web.access;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.InetAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.util.Base64;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class HostCertificateTest {
    private static final ZonedDateTime NOW = ZonedDateTime.of(2026, 11, 30, 20, 0, 0, 0, ZoneOffset.UTC);
    private static final InetAddress HERE = InetAddress.ofLiteral("192.168.1.20");

    @TempDir
    private Path folder;

    private HostCertificate of(ZonedDateTime now, InetAddress... addresses) throws Exception {
        return HostCertificate.of(folder.resolve("certificate"), List.of("booth", "booth.local"), List.of(addresses),
                now);
    }

    @Test
    void itIsGoodForTheNamesAndAddressesOfThisComputer() throws Exception {
        HostCertificate made = of(NOW, HERE, InetAddress.ofLiteral("fd00::20"));
        assertThat(made.certificate().getSubjectAlternativeNames()).extracting(n -> String.valueOf(n.get(1))).contains(
                "booth", "booth.local", "192.168.1.20");
        made.certificate().verify(made.certificate().getPublicKey());
        made.certificate().checkValidity(java.util.Date.from(NOW.toInstant()));
        assertThat(made.certificate().getBasicConstraints()).isEqualTo(-1); // It is no certificate authority.
        assertThat(made.certificate().getExtendedKeyUsage()).containsExactly("1.3.6.1.5.5.7.3.1");
        assertThat(made.certificate().getVersion()).isEqualTo(3);
        assertThat(made.fingerprint()).matches("([0-9A-F]{2}:){31}[0-9A-F]{2}");
    }

    @Test
    void itStaysTheSameSoThatDevicesKnowItAgain() throws Exception {
        assertThat(of(NOW.plusDays(300), HERE).fingerprint()).isEqualTo(of(NOW, HERE).fingerprint());
    }

    @Test
    void itIsMadeAnewBeforeItRunsOutAndForAnotherAddress() throws Exception {
        String first = of(NOW, HERE).fingerprint();
        String moved = of(NOW, InetAddress.ofLiteral("10.0.0.5")).fingerprint();
        assertThat(moved).isNotEqualTo(first);
        assertThat(of(NOW.plusDays(780), InetAddress.ofLiteral("10.0.0.5")).fingerprint()).isNotEqualTo(moved);
    }

    @Test
    void whatIsDamagedIsMadeAnewAndTheKeyIsSaidNowhere() throws Exception {
        HostCertificate first = of(NOW, HERE);
        assertThat(first.toString()).doesNotContain(Base64.getEncoder().encodeToString(first.key().getEncoded()));
        Files.writeString(folder.resolve("certificate"), "certificate AAAA\nkey AAAA\n");
        assertThat(of(NOW, HERE).fingerprint()).isNotEqualTo(first.fingerprint());
    }
}
