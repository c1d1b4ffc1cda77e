package rombix.standins.set;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import org.jspecify.annotations.Nullable;
import rombix.standins.CameraHead;
import rombix.standins.Chat;
import rombix.standins.Cues;
import rombix.standins.DemoLogin;
import rombix.standins.Gamepad;
import rombix.standins.House;
import rombix.standins.Lamps;
import rombix.standins.Music;
import rombix.standins.Ports;
import rombix.standins.Projector;
import rombix.standins.RelayBox;
import rombix.standins.Studio;
import rombix.standins.booth.Booth;
import rombix.standins.midi.CableProvider;
import rombix.standins.midi.Pads;
import rombix.standins.midi.SoundDesk;
import rombix.standins.set.Announcements.Service;
import rombix.standins.sound.Speakers;
import rombix.wire.dmx.ArtNetPacket;
import rombix.wire.ssdp.SsdpMessage;

/** All stand-ins of the observatory, running. */
public final class StandIns implements AutoCloseable {
    /** Where the demo board finds the serial port of the relays, where this system has such. */
    private static final Path RELAYS = Path.of("/tmp/larkmoor-relays");

    /** How many sets of them run in this process. */
    private static final AtomicInteger RUNNING = new AtomicInteger();

    private final Studio studio;
    private final SoundDesk desk;
    private final Lamps lamps;
    private final Cues cues;
    private final House house;
    private final Chat chat;
    private final Pads pads;
    private final Projector projector;
    private final CameraHead camera;
    private final Music music;
    private final RelayBox relays;
    private final Booth booth;
    private final @Nullable Gamepad gamepad;
    private volatile @Nullable Announcements announcements;

    private final AtomicBoolean closed = new AtomicBoolean();

    private StandIns(boolean known) throws IOException {
        studio = new Studio(known ? Ports.STUDIO : 0);
        desk = new SoundDesk(known ? Ports.SOUND_DESK : 0);
        CableProvider.plug(CableProvider.SOUND_DESK,
                new InetSocketAddress(InetAddress.getLoopbackAddress(), desk.port()));
        lamps = new Lamps(known ? Ports.LAMPS : 0);
        cues = new Cues(known ? Ports.CUES : 0);
        house = new House(known ? Ports.HOUSE : 0);
        chat = new Chat(known ? Ports.CHAT : 0);
        pads = new Pads(known ? Ports.PADS : 0);
        booth = new Booth(known ? Ports.BOOTH : 0);
        gamepad = known ? gamepad(Ports.GAMEPAD) : null;
        projector = new Projector(known ? Ports.PROJECTOR : 0);
        camera = new CameraHead(known ? Ports.CAMERA : 0);
        music = new Music(known ? Ports.MUSIC : 0);
        relays = new RelayBox(known ? RELAYS : null, known ? Ports.RELAYS : 0);
        if (known) {
            announce();
        }
        CableProvider.plug(CableProvider.PADS, new InetSocketAddress(InetAddress.getLoopbackAddress(), pads.port()));
        RUNNING.incrementAndGet();
    }

    /** The secret with a name, where it is that of the stand-ins and they run in this process. */
    public static Optional<String> secret(String name) {
        return RUNNING.get() > 0 ? DemoLogin.secret(name) : Optional.empty();
    }

    /** Has them say that they are here, on this computer's own network, so that they can be found. */
    public void announce() {
        lamps.node(ArtNetPacket.PORT);
        announcements = new Announcements(List.of(new Service("_osc._udp", "Larkmoor studio", studio.port(), Map.of()),
                new Service("_mqtt._tcp", "Larkmoor house", house.port(), Map.of()), new Service("_irc._tcp",
                        "Star night chat", chat.port(), Map.of()),
                new Service("_ws._tcp", "Larkmoor music", music.port(), Map.of()), new Service(
                        "_telnet._tcp", "Dome projector", projector.port(), Map.of())))
                .device(SsdpMessage.PORT, "http://127.0.0.1:" + camera.port() + CameraHead.DESCRIPTION,
                        "uuid:larkmoor-gate-camera");
    }

    /** Starts them on the ports that the demo board names. Throws BindException if one is taken. */
    public static StandIns onTheirPorts() throws IOException {
        return new StandIns(true);
    }

    /** What is reached elsewhere than the demo board says on a system without pseudo-terminals, by the gear's id. */
    public static Map<String, String> elsewhere() {
        return Files.isDirectory(Path.of("/tmp")) ? Map.of() : Map.of("relays", "127.0.0.1:" + Ports.RELAYS);
    }

    /** Not every computer has the library that one can be plugged into; all else runs without. */
    private static @Nullable Gamepad gamepad(int port) {
        try {
            return new Gamepad(port);
        } catch (IOException e) {
            return null;
        }
    }

    /** Starts them on any free ports, without a gamepad: there is one set of those for all that run here. */
    public static StandIns onFreePorts() throws IOException {
        return new StandIns(false);
    }

    /** Where each can be reached, by the id that the demo board's gear has. */
    public Map<String, String> addresses() {
        Map<String, String> all = new LinkedHashMap<>();
        all.put("studio", "127.0.0.1:" + studio.port());
        all.put("desk", CableProvider.SOUND_DESK);
        all.put("lamps", "127.0.0.1:" + lamps.port());
        all.put("cues", "127.0.0.1:" + cues.port());
        all.put("house", "127.0.0.1:" + house.port());
        all.put("chat", "127.0.0.1:" + chat.port());
        all.put("player", Speakers.HOUSE);
        all.put("computer", "127.0.0.1:" + booth.port());
        all.put("projector", "127.0.0.1:" + projector.port());
        all.put("camera", "127.0.0.1:" + camera.port());
        all.put("music", "127.0.0.1:" + music.port());
        all.put("relays", relays.address());
        return all;
    }

    public Studio studio() {
        return studio;
    }

    public SoundDesk desk() {
        return desk;
    }

    public Lamps lamps() {
        return lamps;
    }

    public Cues cues() {
        return cues;
    }

    public House house() {
        return house;
    }

    public Chat chat() {
        return chat;
    }

    public Booth booth() {
        return booth;
    }

    /** Where the gamepad takes its lines; empty where none could be plugged in. */
    public Optional<Integer> gamepadPort() {
        return Optional.ofNullable(gamepad).map(Gamepad::port);
    }

    public Pads pads() {
        return pads;
    }

    public Projector projector() {
        return projector;
    }

    public CameraHead camera() {
        return camera;
    }

    public Music music() {
        return music;
    }

    public RelayBox relays() {
        return relays;
    }

    @Override
    public void close() throws IOException {
        if (closed.getAndSet(true)) {
            return;
        }
        RUNNING.decrementAndGet();
        pads.close();
        booth.close();
        Announcements said = announcements;
        if (said != null) {
            said.close();
        }
        if (gamepad != null) {
            gamepad.close();
        }
        studio.close();
        desk.close();
        lamps.close();
        cues.close();
        house.close();
        chat.close();
        projector.close();
        camera.close();
        music.close();
        relays.close();
    }
}
