package rombix.core.card;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * What a gear is asked again and again, as it does not tell by itself.
 *
 * @param every how long from one question to the next, in milliseconds; null where only {@code on} asks
 * @param ask the question
 * @param kind what it is asked for; its state when absent
 * @param on which message asks at once: one that says that something has changed, without saying how
 */
@JsonInclude(JsonInclude.Include.NON_EMPTY)
public record Poll(@Nullable Integer every, Packet ask, @Nullable Kind kind, @Nullable Arrival on) {
    private static final int FASTEST = 50;
    private static final int SLOWEST = 3_600_000;

    /** What a poll is for. */
    public enum Kind {
        /** Asks how the gear is. Asked less often while nothing shows what it brings. */
        @JsonProperty("state")
        STATE,
        /** Keeps the connection open. Never slowed, and not waited for. */
        @JsonProperty("keep-alive")
        KEEP_ALIVE,
        /** Renews a subscription before it runs out. Never slowed. */
        @JsonProperty("renewal")
        RENEWAL
    }

    public Poll {
        Objects.requireNonNull(ask, "a poll needs what to \"ask\"");
        if (every == null && on == null) {
            throw new IllegalArgumentException("a poll needs \"every\", a time in ms, or \"on\", a message that asks");
        }
        if (every != null && (every < FASTEST || every > SLOWEST)) {
            throw new IllegalArgumentException("\"every\" is a time from " + FASTEST + " to " + SLOWEST + " ms");
        }
    }

    /** What it is asked for. */
    public Kind purpose() {
        return kind == null ? Kind.STATE : kind;
    }
}
