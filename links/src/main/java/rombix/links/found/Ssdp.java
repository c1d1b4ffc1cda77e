package rombix.links.found;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandlers;
import java.net.StandardSocketOptions;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javax.xml.XMLConstants;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import org.w3c.dom.Element;
import org.xml.sax.SAXException;
import rombix.core.card.Protocol;
import rombix.core.found.FoundGear;
import rombix.core.found.FoundGear.How;
import rombix.wire.Malformed;
import rombix.wire.ssdp.SsdpMessage;

/** Devices that answer to a search by SSDP, with what they say of themselves where they say that it stands. */
final class Ssdp implements AutoCloseable {
    private static final int WITHIN_SECONDS = 2;
    private static final Duration PATIENCE = Duration.ofSeconds(2);
    private static final int LARGEST_DESCRIPTION = 200_000;

    private final Consumer<FoundGear> found;
    private final HttpClient http = HttpClient.newBuilder().connectTimeout(PATIENCE).build();
    private final Set<String> seen = ConcurrentHashMap.newKeySet();
    private final List<DatagramSocket> sockets;

    /** @param port where devices listen */
    Ssdp(List<Networks.Network> networks, int port, Consumer<FoundGear> found) {
        this.found = found;
        sockets = networks.stream().flatMap(n -> {
            try {
                DatagramSocket socket = new DatagramSocket(new InetSocketAddress(n.own(), 0));
                socket.setOption(StandardSocketOptions.IP_MULTICAST_IF, n.face());
                byte[] search = SsdpMessage.search(WITHIN_SECONDS).encode();
                socket.send(new DatagramPacket(search, search.length, InetAddress.getByName(SsdpMessage.GROUP), port));
                return Stream.of(socket);
            } catch (IOException e) {
                return Stream.of(); // Another network may have it.
            }
        }).toList();
        sockets.forEach(s -> Answers.read("ssdp", s, this::take));
    }

    private void take(DatagramPacket in) throws Malformed {
        SsdpMessage came = SsdpMessage.decode(in.getData(), in.getLength());
        if (came.isThere() && !came.header("LOCATION").isEmpty() && seen.add(came.device())) {
            Thread.startVirtualThread(() -> describe(came, in.getAddress()));
        }
    }

    /** Asks at the place that the device named itself; at its own computer alone. */
    private void describe(SsdpMessage came, InetAddress from) {
        try {
            URI at = URI.create(came.header("LOCATION"));
            String host = at.getHost();
            if (host == null || !InetAddress.getByName(host).equals(from)) {
                return;
            }
            boolean tls = "https".equals(at.getScheme());
            int port = at.getPort() > 0 ? at.getPort() : tls ? 443 : 80;
            String name = came.header("SERVER");
            String about = "";
            try {
                Element device = description(at);
                name = text(device, "friendlyName");
                about = Stream.of("manufacturer", "modelName", "modelDescription").map(t -> text(device, t)).filter(
                        t -> !t.isEmpty()).distinct().collect(Collectors.joining(", "));
            } catch (IOException | SAXException | ParserConfigurationException e) {
                // It is there all the same.
            }
            found.accept(new FoundGear(How.SSDP, name.isBlank() ? host : name, about, Protocol.of("http"), host + ":"
                    + port, "", tls, Map.of(), Set.of()));
        } catch (IOException | IllegalArgumentException e) {
            // Nothing that could be reached.
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private Element description(URI at) throws IOException, InterruptedException, SAXException,
            ParserConfigurationException {
        var answer = http.send(HttpRequest.newBuilder(at).timeout(PATIENCE).build(), BodyHandlers.ofInputStream());
        DocumentBuilderFactory xml = DocumentBuilderFactory.newDefaultInstance();
        xml.setFeature(XMLConstants.FEATURE_SECURE_PROCESSING, true);
        xml.setFeature("http://apache.org/xml/features/disallow-doctype-decl", true);
        try (InputStream in = answer.body()) {
            byte[] all = in.readNBytes(LARGEST_DESCRIPTION);
            return xml.newDocumentBuilder().parse(new ByteArrayInputStream(all)).getDocumentElement();
        }
    }

    private static String text(Element of, String tag) {
        var all = of.getElementsByTagName(tag);
        return all.getLength() == 0 ? "" : all.item(0).getTextContent().strip();
    }

    @Override
    public void close() {
        sockets.forEach(DatagramSocket::close);
        http.shutdownNow();
    }
}
