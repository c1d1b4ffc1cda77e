package rombix.core.twin;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Card.Command;
import rombix.core.card.Card.Param;
import rombix.core.card.Packet;
import rombix.core.card.value.JsonTree;
import rombix.core.card.value.WireValue;
import rombix.core.value.Template;
import rombix.core.value.Value;
import tools.jackson.databind.JsonNode;

/**
 * A packet as far as it is known before it goes out: whatever fills the rest, {@link #fits} holds for it.
 *
 * @param to its address; what is not known yet is a place
 * @param args what it carries, one after the other; empty where that is not known yet
 */
public record Outline(Template to, List<Optional<Value>> args) {
    public Outline {
        args = List.copyOf(args);
    }

    /**
     * What a command sends.
     *
     * @param given its arguments; empty where one is not known yet; those left out take the card's usual value
     */
    public static List<Outline> of(Twin twin, Command command, Map<String, Optional<Value>> given) {
        return command.send().getOrDefault(twin.protocol(), List.of()).stream().map(p -> new Draft(twin, command, given)
                .of(p)).toList();
    }

    /** Whether a packet is one of these. */
    public boolean fits(Order.Outgoing packet) {
        if (packet.args().size() != args.size() || to.match(packet.address()).isEmpty()) {
            return false;
        }
        for (int i = 0; i < args.size(); i++) {
            Value known = args.get(i).orElse(null);
            if (known != null && !known.equals(packet.args().get(i))) {
                return false;
            }
        }
        return true;
    }

    /** Whether anything of what it carries is a text that is already known, or it carries nothing. */
    public boolean says() {
        return args.isEmpty() || args.stream().flatMap(Optional::stream).anyMatch(v -> v instanceof Value.Text t && !t
                .text().isBlank());
    }

    /** The texts that it carries, with a word for what is not known yet. */
    public String words(String unknown) {
        return args.stream().map(a -> a.map(v -> v instanceof Value.Text t ? t.text() : "").orElse(unknown)).filter(
                t -> !t.isBlank()).collect(Collectors.joining(" "));
    }

    /** Fills packets with what is known, and remembers whether something was missing. */
    private static final class Draft {
        private final Twin twin;
        private final Command command;
        private final Map<String, Optional<Value>> given;
        private boolean missing;

        Draft(Twin twin, Command command, Map<String, Optional<Value>> given) {
            this.twin = twin;
            this.command = command;
            this.given = given;
        }

        Outline of(Packet packet) {
            Function<String, @Nullable Value> places = packet.places(this::place);
            List<Optional<Value>> args = new ArrayList<>();
            JsonNode json = packet.json();
            if (json != null) {
                args.add(known(() -> Value.of(JsonTree.filled(json, places))));
            }
            packet.args().forEach(carry -> add(carry, places, args));
            return new Outline(new Template(packet.to().fill(name -> known(() -> places.apply(name)).map(v -> Value.of(
                    twin.protocol().descriptor().inAddress(v.toString()))).orElse(null))), args);
        }

        private void add(WireValue carry, Function<String, @Nullable Value> places, List<Optional<Value>> to) {
            if (carry instanceof WireValue.Group group) {
                to.add(Optional.of(Value.of("")));
                group.items().forEach(item -> add(item, places, to));
                to.add(Optional.of(Value.of("")));
            } else {
                to.add(known(() -> carry.out(places)));
            }
        }

        private interface Making {
            @Nullable
            Value make();
        }

        private Optional<Value> known(Making making) {
            missing = false;
            try {
                Value made = making.make();
                return missing || made == null ? Optional.empty() : Optional.of(made);
            } catch (IllegalArgumentException e) {
                return Optional.empty(); // It can't be made out of this; of what comes later, perhaps.
            }
        }

        private @Nullable Value place(String name) {
            Value v = arg(name);
            missing |= v == null;
            return v instanceof Value.Text t ? Value.of(twin.protocol().descriptor().inText(t.text())) : v;
        }

        private @Nullable Value arg(String name) {
            int dot = name.indexOf('.');
            Param p = command.param(dot < 0 ? name : name.substring(0, dot)).orElse(null);
            Value v = p == null ? null : given.getOrDefault(p.id(), Optional.ofNullable(p.preset())).orElse(null);
            if (p == null || v == null) {
                return null;
            }
            Value taken = Filling.within(p, v);
            return dot < 0
                    ? taken
                    : twin.item(p.list(), taken.toString(), Twin.Readings.NONE).map(i -> i.field(name.substring(dot
                            + 1))).orElse(null);
        }
    }
}
