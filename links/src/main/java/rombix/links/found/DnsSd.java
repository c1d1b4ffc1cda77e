package rombix.links.found;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import javax.jmdns.JmDNS;
import javax.jmdns.ServiceEvent;
import javax.jmdns.ServiceInfo;
import javax.jmdns.ServiceListener;
import rombix.core.card.Protocol;
import rombix.core.found.FoundGear;
import rombix.core.found.FoundGear.How;
import rombix.core.value.Value;
import rombix.links.link.LinkType;
import rombix.links.link.Service;

/** Services that gear announces by DNS-SD over multicast (RFC 6762 and 6763). */
final class DnsSd implements AutoCloseable {
    private static final String DOMAIN = ".local.";
    private static final String PATH = "path";
    private static final long ADDRESS_MILLIS = 1000;
    /** How long one is waited for. An answer that comes later is heard, too. */
    private static final long ASKING_MILLIS = 200;
    private static final int MOST_ABOUT = 120;
    /** How many services are asked for their address at once. */
    private static final int ASKED_AT_ONCE = 256;
    /** Services that wait to be asked. Of more, the oldest are not asked. */
    private static final int MOST_WAITING = 5000;

    private final Consumer<FoundGear> found;
    /** The IPv4 addresses of computers, by their names. */
    private final Map<String, String> addresses = new ConcurrentHashMap<>();
    /** Asking blocks until there is an answer or none is expected, and the library asks one service after another. */
    private final ThreadPoolExecutor asking = new ThreadPoolExecutor(ASKED_AT_ONCE, ASKED_AT_ONCE, ADDRESS_MILLIS,
            TimeUnit.MILLISECONDS, new LinkedBlockingQueue<>(MOST_WAITING), Thread.ofVirtual().factory(),
            new ThreadPoolExecutor.DiscardOldestPolicy());
    private final List<JmDNS> open = Collections.synchronizedList(new ArrayList<>());

    private record Spoken(Protocol protocol, Service service) {
    }

    /** It may take some seconds. */
    DnsSd(List<Networks.Network> networks, Consumer<FoundGear> found) {
        this.found = found;
        asking.allowCoreThreadTimeOut(true);
        Map<String, Spoken> spoken = spoken();
        for (Networks.Network network : networks) {
            try {
                JmDNS on = JmDNS.create(network.own());
                open.add(on);
                spoken.forEach((type, by) -> on.addServiceListener(type + DOMAIN, new Heard(by)));
            } catch (IOException e) {
                // Another network may have it.
            }
        }
    }

    private static Map<String, Spoken> spoken() {
        Map<String, Spoken> all = new HashMap<>();
        Protocol.all().forEach(p -> {
            if (p.descriptor() instanceof LinkType type) {
                type.services().forEach(s -> all.put(s.type(), new Spoken(p, s)));
            }
        });
        return all;
    }

    private final class Heard implements ServiceListener {
        private final Spoken by;

        Heard(Spoken by) {
            this.by = by;
        }

        @Override
        public void serviceAdded(ServiceEvent event) {
            asking.execute(() -> event.getDNS().requestServiceInfo(event.getType(), event.getName(), ASKING_MILLIS));
        }

        @Override
        public void serviceRemoved(ServiceEvent event) {
            // What was found stays in sight: whoever reads it has it under the hand.
        }

        /** Of the addresses of one computer not all come with each of its services, and never all at once. */
        @Override
        public void serviceResolved(ServiceEvent event) {
            ServiceInfo of = event.getInfo();
            String server = of.getServer() == null ? "" : of.getServer().replaceFirst("\\.$", "");
            if (of.getInet4Addresses().length > 0) {
                addresses.put(server, of.getInet4Addresses()[0].getHostAddress());
            }
            if (addresses.containsKey(server)) {
                tell(event.getName(), server, of);
            } else {
                CompletableFuture.delayedExecutor(ADDRESS_MILLIS, TimeUnit.MILLISECONDS).execute(() -> tell(event
                        .getName(), server, of));
            }
        }

        private void tell(String name, String server, ServiceInfo of) {
            String host = addresses.getOrDefault(server, server);
            if (!host.isEmpty() && of.getPort() > 0) {
                found.accept(new FoundGear(How.DNS_SD, name, about(of), by.protocol(), host + ":" + of.getPort(),
                        server, by.service().tls(), settings(by, of), Set.of()));
            }
        }
    }

    /** What has to be set to speak to it: what its kind needs, and the path that it names. */
    private static Map<String, Value> settings(Spoken by, ServiceInfo of) {
        Map<String, Value> all = new HashMap<>(by.service().settings());
        String path = of.getPropertyString(PATH);
        if (path != null && by.protocol().descriptor().settings().stream().anyMatch(s -> s.id().equals(PATH))) {
            all.put(PATH, Value.of(path));
        }
        return all;
    }

    /** What it says of itself, in a line. */
    private static String about(ServiceInfo of) {
        String all = Collections.list(of.getPropertyNames()).stream().sorted().map(name -> name + " "
                + of.getPropertyString(name)).collect(Collectors.joining(", "));
        String plain = all.replaceAll("\\p{Cntrl}", " ");
        return plain.length() > MOST_ABOUT ? plain.substring(0, MOST_ABOUT) + "…" : plain;
    }

    @Override
    public void close() {
        asking.shutdownNow();
        List.copyOf(open).forEach(on -> {
            try {
                on.close();
            } catch (IOException e) {
                // It is gone either way.
            }
        });
    }
}
