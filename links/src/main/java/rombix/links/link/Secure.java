package rombix.links.link;

import java.io.IOException;
import java.net.Socket;
import java.security.GeneralSecurityException;
import java.security.KeyStore;
import java.security.Provider;
import java.security.cert.CertPathBuilderException;
import java.security.cert.CertPathValidatorException;
import java.security.cert.Certificate;
import java.security.cert.CertificateException;
import java.security.cert.CertificateExpiredException;
import java.security.cert.CertificateNotYetValidException;
import java.security.cert.X509Certificate;
import java.util.Locale;
import java.util.Optional;
import javax.net.ssl.KeyManagerFactory;
import javax.net.ssl.ManagerFactoryParameters;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLEngine;
import javax.net.ssl.SSLException;
import javax.net.ssl.SSLParameters;
import javax.net.ssl.TrustManager;
import javax.net.ssl.TrustManagerFactory;
import javax.net.ssl.TrustManagerFactorySpi;
import javax.net.ssl.X509ExtendedTrustManager;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Gear.Tls;
import rombix.core.board.Gear.Tls.Trust;
import rombix.core.event.Cause;
import rombix.core.store.Fingerprint;

/**
 * TLS to one gear (RFC 8446, and 1.2 where the other end is older): whose certificate is taken, and in plain words why
 * one is not. For one attempt to connect.
 */
public final class Secure {
    private final Tls tls;
    private final String address;
    private final Keyring keyring;
    /** What the other end has shown, in hexadecimal digits. */
    private volatile @Nullable String shown;

    Secure(Tls tls, String address, Keyring keyring) {
        this.tls = tls;
        this.address = address.toLowerCase(Locale.ROOT);
        this.keyring = keyring;
    }

    /** Whether the certificate has to be made out to the host's name; one that is known as such need not be. */
    public boolean names() {
        return tls.trust() != Trust.FIRST_SEEN;
    }

    /** Decides whose certificate is taken. */
    public TrustManagerFactory trust() throws Refused {
        try {
            return tls.trust() == Trust.FIRST_SEEN ? new FirstSeenFactory(new FirstSeen()) : authorities();
        } catch (GeneralSecurityException | IOException e) {
            throw new Refused(e, Cause.CERTIFICATE_UNREADABLE, String.valueOf(e.getMessage()));
        }
    }

    private TrustManagerFactory authorities() throws GeneralSecurityException, IOException {
        TrustManagerFactory factory = TrustManagerFactory.getInstance(TrustManagerFactory.getDefaultAlgorithm());
        KeyStore own = null; // The authorities of this computer.
        if (tls.certificate() != null) {
            own = KeyStore.getInstance(KeyStore.getDefaultType());
            own.load(null, null);
            int n = 0;
            for (Certificate c : Pem.certificates(tls.certificate())) {
                own.setCertificateEntry("own" + n++, c);
            }
        }
        factory.init(own);
        return factory;
    }

    /** The certificate of one's own that is shown; null where none is. */
    public @Nullable KeyManagerFactory keys() throws Refused {
        String name = tls.client();
        if (name == null) {
            return null;
        }
        String pem = keyring.secretFor(name, () -> new Refused(Cause.OWN_CERTIFICATE_MISSING, name));
        try {
            return Pem.keys(pem);
        } catch (GeneralSecurityException e) {
            throw new Refused(e, Cause.OWN_CERTIFICATE_UNUSABLE, name, String.valueOf(e.getMessage()));
        }
    }

    SSLContext context() throws Refused {
        TrustManager[] managers = trust().getTrustManagers();
        KeyManagerFactory keys = keys();
        try {
            SSLContext context = SSLContext.getInstance("TLS");
            context.init(keys == null ? null : keys.getKeyManagers(), managers, null);
            return context;
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException(e); // Every Java has it.
        }
    }

    SSLParameters parameters(SSLParameters usual) {
        if (names()) {
            usual.setEndpointIdentificationAlgorithm("HTTPS"); // RFC 6125, as it is done for HTTPS.
        }
        return usual;
    }

    /** The other end has proved that the certificate is its own: from now on it is known. */
    public void shaken() {
        String now = shown;
        if (now != null && keyring.firstSeen(address).isEmpty()) {
            keyring.seen(address, now);
        }
    }

