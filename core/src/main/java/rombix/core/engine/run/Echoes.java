package rombix.core.engine.run;

import java.util.HashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rombix.core.engine.run.Orders.Key;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.value.Value;

/** What was sent a moment ago: until the gear has shown it, it counts for more than what the gear last said. */
@OwnedBy(Owner.CONDUCTOR)
final class Echoes {
    private static final long ECHO_NANOS = 300_000_000L;

    private record Sent(Value value, long atNanos) {
    }

    private final Map<Key, Sent> sent = new HashMap<>();

    void sent(Key key, Value value, long now) {
        sent.put(key, new Sent(value, now));
    }

    /** A gear has reported: forgets a sent value once it is confirmed. */
    void reported(Key key, Value value) {
        Sent s = sent.get(key);
        if (s != null && s.value().matches(value)) {
            sent.remove(key);
        }
    }

    /** What was sent a moment ago; null where it was longer ago, or has shown since. */
    @Nullable
    Value lately(Key key, long now) {
        Sent s = sent.get(key);
        return s != null && now - s.atNanos() < ECHO_NANOS ? s.value() : null;
    }
}
