package rombix.core.twin;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Card;
import rombix.core.card.Card.Command;
import rombix.core.card.Card.Item;
import rombix.core.card.Card.Param;
import rombix.core.card.Packet;
import rombix.core.card.Protocol;
import rombix.core.card.value.As;
import rombix.core.card.value.JsonTree;
import rombix.core.card.value.WireValue;
import rombix.core.value.Formula;
import rombix.core.value.FormulaFault;
import rombix.core.value.Limits;
import rombix.core.value.NumberText;
import rombix.core.value.Value;
import rombix.core.value.ValueType;

/** A command of a twin with its arguments, whose places are filled in all that its card says of it. Immutable. */
final class Filling {
    private final Twin twin;
    private final Command command;
    private final Map<String, Value> args = new LinkedHashMap<>();
    private final Twin.Readings now;

    /** @throws IllegalArgumentException in plain words, if an argument is missing or cannot be */
    Filling(Twin twin, Command command, Map<String, Value> given, Twin.Readings now) {
        this.twin = twin;
        this.command = command;
        this.now = now;
        for (Param p : command.params()) {
            Value v = given.get(p.id()) != null ? given.get(p.id()) : p.preset();
            if (v == null) {
                throw new IllegalArgumentException(
                        "“%s” of %s needs a value for “%s”".formatted(command.id(), twin.title(), p.label()));
            }
            args.put(p.id(), within(p, v));
        }
    }

    /** @throws IllegalArgumentException in plain words, if an argument is not one of the choices */
    Order order() {
        List<Order.Outgoing> packets = new ArrayList<>();
        for (Packet packet : command.send().getOrDefault(twin.protocol(), List.of())) {
            packets.add(
                    packet(twin, packet, twin.protocol().descriptor().textual() ? this::stepped : this::place, command
                            .id()));
        }
        Map<String, Value> changes = new LinkedHashMap<>();
        Set<String> assumed = new HashSet<>();
        for (Card.Change change : command.changes()) {
            Map<String, Value> changed = changed(change);
            changes.putAll(changed);
            if (!twin.reports(change)) {
                assumed.addAll(changed.keySet());
            }
        }
        Value waits = command.waits() == null ? null : command.waits().out(this::place);
        return new Order(twin.gear(), command, Map.copyOf(args), twin.spokenTitle(command, args, now), List.copyOf(
                packets), changes, assumed, waits != null && waits.asFlag() || looks(),
                going());
    }

    /** Whether it is done at a picture that has to come first: then what follows waits for it. */
    private boolean looks() {
        return command.params().stream().anyMatch(p -> p.type() == ValueType.PLACE && String.valueOf(args.get(p.id()))
                .startsWith("picture "));
    }

    private Order.@Nullable Going going() {
        if (command.lasts() == null) {
            return null;
        }
        try {
            double millis = new Formula(command.lasts()).value(this::place).asNumber();
            Map<String, Value> after = new LinkedHashMap<>();
            command.after().forEach(change -> after.putAll(changed(change)));
            return new Order.Going(Double.isFinite(millis) ? Math.max(0, millis) : 0, after);
        } catch (FormulaFault e) {
            return null; // How long that is, nobody has said yet.
        }
    }

    /** The readings that a change sets: of a family whose place is no parameter, those of all items. */
    private Map<String, Value> changed(Card.Change change) {
        Value to = change.to().out(this::place);
        if (to == null) {
            return Map.of();
        }
        Optional<String> all = change.reading().places().stream()
                .filter(p -> p.indexOf('.') < 0 && command.param(p).isEmpty()).findFirst();
        if (all.isEmpty()) {
            return Map.of(change.reading().fill(this::place), to);
        }
        Map<String, Value> changed = new LinkedHashMap<>();
        twin.items(all.get(), now).forEach(i -> changed.put(change.reading().fill(name -> name.equals(all.get())
                ? Value.of(i.id())
                : place(name)), to));
        return changed;
    }

    /** What fills a place where numbers go out as text: as finely as their step says. */
    private @Nullable Value stepped(String name) {
        Value value = place(name);
        Double step = value instanceof Value.Num ? command.param(name).map(Param::step).orElse(null) : null;
        return step == null || value == null ? value : Value.of(NumberText.stepped(value.asNumber(), step));
    }

    /** What fills a place: an argument, or a field of the item that an argument chooses; null where there is none. */
    @Nullable
    Value place(String name) {
        int dot = name.indexOf('.');
        if (dot < 0) {
            return args.get(name);
        }
        Value chosen = args.get(name.substring(0, dot));
        Optional<Param> p = command.param(name.substring(0, dot));
        if (chosen == null || p.isEmpty()) {
            return null;
        }
        Optional<Item> item = twin.item(p.get().list(), chosen.toString(), now);
        if (item.isEmpty()) {
            throw new IllegalArgumentException("%s has no %s “%s”".formatted(twin.title(), p.get().label(), chosen));
        }
        return item.get().field(name.substring(dot + 1));
    }

