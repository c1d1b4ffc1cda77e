package rombix.core.traffic;

import java.time.Instant;
import java.util.List;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rombix.core.twin.Order;
import rombix.core.twin.ReceivedReading;
import rombix.core.value.Value;

/**
 * A packet that went out to a gear or came in from it. Immutable.
 *
 * @param number counts all that are kept, from 1
 * @param of what it belongs to, in words: a command, a poll, a greeting; empty for what comes in
 * @param address in its protocol's form; empty where it could not be read
 * @param args what it carries; what only the link knows of the gear, secrets above all, stands in it as “…”
 * @param order what was ordered; null where the link sent it by itself, and for what comes in
 * @param landed the readings that it brought
 * @param fate what became of it
 * @param fault why, in plain words, where it came to nothing; how long its answer took where there is one
 */
public record TrafficPacket(long number, Instant at, String gear, Way way, String of, String address, List<Value> args,
        @Nullable Order order, List<ReceivedReading> landed, Fate fate, String fault) {
    /** Direction of a packet. */
    public enum Way {
        OUT, IN
    }

    /** Result of a packet. */
    public enum Fate {
        /** On its way, or gone out with nothing to be waited for. */
        SENT("sent"), DONE("done"), FAILED("failed"),
        /** It brought readings. */
        LANDED("read"),
        /** Nothing on the gear's card reads it. */
        UNREAD("not on the card"),
        /** It belonged to something that was sent. */
        ANSWER("reply"),
        /** It could not be used. */
        IGNORED("ignored");

        private final String words;

        Fate(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        public boolean well() {
            return this != FAILED && this != IGNORED;
        }
    }

    /** As it stood on the wire, as far as text can show that. */
    public String raw() {
        return (address + " " + args.stream().map(TrafficPacket::shown).collect(Collectors.joining(" "))).strip();
    }

    private static String shown(Value value) {
        return value instanceof Value.Flag f ? String.valueOf(f.on()) : value.toString();
    }

    /** Its result in words. */
    public String result() {
        return fault.isEmpty() ? fate.words() : fate == Fate.DONE ? fault : fate.words() + ": " + fault;
    }

    TrafficPacket carrying(List<Value> now) {
        return new TrafficPacket(number, at, gear, way, of, address, now, order, landed, fate, fault);
    }

    TrafficPacket became(Fate next, String why) {
        return new TrafficPacket(number, at, gear, way, of, address, args, order, landed, next, why);
    }
}
