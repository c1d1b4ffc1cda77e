package rombix.core.value;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Maps as they were written: what comes first in a file is what is usual, and stays first when it is written again. */
public final class InOrder {
    private InOrder() {
    }

    /** A copy that nobody changes; an empty one of null. */
    public static <K, V> Map<K, V> of(@Nullable Map<K, V> map) {
        return map == null || map.isEmpty() ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(map));
    }
}
