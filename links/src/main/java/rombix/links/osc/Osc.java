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
        return List.of(Setting.choice(OVER, "Transport", List.of(UDP, TCP, TCP_SLIP),
                "UDP, TCP with a length before each packet (OSC 1.0), or TCP with SLIP framing (OSC 1.1)."),
                Setting.number(RECEIVE, "Receive port", "", 0, 65_535, 0.0,
                        "UDP port for replies; 0 is the port that Rombix sends from."),
                Setting.choice(ANSWERS, "Replies", List.of(ITS_PORT, ANY_PORT),
                        "Some gear replies from another port than the one it receives on."),
                Setting.number(AHEAD, "Bundle delay", "ms", 0, 60_000, 0.0,
                        "Sends bundles with a time tag this far ahead, for gear that supports time tags."));
    }
}
