package rombix.core.patch;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntFunction;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Arrival;
import rombix.core.card.Card;
import rombix.core.card.Card.Change;
import rombix.core.card.Card.Command;
import rombix.core.card.Card.Item;
import rombix.core.card.Card.Param;
import rombix.core.card.Card.ReadingSpec;
import rombix.core.card.Card.Undo;
import rombix.core.card.Channel;
import rombix.core.card.Channel.Kind;
import rombix.core.card.Packet;
import rombix.core.card.Personality.Ability;
import rombix.core.card.Protocol;
import rombix.core.card.value.As;
import rombix.core.card.value.Mapped;
import rombix.core.card.value.WireValue;
import rombix.core.value.Template;
import rombix.core.value.Value;
import rombix.core.value.ValueType;

/** Readings and commands for what fixtures can do: a family of each for all fixtures that can do the same. */
final class FixtureFamilies {
    private static final double WORD = 65_535;
    private static final int MASTERED_SLOTS = 3;
    private static final List<Protocol> OVER = List.of(Protocol.of("dmx"), Protocol.of("artnet"));
    private static final String BEFORE = "before";

    private FixtureFamilies() {
    }

    /** The field of an item that says where the nth part of an ability stands. */
    static String field(int part) {
        return part == 0 ? "slot" : "slot-" + (part + 1);
    }

    /** The card with the reading and the command of an ability; the list of those that have it is called by its key. */
    static Card with(Card card, Ability a) {
        List<ReadingSpec> readings = new ArrayList<>(card.readings());
        List<Command> commands = new ArrayList<>(card.commands());
        Map<String, List<Item>> lists = new LinkedHashMap<>(card.lists());
        String steps = a.kind() == Kind.WHEEL ? a.key() + "-steps" : null;
        if (steps != null) {
            lists.put(steps,
                    a.steps().stream().map(s -> new Item(s.id(), s.name(), Map.of("value", s.value()))).toList());
        }
        readings.add(reading(a, steps));
        commands.add(command(a, steps));
        return card.with(c -> c.readings(readings).commands(commands).lists(lists));
    }

    private static String item(Ability a) {
        return "{" + a.key() + "}";
    }

    private static ReadingSpec reading(Ability a, @Nullable String steps) {
        ValueType type = type(a);
        boolean number = type == ValueType.NUMBER;
        return new ReadingSpec(new Template(a.key() + "/" + item(a)), new Template(item(a) + (a.kind() == Kind.DIMMER
                ? ""
                : " " + a.label())), type, number ? unit(a) : null, number ? Math.min(a.from(), a.to()) : null, number
                        ? Math.max(a.from(), a.to())
                        : null,
                number ? step(a) : null, steps, null, null, false, arrives(a));
    }

    /** What a desk sends is heard where it stands in one piece, or nearly so. */
    private static Map<Protocol, List<Arrival>> arrives(Ability a) {
        if (a.kind() == Kind.WHEEL || a.kind() == Kind.RED && (!a.together() || a.slots().size() > MASTERED_SLOTS)) {
            return Map.of();
        }
        boolean word = a.wide() && a.together();
        WireValue value = a.kind() == Kind.RED
                ? null
                : new Mapped(null, null, List.of(a.from(), a.to()), List.of(0.0,
                        word ? WORD : Channel.FULL), null, null, null, null, null);
        Arrival arrival = new Arrival(new Template(to(a, 0)), a.kind() == Kind.RED ? 2 : word ? 1 : 0, Map.of(), null,
                null, null, null, null, null, null, value);
        Map<Protocol, List<Arrival>> all = new LinkedHashMap<>();
        OVER.forEach(p -> all.put(p, List.of(arrival)));
        return all;
    }

    private static ValueType type(Ability a) {
        return switch (a.kind()) {
            case RED -> ValueType.COLOUR;
            case WHEEL -> ValueType.CHOICE;
            default -> ValueType.NUMBER;
        };
    }

    private static String unit(Ability a) {
        return switch (a.kind()) {
            case PAN, TILT -> "°";
            case WARMTH -> "K";
            default -> "%";
        };
    }

    private static double step(Ability a) {
        return a.kind() == Kind.WARMTH ? 50 : a.wide() || a.kind() == Kind.PAN || a.kind() == Kind.TILT ? 0.1 : 1;
    }

    private static String param(Ability a) {
        return switch (a.kind()) {
            case RED -> "colour";
            case WHEEL -> "step";
            case PAN -> "pan";
            case TILT -> "tilt";
            default -> "level";
        };
    }

    private static Command command(Ability a, @Nullable String steps) {
        String param = param(a);
        String says = switch (a.kind()) {
            case DIMMER -> " to {level}";
            case WARMTH -> " at {level}";
            case RED -> " in {colour}";
            case PAN -> " pans to {pan}";
            case TILT -> " tilts to {tilt}";
            case STROBE -> " strobes at {level}";
            case WHEEL -> " " + a.label() + ": {step}";
            default -> " " + a.label() + " to {level}";
        };
        return new Command(a.key(), new Template(item(a) + says), List.of(a.label(), a.kind().words()), List.of(fixture(
                a.key()), value(a, param, steps)), sends(a, param), List.of(
                        new Change(new Template(a.key() + "/"
                                + item(a)), new WireValue.Filled(new Template("{" + param + "}")))),
                new Undo(a.key(), Map.of(a.key(), new WireValue.Filled(new Template(item(a))), param,
                        new WireValue.Fixed(Value.of(BEFORE)))),
                null, null, null, List.of());
    }

