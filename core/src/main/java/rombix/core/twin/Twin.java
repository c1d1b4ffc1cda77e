package rombix.core.twin;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Card;
import rombix.core.card.Card.Command;
import rombix.core.card.Card.Item;
import rombix.core.card.Card.Param;
import rombix.core.card.Card.ReadingSpec;
import rombix.core.card.Packet;
import rombix.core.card.Poll;
import rombix.core.card.Protocol;
import rombix.core.card.Setting;
import rombix.core.card.value.Computed;
import rombix.core.card.value.Mapped;
import rombix.core.card.value.WireValue;
import rombix.core.computer.Keys;
import rombix.core.computer.Place;
import rombix.core.value.Value;
import rombix.core.value.ValueType;
import rombix.core.value.Visible;

/**
 * A board's gear as Rombix understands it: its card, its own lists, and the protocol it is spoken to in. It makes
 * commands out in full, says what they would change, and tells which reading a packet from the gear is. Immutable;
 * present readings are handed in.
 */
public final class Twin {
    private final String gear;
    private final String title;
    private final Card card;
    private final Protocol protocol;
    private final Map<String, List<Item>> lists;
    private final List<Output> outputs;
    private final Map<String, Map<String, Item>> itemsById = new HashMap<>();
    private final Landings landings;
    private final boolean moments;
    /** The readings that are known without asking the gear. */
    private final Map<String, Reading> byId = new HashMap<>();

    /** A reading known by its full id, with what its card says of its family. */
    public record Reading(String id, String title, ReadingSpec spec) {
    }

    /** A live value of this gear by its reading's id; null where none has come yet. */
    public interface Readings extends Function<String, @Nullable Value> {
        Readings NONE = _ -> null;
    }

    /**
     * @param lists the gear's own lists, which replace the card's of the same name
     * @throws IllegalArgumentException if the card does not speak the protocol
     */
    public Twin(String gear, String title, Card card, Protocol protocol, Map<String, List<Item>> lists) {
        this(gear, title, card, protocol, lists, List.of());
    }

    /** @param outputs the levels that go out otherwise than they are set */
    public Twin(String gear, String title, Card card, Protocol protocol, Map<String, List<Item>> lists,
            List<Output> outputs) {
        this.outputs = List.copyOf(outputs);
        this.gear = gear;
        this.title = title;
        this.card = card;
        this.protocol = protocol;
        Map<String, List<Item>> all = new HashMap<>(card.lists());
        all.putAll(lists);
        this.lists = Map.copyOf(all);
        this.lists.forEach((list, items) -> {
            Map<String, Item> byId = new HashMap<>();
            items.forEach(i -> byId.putIfAbsent(i.id(), i));
            itemsById.put(list, byId);
        });
        this.moments = card.readings().stream().anyMatch(ReadingSpec::moment);
        this.landings = new Landings(card, protocol, this.lists, Map.of());
        readings(Readings.NONE).forEach(r -> byId.putIfAbsent(r.id(), r));
    }

    public String gear() {
        return gear;
    }

    public String title() {
        return title;
    }

    public Card card() {
        return card;
    }

    public Protocol protocol() {
        return protocol;
    }

    /** The levels that go out otherwise than they are set. */
    public List<Output> outputs() {
        return outputs;
    }

    /** The things that a list has now: the gear's own, the card's, or those that a reading of that name lists. */
    public List<Item> items(String list, Readings readings) {
        List<Item> fixed = lists.get(list);
        if (fixed != null) {
            return fixed;
        }
        Value listed = readings.apply(list);
        return listed instanceof Value.Choices c
                ? c.choices().stream().map(Twin::item).toList()
                : List.of();
    }

    /** Where its packets land now that it has told these lists, by their names. */
    public Landings landings(Map<String, Value.Choices> told) {
        Map<String, List<Item>> items = new HashMap<>();
        told.forEach((list, choices) -> items.put(list, choices.choices().stream().map(Twin::item).toList()));
        return new Landings(card, protocol, lists, items);
    }

    private static Item item(Value.Choice choice) {
        return new Item(choice.id(), choice.name(), Map.copyOf(choice.fields()));
    }

    /** Whether a list can be known without asking the gear. */
    public boolean fixed(String list) {
        return lists.containsKey(list);
    }

    /** All readings known now, families spread out over their lists. */
    public List<Reading> readings(Readings now) {
        List<Reading> all = new ArrayList<>();
        for (ReadingSpec spec : card.readings()) {
            Optional<String> family = Landings.familyOf(spec);
            if (family.isEmpty()) {
                all.add(new Reading(spec.id().toString(), spec.title().toString(), spec));
            } else {
                for (Item item : items(family.get(), now)) {
                    all.add(new Reading(spec.id().fill(Landings.of(family.get(), item)),
                            spec.title().fill(named(family.get(), item)), spec));
                }
            }
        }
        return all;
    }

