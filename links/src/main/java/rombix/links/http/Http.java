package rombix.links.http;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.List;
import rombix.core.card.Protocol.Reach;
import rombix.core.card.Setting;
import rombix.links.link.GearReport;
import rombix.links.link.Link;
import rombix.links.link.LinkType;
import rombix.links.link.Service;
import rombix.links.link.Target;

/**
 * HTTP (RFC 9110): {@code METHOD /path?query} goes out, the answer comes in from {@code /path}; {@code events /path} is
 * a stream of events (the server-sent events of HTML).
 */
public final class Http extends LinkType {
    static final String LOGIN = "login";
    static final String AS_ASKED = "basic or digest, as it asks";
    static final String BEARER = "bearer token";
    static final String TIMEOUT = "timeout";
    static final double USUAL_TIMEOUT = 4000;
    private static final double LONGEST_TIMEOUT = 60_000;

    public Http() {
        super("http", "HTTP",
                "((GET|HEAD|POST|PUT|PATCH|DELETE|OPTIONS|events|\\{[^{} ]+}) )?(/|\\{[^{} ]+})\\S*|[a-z][a-z0-9-]*",
                "a method and a path, such as PUT /lamp/1; for readings a path, or “events” and a path", 10,
                Reach.NETWORK);
    }

    @Override
    public Link open(GearReport report, Target target) {
        return new HttpLink(report, target);
    }

    @Override
    public List<Service> services() {
        return List.of(new Service("_http._tcp"), Service.overTls("_https._tcp"));
    }

    @Override
    public String usualAddress() {
        return "GET /";
    }

    @Override
    public boolean secures() {
        return true;
    }

    @Override
    public String inAddress(String text) {
        String encoded = URLEncoder.encode(text, StandardCharsets.UTF_8).replace("+", "%20");
        return text.startsWith("/") // A path as a whole, with what may stand in one.
                ? encoded.replace("%2F", "/").replace("%3F", "?").replace("%3D", "=").replace("%26", "&").replace("%25",
                        "%")
                : encoded;
    }

    @Override
    public List<Setting> settings() {
        return List.of(Setting.choice(LOGIN, "Login", List.of(AS_ASKED, BEARER),
                "How to log in. A bearer token is a secret without a user."),
                Setting.number(TIMEOUT,
                        "Response timeout", "ms", 100, LONGEST_TIMEOUT, USUAL_TIMEOUT,
                        "How long to wait for a response."));
    }

    @Override
    public boolean textual() {
        return true;
    }
}
