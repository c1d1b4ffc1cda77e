package rombix.links.irc;

import rombix.core.card.Protocol.Reach;
import rombix.links.link.GearReport;
import rombix.links.link.HostPort;
import rombix.links.link.Link;
import rombix.links.link.LinkType;

/** IRC: {@code COMMAND PARAMS}, such as {@code PRIVMSG #room}; what is carried follows as the last parameters. */
public final class Irc extends LinkType {
    public Irc() {
        super("irc", "IRC", "[A-Z]+( \\S+)*", "an IRC command and its first parameters, such as PRIVMSG #room", 2,
                Reach.NETWORK);
    }

    @Override
    public Link open(GearReport report, String address) {
        return new IrcLink(report, HostPort.of(address));
    }
}
