package rombix.standins;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** All stand-ins of the observatory, running. */
public final class StandIns implements AutoCloseable {
    private static final int NONE = -1;

    private final Studio studio;
    private final SoundDesk desk;
    private final Lamps lamps;
    private final Cues cues;
    private final House house;
    private final Chat chat;
    private final Pads pads;
    private final Booth booth;
    private final @Nullable Gamepad gamepad;

    private StandIns(int studioPort, int deskPort, int lampsPort, int cuesPort, int housePort, int chatPort,
            int padsPort, int boothPort, int gamepadPort) throws IOException {
        studio = new Studio(studioPort);
        desk = new SoundDesk(deskPort);
        CableProvider.plug(CableProvider.SOUND_DESK,
                new InetSocketAddress(InetAddress.getLoopbackAddress(), desk.port()));
        lamps = new Lamps(lampsPort);
        cues = new Cues(cuesPort);
        house = new House(housePort);
        chat = new Chat(chatPort);
        pads = new Pads(padsPort);
        booth = new Booth(boothPort);
        gamepad = gamepadPort < 0 ? null : gamepad(gamepadPort);
        CableProvider.plug(CableProvider.PADS, new InetSocketAddress(InetAddress.getLoopbackAddress(), pads.port()));
    }

    /** Starts them on the ports that the demo board names. Throws BindException if one is taken. */
    public static StandIns onTheirPorts() throws IOException {
        return new StandIns(Ports.STUDIO, Ports.SOUND_DESK, Ports.LAMPS, Ports.CUES, Ports.HOUSE, Ports.CHAT,
                Ports.PADS, Ports.BOOTH, Ports.GAMEPAD);
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
        return new StandIns(0, 0, 0, 0, 0, 0, 0, 0, NONE);
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

    @Override
    public void close() throws IOException {
        pads.close();
        booth.close();
        if (gamepad != null) {
            gamepad.close();
        }
        studio.close();
        desk.close();
        lamps.close();
        cues.close();
        house.close();
        chat.close();
    }
}
