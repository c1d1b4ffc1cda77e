package rombix.core.listen;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Card;
import rombix.core.card.Card.Command;
import rombix.core.card.Card.Param;
import rombix.core.card.Packet;
import rombix.core.card.Protocol;
import rombix.core.card.value.As;
import rombix.core.card.value.JsonTree;
import rombix.core.card.value.Mapped;
import rombix.core.card.value.WireValue;
import rombix.core.edit.Edits;
import rombix.core.twin.Order;
import rombix.core.value.Template;
import rombix.core.value.Value;
import rombix.core.value.ValueType;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.JsonNodeFactory;
import tools.jackson.databind.node.ObjectNode;

/** Commands made of what was sent by hand: its parts can be asked for in the step. */
public final class Said {
    private static final JsonNodeFactory MAKE = JsonNodeFactory.instance;
    /** A word of a text, as far as signs that commonly stand between words. */
    private static final Pattern WORD = Pattern.compile("[^\\s=:,;]+");

    /** The parts that are asked for, by their numbers, as parameters. */
    private final Map<Integer, Param> params = new LinkedHashMap<>();
    private int part;

    private Said(List<String> parts, List<Boolean> asked) {
        for (int i = 0; i < asked.size(); i++) {
            if (asked.get(i)) {
                String value = parts.get(i);
                boolean number = number(value);
                String id = String.valueOf((char) ('a' + params.size()));
                params.put(i,
                        new Param(id, number ? "number" : "text", number ? ValueType.NUMBER : ValueType.TEXT, null,
                                null, null, null, number ? Value.of(Double.parseDouble(value)) : Value.of(value),
                                null));
            }
        }
    }

    private static boolean number(String text) {
        return text.matches("-?\\d+(\\.\\d+)?");
    }

    /** The parts of a packet that a step may be asked for: its values, those in its JSON, or the words of its text. */
    public static List<String> parts(Order.Outgoing packet) {
        List<String> parts = new ArrayList<>();
        JsonNode tree = tree(packet);
        if (tree != null) {
            leaves(tree, parts);
        } else if (text(packet)) {
            WORD.matcher(packet.args().getFirst().toString()).results().map(MatchResult::group).forEach(parts::add);
        } else {
            packet.args().forEach(a -> parts.add(a.toString()));
        }
        return parts;
    }

    private static boolean text(Order.Outgoing packet) {
        return packet.args().size() == 1 && packet.forms().getFirst() == As.TEXT;
    }

    private static @Nullable JsonNode tree(Order.Outgoing packet) {
        JsonNode tree = text(packet) ? JsonTree.read(packet.args().getFirst().toString()) : null;
        return tree == null || tree.isValueNode() ? null : tree;
    }

    private static void leaves(JsonNode tree, List<String> to) {
        if (tree.isContainer()) {
            tree.forEach(child -> leaves(child, to));
        } else {
            to.add(JsonTree.value(tree).toString());
        }
    }

    /**
     * The card with a command that sends a packet.
     *
     * @param asked of each part of it, whether the step says it
     */
    public static Card command(Card card, Protocol protocol, Order.Outgoing packet, String title,
            List<Boolean> asked) {
        Said said = new Said(parts(packet), asked);
        String id = Edits.freshId(title, "command", ListFamilies.taken(card.commands(), Command::id));
        StringBuilder named = new StringBuilder(title);
        said.params.values().forEach(p -> named.append(" {").append(p.id()).append('}'));
        List<Command> commands = new ArrayList<>(card.commands());
        commands.add(
                new Command(id, new Template(named.toString()), List.of(), List.copyOf(said.params.values()), Map.of(
                        protocol, List.of(said.packet(packet))), List.of(), null, null, null, null, List.of()));
        return CardMaking.with(card, card.lists(), card.readings(), commands);
    }

    private Packet packet(Order.Outgoing packet) {
        Template to = new Template(packet.address());
        JsonNode tree = tree(packet);
        if (tree != null) {
            return new Packet(to, List.of(), filled(tree), Map.of(), Map.of(), null, null);
        }
        List<WireValue> args = new ArrayList<>();
        if (text(packet)) {
            args.add(words(packet.args().getFirst().toString()));
        } else {
            for (int i = 0; i < packet.args().size(); i++) {
                args.add(arg(packet.args().get(i), packet.forms().get(i)));
            }
        }
        return new Packet(to, args, null, Map.of(), Map.of(), null, null);
    }

    private JsonNode filled(JsonNode tree) {
        if (tree instanceof ObjectNode object) {
            ObjectNode made = MAKE.objectNode();
            object.properties().forEach(e -> made.set(e.getKey(), filled(e.getValue())));
            return made;
        }
        if (tree instanceof ArrayNode array) {
            ArrayNode made = MAKE.arrayNode();
            array.forEach(child -> made.add(filled(child)));
            return made;
        }
        Param p = params.get(part++);
        return p == null ? tree : MAKE.stringNode("{" + p.id() + "}");
    }

    private WireValue words(String text) {
        Matcher m = WORD.matcher(text);
        String filled = m.replaceAll(word -> {
            Param p = params.get(part++);
            return Matcher.quoteReplacement(p == null ? word.group() : "{" + p.id() + "}");
        });
        return params.isEmpty() ? new WireValue.Fixed(Value.of(text)) : new WireValue.Filled(new Template(filled));
    }

    private WireValue arg(Value value, As form) {
        Param p = params.get(part++);
        if (form == As.INT) {
            return new Mapped(p == null ? null : p.id(), p == null ? value : null, null, null, null, null, null, null,
                    As.INT);
        }
        return p == null ? new WireValue.Fixed(value) : new WireValue.Filled(new Template("{" + p.id() + "}"));
    }
}
