package rombix.core.traffic;

import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.function.Function;
import java.util.stream.Collectors;
import rombix.core.board.Gear;
import rombix.core.board.Rig;
import rombix.core.twin.Order;
import rombix.core.twin.ReceivedReading;
import rombix.core.twin.Twin;
import rombix.core.twin.Twin.Readings;
import rombix.core.value.Value;

/**
 * Packets as people read them.
 *
 * @param rig the board whose gear they are of
 * @param readings the present readings of a gear, which name what it lists
 */
public record PacketWords(Rig rig, Function<String, Readings> readings) {
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm:ss.SSS").withZone(ZoneId
            .systemDefault());
    private static final int LONG = 200;

    public static String time(TrafficPacket packet) {
        return TIME.format(packet.at());
    }

    /** The gear's name; its id where the board has it no more. */
    public String gear(TrafficPacket packet) {
        return rig.board().gear().stream().filter(g -> g.id().equals(packet.gear())).findFirst().map(Gear::name).orElse(
                packet.gear());
    }

    /** What it says: the command, or the readings that it brings. */
    public String words(TrafficPacket packet) {
        if (packet.way() == TrafficPacket.Way.OUT) {
            Order order = packet.order();
            Twin twin = rig.twin(packet.gear()).orElse(null);
            return order == null || twin == null
                    ? packet.of()
                    : twin.spokenTitle(order.command(), order.args(), readings.apply(packet.gear())); // Each step of a fade has its own.
        }
        return packet.landed().stream().filter(l -> l.value() != null).map(l -> reading(packet.gear(), l)).collect(
                Collectors.joining(", "));
    }

    private String reading(String gear, ReceivedReading landed) {
        Value value = landed.value();
        Readings now = readings.apply(gear);
        Twin twin = rig.twin(gear).orElse(null);
        Twin.Reading known = twin == null ? null : twin.reading(landed.reading(), now).orElse(null);
        if (twin == null || known == null || value == null) {
            return landed.reading() + ": " + value;
        }
        return known.title() + ": " + (value instanceof Value.Choices c
                ? c.choices().size() + " listed"
                : twin.spoken(known, value, now));
    }

    /** As a line of text, columns apart by tabs. */
    public String line(TrafficPacket packet) {
        return String.join("\t", time(packet), packet.way() == TrafficPacket.Way.OUT ? "out" : "in", gear(packet),
                words(packet),
                packet.raw().replaceAll("\\s+", " "), packet.result());
    }

    /** What stood on the wire, in one line and not too long. */
    public static String shown(TrafficPacket packet) {
        String raw = packet.raw().replaceAll("\\s+", " ");
        return raw.length() <= LONG ? raw : raw.substring(0, LONG) + "…";
    }
}
