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
import rombix.core.board.Gear.Tls.Trust;
import rombix.core.board.Gear.Tls;
import rombix.core.event.Status.Reason;
import rombix.core.store.Fingerprint;

/**
 * TLS to one gear (RFC 8446, and 1.2 where the other end is older): whose certificate is taken, and in plain words why
 * one is not. For one attempt to connect.
 */
public final class Secure {
    private static final String DAMAGED = "the list of known certificates on this computer is damaged";

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
            throw new Refused(Reason.WRONGLY_SET, "the certificate given for it can't be read: " + e.getMessage(),
                    "Choose the file again in the gear's window; it begins with BEGIN CERTIFICATE.");
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
        String pem = keyring.told(name, () -> new Refused(Reason.SECRET_MISSING, "wants our own certificate “" + name
                + "”, which is not on this computer", "Choose its file in the gear's window."));
        try {
            return Pem.keys(pem);
        } catch (GeneralSecurityException e) {
            throw new Refused(Reason.WRONGLY_SET,
                    "our own certificate “" + name + "” cannot be used: " + e.getMessage(),
                    "Choose its file again in the gear's window.");
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
                return new Refused(Reason.TLS_UNTRUSTED, e instanceof CertificateExpiredException
                        ? "its certificate has expired"
                        : "its certificate is not valid yet", "Renew it, or check this computer's clock.");
            }
        }
        for (Throwable e = why; e != null; e = e.getCause()) {
            String said = String.valueOf(e.getMessage());
            if (e instanceof Other other) {
                return other.unknown
                        ? new Refused(Reason.WRONGLY_SET, DAMAGED,
                                "Compare its certificate, and forget the first one in the gear's window.")
                        : new Refused(Reason.TLS_CHANGED, "its certificate has changed since it was first seen",
                                "If it was renewed, forget the first one in the gear's window. If not, someone may be intercepting the connection.");
            }
            if (e.getClass() == CertificateException.class && e.getCause() == null) { // All others have a class or a cause.
                return new Refused(Reason.TLS_UNTRUSTED,
                        "its certificate is for another host name than in its address",
                        "Use the name in the certificate, or trust the one that is seen first.");
            }
            if (e instanceof CertPathBuilderException || e instanceof CertPathValidatorException) {
                return new Refused(Reason.TLS_UNTRUSTED, tls.trust() == Trust.OWN
                        ? "its certificate is neither the one given here nor signed by it"
                        : "its certificate isn't signed by a trusted authority",
                        "For gear of your own, give its certificate, or trust the one that is seen first.");
            }
            if (said.contains("Unsupported or unrecognized SSL message") || said.contains("not an SSL/TLS record")) {
                return new Refused(Reason.TLS_NOT_SPOKEN, "it does not speak TLS there",
                        "Check the port, or turn TLS off.");
            }
        }
        return new IOException("TLS was not agreed on: " + why.getMessage(), why);
    }

    /**
     * What the other end says of our own certificate (RFC 8446, 6.2), which in TLS 1.3 may be told after the handshake;
     * null where it says nothing of it.
     */
    static @Nullable Refused alert(Throwable why) {
        for (Throwable e = why; e != null; e = e.getCause()) {
            String said = String.valueOf(e.getMessage());
            if (e instanceof SSLException && said.contains("certificate_required")) {
                return new Refused(Reason.CERTIFICATE_WANTED, "it asks for a client certificate",
                        "Choose one that it knows, with its key, in the gear's window.");
            }
            if (e instanceof SSLException
                    && said.matches(".*fatal alert: (bad_certificate|certificate_unknown|unknown_ca).*")) {
                return new Refused(Reason.CERTIFICATE_WANTED, "it rejects our client certificate",
                        "Choose the one that it knows, with its key, in the gear's window.");
            }
        }
        return null;
    }

    /** Another certificate than the first time, or one of which that is not known. */
    private static final class Other extends CertificateException {
        private static final long serialVersionUID = 1;
        private final boolean unknown;

        Other(boolean unknown) {
            super(unknown ? DAMAGED : "its certificate has changed since it was first seen");
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
            }, new Provider("rombix", "1", "the certificate that is seen first") {
                private static final long serialVersionUID = 1;
            }, "first seen");
        }
    }
}
