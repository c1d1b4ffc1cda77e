package rombix.core.card;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import rombix.core.value.InOrder;
import rombix.core.value.Value;

/**
 * What a gear answers to a packet.
 *
 * @param is which message is the answer; the next one that comes where nothing is said
 * @param error which message says that it was refused; what is read of it are the gear's own words
 * @param within how long it may take, in milliseconds; 2,000 when absent
 * @param keep what is kept of it for later packets, by the name of a place: {@code {gear.NAME}}
 * @param as the address at which it lands as a reading; as it came when absent
 * @param words what the numbers that {@code error} reads stand for
 */
@JsonInclude(JsonInclude.Include.NON_EMPTY)
public record Reply(@Nullable Arrival is, @Nullable Arrival error, @Nullable Integer within, Map<String, Arrival> keep,
        @Nullable String as, Map<String, String> words) {
    private static final int USUAL = 2000;
    private static final int LONGEST = 600_000;

    public Reply {
        keep = InOrder.of(keep);
        words = InOrder.of(words);
        if (within != null && (within < 1 || within > LONGEST)) {
            throw new IllegalArgumentException("\"within\" is a time from 1 to " + LONGEST + " ms");
        }
    }

    public long withinMillis() {
        return within == null ? USUAL : within;
    }

    Set<String> places() {
        Set<String> all = new HashSet<>();
        if (is != null) {
            all.addAll(is.places());
        }
        if (error != null) {
            all.addAll(error.places());
        }
        keep.values().forEach(k -> all.addAll(k.places()));
        return all;
    }

    /** With its places filled; what nothing fills stays. */
    public Reply filled(Function<String, @Nullable Value> places) {
        return places().isEmpty()
                ? this
                : new Reply(is == null ? null : is.filled(places), error == null ? null : error.filled(places), within,
                        keep, as, words);
    }
}
