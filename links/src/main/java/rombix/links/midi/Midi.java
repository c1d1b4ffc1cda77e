package rombix.links.midi;

import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import javax.sound.midi.MidiDevice;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.MidiUnavailableException;
import javax.sound.midi.Sequencer;
import javax.sound.midi.Synthesizer;
import rombix.core.card.Protocol.Reach;
import rombix.links.link.GearPlaces;
import rombix.links.link.GearReport;
import rombix.links.link.Link;
import rombix.links.link.LinkType;
import rombix.links.link.Target;
import rombix.wire.midi.MidiWords;

/** MIDI, whose messages have the words of {@link MidiWords}; channels count from 1. */
public final class Midi extends LinkType {
    public Midi() {
        super("midi", "MIDI", MidiWords.form(), MidiWords.expected(), 50, Reach.PORT);
    }

    @Override
    public boolean bothWays() {
        return true;
    }

    @Override
    public String portWord() {
        return "MIDI port";
    }

    @Override
    public List<String> ports() {
        Map<String, Integer> seen = new HashMap<>();
        return Stream.of(MidiSystem.getMidiDeviceInfo()).filter(Midi::takesMessages).sorted(Comparator.comparing(
                Midi::standIn)).map(MidiDevice.Info::getName).map(name -> PortNames.numbered(name,
                        seen.merge(name, 1,
                                Integer::sum)))
                .toList();
    }

    @Override
    public boolean standIn(String port) {
        return Stream.of(MidiSystem.getMidiDeviceInfo()).anyMatch(i -> standIn(i) && i.getName().equals(port));
    }

    private static boolean standIn(MidiDevice.Info info) {
        return info.getVendor().equals(STAND_IN);
    }

    private static boolean takesMessages(MidiDevice.Info info) {
        try {
            MidiDevice device = MidiSystem.getMidiDevice(info);
            return device.getMaxReceivers() != 0 && !(device instanceof Synthesizer) && !(device instanceof Sequencer);
        } catch (MidiUnavailableException | IllegalArgumentException e) {
            return false; // It went while it was looked at.
        }
    }

    @Override
    public Link open(GearReport report, Target target) {
        return new MidiLink(report, target.address(), new GearPlaces(report.twin(), target));
    }
}