    /** The reading with this full id, whether its item is listed yet or not. */
    public Optional<Reading> reading(String id, Readings now) {
        Reading certain = byId.get(id);
        if (certain != null) {
            return Optional.of(certain);
        }
        for (ReadingSpec spec : card.readings()) {
            Optional<Map<String, String>> places = spec.id().match(id);
            if (places.isPresent()) {
                Optional<String> family = Landings.familyOf(spec);
                String itemId = family.map(f -> places.get().getOrDefault(f, "")).orElse("");
                Item item = family.flatMap(f -> item(f, itemId, now)).orElse(new Item(itemId, itemId, Map.of()));
                if (family.isPresent() && fixed(family.get()) && item(family.get(), itemId, now).isEmpty()) {
                    continue;
                }
                return Optional.of(new Reading(id,
                        family.map(f -> spec.title().fill(named(f, item))).orElse(spec.title().toString()), spec));
            }
        }
        return readings(now).stream().filter(r -> r.id().equals(id)).findFirst(); // Its item has an id with a slash or a gap.
    }

    /** What a value of this reading is called: a flag's word, a choice's name, a number with its unit. */
    public String spoken(Reading known, Value value, Readings now) {
        ReadingSpec spec = known.spec();
        return switch (value) {
            case Value.Flag f when f.on() && spec.yes() != null -> spec.yes().word();
            case Value.Flag f when !f.on() && spec.no() != null -> spec.no().word();
            case Value.Num n -> Figures.withUnit(n.number(), spec.unit(), spec.step());
            case Value.Text t when spec.type() == ValueType.CHOICE -> item(
                    spec.choices() == null ? spec.id().toString() : spec.choices(), t.text(), now).map(Item::name)
                    .orElse(t.text());
            case Value.Text t -> Visible.text(t.text());
            default -> value.toString();
        };
    }

    /** What is set for it beside its address: its protocol's, and its card's, which come before those of the same id. */
    public List<Setting> settings() {
        Map<String, Setting> all = new LinkedHashMap<>();
        protocol.descriptor().settings().forEach(s -> all.put(s.id(), s));
        card.settings().forEach(s -> all.put(s.id(), s));
        return List.copyOf(all.values());
    }

    /** What is wrong with its settings, each in a sentence. */
    public List<String> wrong(Map<String, Value> set) {
        return Setting.wrong(settings(), set);
    }

    /** What is wrong with an item of a list, by its field: nothing can be addressed to what stands there. */
    public Map<String, String> wrong(String list, Item item) {
        Map<String, String> wrong = new LinkedHashMap<>();
        card.places(list, protocol).forEach((field, addresses) -> {
            Value value = item.field(field);
            if (value != null && addresses.entrySet().stream().anyMatch(a -> !protocol.descriptor().takes(a.getKey()
                    .fill(place -> place.equals(a.getValue()) ? value : null)))) {
                wrong.put(field, "“%s” can't be the %s of “%s”: expected %s".formatted(value, field.replace('-', ' '),
                        item.name(), protocol.descriptor().expected()));
            }
        });
        return wrong;
    }

    /** The item of a list with this id. */
    public Optional<Item> item(String list, String id, Readings now) {
        Map<String, Item> known = itemsById.get(list);
        return known != null
                ? Optional.ofNullable(known.get(id))
                : items(list, now).stream().filter(i -> i.id().equals(id)).findFirst();
    }

    /**
     * A command made out with its arguments.
     *
     * @throws IllegalArgumentException in plain words, if an argument is missing or is not one of the choices
     */
    public Order order(Command command, Map<String, Value> args, Readings now) {
        return new Filling(this, command, args, now).order();
    }

    /** The addresses at which readings arrive that are known in full: those of lists that the gear need not tell. */
    public Set<String> fixedArrivals() {
        return landings.fixed();
    }

    /** Whether the gear itself says what a reading is; else it is taken to be as last sent. */
    public boolean reports(String reading) {
        return reading(reading, Readings.NONE).filter(r -> r.spec().arrives().containsKey(protocol)).isPresent();
    }

    boolean reports(Card.Change change) {
        return landings.reports(change.reading());
    }

    /** The readings that a packet from the gear brings; empty if the card knows no such packet. */
    public List<ReceivedReading> land(String address, List<Value> args) {
        return landings.land(new MessageReader.Message(address, args));
    }

    /** Whether a reading tells that something happens, not how something is. */
    public boolean moment(String reading) {
        return moments && reading(reading, Readings.NONE).filter(r -> r.spec().moment()).isPresent();
    }

    /** A command whose one parameter moves, with its other arguments. Throws like {@link #order}. */
    public Ramp ramp(Command command, Param param, Map<String, Value> args, Readings now) {
        Map<String, Value> full = new LinkedHashMap<>(args);
        full.putIfAbsent(param.id(), Value.of(param.min() == null ? 0 : param.min()));
        Filling filling = new Filling(this, command, full, now);
        Order first = filling.order();
        Function<String, @Nullable Value> places = filling::place;
        Map<String, WireValue> moving = new LinkedHashMap<>();
        for (Card.Change change : command.changes()) {
            boolean moves = switch (change.to()) {
                case WireValue.Fixed _ -> false;
                case WireValue.Filled f -> f.template().places().contains(param.id());
                case Mapped m -> param.id().equals(m.of());
                case WireValue.Group _,Computed _ -> false;
            };
            if (moves) {
                moving.put(change.reading().fill(places), change.to());
            }
        }
        return new Ramp(first, param, command.send().getOrDefault(protocol, List.of()), moving, places,
                moved -> spokenTitle(command, moved, now), (packet, filled) -> Filling.packet(this, packet, filled,
                        command.id()));
    }

