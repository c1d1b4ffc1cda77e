package rombix.core.twin;

import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Card;
import rombix.core.card.Reply;
import rombix.core.card.value.As;
import rombix.core.value.Value;

/**
 * A command made out in full: what goes on the wire and what it will change. Made once where its arguments are
 * constant, so that a press makes nothing out.
 *
 * @param title the command in words, with its arguments
 * @param packets what to send, in order
 * @param changes the readings that it changes, and their new values
 * @param assumed those of the changed readings that the gear never reports, so that they are taken to be as sent
 * @param waits whether its chain goes on only when it is done, or has failed
 * @param going what goes on behind it; null where nothing does
 */
public record Order(String gear, Card.Command command, Map<String, Value> args, String title, List<Outgoing> packets,
        Map<String, Value> changes, Set<String> assumed, boolean waits, @Nullable Going going) {

    /** One that is done at once. */
    public Order(String gear, Card.Command command, Map<String, Value> args, String title, List<Outgoing> packets,
            Map<String, Value> changes, Set<String> assumed) {
        this(gear, command, args, title, packets, changes, assumed, false, null);
    }

    /**
     * What goes on in the gear's own time.
     *
     * @param millis for how long; 0 where it goes on until it is stopped
     * @param after what changes when it is over, and the new values
     */
    public record Going(double millis, Map<String, Value> after) {
    }

    /**
     * One packet for a link.
     *
     * @param address in its protocol's form
     * @param args the values carried
     * @param forms how each of them stands on the wire
     * @param head what goes along in the protocol's own way
     * @param pauseMillis how long nothing follows it
     * @param reply what the gear answers; null where it is not waited for
     * @param late what is made out only when it goes out, from what the link knows; null where nothing is
     */
    public record Outgoing(String address, List<Value> args, List<As> forms, Map<String, Value> head, long pauseMillis,
            @Nullable Reply reply, @Nullable Late late) {

        /** One that only carries something. */
        public Outgoing(String address, List<Value> args, List<As> forms) {
            this(address, args, forms, Map.of(), 0, null, null);
        }

        /** The same, whose answer nobody waits for. */
        public Outgoing unanswered() {
            return new Outgoing(address, args, forms, head, pauseMillis, null, late == null
                    ? null
                    : new Unanswered(late));
        }

        /**
         * Made out with what belongs to the gear: settings, its secret, what it was heard to say.
         *
         * @param gear what fills {@code {gear.NAME}}, by the name behind the dot
         * @throws IllegalArgumentException in plain words, where something is missing
         */
        public Outgoing made(Function<String, @Nullable Value> gear) {
            return late == null ? this : late.made(gear);
        }
    }

    private record Unanswered(Late of) implements Late {
        @Override
        public Outgoing made(Function<String, @Nullable Value> gear) {
            return of.made(gear).unanswered();
        }
    }

    /** Makes out a packet when it goes out. */
    public interface Late {
        Outgoing made(Function<String, @Nullable Value> gear);
    }
}
