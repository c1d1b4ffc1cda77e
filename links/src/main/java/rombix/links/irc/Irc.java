package rombix.links.irc;

import java.util.List;
import rombix.core.card.Protocol.Reach;
import rombix.core.card.Setting;
import rombix.links.link.GearReport;
import rombix.links.link.Link;
import rombix.links.link.LinkType;
import rombix.links.link.Service;
import rombix.links.link.Target;

/** IRC: {@code COMMAND PARAMS}, such as {@code PRIVMSG #room}; what is carried follows as the last parameters. */
public final class Irc extends LinkType {
    static final String NICK = "nick";
    static final String LOGIN = "login";
    static final String PASSWORD = "password of the server";
    static final String SASL = "account (sasl)";
    static final String KEY = "key";
    static final String PACE = "pace";

    public Irc() {
        super("irc", "IRC", "[A-Z]+( \\S+)*", "an IRC command and its first parameters, such as PRIVMSG #room", 2,
                Reach.NETWORK);
    }

    @Override
    public Link open(GearReport report, Target target) {
        return new IrcLink(report, target);
    }

    @Override
    public List<Setting> settings() {
        return List.of(Setting.text(NICK, "Nick", "The name that others see. Default: the user."), Setting
                .choice(LOGIN, "Login", List.of(PASSWORD, SASL),
                        "What the secret is for: the server or the user's account (SASL)."),
                Setting
                        .text(KEY, "Channel key", "The password of the channel, if it has one."),
                Setting
                        .number(PACE, "Pause between lines", "ms", 0, 10_000, 0.0,
                                "For servers with a rate limit; applies after five lines at once."));
    }

    @Override
    public List<Service> services() {
        return List.of(new Service("_irc._tcp"), Service.overTls("_ircs._tcp"));
    }

    @Override
    public String inText(String text) {
        return text.replaceAll("[\\r\\n\\x00]", " "); // A line is one command.
    }

    @Override
    public boolean secures() {
        return true;
    }

    @Override
    public boolean textual() {
        return true;
    }
}
