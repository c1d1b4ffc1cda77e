package rombix.web.http;

import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import rombix.core.time.Clock;
import rombix.running.RunningDeck;
import rombix.web.access.Access;
import rombix.web.access.AccessList;
import rombix.web.access.Invitations;
import rombix.web.deck.DeviceScreens;

/**
 * What all connections of a server share.
 *
 * @param scheme {@code http} or {@code https}
 * @param hosts what may stand in a request's Host header, in lower case: a name or an address with its port
 * @param files the page
 * @param notices told what the owner should know, in words, on the server's thread
 */
public record Site(RunningDeck deck, AccessList access, Invitations invitations, DeviceScreens screens,
        Presence presence, PageFiles files, Clock clock, String scheme, Set<String> hosts, Consumer<String> notices) {
    public Site {
        hosts = Set.copyOf(hosts);
    }

    public Site(RunningDeck deck, AccessList access, Invitations invitations, DeviceScreens screens, Presence presence,
            Clock clock, String scheme, List<String> hosts, Consumer<String> notices) {
        this(deck, access, invitations, screens, presence, new PageFiles(), clock, scheme, Set.copyOf(hosts), notices);
    }

    /** Whether a page or program of this origin may call: none but the page that is served here. */
    boolean ours(String origin) {
        return hosts.stream().anyMatch(h -> origin.equalsIgnoreCase(scheme + "://" + h));
    }

    /** The moment, in Unix time. */
    long wallMillis() {
        return clock.wall().toInstant().toEpochMilli();
    }

    /** Somebody who was let in called. */
    void active(Access who) {
        presence.active(who.id(), wallMillis());
    }
}
