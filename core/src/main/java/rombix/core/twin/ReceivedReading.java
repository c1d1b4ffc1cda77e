package rombix.core.twin;

import org.jspecify.annotations.Nullable;
import rombix.core.value.Value;

/** A reading that a packet brought; {@code problem} says why it could not be used. */
public record ReceivedReading(String reading, @Nullable Value value, @Nullable String problem) {
}
