package rombix.running.owner;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import rombix.links.link.Keyring;

/** Files of this user's that were damaged: nothing more is lost, and nothing is trusted anew without being asked. */
class DamagedStoresTest {
    @TempDir
    Path folder;

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.ISO_8859_1); // One beyond ASCII is no UTF-8.
    }

    /** One bad line had the next set delete all that stood behind it; one bad byte, everything. */
    @ParameterizedTest
    @ValueSource(strings = {"no blank in it\n", "name !!!\n", "\u00FF\u00FE\n", "half"})
    void aBadLineAmongSecretsCostsNoOther(String bad) throws IOException {
        Path file = folder.resolve("secrets");
        Secrets secrets = new Secrets(file);
        secrets.set("first", "one");
        Files.write(file, bytes(bad), StandardOpenOption.APPEND);
        Files.write(file, bytes((bad.endsWith("\n") ? "" : "\n") + "second dHdv\n"), StandardOpenOption.APPEND);
        secrets.set("third", "three");
        assertThat(secrets.get("first")).hasValue("one");
        assertThat(secrets.get("second")).hasValue("two");
        assertThat(secrets.get("third")).hasValue("three");
        assertThat(secrets.names()).containsExactly("first", "second", "third");
        assertThat(new String(Files.readAllBytes(file), StandardCharsets.UTF_8)).contains(new String(bytes(bad),
                StandardCharsets.UTF_8).strip());
    }

    /** A certificate that had changed was taken as seen first, and told the secret. */
    @ParameterizedTest
    @ValueSource(strings = {"desk:1 !!!\n", "\u00FF\u00FE\n", "desk:1"})
    void withADamagedListNoCertificateIsTakenAsSeenFirst(String bad) throws IOException {
        Path file = folder.resolve("certificates");
        Certificates certificates = new Certificates(file);
        certificates.seen("house:1", "abc");
        assertThat(certificates.firstSeen("desk:1")).isEmpty();
        Files.write(file, bytes(bad), StandardOpenOption.APPEND);
        assertThat(certificates.firstSeen("house:1")).hasValue("abc");
        assertThat(certificates.firstSeen("desk:1")).hasValue(Keyring.UNREADABLE);
        certificates.forget("desk:1"); // Somebody was asked.
        assertThat(certificates.firstSeen("desk:1")).isEmpty();
        assertThat(certificates.firstSeen("lamps:1")).hasValue(Keyring.UNREADABLE);
        certificates.seen("desk:1", "def");
        assertThat(certificates.firstSeen("desk:1")).hasValue("def");
    }

    @Test
    void whatIsAgreedToBehindAHalfWrittenLineCounts() throws IOException {
        OwnersFile file = new OwnersFile(folder.resolve("trusted"));
        file.add(java.util.List.of("one"));
        Files.writeString(file.path(), "hal", StandardOpenOption.APPEND);
        file.add(java.util.List.of("two"));
        assertThat(file.lines()).containsExactly("one", "hal", "two");
    }
}