    /** A packet with its places filled; {@code of} says what it belongs to. */
    static Order.Outgoing packet(Twin twin, Packet packet, Function<String, @Nullable Value> places, String of) {
        if (!packet.needsGear()) {
            return made(twin, packet, places, of, true);
        }
        Order.Outgoing draft = made(twin, packet, name -> gears(name) ? Value.of("…") : places.apply(name), of, false);
        return new Order.Outgoing(draft.address(), draft.args(), draft.forms(), draft.head(), draft.pauseMillis(), draft
                .reply(), new Later(twin, packet, places, of));
    }

    /** A packet that is made out when it goes out. */
    private record Later(Twin twin, Packet packet, Function<String, @Nullable Value> places,
            String of) implements Order.Late {
        @Override
        public Order.Outgoing made(Function<String, @Nullable Value> gear) {
            return Filling.made(twin, packet, name -> gears(name)
                    ? known(twin, gear, name.substring(Packet.GEAR.length() + 1))
                    : places.apply(name), of, true);
        }
    }

    private static @Nullable Value known(Twin twin, Function<String, @Nullable Value> gear, String name) {
        Value v = gear.apply(name);
        if (v == null) {
            throw new IllegalArgumentException(
                    "%s has no “%s” yet: it is neither set nor reported by the gear".formatted(twin
                            .title(), name));
        }
        return v;
    }

    private static boolean gears(String place) {
        return place.startsWith(Packet.GEAR + ".");
    }

    /** @param whole whether all that its address is made of is known, so that it has to be one */
    private static Order.Outgoing made(Twin twin, Packet packet, Function<String, @Nullable Value> given, String of,
            boolean whole) {
        Protocol.Descriptor wire = twin.protocol().descriptor();
        Function<String, @Nullable Value> places = packet.places(name -> {
            Value v = given.apply(name);
            return v instanceof Value.Text t ? Value.of(wire.inText(t.text())) : v;
        });
        List<Value> values = new ArrayList<>();
        List<As> forms = new ArrayList<>();
        if (packet.json() != null) {
            values.add(Value.of(JsonTree.filled(packet.json(), places)));
            forms.add(As.TEXT);
        }
        for (WireValue carry : packet.args()) {
            carried(twin, packet, carry, places, of, values, forms);
        }
        Limits.made(values.stream().mapToLong(v -> v instanceof Value.Text t ? t.text().length() : 0).sum());
        Map<String, Value> head = new LinkedHashMap<>();
        packet.head().forEach((name, carry) -> {
            Value v = carry.out(places);
            if (v == null) {
                throw new IllegalArgumentException(unfilled(twin, packet, carry, places, of));
            }
            head.put(name, v);
        });
        String address = packet.to().fill(name -> {
            Value v = places.apply(name);
            return v == null ? null : Value.of(wire.inAddress(v.toString()));
        });
        if (whole && !wire.takes(address)) {
            throw new IllegalArgumentException("“%s” is not %s".formatted(address, wire.expected()));
        }
        return new Order.Outgoing(address, List.copyOf(values), List.copyOf(forms), Map.copyOf(head), packet
                .pause() == null ? 0 : packet.pause(), packet.reply() == null ? null : packet.reply().filled(places),
                null);
    }

    private static void carried(Twin twin, Packet packet, WireValue carry, Function<String, @Nullable Value> places,
            String of, List<Value> values, List<As> forms) {
        if (carry instanceof WireValue.Group group) {
            values.add(Value.of(""));
            forms.add(As.BEGIN);
            group.items().forEach(item -> carried(twin, packet, item, places, of, values, forms));
            values.add(Value.of(""));
            forms.add(As.END);
            return;
        }
        Value v = carry.out(places);
        if (v == null) {
            throw new IllegalArgumentException(unfilled(twin, packet, carry, places, of));
        }
        values.add(v);
        forms.add(carry.form());
    }

    private static String unfilled(Twin twin, Packet packet, WireValue carry, Function<String, @Nullable Value> places,
            String of) {
        String place = carry instanceof WireValue.Filled f ? f.template().solePlace().orElse("") : "";
        int dot = place.indexOf('.');
        Value chosen = dot < 0 ? null : places.apply(place.substring(0, dot));
        return chosen == null
                ? "the card of %s sets no value for %s in “%s”".formatted(twin.title(), packet.to(), of)
                : "“%s” of %s has no %s yet: set it under Items of the gear"
                        .formatted(places.apply(place.substring(0, dot)
                                + ".name"), twin.title(), place.substring(dot + 1));
    }

    static Value within(Param p, Value v) {
        if (p.type() == ValueType.COLOUR && !v.toString().matches(Landings.COLOUR)) {
            throw new IllegalArgumentException("“%s” takes a colour such as #B01010, not “%s”".formatted(p.label(), v));
        }
        if (p.type() != ValueType.NUMBER) {
            return Twin.taken(p, v);
        }
        double n = v.asNumber();
        if (!Double.isFinite(n)) {
            throw new IllegalArgumentException("“%s” takes a number, not “%s”".formatted(p.label(), v));
        }
        double low = p.min() == null ? n : Math.max(p.min(), n);
        return Value.of(p.max() == null ? low : Math.min(p.max(), low));
    }
}
