package rombix.core.twin;

import java.util.List;
import java.util.stream.Stream;
import rombix.core.card.Arrival;
import rombix.core.card.value.Mapped;
import rombix.core.card.value.WireValue;
import rombix.core.value.Value;

/** Compares levels in the steps that a wire can carry: 50 % goes out as 128 of 255 and comes back as 50.2 %. */
public final class WireSteps {
    private WireSteps() {
    }

    /** Whether a reading shows what an order set it to. */
    public static boolean show(Twin twin, Order order, String reading, Value now) {
        Value set = order.changes().get(reading);
        if (set == null || set.matches(now)) {
            return true;
        }
        double apart = Math.abs(set.asNumber() - now.asNumber());
        if (!(set instanceof Value.Num) || Double.isNaN(apart)) {
            return false;
        }
        Stream<WireValue> out = order.command().send().getOrDefault(twin.protocol(), List.of()).stream().flatMap(
                p -> Stream.concat(p.args().stream(), p.with().values().stream()));
        Stream<WireValue> in = twin.reading(reading, Twin.Readings.NONE).stream().flatMap(r -> r.spec().arrives()
                .getOrDefault(twin.protocol(), List.of()).stream()).map(Arrival::value);
        return apart < Stream.concat(out, in).mapToDouble(c -> c instanceof Mapped m ? m.grain() : 0).max().orElse(0);
    }
}
