package rombix.links.link;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.nio.file.Path;
import java.util.function.Function;
import javax.net.ssl.SSLException;
import javax.net.ssl.SSLSocket;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Gear;
import rombix.core.board.Gear.Tls;
import rombix.core.event.Cause;
import rombix.core.found.FoundGear;

/**
 * Where a gear is reached, as whom, and how the connection is kept from others.
 *
 * @param address in place of the link's own
 * @param link as the board says
 * @param files where a file lies that the board names
 */
public record Target(String address, Gear.Link link, Keyring keyring, Function<String, Path> files) {

    /** Where gear is that was found; as nobody in particular. */
    public static Target found(FoundGear gear) {
        return new Target(gear.address(), gear.link(), Keyring.NONE, Path::of);
    }

    /**
     * HOST:PORT, not looked up.
     *
     * @throws IllegalArgumentException in plain words, where it is none
     */
    public InetSocketAddress hostPort() {
        return HostPort.of(address);
    }

    /** The name that we are known by there; empty where none is asked for. */
    public String user() {
        return link.user() == null ? "" : link.user();
    }

    /**
     * The password or token that it wants; null where it wants none. Asked for at each attempt, as it may be set
     * meanwhile, and kept by nobody.
     *
     * @throws Refused where it is not on this computer
     */
    public @Nullable String secret() throws Refused {
        String name = link.secret();
        if (name == null) {
            return null;
        }
        return keyring.secretFor(name, () -> new Refused(Cause.SECRET_MISSING, name));
    }

    /** How the connection is kept from others; null where it is not. */
    public @Nullable Secure secure() {
        Tls tls = link.tls();
        return tls == null ? null : new Secure(tls, address, keyring);
    }

    /**
     * Connects. It may block: not on the conductor's or the interface's thread.
     *
     * @param millis how long it may take, to connect and to answer each
     * @throws IOException in plain words
     */
    public Socket connect(int millis) throws IOException {
        InetSocketAddress to = hostPort();
        Socket plain = new Socket();
        try {
            plain.connect(HostPort.resolved(to), millis);
            plain.setSoTimeout(millis);
            plain.setTcpNoDelay(true);
        } catch (IOException e) {
            plain.close();
            throw Refused.noAnswer(HostPort.words(to), e);
        }
        Secure secure = secure();
        if (secure == null) {
            return plain;
        }
        try {
            SSLSocket over = (SSLSocket) secure.context().getSocketFactory().createSocket(plain, to.getHostString(), to
                    .getPort(), true);
            over.setSSLParameters(secure.parameters(over.getSSLParameters()));
            over.startHandshake();
            secure.shaken();
            return over;
        } catch (Refused e) {
            plain.close();
            throw e;
        } catch (SSLException e) {
            plain.close();
            throw secure.refused(e);
        } catch (IOException e) {
            plain.close();
            throw new Refused(e, Cause.NO_ANSWER_TO_TLS, HostPort.words(to));
        }
    }
}
