package rombix.links.irc;

import rombix.core.card.Protocol.Reach;
import rombix.links.link.GearReport;
import rombix.links.link.Link;
import rombix.links.link.LinkType;
import rombix.links.link.Target;

/** IRC: {@code COMMAND PARAMS}, such as {@code PRIVMSG #room}; what is carried follows as the last parameters. */
public final class Irc extends LinkType {
    public Irc() {
        super("irc", "IRC", "[A-Z]+( \\S+)*", "an IRC command and its first parameters, such as PRIVMSG #room", 2,
                Reach.NETWORK);
    }

    @Override
    public Link open(GearReport report, Target target) {
        return new IrcLink(report, target);
    }

    @Override
    public boolean secures() {
        return true;
    }
}
