package rombix.core.card;

import java.util.List;
import java.util.Objects;
import rombix.core.value.Template;

/** One packet: where it goes, in the protocol's own form, and what it carries. */
public record Packet(Template to, List<WireValue> args) {
    public Packet {
        Objects.requireNonNull(to, "a packet needs \"to\"");
        args = List.copyOf(Objects.requireNonNullElse(args, List.of()));
    }
}
