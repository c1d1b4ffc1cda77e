package rombix.core.store;

import java.util.ArrayList;
import java.util.List;
import rombix.core.card.Arrival;
import rombix.core.card.Packet;
import rombix.core.card.value.WireValue;

/** What is wrong with a packet by itself, whatever its card has. */
final class PacketCheck {
    private static final List<String> BYTES = List.of("bytes", "sysex");

    /** @param pointer the place within the packet, as a JSON pointer */
    record Wrong(String pointer, String message) {
    }

    private PacketCheck() {
    }

    /** Each flaw with its place within the packet. */
    static List<Wrong> of(Packet packet) {
        List<Wrong> flaws = new ArrayList<>();
        if (BYTES.contains(packet.to().toString())) {
            bytes(packet, flaws);
        }
        Arrival error = packet.reply() == null ? null : packet.reply().error();
        if (error != null && error.from() == null && error.where().isEmpty() && error.pattern() == null && error
                .first() == null) {
            flaws.add(new Wrong("/reply/error",
                    "this makes every message an error: use “where” or “pattern” to select some"));
        }
        return flaws;
    }

    /** A text has nothing but hexadecimal digits outside of its places. */
    private static void bytes(Packet packet, List<Wrong> flaws) {
        for (int i = 0; i < packet.args().size(); i++) {
            String text = switch (packet.args().get(i)) {
                case WireValue.Fixed f -> f.value().toString();
                case WireValue.Filled f -> f.template().toString().replaceAll("\\{[^}]*}", "");
                default -> "";
            };
            String other = text.replaceAll("[0-9A-Fa-f\\s:-]", "");
            boolean odd = packet.args().get(i) instanceof WireValue.Fixed && packet.args().size() == 1
                    && text.replaceAll(
                            "[\\s:-]", "").length() % 2 != 0;
            if (!other.isEmpty() || odd) {
                flaws.add(new Wrong("/args/" + i, "“%s” isn't a sequence of hexadecimal bytes: %s".formatted(text,
                        other.isEmpty() ? "one digit is missing" : "“" + other.charAt(0) + "” is none")));
            }
        }
    }
}
