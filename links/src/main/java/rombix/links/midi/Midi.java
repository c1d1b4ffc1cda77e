package rombix.links.midi;

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
    public Link open(GearReport report, Target target) {
        return new MidiLink(report, target.address());
    }
}
