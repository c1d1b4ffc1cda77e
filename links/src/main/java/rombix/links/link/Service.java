package rombix.links.link;

import java.util.Map;
import rombix.core.value.Value;

/**
 * A kind of service that gear announces by DNS-SD (RFC 6763).
 *
 * @param type such as {@code _osc._udp}
 * @param tls whether its connections are kept from others
 * @param settings what has to be set to speak to it, by the settings' ids
 */
public record Service(String type, boolean tls, Map<String, Value> settings) {
    public Service {
        settings = Map.copyOf(settings);
    }

    public Service(String type) {
        this(type, false, Map.of());
    }

    public static Service overTls(String type) {
        return new Service(type, true, Map.of());
    }
}
