package rombix.links.osc;

import java.util.List;
import java.util.Map;
import rombix.core.card.Protocol.Reach;
import rombix.core.card.Setting;
import rombix.core.value.Value;
import rombix.links.link.GearPlaces;
import rombix.links.link.GearReport;
import rombix.links.link.Link;
import rombix.links.link.LinkType;
import rombix.links.link.Service;
import rombix.links.link.Target;
import rombix.links.talk.Talk;
import rombix.wire.osc.OscFraming;

/** OSC, over UDP or TCP: {@code /address/of/the/method}. */
public final class Osc extends LinkType {
    static final String OVER = "over";
    static final String UDP = "udp";
    static final String TCP = "tcp, length first";
    static final String TCP_SLIP = "tcp, slip";
    static final String RECEIVE = "receive";
    static final String ANSWERS = "answers";
    static final String ITS_PORT = "from its port";
    static final String ANY_PORT = "from any port";
    static final String AHEAD = "ahead";

    public Osc() {
        super("osc", "OSC", "(/|\\{[^{}]+})[^ #*,?\\[\\]]*", "an OSC address such as /studio/scene", 50, Reach.NETWORK);
    }

    @Override
    public Link open(GearReport report, Target target) {
        target.hostPort(); // One that makes no sense is told at once.
        GearPlaces places = new GearPlaces(report.twin(), target);
        String over = places.text(OVER);
        if (over.equals(UDP)) {
            return new OscLink(report, target.hostPort(), places);
        }
        OscFraming framing = over.equals(TCP_SLIP) ? OscFraming.SLIP : OscFraming.LENGTH;
        long ahead = (long) places.number(AHEAD, 0);
        return new Talk("osc", report, places, () -> new OscStreamWire(target, framing, ahead, m -> report.landed(m
                .address(), m.args())));
    }

    @Override
    public boolean connects(Target target) {
        return !Value.of(UDP).equals(target.link().settings().getOrDefault(OVER, Value.of(UDP)));
    }

    @Override
    public List<Service> services() {
        return List.of(new Service("_osc._udp"), new Service("_osc._tcp", false, Map.of(OVER, Value.of(TCP))));
    }

    @Override
    public boolean bothWays() {
        return true;
    }

    @Override
    public List<Setting> settings() {
        return List.of(Setting.choice(OVER, "Over", List.of(UDP, TCP, TCP_SLIP),
                "UDP, or TCP with the length before each packet (OSC 1.0) or between END bytes (OSC 1.1)."),
                Setting.number(RECEIVE, "Receive port", "", 0, 65_535, 0.0,
                        "Where it sends its answers, over UDP; 0 for the port that Rombix sends from."),
                Setting.choice(ANSWERS, "Answers come", List.of(ITS_PORT, ANY_PORT),
                        "Some gear answers from another port than the one it is sent to."),
                Setting.number(AHEAD, "Done after", "ms", 0, 60_000, 0.0,
                        "Sent early in a bundle that is to be done so much later, for gear that keeps to time tags."));
    }
}
