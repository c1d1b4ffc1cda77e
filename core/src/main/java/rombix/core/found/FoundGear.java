package rombix.core.found;

import java.util.Map;
import java.util.Set;
import rombix.core.board.Gear;
import rombix.core.card.Protocol;
import rombix.core.value.Value;

/**
 * Gear that said by itself that it is here.
 *
 * @param how how it said so
 * @param name what it calls itself
 * @param about what else it says of itself; may be empty
 * @param protocol what it speaks
 * @param address where it is reached, as boards write it
 * @param host the name of its computer; empty where it gives none
 * @param tls whether its connections are kept from others
 * @param settings what has to be set to speak to it, by the settings' ids
 * @param topics what a broker keeps for everybody; none otherwise
 */
public record FoundGear(How how, String name, String about, Protocol protocol, String address, String host, boolean tls,
        Map<String, Value> settings, Set<String> topics) {
    /** How gear says that it is here. */
    public enum How {
        DNS_SD("DNS-SD"), SSDP("SSDP"), ART_NET("Art-Net poll"), TOPICS("retained topics on a broker"), PORT(
                "a port of this computer");

        private final String words;

        How(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    public FoundGear {
        settings = Map.copyOf(settings);
        topics = Set.copyOf(topics);
    }

    public FoundGear(How how, String name, String about, Protocol protocol, String address) {
        this(how, name, about, protocol, address, "", false, Map.of(), Set.of());
    }

    /** How it is reached, as boards say it. */
    public Gear.Link link() {
        return new Gear.Link(protocol, address, null, null, tls ? new Gear.Tls(Gear.Tls.Trust.FIRST_SEEN, null) : null,
                settings, Map.of());
    }

    /** Whether it is a port that leads to a stand-in that ships. */
    public boolean standIn() {
        return how == How.PORT && protocol.descriptor().standIn(address);
    }

    /** What is the same each time that the same gear says that it is here. */
    public String key() {
        return protocol.id() + " " + address + (how == How.TOPICS ? " topics" : "");
    }

    /** Whether a gear that is reached there is this one. */
    public boolean at(Protocol over, String there) {
        if (!over.equals(protocol)) {
            return false;
        }
        String port = address.substring(address.lastIndexOf(':') + 1);
        return plain(there).equals(plain(address)) || !host.isEmpty() && plain(there).equals(plain(host + ":" + port));
    }

    private static String plain(String address) {
        return address.replaceFirst("^localhost:", "127.0.0.1:").replaceFirst("\\.:", ":");
    }
}