    private static Param fixture(String list) {
        return new Param(list, "fixture", ValueType.CHOICE, null, null, null, null, null, null);
    }

    private static Param value(Ability a, String id, @Nullable String steps) {
        return switch (type(a)) {
            case COLOUR -> new Param(id, "colour", ValueType.COLOUR, null, null, null, null, Value.of("#B01010"), null);
            case CHOICE -> new Param(id, a.label(), ValueType.CHOICE, null, null, null, null, Value.of(a.steps()
                    .getFirst().id()), steps);
            default -> new Param(id, a.label(), ValueType.NUMBER, unit(a), Math.min(a.from(), a.to()), Math.max(a
                    .from(), a.to()), step(a), Value.of(preset(a)), null);
        };
    }

    private static double preset(Ability a) {
        return switch (a.kind()) {
            case PAN, TILT -> Math.clamp(0, Math.min(a.from(), a.to()), Math.max(a.from(), a.to()));
            case WARMTH -> Math.rint((a.from() + a.to()) / 2);
            default -> a.to();
        };
    }

    private static String to(Ability a, int part) {
        return "{" + a.key() + ".universe} {" + a.key() + "." + field(part) + "}";
    }

    private static Map<Protocol, List<Packet>> sends(Ability a, String param) {
        List<Packet> packets = new ArrayList<>();
        switch (a.kind()) {
            case WHEEL -> packets.add(packet(a, 0, new WireValue.Filled(new Template("{step.value}"))));
            case RED -> {
                if (a.together()) {
                    packets.add(packet(a, 0, form(param, a.slots().size() > MASTERED_SLOTS ? As.RGBW : As.RGB)));
                } else {
                    List<As> parts = List.of(As.RED, As.GREEN, As.BLUE);
                    for (int i = 0; i < parts.size(); i++) {
                        packets.add(packet(a, i, form(param, parts.get(i))));
                    }
                }
            }
            default -> {
                if (!a.wide()) {
                    packets.add(packet(a, 0, scaled(a, param, Channel.FULL, null)));
                } else if (a.together()) {
                    packets.add(packet(a, 0, scaled(a, param, WORD, As.WORD)));
                } else {
                    packets.add(packet(a, 0, scaled(a, param, WORD, As.COARSE)));
                    packets.add(packet(a, 1, scaled(a, param, WORD, As.FINE)));
                }
            }
        }
        Map<Protocol, List<Packet>> all = new LinkedHashMap<>();
        OVER.forEach(p -> all.put(p, packets));
        return all;
    }

    /** A master holds down what gives light. */
    private static Packet packet(Ability a, int part, WireValue carries) {
        Map<String, WireValue> head = a.kind() == Kind.DIMMER || a.kind() == Kind.RED
                ? Map.of("master", new WireValue.Fixed(Value.of(true)))
                : Map.of();
        return new Packet(new Template(to(a, part)), List.of(carries), null, head, Map.of(), null, null);
    }

    private static WireValue form(String param, As as) {
        return new Mapped(param, null, null, null, null, null, null, null, as);
    }

    private static WireValue scaled(Ability a, String param, double full, @Nullable As as) {
        return new Mapped(param, null, List.of(a.from(), a.to()), List.of(0.0, full), null, null, null, null, as);
    }

    /** The field of an item of those that aim that says where the nth part of its tilt stands. */
    static String tiltField(int part) {
        return "tilt-" + field(part);
    }

    /** What the list of those is called that have both. */
    static String aims(Ability pan, Ability tilt) {
        return "aim-" + pan.key() + "-" + tilt.key();
    }

    /** The card with a command that tells pan and tilt together. */
    static Card aiming(Card card, Ability pan, Ability tilt) {
        String list = aims(pan, tilt);
        List<Command> commands = new ArrayList<>(card.commands());
        Map<Protocol, List<Packet>> all = new LinkedHashMap<>();
        OVER.forEach(p -> all.put(p,
                Stream.concat(aimed(list, pan, "pan", FixtureFamilies::field).stream(), aimed(list, tilt,
                        "tilt", FixtureFamilies::tiltField).stream()).toList()));
        commands.add(new Command(list, new Template("{" + list + "} aims at {pan}, {tilt}"), List.of("move", "point",
                "pan", "tilt"), List.of(fixture(list), value(pan, "pan", null), value(tilt, "tilt", null)), all,
                List
                        .of(change(list, pan, "pan"), change(list, tilt, "tilt")),
                new Undo(list, Map.of(list, new WireValue.Filled(new Template("{" + list + "}")), "pan",
                        new WireValue.Fixed(Value.of(BEFORE)), "tilt", new WireValue.Fixed(Value.of(BEFORE)))),
                null, null, null, List.of()));
        return card.with(c -> c.commands(commands));
    }

    private static Change change(String list, Ability a, String param) {
        return new Change(new Template(a.key() + "/{" + list + "}"), new WireValue.Filled(new Template("{" + param
                + "}")));
    }

    private static List<Packet> aimed(String list, Ability a, String param, IntFunction<String> field) {
        List<As> forms = !a.wide() ? List.of(As.PLAIN) : a.together() ? List.of(As.WORD) : List.of(As.COARSE, As.FINE);
        List<Packet> packets = new ArrayList<>();
        for (int i = 0; i < forms.size(); i++) {
            As as = forms.get(i);
            packets.add(new Packet(new Template("{" + list + ".universe} {" + list + "." + field.apply(i) + "}"), List
                    .of(scaled(a, param, a.wide() ? WORD : Channel.FULL, as == As.PLAIN ? null : as)), null, Map.of(),
                    Map.of(), null, null));
        }
        return packets;
    }
}
