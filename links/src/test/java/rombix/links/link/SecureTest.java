package rombix.links.link;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import rombix.core.board.Gear;
import rombix.core.board.Gear.Tls;
import rombix.core.board.Gear.Tls.Trust;
import rombix.core.card.Protocol;

/** Whose certificates are taken, and what is said of those that are not. */
@Timeout(300)
class SecureTest {
    private static final int MILLIS = 10_000;

    /** Keeps what it is told. */
    private static class Kept implements Keyring {
        private final Map<String, String> seen = new HashMap<>();

        @Override
        public Optional<String> secret(String name) {
            return Optional.empty();
        }

        @Override
        public Optional<String> firstSeen(String address) {
            return Optional.ofNullable(seen.get(address));
        }

        @Override
        public void seen(String address, String fingerprint) {
            seen.put(address, fingerprint);
        }
    }

    /** A server that says a line to each that comes, over TLS where it has a certificate. */
    private static final class Server implements AutoCloseable {
        private final ServerSocket socket;

        Server(int port, String store) throws Exception {
            socket = store.isEmpty()
                    ? new ServerSocket(port, 5, InetAddress.getLoopbackAddress())
                    : TlsFront.context(store, "").getServerSocketFactory().createServerSocket(port, 5, InetAddress
                            .getLoopbackAddress());
            Thread.ofVirtual().start(() -> {
                while (!socket.isClosed()) {
                    try (Socket s = socket.accept()) {
                        s.getOutputStream().write("! this is it\r\n".getBytes(StandardCharsets.US_ASCII));
                        s.getOutputStream().flush();
                    } catch (IOException e) {
                        // Refused by the other end, or closed.
                    }
                }
            });
        }

        int port() {
            return socket.getLocalPort();
        }

        @Override
        public void close() throws IOException {
            socket.close();
        }
    }

    private static Target target(int port, Tls tls, Keyring keyring) {
        String address = "127.0.0.1:" + port;
        return new Target(address, new Gear.Link(Protocol.of("irc"), address, Map.of()).withTls(tls), keyring,
                Path::of);
    }

    private static int heard(Target target) throws IOException {
        try (Socket s = target.connect(MILLIS)) {
            return s.getInputStream().read();
        }
    }

    @Test
    void aCertificateOfOnesOwnIsTakenAndNoOther() throws Exception {
        Tls own = new Tls(Trust.OWN, TlsFront.pem("house"));
        try (Server good = new Server(0, "house"); Server bad = new Server(0, "other")) {
            assertThat(heard(target(good.port(), own, Keyring.NONE))).isEqualTo('!');
            assertThatThrownBy(() -> heard(target(bad.port(), own, Keyring.NONE))).isInstanceOf(Refused.class)
                    .hasMessageContaining("neither the one set here nor signed by it");
        }
    }

    @Test
    void aCertificateThatNobodyVouchesForIsRefusedWithWhatToDo() throws Exception {
        try (Server server = new Server(0, "house")) {
            assertThatThrownBy(() -> heard(target(server.port(), new Tls(Trust.ROOTS, null), Keyring.NONE)))
                    .isInstanceOfSatisfying(Refused.class, e -> assertThat(e.hint()).contains("first certificate seen"))
                    .hasMessageContaining("its certificate isn't signed by a trusted authority");
        }
    }

    @Test
    void aCertificateForAnotherNameIsRefused() throws Exception {
        try (Server server = new Server(0, "elsewhere")) {
            assertThatThrownBy(
                    () -> heard(target(server.port(), new Tls(Trust.OWN, TlsFront.pem("elsewhere")), Keyring.NONE)))
                    .hasMessageContaining("is for another host name");
        }
    }

    @Test
    void theCertificateThatWasSeenFirstIsTheOnlyOneUntilItIsForgotten() throws Exception {
        Kept kept = new Kept();
        Tls first = new Tls(Trust.FIRST_SEEN, null);
        int port;
        try (Server server = new Server(0, "house")) {
            port = server.port();
            assertThat(heard(target(port, first, kept))).isEqualTo('!');
            assertThat(heard(target(port, first, kept))).isEqualTo('!');
        }
        try (Server another = new Server(port, "other")) {
            assertThatThrownBy(() -> heard(target(port, first, kept))).isInstanceOf(Refused.class)
                    .hasMessage("its certificate has changed since it was first seen");
            kept.seen.clear();
            assertThat(heard(target(another.port(), first, kept))).isEqualTo('!');
        }
    }

    @Test
    void aServerWithoutTlsIsSaidToBeOne() throws Exception {
        try (Server server = new Server(0, "")) {
            assertThatThrownBy(() -> heard(target(server.port(), new Tls(Trust.FIRST_SEEN, null), new Kept())))
                    .hasMessage("something is listening there, but without TLS; it said “! this is it”");
        }
    }

    @Test
    void aSecretThatIsNotHereIsSaidByNameBeforeAnybodyIsBothered() {
        Gear.Link link = new Gear.Link(Protocol.of("irc"), "127.0.0.1:9", Map.of()).withSecret("house");
        assertThatThrownBy(() -> new Target("127.0.0.1:9", link, Keyring.NONE, Path::of).secret())
                .isInstanceOf(Refused.class)
                .hasMessage("needs the secret “house”, which isn't on this computer");
    }

    @Test
    void whoWantsToSeeACertificateOfOursIsShownIt() throws Exception {
        Keyring ours = new Kept() {
            @Override
            public Optional<String> secret(String name) {
                return name.equals("booth") ? Optional.of(withKey("other")) : Optional.of("no certificate");
            }
        };
        Tls tls = new Tls(Trust.OWN, TlsFront.pem("house"));
        try (Server behind = new Server(0, ""); TlsFront front = new TlsFront("house", "other", behind.port())) {
            assertThat(heard(target(front.port(), tls.withClient("booth"), ours))).isEqualTo('!');
            assertThatThrownBy(() -> heard(target(front.port(), tls.withClient("torn"), ours))).isInstanceOf(
                    Refused.class).hasMessage(
                            "the client certificate “torn” can't be used: it contains no key (BEGIN PRIVATE KEY)");
            assertThatThrownBy(() -> heard(target(front.port(), tls.withClient("gone"), Keyring.NONE))).isInstanceOf(
                    Refused.class).hasMessageContaining("“gone”, which isn't on this computer");
            assertThatThrownBy(() -> heard(target(front.port(), tls, ours))).isInstanceOf(IOException.class)
                    .satisfies(e -> assertThat(Secure.alert(e)).isInstanceOf(Refused.class).hasMessage(
                            "it requires a client certificate"));
        }
    }

    private static String withKey(String name) {
        try {
            return TlsFront.withKey(name);
        } catch (Exception e) {
            throw new IllegalStateException(e);
        }
    }
}
