package rombix.core.engine;

import java.util.Map;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Card.Command;
import rombix.core.card.Order;
import rombix.core.card.Twin;
import rombix.core.value.Value;

/** A step as the conductor runs it: everything looked up beforehand. */
sealed interface Op {
    /** Where its step stands, for the as-run log. */
    String place();

    /** Steps one after another. */
    record Seq(Op[] ops, long expectedNanos) {
    }

    /** A command; its order is made out when first needed and again when what the gear lists has changed. */
    final class Do implements Op {
        final String place;
        final Twin twin;
        final Command command;
        final Map<String, Value> args;
        @Nullable
        Order order;
        long orderOf = -1;

        Do(String place, Twin twin, Command command, Map<String, Value> args) {
            this.place = place;
            this.twin = twin;
            this.command = command;
            this.args = args;
        }

        @Override
        public String place() {
            return place;
        }
    }

    record Wait(String place, long nanos) implements Op {
    }

    record Together(String place, Seq[] chains) implements Op {
    }
}
