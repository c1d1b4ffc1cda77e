package rombix.web;

import java.io.IOException;
import java.net.InetAddress;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import rombix.running.RunningDeck;
import rombix.running.owner.Settings;
import rombix.web.access.AccessList;

/**
 * Pages in a browser, on or off, as the owner of this computer last chose; off until then. Thread-safe; turning it on may
 * take a moment, and is not for the interface's thread.
 */
public final class BrowserPages implements AutoCloseable {
    private static final String AT = "web.at";

    private final RunningDeck deck;
    private final AccessList access;
    private final Settings settings;
    private final List<Consumer<String>> listeners = new CopyOnWriteArrayList<>();
    private final List<Runnable> watchers = new CopyOnWriteArrayList<>();
    private @Nullable WebServer server;

    public BrowserPages(RunningDeck deck, AccessList access, Settings settings) {
        this.deck = deck;
        this.access = access;
        this.settings = settings;
        access.watch(this::changed);
    }

    /** Has another told, on any thread, of what the owner should know, in words. */
    public void whenNoticed(Consumer<String> listener) {
        listeners.add(listener);
    }

    /** Has another told, on any thread, that it was turned on or off, or that somebody came, went or was changed. */
    public void watch(Runnable watcher) {
        watchers.add(watcher);
    }

    private void changed() {
        watchers.forEach(Runnable::run);
    }

    /** Who was let in. */
    public AccessList access() {
        return access;
    }

    /** The server, while it is on. */
    public synchronized Optional<WebServer> server() {
        return Optional.ofNullable(server);
    }

    /** The address at which it was on last, and is to be again; empty where it is off. */
    public Optional<InetAddress> remembered() {
        return settings.get(AT).filter(a -> !a.isEmpty()).flatMap(a -> {
            try {
                return Optional.of(InetAddress.ofLiteral(a));
            } catch (IllegalArgumentException e) {
                return Optional.empty();
            }
        });
    }

    /**
     * Turns it on, in place of what was on before.
     *
     * @param at loopback, or an address of this computer in a network
     * @throws IOException in plain words, where nothing can listen there
     */
    public void on(InetAddress at) throws IOException {
        on(at, WebServer.PORT);
        settings.set(Map.of(AT, at.getHostAddress().replaceFirst("%.*", "")));
    }

    /** The same at a port, any free one where it is 0; that is not remembered. */
    public synchronized void on(InetAddress at, int port) throws IOException {
        close();
        server = opened(at, port);
        server.presence().watch(this::changed);
        changed();
    }

    private WebServer opened(InetAddress at, int port) throws IOException {
        Consumer<String> notices = words -> listeners.forEach(l -> l.accept(words));
        try {
            return WebServer.open(deck, access, at, port, notices);
        } catch (IOException e) {
            if (port == 0) {
                throw new IOException("Can't show pages at " + at.getHostAddress() + ": " + e.getMessage() + ".", e);
            }
            return opened(at, 0); // Another program has that port.
        }
    }

    /** Turns it off, until it is turned on again. */
    public void off() {
        close();
        settings.set(Map.of(AT, ""));
        changed();
    }

    /** Ends it; what was chosen stays chosen. */
    @Override
    public synchronized void close() {
        if (server != null) {
            server.close();
            server = null;
        }
    }
}
