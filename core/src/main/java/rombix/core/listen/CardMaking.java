package rombix.core.listen;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Arrival;
import rombix.core.card.Card;
import rombix.core.card.Card.Change;
import rombix.core.card.Card.Command;
import rombix.core.card.Card.Item;
import rombix.core.card.Card.Param;
import rombix.core.card.Card.ReadingSpec;
import rombix.core.card.Card.Tone;
import rombix.core.card.Card.Undo;
import rombix.core.card.Card.Word;
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

/** Cards in the making, as functions from card to card. */
public final class CardMaking {
    private CardMaking() {
    }

    /** A card that says nothing yet. */
    public static Card empty(String id, String title) {
        return new Card(Card.FORMAT, id, title, "mdi2c-chip", Map.of(), List.of(), List.of(), List.of(), Map.of(), Map
                .of(), List.of(), List.of(), Map.of(), null, null, Map.of());
    }

    /** The card with a reading made from a voice; where the gear can be told the same, with the commands for it. */
    public static Card withReading(Card card, Protocol protocol, HeardValue voice, ReadingDraft wanted) {
        String id = Edits.freshId(wanted.title(), "reading",
                ListFamilies.taken(card.readings(), r -> r.id().toString()));
        Map<String, List<Item>> lists = new LinkedHashMap<>(card.lists());
        String choices = null;
        if (wanted.kind() == Kind.CHOICE) {
            choices = Edits.freshId(wanted.title() + " choices", "choices", lists::containsKey);
            lists.put(choices, wanted.choices().stream().map(c -> new Item(c, c, Map.of())).toList());
        }
        List<ReadingSpec> readings = new ArrayList<>(card.readings());
        String family = ListFamilies.of(card, protocol, voice, readings);
        if (family != null) {
            id = id + "/{" + family + "}";
        }
        readings.add(new ReadingSpec(new Template(id), new Template(family == null
                ? wanted.title()
                : "{" + family + "} " + wanted.title()), type(wanted.kind()),
                wanted.unit().isEmpty() || wanted.kind() != Kind.LEVEL ? null : wanted.unit(),
                level(wanted) ? wanted.least() : null, level(wanted) ? wanted.greatest() : null, level(wanted)
                        ? wanted.step()
                        : null,
                choices, yes(wanted), no(wanted), false, Map.of(protocol, List.of(arrival(voice, wanted, family))),
                wanted
                        .moment()));
        List<Command> commands = new ArrayList<>(card.commands());
        if (!wanted.toldAt().isBlank() && wanted.kind() != Kind.LIST) {
            commands.addAll(family == null
                    ? commands(card, protocol, voice, wanted, id, choices)
                    : List.of(ListFamilies.command(card, protocol, voice, wanted, id, family, choices)));
        }
        return with(card, lists, readings, commands);
    }

    static Card with(Card card, Map<String, List<Item>> lists, List<ReadingSpec> readings, List<Command> commands) {
        return card.with(c -> c.card(Card.FORMAT).lists(lists).readings(readings).commands(commands));
    }

    /** The card with other messages that are exchanged when gear is connected over a protocol; none for no login. */
    public static Card greeting(Card card, Protocol protocol, List<Packet> messages) {
        Map<Protocol, List<Packet>> all = new LinkedHashMap<>(card.greeting());
        if (messages.isEmpty()) {
            all.remove(protocol);
        } else {
            all.put(protocol, List.copyOf(messages));
        }
        return card.with(c -> c.card(Card.FORMAT).greeting(all));
    }

    /** How a colour that was heard stands on the wire, in words. */
    public static String colourWords(HeardValue voice) {
        ColourFormat parts = ColourFormat.of(voice.seen());
        return parts == null ? "#RRGGBB" : parts.words();
    }

    /** Under another title. */
    public static Card titled(Card card, String title) {
        return card.with(c -> c.card(Card.FORMAT).title(title));
    }

    /** Without a reading, and without what commands say of it. */
    public static Card withoutReading(Card card, String id) {
        return with(card, card.lists(), card.readings().stream().filter(r -> !r.id().toString().equals(id)).toList(),
                card.commands().stream().map(c -> new Command(c.id(), c.title(), c.words(), c.params(), c.send(), c
                        .changes().stream().filter(x -> !x.reading().toString().equals(id)).toList(), c.undo(),
                        c
                                .takes(),
                        c.waits(), c.lasts(), c.after())).toList());
    }

    /** Without a command, which undoes no other any more. */
    public static Card withoutCommand(Card card, String id) {
        return with(card, card.lists(), card.readings(), card.commands().stream().filter(c -> !c.id().equals(id)).map(
                c -> c.undo() == null || !c.undo().command().equals(id) ? c : undone(c, null)).toList());
    }

    private static Command undone(Command c, @Nullable Undo undo) {
        return new Command(c.id(), c.title(), c.words(), c.params(), c.send(), c.changes(), undo, c.takes(), c.waits(),
                c.lasts(), c.after());
    }