    /** What to send at connection; what is sent for each item of a list that the gear has yet to tell is not among it. */
    public List<Order.Outgoing> greeting() {
        return greetings().filter(p -> p.each() == null || fixed(p.each())).flatMap(p -> packets(p, "greeting", Map
                .of()).stream()).toList();
    }

    /** What to send for each item that the gear lists, once. */
    public List<Packet> greetingByItem() {
        return greetings().filter(p -> p.each() != null && !fixed(p.each())).toList();
    }

    private Stream<Packet> greetings() {
        return card.greeting().getOrDefault(protocol, List.of()).stream();
    }

    /**
     * A packet that has no parameters: once, or for each item of its list.
     *
     * @param told the lists that the gear has told, by their names
     */
    public List<Order.Outgoing> packets(Packet packet, String of, Map<String, Value.Choices> told) {
        String list = packet.each();
        return list == null
                ? List.of(Filling.packet(this, packet, _ -> null, of))
                : items(list, told::get).stream().map(item -> Filling.packet(this, packet, Landings.of(list, item), of))
                        .toList();
    }

    /** What it is asked again and again. */
    public List<Poll> polls() {
        return card.polls().getOrDefault(protocol, List.of());
    }

    /** A command with the arguments that a step would hold; {@code moving} is the one that carries the reading. */
    public record Call(Command command, Map<String, Value> args, @Nullable String moving) {
    }

    /** The command that brings a reading to a value, if the card has one. */
    public Optional<Call> toReach(String reading, Value value) {
        for (Command command : card.commands()) {
            for (Card.Change change : command.changes()) {
                Map<String, String> places = change.reading().match(reading).orElse(null);
                if (places == null) {
                    continue;
                }
                Map<String, Value> args = new LinkedHashMap<>();
                places.forEach((name, found) -> args.put(name, Value.of(found)));
                String moving = change.to() instanceof WireValue.Filled f
                        ? f.template().solePlace().orElse(null)
                        : null;
                boolean reaches = change.to() instanceof WireValue.Fixed f
                        ? f.value().matches(value)
                        : moving != null && args.put(moving, value) == null;
                if (reaches && command.params().stream().allMatch(p -> p.preset() != null || args.containsKey(p.id()))
                        && args.keySet().stream().allMatch(a -> command.param(a).isPresent())) {
                    return Optional.of(new Call(command, args, moving));
                }
            }
        }
        return Optional.empty();
    }

    /** The command in words: {@code Mute Host}, {@code Desk Key to 40 %}. */
    public String spokenTitle(Command command, Map<String, Value> args, Readings now) {
        return command.title().fill(name -> {
            Optional<Param> p = command.param(name);
            Value v = args.get(name);
            if (p.isEmpty() || v == null) {
                return v == null ? Value.of("…") : v;
            }
            return Value.of(spokenArg(p.get(), v, now));
        }).replaceAll(" {2,}", " ").strip(); // What is left blank leaves no gap.
    }

    /** An argument in words. */
    public String spokenArg(Param p, Value v, Readings now) {
        return switch (v) {
            case Value.Num n -> Figures.withUnit(n.number(), p.unit(), p.step());
            case Value.Text t when p.type() == ValueType.CHOICE ->
                item(p.list(), t.text(), now).map(Item::name).orElse(t.text());
            case Value.Text t when p.type() == ValueType.PLACE -> Place.parse(t.text()).map(Place::words).orElse(t
                    .text());
            case Value.Text t when p.type() == ValueType.PATH && !t.text().contains("://") ->
                t.text().substring(t.text().replaceAll("[/\\\\]+$", "")
                        .lastIndexOf('/') + 1);
            case Value.Text t when p.type() == ValueType.SECRET && t.text().startsWith(ASKED) -> "asked for";
            default -> v.toString();
        };
    }

    /** How a name begins that stands for a secret that was asked for at a press. */
    public static final String ASKED = "asked-";

    /**
     * Keys and a place as a parameter takes them: as they are written everywhere.
     *
     * @throws IllegalArgumentException in plain words, where they are none
     */
    public static Value taken(Param p, Value v) {
        return switch (p.type()) {
            case KEYS -> Value.of(String.join("+", Keys.chord(v.toString())));
            case PLACE -> Value.of(Place.of(v.toString()).toString());
            default -> v;
        };
    }

    private static Function<String, @Nullable Value> named(String family, Item item) {
        return name -> name.equals(family) ? Value.of(item.name()) : null;
    }
}
