package rombix.core.value;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Fields of a file that this version does not know: kept, so that saving loses nothing. */
public final class Extra {
    private Extra() {
    }

    /** An unmodifiable copy that may be handed nothing, and keeps nulls and order. */
    public static Map<String, Object> kept(@Nullable Map<String, Object> read) {
        return read == null || read.isEmpty() ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(read));
    }
}
