package rombix.core.card;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rombix.core.value.Template;

/**
 * How a reading arrives.
 *
 * @param from the address, with places for the items of families
 * @param arg which argument of the packet has the value, counted from 0
 * @param value how the value is carried; as it is when absent
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record Arrival(Template from, int arg, @Nullable WireValue value) {
    public Arrival {
        Objects.requireNonNull(from, "an arrival needs \"from\"");
        if (arg < 0) {
            throw new IllegalArgumentException("\"arg\" counts from 0, so it is not " + arg);
        }
    }
}
