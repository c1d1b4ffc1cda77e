package rombix.running.state;

import java.util.List;
import rombix.core.event.Happening;

/**
 * What a subscriber receives.
 *
 * @param state the present one
 * @param since what has happened since it looked last, oldest first
 * @param whole whether it has to look at everything: it sees the deck for the first time, all is told anew, or more has
 *            happened than {@code since} holds
 */
public record Seen(DeckState state, List<Happening> since, boolean whole) {
}