    /** Why a handshake failed, in plain words; the cause where it was no handshake. */
    public IOException refused(Throwable why) {
        Refused alert = alert(why);
        if (alert != null) {
            return alert;
        }
        for (Throwable e = why; e != null; e = e.getCause()) { // What checks the path wraps it into words of its own.
            if (e instanceof CertificateExpiredException || e instanceof CertificateNotYetValidException) {
                return new Refused(e instanceof CertificateExpiredException
                        ? Cause.CERTIFICATE_EXPIRED
                        : Cause.CERTIFICATE_NOT_YET_VALID);
            }
        }
        for (Throwable e = why; e != null; e = e.getCause()) {
            String said = String.valueOf(e.getMessage());
            if (e instanceof Other other) {
                return other.unknown
                        ? new Refused(Cause.KNOWN_CERTIFICATES_DAMAGED)
                        : new Refused(Cause.CERTIFICATE_CHANGED);
            }
            if (e.getClass() == CertificateException.class && e.getCause() == null) { // All others have a class or a cause.
                return new Refused(Cause.CERTIFICATE_OF_ANOTHER_HOST);
            }
            if (e instanceof CertPathBuilderException || e instanceof CertPathValidatorException) {
                return new Refused(
                        tls.trust() == Trust.OWN ? Cause.CERTIFICATE_NOT_THE_ONE_GIVEN : Cause.CERTIFICATE_NOT_SIGNED);
            }
            if (said.contains("Unsupported or unrecognized SSL message") || said.contains("not an SSL/TLS record")) {
                return new Refused(Cause.TLS_NOT_SPOKEN, Banner.of(HostPort.of(address)));
            }
        }
        return new Refused(why, Cause.TLS_NOT_AGREED, String.valueOf(why.getMessage()));
    }

    /**
     * What the other end says of our own certificate (RFC 8446, 6.2), which in TLS 1.3 may be told after the handshake;
     * null where it says nothing of it.
     */
    static @Nullable Refused alert(Throwable why) {
        for (Throwable e = why; e != null; e = e.getCause()) {
            String said = String.valueOf(e.getMessage());
            if (e instanceof SSLException && said.contains("certificate_required")) {
                return new Refused(Cause.CLIENT_CERTIFICATE_WANTED);
            }
            if (e instanceof SSLException
                    && said.matches(".*fatal alert: (bad_certificate|certificate_unknown|unknown_ca).*")) {
                return new Refused(Cause.CLIENT_CERTIFICATE_REJECTED);
            }
        }
        return null;
    }

    /** Another certificate than the first time, or one of which that is not known. */
    private static final class Other extends CertificateException {
        private static final long serialVersionUID = 1;
        private final boolean unknown;

        Other(boolean unknown) {
            super("not the certificate seen first");
            this.unknown = unknown;
        }
    }

    /** Takes the certificate that was shown first, and no other ever after. */
    private final class FirstSeen extends X509ExtendedTrustManager {
        private void check(X509Certificate[] chain) throws CertificateException {
            String now = Fingerprint.of(chain[0].getEncoded());
            Optional<String> known = keyring.firstSeen(address);
            if (known.isPresent() && !known.get().equals(now)) {
                throw new Other(known.get().equals(Keyring.UNREADABLE));
            }
            shown = now;
        }

        @Override
        public void checkServerTrusted(X509Certificate[] chain, String type, Socket socket)
                throws CertificateException {
            check(chain);
        }

        @Override
        public void checkServerTrusted(X509Certificate[] chain, String type, SSLEngine engine)
                throws CertificateException {
            check(chain);
        }

        @Override
        public void checkServerTrusted(X509Certificate[] chain, String type) throws CertificateException {
            check(chain);
        }

        @Override
        public void checkClientTrusted(X509Certificate[] chain, String type, Socket socket)
                throws CertificateException {
            throw new CertificateException("no client is served");
        }

        @Override
        public void checkClientTrusted(X509Certificate[] chain, String type, SSLEngine engine)
                throws CertificateException {
            throw new CertificateException("no client is served");
        }

        @Override
        public void checkClientTrusted(X509Certificate[] chain, String type) throws CertificateException {
            throw new CertificateException("no client is served");
        }

        @Override
        public X509Certificate[] getAcceptedIssuers() {
            return new X509Certificate[0];
        }
    }

    /** Hands the one above to libraries that want a factory. */
    private static final class FirstSeenFactory extends TrustManagerFactory {
        FirstSeenFactory(TrustManager one) {
            super(new TrustManagerFactorySpi() {
                @Override
                protected void engineInit(@Nullable KeyStore store) {
                    // Nothing is needed.
                }

                @Override
                protected void engineInit(ManagerFactoryParameters parameters) {
                    // Nothing is needed.
                }

                @Override
                protected TrustManager[] engineGetTrustManagers() {
                    return new TrustManager[]{one};
                }
            }, new Provider("rombix", "1", "the first certificate seen") {
                private static final long serialVersionUID = 1;
            }, "first seen");
        }
    }
}
