package rombix.web;

import io.netty.channel.EventLoopGroup;
import io.netty.channel.nio.NioEventLoopGroup;
import io.netty.handler.ssl.SslContext;
import io.netty.handler.ssl.SslContextBuilder;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.NetworkInterface;
import java.net.SocketException;
import java.net.UnknownHostException;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import rombix.running.RunningDeck;
import rombix.web.access.AccessList;
import rombix.web.access.HostCertificate;
import rombix.web.access.Invitations;
import rombix.web.deck.DeviceScreens;
import rombix.web.http.HttpServer;
import rombix.web.http.Presence;
import rombix.web.http.Site;

/**
 * Shows the pages of a running deck in browsers, as long as it is open. On loopback it speaks HTTP, on a network HTTPS with
 * a certificate of this computer. One thread does all of it. Safe to use from any thread but that one.
 */
public final class WebServer implements AutoCloseable {
    /** The port that is tried first. */
    public static final int PORT = 7413;
    private static final int HTTPS = 443;
    private static final int HTTP = 80;

    private final EventLoopGroup loop;
    private final DeviceScreens screens;
    private final HttpServer server;
    private final Invitations invitations;
    private final Presence presence;
    private final @Nullable HostCertificate certificate;

    private WebServer(EventLoopGroup loop, DeviceScreens screens, HttpServer server, Invitations invitations,
            Presence presence, @Nullable HostCertificate certificate) {
        this.loop = loop;
        this.screens = screens;
        this.server = server;
        this.invitations = invitations;
        this.presence = presence;
        this.certificate = certificate;
    }

    /** The addresses of this computer at which a network may reach it, without loopback. It asks the system. */
    public static List<InetAddress> networks() {
        try {
            List<InetAddress> all = new ArrayList<>();
            for (NetworkInterface i : NetworkInterface.networkInterfaces().toList()) {
                if (i.isUp() && !i.isLoopback()) {
                    i.inetAddresses().filter(a -> !a.isLinkLocalAddress() && !a.isMulticastAddress()).forEach(all::add);
                }
            }
            return all;
        } catch (SocketException e) {
            return List.of();
        }
    }

    /**
     * Begins to listen. It may ask the system for this computer's name, on the caller's thread.
     *
     * @param at this computer's address; any that is not loopback is served with HTTPS
     * @param port any free one where it is 0
     * @param notices told what the owner should know, in words, on the server's thread
     * @throws IOException where nothing can listen there, or no certificate can be kept
     */
    public static WebServer open(RunningDeck deck, AccessList access, InetAddress at, int port,
            Consumer<String> notices) throws IOException {
        List<String> names = names(at);
        HostCertificate certificate = at.isLoopbackAddress()
                ? null
                : HostCertificate.of(names, List.of(at), RunningDeck.CLOCK.wall());
        EventLoopGroup loop = new NioEventLoopGroup(1, Thread.ofPlatform().daemon().name("web").factory());
        try {
            SslContext tls = certificate == null
                    ? null
                    : SslContextBuilder.forServer(certificate.key(), certificate.certificate()).protocols("TLSv1.3",
                            "TLSv1.2").build();
            DeviceScreens screens = new DeviceScreens(deck, loop, RunningDeck.CLOCK);
            Invitations invitations = new Invitations(RunningDeck.CLOCK);
            Presence presence = new Presence();
            HttpServer server = HttpServer.listen(new InetSocketAddress(at, port), loop, tls, bound -> new Site(deck,
                    access, invitations, screens, presence, RunningDeck.CLOCK, tls == null ? "http" : "https",
                    hosts(names, bound, tls != null), notices));
            return new WebServer(loop, screens, server, invitations, presence, certificate);
        } catch (IOException | RuntimeException e) {
            loop.shutdownGracefully(0, 1, TimeUnit.SECONDS);
            throw e;
        }
    }

    private static List<String> names(InetAddress at) {
        Set<String> names = new LinkedHashSet<>();
        if (at.isLoopbackAddress()) {
            names.add("localhost");
        } else {
            try {
                String name = InetAddress.getLocalHost().getHostName().toLowerCase(Locale.ROOT);
                if (name.matches("[a-z0-9.-]+") && !name.equals("localhost")) {
                    names.add(name);
                    names.add(name.replaceFirst("\\..*", "") + ".local");
                }
            } catch (UnknownHostException e) {
                return List.of(); // It has no name; its address is enough.
            }
        }
        return List.copyOf(names);
    }

    private static List<String> hosts(List<String> names, InetSocketAddress bound, boolean tls) {
        List<String> hosts = new ArrayList<>(names);
        hosts.add(literal(bound.getAddress()));
        int usual = tls ? HTTPS : HTTP;
        return bound.getPort() == usual
                ? List.copyOf(hosts)
                : hosts.stream().map(h -> h + ":" + bound.getPort()).toList();
    }

    private static String literal(InetAddress address) {
        String text = address.getHostAddress().replaceFirst("%.*", "");
        return text.indexOf(':') < 0 ? text : "[" + text + "]";
    }

    /** This computer's address at which it listens. */
    public InetAddress at() {
        return server.address().getAddress();
    }

    /** What a person types into a browser. */
    public String address() {
        InetSocketAddress at = server.address();
        return (certificate == null ? "http://" : "https://") + literal(at.getAddress()) + ":" + at.getPort() + "/";
    }

    /** What a device opens that is let in with a code: a browser keeps what stands behind the # to itself. */
    public static String withCode(String address, Invitations.Invitation invitation) {
        return address + "#" + invitation.code();
    }

    /** The SHA-256 of the certificate, as a browser shows it; empty on loopback. */
    public Optional<String> fingerprint() {
        return Optional.ofNullable(certificate).map(HostCertificate::fingerprint);
    }

    public Invitations invitations() {
        return invitations;
    }

    /** Who is connected, and who called when. */
    public Presence presence() {
        return presence;
    }

    /** Listens no longer, and lets go of all that devices hold. */
    @Override
    public void close() {
        if (loop.isShuttingDown()) {
            return;
        }
        server.close();
        Runnable letGo = screens::close;
        loop.submit(letGo).awaitUninterruptibly();
        loop.shutdownGracefully(0, 1, TimeUnit.SECONDS).awaitUninterruptibly();
    }
}
