package rombix.links.link;

import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import java.util.regex.Pattern;
import rombix.core.card.Protocol;

/** A protocol with its link: all that has to be known of it, in its own package. Named in {@code META-INF/services}. */
public abstract class LinkType implements Protocol.Descriptor {
    /** Who made a port that leads to a stand-in, as the port says. */
    public static final String STAND_IN = "Rombix";

    private final String id;
    private final String title;
    private final Pattern form;
    private final String expected;
    private final int rate;
    private final Protocol.Reach reach;

    /**
     * @param form a pattern of its messages' addresses, places included, and {@code expected} the same in words
     * @param rate how often a second a level that fades is sent
     */
    protected LinkType(String id, String title, String form, String expected, int rate, Protocol.Reach reach) {
        this.id = id;
        this.title = title;
        this.form = Pattern.compile(form);
        this.expected = expected;
        this.rate = rate;
        this.reach = reach;
    }

    /**
     * Opens the link to a gear. Does not block.
     *
     * @throws IllegalArgumentException in plain words, where the address makes no sense
     */
    public abstract Link open(GearReport report, Target target);

    @Override
    public final String id() {
        return id;
    }

    @Override
    public final String title() {
        return title;
    }

    @Override
    public final boolean takes(String address) {
        return form.matcher(address).matches();
    }

    @Override
    public final String expected() {
        return expected;
    }

    @Override
    public final int rate() {
        return rate;
    }

    @Override
    public final Protocol.Reach reach() {
        return reach;
    }

    /** How gear that speaks it says by DNS-SD that it is here. */
    public List<Service> services() {
        return List.of();
    }

    /** Whether its gear keeps what others said, for whoever comes. */
    public boolean keeps() {
        return false;
    }

    /**
     * Asks what such gear keeps. It may block for some seconds; not on the interface's thread.
     *
     * @param kept told of all addresses that something is kept for, on any thread, again when there are more
     * @return ends it
     */
    public AutoCloseable kept(Target target, Consumer<Set<String>> kept) {
        return () -> {
        };
    }

    /** Whether a connection can be opened there, so that one sees whether anything listens. */
    public boolean connects(Target target) {
        return reach() == Protocol.Reach.NETWORK;
    }
}
