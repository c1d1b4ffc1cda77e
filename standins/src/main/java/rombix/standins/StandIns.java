package rombix.standins;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.LinkedHashMap;
import java.util.Map;

/** All stand-ins of the observatory, running. */
public final class StandIns implements AutoCloseable {

    private final Studio studio;
    private final SoundDesk desk;
    private final Lamps lamps;
    private final Cues cues;
    private final House house;
    private final Chat chat;
    private final Pads pads;
    private final Booth booth;

    private StandIns(int studioPort, int deskPort, int lampsPort, int cuesPort, int housePort, int chatPort,
            int padsPort, int boothPort) throws IOException {
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
        CableProvider.plug(CableProvider.PADS, new InetSocketAddress(InetAddress.getLoopbackAddress(), pads.port()));
    }

    /** Starts them on the ports that the demo board names. Throws BindException if one is taken. */
    public static StandIns onTheirPorts() throws IOException {
        return new StandIns(Ports.STUDIO, Ports.SOUND_DESK, Ports.LAMPS, Ports.CUES, Ports.HOUSE, Ports.CHAT,
                Ports.PADS, Ports.BOOTH);
    }

    /** Starts them on any free ports. */
    public static StandIns onFreePorts() throws IOException {
        return new StandIns(0, 0, 0, 0, 0, 0, 0, 0);
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

    public Pads pads() {
        return pads;
    }

    @Override
    public void close() throws IOException {
        pads.close();
        booth.close();
        studio.close();
        desk.close();
        lamps.close();
        cues.close();
        house.close();
        chat.close();
    }
}
