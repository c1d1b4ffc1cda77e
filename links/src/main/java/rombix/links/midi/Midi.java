package rombix.links.midi;

import rombix.core.card.Protocol.Reach;
import rombix.links.link.GearReport;
import rombix.links.link.Link;
import rombix.links.link.LinkType;

/** MIDI: {@code control CHANNEL NUMBER}, {@code note CHANNEL NUMBER} or {@code program CHANNEL}; channels count from 1. */
public final class Midi extends LinkType {
    public Midi() {
        super("midi", "MIDI", "(control|note) \\S+ \\S+|program \\S+",
                "control CHANNEL NUMBER, note CHANNEL NUMBER or program CHANNEL", 50, Reach.PORT);
    }

    @Override
    public Link open(GearReport report, String address) {
        return new MidiLink(report, address);
    }
}