    private static boolean level(ReadingDraft wanted) {
        return wanted.kind() == Kind.LEVEL;
    }

    private static ValueType type(Kind kind) {
        return switch (kind) {
            case MUTE, SWITCH -> ValueType.FLAG;
            case LEVEL -> ValueType.NUMBER;
            case CHOICE -> ValueType.CHOICE;
            case TEXT -> ValueType.TEXT;
            case LIST -> ValueType.LIST;
            case COLOUR -> ValueType.COLOUR;
        };
    }

    private static @Nullable Word yes(ReadingDraft wanted) {
        return switch (wanted.kind()) {
            case MUTE -> new Word("MUTED", Tone.AIR);
            case SWITCH -> new Word("ON", Tone.READY);
            default -> null;
        };
    }

    private static @Nullable Word no(ReadingDraft wanted) {
        return switch (wanted.kind()) {
            case MUTE -> new Word("OPEN", Tone.READY);
            case SWITCH -> new Word("off", Tone.QUIET);
            default -> null;
        };
    }

    private static Arrival arrival(HeardValue voice, ReadingDraft wanted, @Nullable String family) {
        Arrival at = voice.arrival();
        WireValue value = switch (wanted.kind()) {
            case MUTE, SWITCH -> new Mapped(null, null, null, null, null, new Meaning(List.of(wanted.yes()), null,
                    null), new Meaning(List.of(wanted.no()), null, null), null, null);
            case LEVEL -> same(wanted)
                    ? null
                    : !wanted.points().isEmpty()
                            ? ListFamilies.curve(null, wanted, null)
                            : new Mapped(null, null, List.of(wanted.low(), wanted.high()),
                                    List.of(wanted.wireLow(), wanted
                                            .wireHigh()),
                                    null, null, null, null, null);
            case CHOICE, TEXT, LIST, COLOUR -> null;
        };
        ColourFormat colour = wanted.kind() == Kind.COLOUR ? ColourFormat.of(voice.seen()) : null;
        return new Arrival(at.from(), at.arg(), ListFamilies.where(voice, family), colour == null ? at.at() : null, at
                .pattern(), null, at.first(), null, null, wanted.kind() == Kind.LIST ? listed(voice) : null, value,
                at
                        .each(),
                colour == null ? Map.of() : colour.parts(voice.pointer() == null ? "" : voice.pointer()));
    }

    private static boolean same(ReadingDraft wanted) {
        return wanted.points().isEmpty() && wanted.low() == wanted.wireLow() && wanted.high() == wanted.wireHigh();
    }

    /** Where the ids and the names stand in a list of objects: under the names that are usual for them. */
    private static Arrival.Listed listed(HeardValue voice) {
        String text = voice.last().toString();
        String id = first(text, "id", "uid", "key", "name");
        String name = first(text, "name", "title", "label");
        return new Arrival.Listed(id == null ? null : "/" + id, name == null ? null : "/" + name);
    }

    private static @Nullable String first(String text, String... names) {
        for (String name : names) {
            if (text.contains("\"" + name + "\":")) {
                return name;
            }
        }
        return null;
    }

    private static List<Command> commands(Card card, Protocol protocol, HeardValue voice, ReadingDraft wanted,
            String reading,
            @Nullable String choices) {
        Predicate<String> taken = ListFamilies.taken(card.commands(), Command::id);
        if (wanted.kind() == Kind.MUTE || wanted.kind() == Kind.SWITCH) {
            boolean mute = wanted.kind() == Kind.MUTE;
            String on = Edits.freshId(mute ? "mute " + wanted.title() : wanted.title() + " on", "on", taken);
            String off = Edits.freshId(mute ? "unmute " + wanted.title() : wanted.title() + " off", "off", taken);
            return List.of(set(on, mute ? "Mute " + wanted.title() : wanted.title() + " on", protocol, voice, wanted
                    .toldAt(), fixed(wanted.yes()), reading, off, true), set(off,
                            mute
                                    ? "Unmute " + wanted.title()
                                    : wanted.title() + " off",
                            protocol, voice, wanted.toldAt(), fixed(wanted.no()), reading,
                            on, false));
        }
        String id = Edits.freshId(wanted.title(), "set", taken);
        Param param = switch (wanted.kind()) {
            case LEVEL -> new Param("to", wanted.title(), ValueType.NUMBER, wanted.unit().isEmpty()
                    ? null
                    : wanted
                            .unit(),
                    wanted.least(), wanted.greatest(), wanted.step(), Value.of(wanted.least()), null);
            case CHOICE -> new Param("to", wanted.title(), ValueType.CHOICE, null, null, null, null, null, choices);
            case COLOUR ->
                new Param("to", wanted.title(), ValueType.COLOUR, null, null, null, null, Value.of("#FFFFFF"),
                        null);
            default -> new Param("to", wanted.title(), ValueType.TEXT, null, null, null, null, Value.of(""), null);
        };
        WireValue carry = !wanted.points().isEmpty() && level(wanted)
                ? ListFamilies.curve("to", wanted, whole(voice) ? As.INT : null)
                : wanted.kind() == Kind.LEVEL && (!same(wanted) || whole(voice))
                        ? new Mapped("to", null, same(wanted) ? null : List.of(wanted.low(), wanted.high()),
                                same(wanted)
                                        ? null
                                        : List.of(wanted.wireLow(), wanted.wireHigh()),
                                null, null, null, null,
                                whole(voice)
                                        ? As.INT
                                        : null)
                        : new WireValue.Filled(new Template("{to}"));
        return List.of(new Command(id, new Template(wanted.title() + " to {to}"), List.of(), List.of(param), Map.of(
                protocol, List.of(packet(voice, wanted.toldAt(), carry))),
                List.of(new Change(new Template(reading),
                        new WireValue.Filled(new Template("{to}")))),
                new Undo(id, Map.of("to", new WireValue.Fixed(
                        Value.of("before")))),
                null, null, null, List.of()));
    }

