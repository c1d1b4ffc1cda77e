package rombix.core.card;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.List;
import java.util.Map;
import java.util.ServiceLoader;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import rombix.core.card.value.As;
import rombix.core.computer.Power;

/**
 * A transport as boards and cards name it. What is known of it is brought by its link, which is found by
 * {@link ServiceLoader}: here no transport is known by name.
 */
public final class Protocol implements Comparable<Protocol> {
    /** How gear is reached: at HOST:PORT, at a port of this machine that has a name, at either, or right here. */
    public enum Reach {
        NETWORK, PORT, EITHER, HERE
    }

    /** What a link tells of its protocol. Providers have no state. */
    public interface Descriptor {
        /** As boards and cards write it. */
        String id();

        /** The name that people know it by. */
        String title();

        /** Whether a message's address, places included, has this protocol's form. */
        boolean takes(String address);

        /** What such an address looks like, for a message about one that does not. */
        String expected();

        /** Whether numbers go out as text. */
        default boolean textual() {
            return false;
        }

        /** Whether messages come by topics, of which others than those of the card can be followed. */
        default boolean topics() {
            return false;
        }

        /** How often a second a level that fades is sent. */
        int rate();

        Reach reach();

        /**
         * The ports of this machine that there are now, where gear is reached at one, those of stand-ins last. It may
         * take some milliseconds.
         */
        default List<String> ports() {
            return List.of();
        }

        /** Whether a port leads to a stand-in that ships, by its name. */
        default boolean standIn(String port) {
            return false;
        }

        /** What people call such a port. */
        default String portWord() {
            return "port";
        }

        /** Where gear is reached as long as nobody has said where; blank where that has to be said. */
        default String presetAddress() {
            return "";
        }

        /** Whether it knows who we are by a user and a secret, and can be kept from others by TLS. */
        default boolean secures() {
            return false;
        }

        /** What of this computer a message with this address uses, and its owner has to give leave for; null where nothing. */
        default @Nullable Power power(String address) {
            return null;
        }

        /** Whether a message's step is asked for by itself, with what it carries in full: its title alone may say less. */
        default boolean askedInFull(String address) {
            return false;
        }

        /** Why this computer cannot do what a message with this address asks, and what to do; null where it can. */
        default @Nullable String cannot(String address) {
            return null;
        }

        /** What fills a place of an address, as it has to be written there. */
        default String inAddress(String text) {
            return text;
        }

        /** What fills a place of what is carried, as it may stand there. */
        default String inText(String text) {
            return text;
        }

        /** What is set for gear that speaks it, beside what its card adds. */
        default List<Setting> settings() {
            return List.of();
        }

        /**
         * Whether its messages are addresses with values that are said as they are heard: what sets something is what
         * tells of it.
         */
        default boolean bothWays() {
            return false;
        }

        /** The address that most of its messages have; blank where each has its own. */
        default String usualAddress() {
            return "";
        }

        /** What may stand in place of HOST:PORT. */
        default List<String> addressWords() {
            return List.of();
        }
    }

    private static final Map<String, Protocol> ALL = new TreeMap<>();

    static {
        for (Descriptor d : ServiceLoader.load(Descriptor.class, Protocol.class.getClassLoader())) {
            if (ALL.putIfAbsent(d.id(), new Protocol(d)) != null) {
                throw new IllegalStateException("two links have the protocol “" + d.id() + "”");
            }
        }
    }

    private final Descriptor descriptor;

    private Protocol(Descriptor descriptor) {
        this.descriptor = descriptor;
    }

    /** @throws IllegalArgumentException in plain words where no link speaks it */
    @JsonCreator
    public static Protocol of(String id) {
        Protocol known = ALL.get(id);
        if (known == null) {
            throw new IllegalArgumentException("“" + id + "” is not one of " + String.join(", ", ALL.keySet()));
        }
        return known;
    }

    /** All that links speak here, by id. */
    public static List<Protocol> all() {
        return List.copyOf(ALL.values());
    }

    @JsonValue
    public String id() {
        return descriptor.id();
    }

    public String title() {
        return descriptor.title();
    }

    /** What its link brings. */
    public Descriptor descriptor() {
        return descriptor;
    }

    /** Why gear cannot be reached at an address in this protocol; null where it may be. */
    public @Nullable String wrongAddress(String address) {
        if (address.isBlank()) {
            return "has no address: set one";
        }
        if (descriptor.reach() == Reach.NETWORK && address.contains("@")) {
            return "has a user or password in its address: set user and secret separately";
        }
        return descriptor.reach() != Reach.NETWORK || descriptor.addressWords().contains(address)
                || address.matches("\\S+:\\d{1,5}")
                        ? null
                        : "its address “" + address + "” is not HOST:PORT";
    }

    @Override
    public int compareTo(Protocol other) {
        return id().compareTo(other.id());
    }

    @Override
    public String toString() {
        return id();
    }
}
