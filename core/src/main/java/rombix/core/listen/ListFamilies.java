package rombix.core.listen;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Arrival;
import rombix.core.card.Card;
import rombix.core.card.Card.Change;
import rombix.core.card.Card.Command;
import rombix.core.card.Card.Param;
import rombix.core.card.Card.ReadingSpec;
import rombix.core.card.Packet;
import rombix.core.card.Protocol;
import rombix.core.card.value.As;
import rombix.core.card.value.Mapped;
import rombix.core.card.value.Meaning;
import rombix.core.card.value.WireValue;
import rombix.core.edit.Edits;
import rombix.core.listen.HeardValue.Kind;
import rombix.core.value.Template;
import rombix.core.value.Value;
import rombix.core.value.ValueType;
import tools.jackson.databind.node.JsonNodeFactory;
import tools.jackson.databind.node.ObjectNode;

/** What is made of a thing that each item of a list has: the list, a reading for each, and one command for all. */
final class ListFamilies {
    private ListFamilies() {
    }

    static <T> Predicate<String> taken(List<T> all, Function<T, String> id) {
        return name -> all.stream().anyMatch(x -> id.apply(x).equals(name));
    }

    /** A level that goes unevenly. */
    static Mapped curve(@Nullable String of, ReadingDraft wanted, @Nullable As as) {
        return new Mapped(of, null, null, null, null, null, null, null, as, wanted.points(), null);
    }

    static String plain(String name) {
        return name.replace("~1", "/").replace("~0", "~");
    }

    /**
     * The list whose items have what a voice tells.
     *
     * @param readings those of the card; the list is added where no reading tells it yet
     * @return the list's name; null where the voice does not stand in a list
     */
    static @Nullable String of(Card card, Protocol protocol, HeardValue voice, List<ReadingSpec> readings) {
        HeardValue.Items items = voice.items();
        if (items == null) {
            return null;
        }
        Template at = items.list().isEmpty() ? null : new Template(items.list());
        for (ReadingSpec r : readings) {
            if (r.type() == ValueType.LIST && r.arrives().getOrDefault(protocol, List.of()).stream().anyMatch(a -> a
                    .address().toString().equals(voice.address()) && Objects.equals(a.at(), at))) {
                return r.id().toString();
            }
        }
        String name = items.list().substring(items.list().lastIndexOf('/') + 1);
        String id = Edits.freshId(name, "items", taken(card.readings(), r -> r.id().toString()));
        readings.add(new ReadingSpec(new Template(id), new Template(name.isEmpty()
                ? "Items"
                : name.substring(0, 1).toUpperCase(java.util.Locale.ROOT) + name.substring(1)), ValueType.LIST, null,
                null,
                null, null, null, null, null, false, Map.of(protocol, List.of(new Arrival(new Template(voice.address()),
                        Math.max(voice.arg(), 0), Map.of(), at == null ? new Template("") : at, null, null, null, null,
                        null,
                        new Arrival.Listed("/" + items.id(), "/name"), null)))));
        return id;
    }

    /** What has to be so for a message to be about an item. */
    static Map<String, Meaning> where(HeardValue voice, @Nullable String family) {
        return voice.items() == null || family == null
                ? Map.of()
                : Map.of("/" + voice.items().id(), Meaning.of(Value.of("{" + family + "}")));
    }

    /** A command that tells an item by its id what it is to be. */
    static Command command(Card card, Protocol protocol, HeardValue voice, ReadingDraft wanted, String reading,
            String family,
            @Nullable String choices) {
        Param item = new Param(family, null, ValueType.CHOICE, null, null, null, null, null, family);
        Param to = switch (wanted.kind()) {
            case LEVEL -> new Param("to", wanted.title(), ValueType.NUMBER, wanted.unit().isEmpty()
                    ? null
                    : wanted.unit(), wanted.least(), wanted.greatest(), wanted.step(), Value.of(wanted.least()), null);
            case MUTE, SWITCH -> new Param("to", wanted.title(), ValueType.FLAG, null, null, null, null, Value.of(true),
                    null);
            case COLOUR ->
                new Param("to", wanted.title(), ValueType.COLOUR, null, null, null, null, Value.of("#FFFFFF"),
                        null);
            case CHOICE -> new Param("to", wanted.title(), ValueType.CHOICE, null, null, null, null, null, choices);
            default -> new Param("to", wanted.title(), ValueType.TEXT, null, null, null, null, Value.of(""), null);
        };
        ObjectNode tree = JsonNodeFactory.instance.objectNode();
        tree.put(Objects.requireNonNull(voice.items()).id(), "{" + family + "}");
        String member = plain(String.valueOf(voice.pointer()).substring(1));
        Map<String, WireValue> with = new LinkedHashMap<>();
        ColourFormat colour = wanted.kind() == Kind.COLOUR ? ColourFormat.of(voice.seen()) : null;
        if (colour != null) {
            ObjectNode parts = tree.putObject(member);
            colour.carries().forEach((name, carry) -> {
                parts.put(name, "{" + name + "}");
                with.put(name, carry);
            });
        } else {
            WireValue carry = carry(wanted);
            if (carry != null) {
                with.put("raw", carry);
            }
            tree.put(member, carry == null ? "{to}" : "{raw}");
        }
        return new Command(Edits.freshId(wanted.title(), "set", taken(card.commands(), Command::id)),
                new Template("{" + family + "} " + wanted.title() + " to {to}"), List.of(),
                new ArrayList<>(List.of(item,
                        to)),
                Map.of(protocol, List.of(new Packet(new Template(wanted.toldAt()), List.of(), tree, Map.of(),
                        with, null, null))),
                List.of(new Change(new Template(reading), new WireValue.Filled(
                        new Template("{to}")))),
                null, null, null, null, List.of());
    }

    private static @Nullable WireValue carry(ReadingDraft wanted) {
        return switch (wanted.kind()) {
            case MUTE, SWITCH ->
                new Mapped("to", null, null, null, null, Meaning.of(wanted.yes()), Meaning.of(wanted.no()),
                        null, null);
            case LEVEL -> !wanted.points().isEmpty()
                    ? curve("to", wanted, null)
                    : wanted.low() == wanted.wireLow() && wanted.high() == wanted.wireHigh()
                            ? null
                            : new Mapped("to", null, List.of(wanted.low(), wanted.high()),
                                    List.of(wanted.wireLow(), wanted
                                            .wireHigh()),
                                    null, null, null, null, wanted.wireHigh() > 1 ? As.INT : null);
            default -> null;
        };
    }
}
