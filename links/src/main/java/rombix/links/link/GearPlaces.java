package rombix.links.link;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicLong;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Setting;
import rombix.core.trust.Redactor;
import rombix.core.twin.Order;
import rombix.core.twin.Twin;
import rombix.core.value.Value;

/**
 * What cards find under {@code {gear.NAME}}: who we are there, what is set, what the gear said, a number for each
 * request and the time. Safe to use from any thread.
 */
public final class GearPlaces {
    /** What is kept under such a name opens doors, so that nothing shows it. */
    private static final Pattern SECRET = Pattern.compile("(?i)token|session|secret|password|key|cookie");

    /** What is shorter stands in many texts, and is no secret worth the name. */
    private static final int SHORTEST_SECRET = 8;

    private final Target target;
    private final Map<String, Setting> settings = new HashMap<>();
    private final Map<String, Value> kept = new ConcurrentHashMap<>();
    private final AtomicLong request = new AtomicLong();

    public GearPlaces(Twin twin, Target target) {
        this.target = target;
        twin.settings().forEach(s -> settings.put(s.id(), s));
    }

    /** Keeps what the gear said, for packets to come. */
    public void keep(String name, Value value) {
        if (SECRET.matcher(name).find() && value.toString().length() >= SHORTEST_SECRET) {
            Redactor.PROCESS.remember(name, value.toString());
        }
        kept.put(name, value);
    }

    /** Forgets what the gear said: a new connection begins. */
    public void forget() {
        kept.clear();
    }

    /** What is set, or what holds where nothing is; null where there is neither. */
    public @Nullable Value setting(String id) {
        Value set = target.link().settings().get(id);
        Setting known = settings.get(id);
        return set != null && known != null && known.wrong(set) == null
                ? set
                : known == null ? null : known.preset();
    }

    /** A number that is set; {@code otherwise} where none is. */
    public double number(String id, double otherwise) {
        Value v = setting(id);
        return v == null || !Double.isFinite(v.asNumber()) ? otherwise : v.asNumber();
    }

    /** A text that is set; blank where none is. */
    public String text(String id) {
        Value v = setting(id);
        return v == null ? "" : v.toString();
    }

    /** Whether something is set to yes. */
    public boolean yes(String id) {
        Value v = setting(id);
        return v != null && v.asFlag();
    }

    /** The packets of an order as they go out now; throws as {@link #made(Order.Outgoing)} does. */
    public List<Order.Outgoing> made(Order order) throws Refused {
        List<Order.Outgoing> all = new ArrayList<>();
        for (Order.Outgoing packet : order.packets()) {
            all.add(made(packet));
        }
        return all;
    }

    /**
     * A packet as it goes out now: each has a number of its own.
     *
     * @throws Refused where its secret is not on this computer
     * @throws IllegalArgumentException in plain words, where something is missing
     */
    public Order.Outgoing made(Order.Outgoing packet) throws Refused {
        if (packet.late() == null) {
            return packet;
        }
        String secret = target.secret();
        long mine = request.incrementAndGet();
        return packet.made(name -> switch (name) {
            case "user" -> Value.of(target.user());
            case "secret" -> Value.of(secret == null ? "" : secret);
            case "request" -> Value.of(mine);
            case "time" -> Value.of(System.currentTimeMillis());
            case "host" -> Value.of(target.address());
            default -> {
                Value told = kept.get(name);
                Value set = told == null ? setting(name) : told;
                yield set == null && settings.containsKey(name) ? Value.of("") : set;
            }
        });
    }
}
