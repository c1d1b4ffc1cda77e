package rombix.standins.set;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.Set;
import rombix.standins.CameraHead;
import rombix.standins.Chat;
import rombix.standins.Cues;
import rombix.standins.House;
import rombix.standins.Lamps;
import rombix.standins.Music;
import rombix.standins.Projector;
import rombix.standins.RelayBox;
import rombix.standins.Studio;
import rombix.standins.midi.CableProvider;
import rombix.standins.midi.SoundDesk;
import rombix.standins.sound.Speakers;

/**
 * One stand-in, running at any free port.
 *
 * @param address where it is reached, as boards write it
 */
public record StandIn(String address, AutoCloseable gear) implements AutoCloseable {
    /** The cards that there is a stand-in for. */
    public static final Set<String> CARDS = Set.of("studio", "sound-desk", "lamps", "lamp-cues", "house", "chat",
            "player", "projector", "camera-head", "music", "relay-box", "house-json", "machine-control",
            "show-control");

    /**
     * Starts one for a card.
     *
     * @throws IllegalArgumentException where there is none
     */
    public static StandIn of(String card) throws IOException {
        return switch (card) {
            case "studio" -> {
                Studio gear = new Studio(0);
                yield at(gear.port(), gear);
            }
            case "sound-desk" -> {
                SoundDesk gear = new SoundDesk(0);
                CableProvider.plug(CableProvider.SOUND_DESK, new InetSocketAddress(InetAddress.getLoopbackAddress(),
                        gear.port()));
                yield new StandIn(CableProvider.SOUND_DESK, gear);
            }
            case "machine-control", "show-control" -> {
                ShowPort gear = new ShowPort(0);
                CableProvider.plug(CableProvider.SHOW, new InetSocketAddress(InetAddress.getLoopbackAddress(), gear
                        .port()));
                yield new StandIn(CableProvider.SHOW, gear);
            }
            case "lamps" -> {
                Lamps gear = new Lamps(0);
                yield at(gear.port(), gear);
            }
            case "lamp-cues" -> {
                Cues gear = new Cues(0);
                yield at(gear.port(), gear);
            }
            case "house", "house-json" -> {
                House gear = new House(0);
                yield at(gear.port(), gear);
            }
            case "chat" -> {
                Chat gear = new Chat(0);
                yield at(gear.port(), gear);
            }
            case "projector" -> {
                Projector gear = new Projector(0);
                yield at(gear.port(), gear);
            }
            case "camera-head" -> {
                CameraHead gear = new CameraHead(0);
                yield at(gear.port(), gear);
            }
            case "music" -> {
                Music gear = new Music(0);
                yield at(gear.port(), gear);
            }
            case "relay-box" -> {
                RelayBox gear = new RelayBox(null, 0);
                yield new StandIn(gear.address(), gear);
            }
            case "player" -> new StandIn(Speakers.HOUSE, () -> {
                // The loudspeaker is there as long as Rombix is.
            });
            default -> throw new IllegalArgumentException("there is no stand-in for " + card);
        };
    }

    private static StandIn at(int port, AutoCloseable gear) {
        return new StandIn("127.0.0.1:" + port, gear);
    }

    @Override
    public void close() {
        try {
            gear.close();
        } catch (Exception e) {
            throw new IllegalStateException("a stand-in can't be ended", e);
        }
    }
}
