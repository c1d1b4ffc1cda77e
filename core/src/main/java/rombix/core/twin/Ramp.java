package rombix.core.twin;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.BiFunction;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Card;
import rombix.core.card.Packet;
import rombix.core.card.value.As;
import rombix.core.card.value.WireValue;
import rombix.core.value.Value;

/** A command whose one numeric parameter moves: everything else is made out beforehand, so that each step is cheap. */
public final class Ramp {
    private final Order first;
    private final Card.Param param;
    private final List<Packet> packets;
    private final Map<String, WireValue> moving;
    private final Function<String, @Nullable Value> places;
    private final Function<Map<String, Value>, String> title;
    private final BiFunction<Packet, Function<String, @Nullable Value>, Order.Outgoing> made;

    /** @param moving the changed readings whose value the parameter gives, and how; {@code made} makes packets out */
    Ramp(Order first, Card.Param param, List<Packet> packets, Map<String, WireValue> moving,
            Function<String, @Nullable Value> places, Function<Map<String, Value>, String> title,
            BiFunction<Packet, Function<String, @Nullable Value>, Order.Outgoing> made) {
        this.made = made;
        this.first = first;
        this.param = param;
        this.packets = packets;
        this.moving = moving;
        this.places = places;
        this.title = title;
    }

    /** The gear that it moves. */
    public String gear() {
        return first.gear();
    }

    /** The reading that shows where it is; null where the card names none. */
    public @Nullable String moves() {
        return moving.isEmpty() ? null : moving.keySet().iterator().next();
    }

    /** The order that takes the parameter to a value, or to the end of its range that is nearest. */
    public Order at(double value) {
        return at(value, true);
    }

    /** As {@link #at}, for one of the many on the way, which nobody reads the title of. */
    public Order passing(double value) {
        return at(value, false);
    }

    private Order at(double value, boolean named) {
        double low = param.min() == null ? value : Math.max(param.min(), value);
        Value v = Value.of(param.max() == null ? low : Math.min(param.max(), low));
        Function<String, @Nullable Value> filled = name -> name.equals(param.id()) ? v : places.apply(name);
        List<Order.Outgoing> out = new ArrayList<>(packets.size());
        for (int i = 0; i < packets.size(); i++) {
            out.add(made.apply(packets.get(i), filled));
        }
        Map<String, Value> changes = new LinkedHashMap<>(first.changes());
        moving.forEach((reading, carry) -> changes.put(reading, Objects.requireNonNullElse(carry.out(filled), v)));
        Map<String, Value> args = new LinkedHashMap<>(first.args());
        args.put(param.id(), v);
        return new Order(first.gear(), first.command(), args, named ? title.apply(args) : first.title(), out, changes,
                first.assumed(), first.waits(), first.going());
    }
}
