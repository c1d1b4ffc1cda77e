package rombix.core.card;

import java.util.Objects;

/**
 * What a gear is asked again and again, as it does not tell by itself.
 *
 * @param every how long from one answer to the next question, in milliseconds, while something shows what it tells
 * @param ask the question
 */
public record Poll(int every, Packet ask) {
    private static final int FASTEST = 50;
    private static final int SLOWEST = 3_600_000;

    public Poll {
        Objects.requireNonNull(ask, "a poll needs what to \"ask\"");
        if (every < FASTEST || every > SLOWEST) {
            throw new IllegalArgumentException("\"every\" is a time from " + FASTEST + " to " + SLOWEST + " ms");
        }
    }
}
