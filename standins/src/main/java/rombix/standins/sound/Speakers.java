package rombix.standins.sound;

import java.util.Map;
import java.util.concurrent.ConcurrentSkipListMap;
import javax.sound.sampled.Mixer;
import javax.sound.sampled.spi.MixerProvider;

/**
 * Outputs that are {@link Speaker}s, found by the platform like any other. Those named {@value #HOUSE} and
 * {@value #HEADPHONES} are always there.
 */
public final class Speakers extends MixerProvider {
    public static final String HOUSE = "Larkmoor House";
    public static final String HEADPHONES = "Larkmoor Headphones";

    private static final Map<String, Speaker> PLUGGED = new ConcurrentSkipListMap<>(Map.of(HOUSE, made(HOUSE, true),
            HEADPHONES, made(HEADPHONES, true)));

    private static Speaker made(String name, boolean paced) {
        return new Speaker(new Speaker.Label(name), paced);
    }

    /**
     * Plugs one in.
     *
     * @param paced whether it takes sound at the pace at which it would play it, or as fast as it comes
     */
    public static Speaker plug(String name, boolean paced) {
        Speaker speaker = made(name, paced);
        PLUGGED.put(name, speaker);
        return speaker;
    }

    /** Pulls a plug, whether something plays or not. */
    public static void unplug(String name) {
        Speaker gone = PLUGGED.remove(name);
        if (gone != null) {
            gone.pull();
        }
    }

    /** The one with a name. */
    public static Speaker of(String name) {
        Speaker speaker = PLUGGED.get(name);
        if (speaker == null) {
            throw new IllegalArgumentException("no speaker " + name);
        }
        return speaker;
    }

    @Override
    public Mixer.Info[] getMixerInfo() {
        return PLUGGED.values().stream().map(Speaker::getMixerInfo).toArray(Mixer.Info[]::new);
    }

    @Override
    public Mixer getMixer(Mixer.Info info) {
        Speaker speaker = PLUGGED.get(info.getName());
        if (speaker == null || speaker.getMixerInfo() != info) {
            throw new IllegalArgumentException("no speaker " + info);
        }
        return speaker;
    }
}
