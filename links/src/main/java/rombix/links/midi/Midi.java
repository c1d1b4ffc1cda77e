package rombix.links.midi;

import java.util.List;
import java.util.stream.Stream;
import javax.sound.midi.MidiDevice;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.MidiUnavailableException;
import javax.sound.midi.Sequencer;
import javax.sound.midi.Synthesizer;
import rombix.core.card.Protocol.Reach;
import rombix.links.link.GearReport;
import rombix.links.link.Link;
import rombix.links.link.LinkType;
import rombix.links.link.Target;

/** MIDI: {@code control CHANNEL NUMBER}, {@code note CHANNEL NUMBER} or {@code program CHANNEL}; channels count from 1. */
public final class Midi extends LinkType {
    private static final String CHANNEL = "(\\{[^{}]+}|[1-9]|1[0-6])";
    private static final String NUMBER = "(\\{[^{}]+}|\\d|[1-9]\\d|1[01]\\d|12[0-7])";

    public Midi() {
        super("midi", "MIDI", "(control|note) " + CHANNEL + " " + NUMBER + "|program " + CHANNEL,
                "control CHANNEL NUMBER, note CHANNEL NUMBER or program CHANNEL, channels from 1 to 16 and numbers to 127",
                50, Reach.PORT);
    }

    @Override
    public List<String> ports() {
        return Stream.of(MidiSystem.getMidiDeviceInfo()).filter(Midi::takesMessages).map(MidiDevice.Info::getName)
                .distinct().toList();
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
        return new MidiLink(report, target.address());
    }
}
