package rombix.standins.midi;

import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.Map;
import java.util.concurrent.ConcurrentSkipListMap;
import javax.sound.midi.MidiDevice;
import javax.sound.midi.spi.MidiDeviceProvider;
import rombix.standins.Ports;
import rombix.standins.set.ShowPort;

/**
 * MIDI ports that are cables to a {@link SoundDesk} or to {@link Pads}, found by the platform like any other port. Those
 * named {@value #SOUND_DESK} and {@value #PADS} are always there and lead to the ports that those have when they run
 * alone.
 */
public final class CableProvider extends MidiDeviceProvider {
    public static final String SOUND_DESK = "Larkmoor Sound Desk";
    public static final String PADS = "Larkmoor Pads";
    /** There while a {@link ShowPort} runs. */
    public static final String SHOW = "Larkmoor Show Port";
    private static final Map<String, InetSocketAddress> PLUGGED = new ConcurrentSkipListMap<>(Map.of(SOUND_DESK, at(
            Ports.SOUND_DESK), PADS, at(Ports.PADS)));

    /** The platform knows a port by the very description it was given, so there is one for each name. */
    private static final Map<String, Cable.Label> LABELS = new ConcurrentSkipListMap<>();

    private static InetSocketAddress at(int port) {
        return new InetSocketAddress(InetAddress.getLoopbackAddress(), port);
    }

    /** Makes a port that leads to an address, or leads a port there. */
    public static void plug(String name, InetSocketAddress desk) {
        PLUGGED.put(name, desk);
    }

    /** Takes a port away. */
    public static void unplug(String name) {
        PLUGGED.remove(name);
    }

    @Override
    public MidiDevice.Info[] getDeviceInfo() {
        return PLUGGED.keySet().stream().map(n -> LABELS.computeIfAbsent(n, Cable.Label::new))
                .toArray(MidiDevice.Info[]::new);
    }

    @Override
    public MidiDevice getDevice(MidiDevice.Info info) {
        InetSocketAddress desk = PLUGGED.get(info.getName());
        if (!(info instanceof Cable.Label) || desk == null) {
            throw new IllegalArgumentException("no cable " + info);
        }
        return new Cable(info, desk);
    }
}
