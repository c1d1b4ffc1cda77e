package rombix.links.link;

import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.security.Key;
import java.security.KeyStore;
import java.util.Base64;
import java.util.Objects;
import javax.net.ssl.KeyManagerFactory;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLServerSocket;
import javax.net.ssl.TrustManagerFactory;

/** TLS before a stand-in: hands on what comes; may want to see a certificate. The certificates are those of the tests. */
public final class TlsFront implements AutoCloseable {
    private static final char[] PASSWORD = "for-tests-only".toCharArray();

    private final SSLServerSocket socket;

    /**
     * @param store the name of its certificate
     * @param wanted the name of the one that it wants to see; none where it is empty
     * @param behind the port on this computer to which it hands on
     */
    public TlsFront(String store, String wanted, int behind) throws Exception {
        socket = (SSLServerSocket) context(store, wanted).getServerSocketFactory().createServerSocket(0, 5, InetAddress
                .getLoopbackAddress());
        socket.setNeedClientAuth(!wanted.isEmpty());
        Thread.ofVirtual().start(() -> {
            while (!socket.isClosed()) {
                try {
                    Socket from = socket.accept();
                    Thread.ofVirtual().start(() -> join(from, behind));
                } catch (IOException e) {
                    // Closed.
                }
            }
        });
    }

    private static void join(Socket from, int behind) {
        try (from; Socket to = new Socket(InetAddress.getLoopbackAddress(), behind)) {
            Thread.ofVirtual().start(() -> copy(to, from));
            copy(from, to);
        } catch (IOException e) {
            // The one or the other has ended.
        }
    }

    private static void copy(Socket from, Socket to) {
        try (from; to) {
            from.getInputStream().transferTo(to.getOutputStream());
        } catch (IOException e) {
            // The one or the other has ended.
        }
    }

    static KeyStore store(String name) throws Exception {
        KeyStore store = KeyStore.getInstance("PKCS12");
        try (InputStream in = Objects.requireNonNull(TlsFront.class.getResourceAsStream("/" + name + ".p12"))) {
            store.load(in, PASSWORD);
        }
        return store;
    }

    static SSLContext context(String name, String trusted) throws Exception {
        KeyManagerFactory keys = KeyManagerFactory.getInstance(KeyManagerFactory.getDefaultAlgorithm());
        keys.init(store(name), PASSWORD);
        TrustManagerFactory trust = TrustManagerFactory.getInstance(TrustManagerFactory.getDefaultAlgorithm());
        if (!trusted.isEmpty()) {
            KeyStore only = KeyStore.getInstance(KeyStore.getDefaultType());
            only.load(null, null);
            KeyStore from = store(trusted);
            only.setCertificateEntry("it", from.getCertificate(from.aliases().nextElement()));
            trust.init(only);
        }
        SSLContext context = SSLContext.getInstance("TLS");
        context.init(keys.getKeyManagers(), trusted.isEmpty() ? null : trust.getTrustManagers(), null);
        return context;
    }

    /** A certificate of the tests as text. */
    public static String pem(String name) throws Exception {
        KeyStore store = store(name);
        return block("CERTIFICATE", store.getCertificate(store.aliases().nextElement()).getEncoded());
    }

    /** The same with its key. */
    public static String withKey(String name) throws Exception {
        KeyStore store = store(name);
        Key key = store.getKey(store.aliases().nextElement(), PASSWORD);
        return pem(name) + block("PRIVATE KEY", key.getEncoded());
    }

    private static String block(String kind, byte[] bytes) {
        return "-----BEGIN " + kind + "-----\n" + Base64.getMimeEncoder().encodeToString(bytes) + "\n-----END " + kind
                + "-----\n";
    }

    public int port() {
        return socket.getLocalPort();
    }

    @Override
    public void close() throws IOException {
        socket.close();
    }
}