    /** Whether it was never heard with a fraction, though it was more than yes and no. */
    private static boolean whole(HeardValue voice) {
        return voice.pointer() == null && voice.before() == null && voice.seen().stream().allMatch(
                v -> v instanceof Value.Num n && n.number() == Math.rint(n.number())) && voice.seen().stream().anyMatch(
                        v -> Math.abs(v.asNumber()) > 1);
    }

    private static WireValue fixed(Value value) {
        return value instanceof Value.Num n && n.number() == Math.rint(n.number())
                ? new Mapped(null, value, null, null, null, null, null, null, As.INT)
                : new WireValue.Fixed(value);
    }

    private static Command set(String id, String title, Protocol protocol, HeardValue voice, String to, WireValue carry,
            String reading, String undo, boolean on) {
        return new Command(id, new Template(title), List.of(), List.of(), Map.of(protocol, List.of(packet(voice, to,
                carry))), List.of(new Change(new Template(reading), new WireValue.Fixed(Value.of(on)))), new Undo(undo,
                        Map.of()),
                null, null, null, List.of());
    }

    /** A packet as the voice came, with something else in its place. */
    private static Packet packet(HeardValue voice, String to, WireValue carry) {
        ColourFormat colour = ColourFormat.of(voice.seen());
        if (colour != null && voice.pointer() != null) {
            ObjectNode tree = JsonNodeFactory.instance.objectNode();
            ObjectNode at = tree;
            for (String name : voice.pointer().isEmpty() ? new String[0] : voice.pointer().substring(1).split("/")) {
                at = at.putObject(ListFamilies.plain(name));
            }
            ObjectNode inner = at;
            colour.carries().keySet().forEach(name -> inner.put(name, "{" + name + "}"));
            return new Packet(new Template(to), List.of(), tree, Map.of(), new LinkedHashMap<>(colour.carries()), null,
                    null);
        }
        if (voice.pointer() != null && !voice.pointer().isEmpty()) {
            ObjectNode tree = JsonNodeFactory.instance.objectNode();
            ObjectNode at = tree;
            String[] names = voice.pointer().substring(1).split("/");
            for (int i = 0; i < names.length - 1; i++) {
                at = at.putObject(ListFamilies.plain(names[i]));
            }
            boolean place = !carry.places().isEmpty();
            Map<String, WireValue> with = new LinkedHashMap<>();
            if (place && carry instanceof Mapped) {
                with.put("raw", carry);
            }
            String leaf = ListFamilies.plain(names[names.length - 1]);
            Value fixed = carry.out(_ -> null);
            switch (fixed) {
                case null -> at.put(leaf, with.isEmpty() ? "{to}" : "{raw}");
                case Value.Num n when n.number() == Math.rint(n.number()) -> at.put(leaf, (long) n.number());
                case Value.Num n -> at.put(leaf, n.number());
                case Value.Flag f -> at.put(leaf, f.on());
                default -> at.put(leaf, fixed.toString());
            }
            return new Packet(new Template(to), List.of(), tree, Map.of(), with, null, null);
        }
        if (voice.before() != null) {
            Value fixed = carry.out(_ -> null);
            String begins = voice.before().replace(HeardValue.INSIDE, "");
            return new Packet(new Template(to), List.of(fixed == null
                    ? new WireValue.Filled(new Template(begins + "{to}"))
                    : new WireValue.Fixed(Value.of(begins + fixed))), null, Map.of(), Map.of(), null, null);
        }
        List<WireValue> args = new ArrayList<>();
        for (int i = 0; i < Math.max(voice.arg(), 0); i++) {
            args.add(fixed(voice.others().get(i)));
        }
        args.add(carry);
        return new Packet(new Template(to), args, null, Map.of(), Map.of(), null, null);
    }

}
