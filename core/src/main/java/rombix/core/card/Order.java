package rombix.core.card;

import java.util.List;
import java.util.Map;
import java.util.Set;
import rombix.core.value.Value;

/**
 * A command made out in full: what goes on the wire and what it will change. Made once where its arguments are
 * constant, so that a press makes nothing out.
 *
 * @param title the command in words, with its arguments
 * @param packets what to send, in order
 * @param changes the readings that it changes, and their new values
 * @param assumed those of the changed readings that the gear never reports, so that they are taken to be as sent
 */
public record Order(String gear, Card.Command command, Map<String, Value> args, String title, List<Outgoing> packets,
        Map<String, Value> changes, Set<String> assumed) {

    /** One packet for a link: an address in its protocol's form, and the values carried. */
    public record Outgoing(String address, List<Value> args, List<WireValue.As> forms) {
    }
}
