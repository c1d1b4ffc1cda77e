package rombix.links.sound;

import java.util.List;
import java.util.stream.Stream;
import rombix.core.card.Protocol.Reach;
import rombix.links.link.GearReport;
import rombix.links.link.Link;
import rombix.links.link.LinkType;
import rombix.links.link.Target;

/** A player, reached at the name of the output that it plays through. */
public final class Sound extends LinkType {
    public Sound() {
        super("sound", "sound", "(play|stop|level|playing|left) (clip|\\{clip}|[a-z0-9-]+)|stop|level|outputs",
                "a function or reading, such as play {clip} or outputs", 50, Reach.PORT);
    }

    @Override
    public Link open(GearReport report, Target target) {
        return new SoundLink(report, target.address(), target.files());
    }

    @Override
    public String portWord() {
        return "output";
    }

    @Override
    public List<String> ports() {
        List<String> standIns = AudioOutput.standIns();
        return Stream.concat(AudioOutput.names().stream().filter(n -> !standIns.contains(n)),
                AudioOutput.names().stream().filter(
                        standIns::contains))
                .toList();
    }

    @Override
    public boolean standIn(String port) {
        return AudioOutput.standIns().contains(port);
    }
}
