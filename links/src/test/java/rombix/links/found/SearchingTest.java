package rombix.links.found;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.MulticastSocket;
import java.net.ServerSocket;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import rombix.core.board.Gear;
import rombix.core.card.Protocol;
import rombix.core.found.FoundGear.How;
import rombix.core.found.FoundGear;
import rombix.links.link.Keyring;
import rombix.links.link.Target;
import rombix.standins.CameraHead;
import rombix.standins.House;
import rombix.standins.Lamps;
import rombix.standins.set.Announcements.Service;
import rombix.standins.set.Announcements;

@Timeout(300)
class SearchingTest {
    private static final List<Networks.Network> HERE = Networks.all().stream().filter(n -> n.own().isLoopbackAddress())
            .toList();
    private final Queue<FoundGear> found = new ConcurrentLinkedQueue<>();
    private AutoCloseable searching = () -> {
    };

    @AfterEach
    void end() throws Exception {
        searching.close();
    }

    private void search(List<Target> brokers, int ssdp, int artNet) {
        searching = new Searching(brokers, HERE, new Searching.Ports(ssdp, artNet), found::add);
    }

    private FoundGear soon(How how, String name) {
        return await().atMost(Duration.ofSeconds(60)).pollInterval(Duration.ofMillis(10)).until(() -> found.stream()
                .filter(g -> g.how() == how && g.name().contains(name)).findFirst().orElse(null), g -> g != null);
    }

    private static int freePort() throws Exception {
        try (DatagramSocket any = new DatagramSocket(0)) {
            return any.getLocalPort();
        }
    }

    @Test
    void whatIsAnnouncedByDnsSdIsFoundWithItsAddressAndItsPath() throws Exception {
        String name = "Attic music " + ProcessHandle.current().pid();
        String cellar = "Cellar broker " + ProcessHandle.current().pid();
        try (var told = new Announcements(List.of(new Service("_ws._tcp", name, 4711, Map.of("path", "/control")),
                new Service("_secure-mqtt._tcp", cellar, 4712, Map.of("model", "box"))))) {
            assertThat(told).isNotNull();
            search(List.of(), freePort(), freePort());
            FoundGear music = soon(How.DNS_SD, name);
            assertThat(music.protocol().id()).isEqualTo("websocket");
            assertThat(music.address()).isEqualTo("127.0.0.1:4711");
            await().until(() -> found.stream().anyMatch(g -> g.settings().containsKey("path")));
            FoundGear broker = soon(How.DNS_SD, cellar);
            assertThat(broker.tls()).isTrue();
            assertThat(broker.link().tls()).isNotNull();
        }
    }

    /** Each of them was waited for by itself, for six seconds. */
    @Test
    void servicesThatDoNotSayWhereTheyAreHoldUpNoOther() throws Exception {
        search(List.of(), freePort(), freePort());
        String first = "Porch light " + ProcessHandle.current().pid();
        try (var told = new Announcements(List.of(new Service("_osc._udp", first, 4713, Map.of())))) {
            assertThat(told).isNotNull();
            soon(How.DNS_SD, first); // It listens.
        }
        try (MulticastSocket out = new MulticastSocket()) {
            out.setNetworkInterface(HERE.getFirst().face());
            out.setTimeToLive(0);
            for (int i = 0; i < 40; i++) {
                byte[] packet = nameless(i);
                out.send(new DatagramPacket(packet, packet.length, InetAddress.getByName("224.0.0.251"), 5353));
            }
        }
        String second = "Attic light " + ProcessHandle.current().pid();
        try (var told = new Announcements(List.of(new Service("_osc._udp", second, 4714, Map.of())))) {
            assertThat(told).isNotNull();
            soon(How.DNS_SD, second);
        }
    }

