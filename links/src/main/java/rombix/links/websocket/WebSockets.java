package rombix.links.websocket;

import java.util.List;
import rombix.core.card.Protocol.Reach;
import rombix.core.card.Setting;
import rombix.links.link.GearPlaces;
import rombix.links.link.GearReport;
import rombix.links.link.Link;
import rombix.links.link.LinkType;
import rombix.links.link.Service;
import rombix.links.link.Target;
import rombix.links.talk.Talk;
import rombix.links.talk.Usual;

/** WebSocket (RFC 6455): {@code text} and {@code bytes} go out and come in. */
public final class WebSockets extends LinkType {
    static final String PATH = "path";
    static final String SUBPROTOCOL = "subprotocol";

    public WebSockets() {
        super("websocket", "WebSocket", "[a-z][a-z0-9-]*", "text, bytes or wait, or the name of a reply",
                20,
                Reach.NETWORK);
    }

    @Override
    public Link open(GearReport report, Target target) {
        target.hostPort(); // One that makes no sense is told at once.
        GearPlaces places = new GearPlaces(report.twin(), target);
        return new Talk("websocket", report, places, () -> new WebSocketWire(target, places));
    }

    @Override
    public List<Service> services() {
        return List.of(new Service("_ws._tcp"), Service.overTls("_wss._tcp"));
    }

    @Override
    public String usualAddress() {
        return "text";
    }

    @Override
    public boolean secures() {
        return true;
    }

    @Override
    public List<Setting> settings() {
        return Usual.and(Setting.text(PATH, "Path",
                "Path after host and port, such as /control. Default: /"),
                Setting.text(SUBPROTOCOL, "Subprotocol",
                        "Some servers require one for the connection."));
    }

    @Override
    public boolean textual() {
        return true;
    }
}
