package rombix.web.access;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.math.BigInteger;
import java.net.InetAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.KeyFactory;
import java.security.KeyPair;
import java.security.KeyPairGenerator;
import java.security.MessageDigest;
import java.security.PrivateKey;
import java.security.SecureRandom;
import java.security.Signature;
import java.security.cert.CertificateException;
import java.security.cert.CertificateFactory;
import java.security.cert.X509Certificate;
import java.security.spec.ECGenParameterSpec;
import java.security.spec.PKCS8EncodedKeySpec;
import java.time.Duration;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Collection;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import rombix.running.owner.NamedLines;

/**
 * The certificate by which devices know this computer, made here and signed by itself (RFC 5280). It is kept with its key
 * in a file that only its owner may read, and made anew when it runs out or this computer has an address that isn't in it.
 */
public record HostCertificate(X509Certificate certificate, PrivateKey key) {
    private static final Logger LOG = LoggerFactory.getLogger(HostCertificate.class);
    private static final String CERTIFICATE = "certificate";
    private static final String KEY = "key";
    /** Some systems take no certificate that is good for longer. */
    private static final Duration GOOD = Duration.ofDays(800);
    private static final Duration RENEWED_BEFORE = Duration.ofDays(30);
    private static final String ECDSA_SHA256 = "1.2.840.10045.4.3.2";
    private static final String COMMON_NAME = "2.5.4.3";
    private static final String ALTERNATIVE_NAMES = "2.5.29.17";
    private static final String BASIC_CONSTRAINTS = "2.5.29.19";
    private static final String EXTENDED_USAGE = "2.5.29.37";
    private static final String SERVER = "1.3.6.1.5.5.7.3.1";
    private static final int DNS = 2;
    private static final int IP = 7;

    /** The one of this user, good for these names and addresses. */
    public static HostCertificate of(Collection<String> names, Collection<InetAddress> addresses, ZonedDateTime now)
            throws IOException {
        return of(NamedLines.beside("web-certificate"), names, addresses, now);
    }

    static HostCertificate of(Path file, Collection<String> names, Collection<InetAddress> addresses,
            ZonedDateTime now) throws IOException {
        return of(new NamedLines(file), names, addresses, now);
    }

    private static HostCertificate of(NamedLines file, Collection<String> names, Collection<InetAddress> addresses,
            ZonedDateTime now) throws IOException {
        Optional<HostCertificate> kept = read(file);
        if (kept.isPresent() && kept.get().serves(names, addresses, now)) {
            return kept.get();
        }
        try {
            HostCertificate made = make(names, addresses, now);
            file.set(KEY, Base64.getEncoder().encodeToString(made.key().getEncoded()));
            file.set(CERTIFICATE, Base64.getEncoder().encodeToString(made.certificate().getEncoded()));
            return made;
        } catch (GeneralSecurityException e) {
            throw new IOException("No certificate could be made: " + e.getMessage(), e);
        }
    }

    private static Optional<HostCertificate> read(NamedLines file) {
        Optional<String> certificate = file.get(CERTIFICATE);
        Optional<String> key = file.get(KEY);
        if (certificate.isEmpty() || key.isEmpty()) {
            return Optional.empty();
        }
        try {
            return Optional.of(new HostCertificate(parse(Base64.getDecoder().decode(certificate.get())), KeyFactory
                    .getInstance("EC")
                    .generatePrivate(new PKCS8EncodedKeySpec(Base64.getDecoder().decode(key.get())))));
        } catch (GeneralSecurityException | IllegalArgumentException e) {
            LOG.warn("the certificate that is kept can't be read; another one is made");
            return Optional.empty();
        }
    }

    private static X509Certificate parse(byte[] der) throws CertificateException {
        return (X509Certificate) CertificateFactory.getInstance("X.509").generateCertificate(
                new ByteArrayInputStream(der));
    }

    /** The SHA-256 of the certificate, as browsers show it: pairs of digits with colons between them. */
    public String fingerprint() {
        try {
            byte[] hash = MessageDigest.getInstance("SHA-256").digest(certificate.getEncoded());
            return HexFormat.ofDelimiter(":").withUpperCase().formatHex(hash);
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException(e);
        }
    }

    private boolean serves(Collection<String> names, Collection<InetAddress> addresses, ZonedDateTime now) {
        try {
            List<String> listed = certificate.getSubjectAlternativeNames().stream().map(n -> String.valueOf(n.get(1))
                    .toLowerCase(Locale.ROOT)).toList();
            return now.plus(RENEWED_BEFORE).toInstant().isBefore(certificate.getNotAfter().toInstant())
                    && names.stream().allMatch(n -> listed.contains(n.toLowerCase(Locale.ROOT)))
                    && addresses.stream().allMatch(a -> listed.stream().anyMatch(l -> same(l, a)));
        } catch (CertificateException e) {
            return false;
        }
    }

    private static boolean same(String listed, InetAddress address) {
        try {
            return InetAddress.ofLiteral(listed).equals(address);
        } catch (IllegalArgumentException e) {
            return false; // A name.
        }
    }

    private static HostCertificate make(Collection<String> names, Collection<InetAddress> addresses,
            ZonedDateTime now) throws GeneralSecurityException {
        KeyPairGenerator generator = KeyPairGenerator.getInstance("EC");
        generator.initialize(new ECGenParameterSpec("secp256r1"));
        KeyPair pair = generator.generateKeyPair();
        byte[] algorithm = Der.sequence(Der.id(ECDSA_SHA256));
        byte[] holder = Der.sequence(Der.set(Der.sequence(Der.id(COMMON_NAME), Der.text("Rombix on " + names.stream()
                .findFirst().orElse("this computer")))));
        List<byte[]> alternatives = new ArrayList<>();
        names.forEach(n -> alternatives.add(Der.tagged(0x80 | DNS, n.getBytes(StandardCharsets.US_ASCII))));
        addresses.forEach(a -> alternatives.add(Der.tagged(0x80 | IP, a.getAddress())));
        byte[] extensions = Der.tagged(0xA3, Der.sequence(
                extension(BASIC_CONSTRAINTS, Der.sequence()),
                extension(EXTENDED_USAGE, Der.sequence(Der.id(SERVER))),
                extension(ALTERNATIVE_NAMES, Der.sequence(alternatives.toArray(byte[][]::new)))));
        byte[] content = Der.sequence(
                Der.tagged(0xA0, Der.integer(BigInteger.TWO)), // Version 3.
                Der.integer(new BigInteger(120, new SecureRandom()).setBit(119)),
                algorithm, holder,
                Der.sequence(Der.time(now.minusDays(1)), Der.time(now.plus(GOOD))),
                holder, pair.getPublic().getEncoded(), extensions);
        Signature signature = Signature.getInstance("SHA256withECDSA");
        signature.initSign(pair.getPrivate());
        signature.update(content);
        X509Certificate made = parse(Der.sequence(content, algorithm, Der.bits(signature.sign())));
        made.verify(pair.getPublic());
        return new HostCertificate(made, pair.getPrivate());
    }

    private static byte[] extension(String id, byte[] value) {
        return Der.sequence(Der.id(id), Der.octets(value));
    }

    @Override
    public String toString() {
        return "HostCertificate" + names(certificate); // Never the key.
    }

    private static String names(X509Certificate of) {
        try {
            return of.getSubjectAlternativeNames().stream().map(n -> String.valueOf(n.get(1))).collect(Collectors
                    .joining(", ", "[", "]"));
        } catch (CertificateException e) {
            return "[]";
        }
    }
}