    /** An answer that names a service and nothing of it (RFC 1035, 4.1). */
    private static byte[] nameless(int number) {
        byte[] type = "\4_osc\4_udp\5local\0".getBytes(StandardCharsets.US_ASCII);
        byte[] name = ("\6Ghost" + (char) ('A' + number)).getBytes(StandardCharsets.US_ASCII);
        int fixed = 10;
        ByteBuffer out = ByteBuffer.allocate(12 + 2 * type.length + fixed + name.length);
        out.putShort((short) 0).putShort((short) 0x8400).putShort((short) 0).putShort((short) 1).putInt(0);
        return out.put(type).putShort((short) 12).putShort((short) 1).putInt(120).putShort((short) (name.length
                + type.length)).put(name).put(type).array();
    }

    @Test
    void aDeviceThatAnswersToSsdpIsCalledAsItDescribesItself() throws Exception {
        int port = freePort();
        try (CameraHead camera = new CameraHead(0);
                Announcements told = new Announcements(List.of()).device(port, "http://127.0.0.1:" + camera.port()
                        + "/description.xml", "uuid:1")) {
            assertThat(told).isNotNull();
            search(List.of(), port, freePort());
            FoundGear device = soon(How.SSDP, "Gate camera head");
            assertThat(device.address()).isEqualTo("127.0.0.1:" + camera.port());
            assertThat(device.about()).contains("Larkmoor workshop");
            assertThat(camera.requests()).as("nothing but its description was asked for").isZero();
        }
    }

    /** A device could otherwise have us ask at any address. */
    @Test
    void aDeviceThatPointsElsewhereIsNotFollowed() throws Exception {
        int port = freePort();
        try (ServerSocket elsewhere = new ServerSocket(0, 5, InetAddress.getByName("127.0.0.9"));
                Announcements told = new Announcements(List.of()).device(port, "http://127.0.0.9:" + elsewhere
                        .getLocalPort() + "/", "uuid:2");
                Lamps lamps = new Lamps(0)) {
            assertThat(told).isNotNull();
            search(List.of(), port, lamps.node(0));
            soon(How.ART_NET, "Larkmoor lamps"); // By then all were asked.
            elsewhere.setSoTimeout(300);
            assertThat(org.assertj.core.api.Assertions.catchThrowable(elsewhere::accept)).isInstanceOf(
                    java.net.SocketTimeoutException.class);
            assertThat(found).noneMatch(g -> g.how() == How.SSDP);
        }
    }

    @Test
    void aNodeThatAnswersToAPollIsFoundWithItsUniverses() throws Exception {
        try (Lamps lamps = new Lamps(0)) {
            search(List.of(), freePort(), lamps.node(0));
            FoundGear node = soon(How.ART_NET, "Larkmoor lamps");
            assertThat(node.protocol().id()).isEqualTo("artnet");
            assertThat(node.about()).isEqualTo("universe 0");
        }
    }

    @Test
    void theTopicsThatABrokerOfTheBoardKeepsAreFound() throws Exception {
        try (House house = new House(0)) {
            String at = "127.0.0.1:" + house.port();
            search(List.of(new Target(at, new Gear.Link(Protocol.of("mqtt"), at, Map.of()), Keyring.NONE, Path::of)),
                    freePort(), freePort());
            assertThat(soon(How.TOPICS, at).topics()).contains("house/lock/gate", "house/plug/tea-urn");
        }
    }

    /** Who did not say that it is there is left in peace. */
    @Test
    void nothingIsSentToWhatDidNotAnnounceItself() throws Exception {
        AtomicInteger came = new AtomicInteger();
        try (DatagramSocket quiet = new DatagramSocket(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0));
                ServerSocket listening = new ServerSocket(0, 5, InetAddress.getLoopbackAddress());
                Lamps lamps = new Lamps(0)) {
            Thread.startVirtualThread(() -> {
                try {
                    quiet.receive(new DatagramPacket(new byte[100], 100));
                    came.incrementAndGet();
                } catch (java.io.IOException e) {
                    // Nothing came.
                }
            });
            search(List.of(), freePort(), lamps.node(0));
            soon(How.ART_NET, "Larkmoor lamps");
            listening.setSoTimeout(300);
            assertThat(org.assertj.core.api.Assertions.catchThrowable(listening::accept)).isInstanceOf(
                    java.net.SocketTimeoutException.class);
            assertThat(came).hasValue(0);
        }
    }
}
