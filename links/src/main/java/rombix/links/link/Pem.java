package rombix.links.link;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.security.GeneralSecurityException;
import java.security.KeyFactory;
import java.security.KeyStore;
import java.security.PrivateKey;
import java.security.cert.Certificate;
import java.security.cert.CertificateException;
import java.security.cert.CertificateFactory;
import java.security.spec.InvalidKeySpecException;
import java.security.spec.PKCS8EncodedKeySpec;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.net.ssl.KeyManagerFactory;

/** Certificates and keys as text (RFC 7468). Throws in plain words; never with what stands in a key. */
public final class Pem {
    private static final Pattern BLOCK = Pattern.compile("-----BEGIN ([A-Z0-9 ]+)-----([^-]*)-----END \\1-----");
    private static final List<String> KINDS_OF_KEYS = List.of("RSA", "EC", "Ed25519");

    private Pem() {
    }

    /** The certificates in a text. */
    public static List<Certificate> certificates(String text) throws CertificateException {
        CertificateFactory factory = CertificateFactory.getInstance("X.509");
        List<Certificate> found = new ArrayList<>();
        for (byte[] block : blocks(text, "CERTIFICATE")) {
            found.add(factory.generateCertificate(new ByteArrayInputStream(block)));
        }
        if (found.isEmpty()) {
            throw new CertificateException("it contains no certificate");
        }
        return found;
    }

    /** Shows a certificate of one's own: a text with that, those that vouch for it, and its key. */
    public static KeyManagerFactory keys(String text) throws GeneralSecurityException {
        try {
            KeyStore store = KeyStore.getInstance(KeyStore.getDefaultType());
            store.load(null, null);
            store.setKeyEntry("own", key(text), new char[0], certificates(text).toArray(Certificate[]::new));
            KeyManagerFactory keys = KeyManagerFactory.getInstance(KeyManagerFactory.getDefaultAlgorithm());
            keys.init(store, new char[0]);
            return keys;
        } catch (IOException e) {
            throw new IllegalStateException(e); // Nothing is read.
        }
    }

    private static PrivateKey key(String text) throws GeneralSecurityException {
        List<byte[]> keys = blocks(text, "PRIVATE KEY");
        if (keys.isEmpty()) {
            throw new CertificateException(text.contains("ENCRYPTED PRIVATE KEY")
                    ? "its key is encrypted; use an unencrypted one (PKCS 8)"
                    : text.contains("PRIVATE KEY")
                            ? "its key has an older format; it must begin with BEGIN PRIVATE KEY (PKCS 8)"
                            : "it contains no key (BEGIN PRIVATE KEY)");
        }
        for (String kind : KINDS_OF_KEYS) {
            try {
                return KeyFactory.getInstance(kind).generatePrivate(new PKCS8EncodedKeySpec(keys.getFirst()));
            } catch (InvalidKeySpecException e) {
                // Of another kind.
            }
        }
        throw new CertificateException("unknown type of key: " + String.join(", ", KINDS_OF_KEYS));
    }

    private static List<byte[]> blocks(String text, String kind) throws CertificateException {
        List<byte[]> found = new ArrayList<>();
        Matcher m = BLOCK.matcher(text);
        while (m.find()) {
            if (m.group(1).equals(kind)) {
                try {
                    found.add(Base64.getMimeDecoder().decode(m.group(2)));
                } catch (IllegalArgumentException e) {
                    throw new CertificateException("it is damaged", e);
                }
            }
        }
        return found;
    }
}
