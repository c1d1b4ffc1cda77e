package rombix.core.card;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import rombix.core.card.value.JsonTree;
import rombix.core.card.value.WireValue;
import rombix.core.value.InOrder;
import rombix.core.value.Template;
import rombix.core.value.Value;
import tools.jackson.databind.JsonNode;

/**
 * One packet: where it goes, in the protocol's own form, and what it carries.
 *
 * @param args what it carries, one after the other
 * @param json what it carries in place of them: a tree of JSON whose texts may have places
 * @param head what goes along in the protocol's own way: header fields over HTTP, {@code retain} and {@code qos} over
 *            MQTT
 * @param with places that are made from others, each from those before it: scaled, written out, computed
 * @param pause how long nothing follows it, in milliseconds
 * @param reply what the gear answers to it; null where it is not waited for
 * @param each the list for each of whose items it is sent, in a greeting or a poll; null where it is sent once
 */
@JsonInclude(JsonInclude.Include.NON_EMPTY)
public record Packet(Template to, List<WireValue> args, @Nullable JsonNode json, Map<String, WireValue> head,
        Map<String, WireValue> with, @Nullable Integer pause, @Nullable Reply reply, @Nullable String each) {
    /** The place under which a card finds what belongs to the gear and its link: {@code {gear.secret}}. */
    public static final String GEAR = "gear";
    private static final int LONGEST_PAUSE = 60_000;

    public Packet {
        Objects.requireNonNull(to, "a packet needs \"to\"");
        args = List.copyOf(Objects.requireNonNullElse(args, List.of()));
        head = InOrder.of(head);
        with = InOrder.of(with);
        if (json != null && !args.isEmpty()) {
            throw new IllegalArgumentException("a packet carries \"args\" or \"json\", not both");
        }
        if (pause != null && (pause < 0 || pause > LONGEST_PAUSE)) {
            throw new IllegalArgumentException("a \"pause\" is from 0 to " + LONGEST_PAUSE + " ms");
        }
    }

    /** One that is sent once. */
    public Packet(Template to, List<WireValue> args, @Nullable JsonNode json, Map<String, WireValue> head,
            Map<String, WireValue> with, @Nullable Integer pause, @Nullable Reply reply) {
        this(to, args, json, head, with, pause, reply, null);
    }

    /** All places that have to be filled from outside. */
    public Set<String> places() {
        Set<String> all = new HashSet<>(to.places());
        args.forEach(a -> all.addAll(a.places()));
        head.values().forEach(a -> all.addAll(a.places()));
        all.addAll(JsonTree.places(json));
        if (reply != null) {
            all.addAll(reply.places());
        }
        with.values().forEach(a -> all.addAll(a.places()));
        all.removeAll(with.keySet());
        return all;
    }

    /** Whether it can be made out only when it goes out: it has something of the gear's in it. */
    public boolean needsGear() {
        return places().stream().anyMatch(p -> p.startsWith(GEAR + "."));
    }

    /** What fills its places: what is made from others, and what is given. */
    public Function<String, @Nullable Value> places(Function<String, @Nullable Value> given) {
        return with.isEmpty() ? given : made(given, List.copyOf(with.keySet()), with.size());
    }

    /** Each place made sees only those before it, so that none goes round in a circle. */
    private Function<String, @Nullable Value> made(Function<String, @Nullable Value> given, List<String> names,
            int upTo) {
        return name -> {
            int at = names.indexOf(name);
            WireValue carry = at < 0 || at >= upTo ? null : with.get(name);
            return carry == null ? given.apply(name) : carry.out(made(given, names, at));
        };
    }
}
