package rombix.running.owner;

import java.net.InetAddress;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;

/** The computers from which OSC may pull triggers, beside this one; named by its owner, apart from boards. */
public final class Senders {
    private static final String KEY = "osc.senders";

    private final Settings settings;

    /** Those of this user. */
    public Senders() {
        this(new Settings());
    }

    public Senders(Settings settings) {
        this.settings = settings;
    }

    /** In the order in which they were named. */
    public Set<InetAddress> all() {
        Set<InetAddress> all = new LinkedHashSet<>();
        Arrays.stream(settings.get(KEY).orElse("").split(",")).filter(a -> !a.isBlank()).forEach(a -> all.add(of(a)));
        return all;
    }

    /** @throws IllegalArgumentException in plain words, where it is no address */
    public void allow(String address) {
        Set<InetAddress> all = all();
        all.add(of(address));
        keep(all);
    }

    /** @return whether it was named */
    public boolean forget(String address) {
        Set<InetAddress> all = all();
        boolean there = all.remove(of(address));
        keep(all);
        return there;
    }

    private void keep(Set<InetAddress> all) {
        settings.set(Map.of(KEY, String.join(",", all.stream().map(InetAddress::getHostAddress).toList())));
    }

    private static InetAddress of(String address) {
        try {
            return InetAddress.ofLiteral(address.strip());
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException("“" + address + "” isn't a numeric address such as 192.168.1.20", e);
        }
    }
}
