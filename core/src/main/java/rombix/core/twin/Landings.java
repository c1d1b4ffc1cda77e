package rombix.core.twin;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Arrival;
import rombix.core.card.Card;
import rombix.core.card.Card.Item;
import rombix.core.card.Card.ReadingSpec;
import rombix.core.card.Protocol;
import rombix.core.card.value.WireValue;
import rombix.core.twin.MessageReader.Message;
import rombix.core.value.Limits;
import rombix.core.value.Template;
import rombix.core.value.Value;
import rombix.core.value.ValueType;

/** Where a gear's packets land: which reading a packet brings, by its address and what it carries. Immutable. */
public final class Landings {
    /** How a colour is written. */
    static final String COLOUR = "#[0-9A-Fa-f]{6}";
    private final Map<String, List<Landing>> fixed = new HashMap<>();
    private final List<Landing> open = new ArrayList<>();
    private final Set<Template> reported = new HashSet<>();
    /** The lists that come item by item. */
    private final Set<String> gathering = new HashSet<>();

    /** What the gear has listed by now. */
    private final Map<String, List<Item>> told;

    /**
     * @param of the item whose reading it is, by its family; empty where a message says itself whose it is
     * @param only the items that there are; null where they are not known, or not all
     */
    private record Landing(ReadingSpec spec, Arrival arrival, MessageReader reader, Template id,
            Map<String, String> of, @Nullable Set<String> only) {
        /** Whether a message is about an item that can be meant. */
        boolean about(Map<String, String> places) {
            String item = familyOf(spec).map(places::get).orElse(null);
            return item == null || (only == null || only.contains(item)) && of.values().stream().allMatch(item::equals);
        }
    }

    /**
     * @param lists those that can be known without asking the gear; readings of others land wherever their address fits
     * @param told what the gear has listed by now: the fields of its items are known
     */
    Landings(Card card, Protocol protocol, Map<String, List<Item>> lists, Map<String, List<Item>> told) {
        this.told = Map.copyOf(told);
        for (ReadingSpec spec : card.readings()) {
            if (spec.type() == ValueType.LIST
                    && spec.arrives().getOrDefault(protocol, List.of()).stream().anyMatch(a -> a
                            .places().contains(spec.id().toString()))) {
                gathering.add(spec.id().toString());
            }
        }
        for (ReadingSpec spec : card.readings()) {
            for (Arrival arrival : spec.arrives().getOrDefault(protocol, List.of())) {
                reported.add(spec.id());
                place(spec, arrival, lists, told);
            }
        }
    }

    /** Whether the gear reports a family of readings. */
    boolean reports(Template family) {
        return reported.contains(family);
    }

    /** The addresses that are known in full. */
    public Set<String> fixed() {
        return Set.copyOf(fixed.keySet());
    }

    /** Those of families whose items the gear has yet to list, places included. */
    public Set<Template> open() {
        return open.stream().map(l -> l.arrival().address()).collect(Collectors.toSet());
    }

    private void place(ReadingSpec spec, Arrival arrival, Map<String, List<Item>> lists,
            Map<String, List<Item>> told) {
        String family = familyOf(spec).orElse(null);
        boolean open = !arrival.address().places().isEmpty();
        List<Item> all = family == null || open || gathering.contains(family) ? null : told.get(family);
        Landing any = new Landing(spec, arrival, new MessageReader(arrival), spec.id(), Map.of(), all == null
                ? null
                : all.stream().map(Item::id).collect(Collectors.toSet()));
        if (family == null) {
            if (open) {
                this.open.add(any); // A list that is gathered item by item.
            } else {
                land(any);
            }
            return;
        }
        boolean byItem = byItem(arrival, family); // Such an item has to be known.
        if (lists.containsKey(family)) {
            lists.getOrDefault(family, List.of()).forEach(item -> land(spec, arrival, family, item));
            return;
        }
        if (open || byItem) {
            told.getOrDefault(family, List.of()).forEach(item -> land(spec, arrival, family, item));
        }
        if (open && !byItem) {
            this.open.add(any);
        } else if (!byItem) {
            land(any); // Its item is told within the message.
        }
    }

    private void land(ReadingSpec spec, Arrival arrival, String family, Item item) {
        Function<String, @Nullable Value> filled = of(family, item);
        Arrival of = arrival.filled(filled);
        if (!byField(of, family)) { // An item may lack the field.
            land(new Landing(spec, of, new MessageReader(of), new Template(spec.id().fill(filled)), Map.of(family, item
                    .id()), null));
        }
    }

    /** Whether an item stands where it cannot be read from: as a field, or on the way to the value. */
    private static boolean byItem(Arrival arrival, String family) {
        Template at = arrival.at();
        return byField(arrival, family)
                || at != null && at.places().contains(family) || arrival.parts().values().stream()
                        .anyMatch(p -> p.places().contains(family))
                || arrival.where().values().stream().anyMatch(m -> m
                        .place() == null && m.any().stream().anyMatch(
                                v -> new Template(v.toString()).places().contains(
                                        family)))
                || arrival.where().keySet().stream().anyMatch(p -> new Template(p).places().contains(family));
    }

    private static boolean byField(Arrival arrival, String family) {
        return arrival.places().stream().anyMatch(p -> p.startsWith(family + "."));
    }

    private void land(Landing landing) {
        fixed.computeIfAbsent(landing.arrival().address().toString(), _ -> new ArrayList<>()).add(landing);
    }

    /** The readings that a packet from the gear brings; empty if the card knows no such packet. */
    public List<ReceivedReading> land(Message message) {
        List<Landing> exact = fixed.get(message.address());
        List<ReceivedReading> landed = new ArrayList<>();
        if (exact != null) {
            exact.forEach(l -> land(l, message, Map.of(), landed));
        }
        Template from = null; // Families are told apart by the first address that fits; several may share one.
        for (Landing l : open) {
            boolean meant = exact == null || l.spec().type() == ValueType.LIST;
            Optional<Map<String, String>> places = meant && (from == null || from.equals(l.arrival().address()))
                    ? l.arrival().address().match(message.address())
                    : Optional.empty();
            if (places.isPresent()) {
                from = l.arrival().address();
                land(l, message, places.get(), landed);
            }
        }
        return landed;
    }

    /** Lands what a message brings, where it is one that is meant. */
    private void land(Landing landing, Message whole, Map<String, String> found, List<ReceivedReading> to) {
        landing.reader().forEach(whole, (message, named) -> {
            Map<String, String> places = new HashMap<>(found);
            places.putAll(named);
            if (landing.reader().means(message, places) && landing.about(places)) {
                landed(landing, message, places, to);
            }
        });
    }

    private void landed(Landing landing, Message message, Map<String, String> places, List<ReceivedReading> to) {
        String reading = places.isEmpty() ? landing.id().toString() : landing.id().fill(n -> {
            String place = places.get(n);
            return place == null ? null : Value.of(place);
        });
        ReadingSpec spec = landing.spec();
        if (spec.type() == ValueType.LIST) {
            String item = places.get(reading);
            Value list = item == null
                    ? landing.reader().list(message)
                    : with(landing.reader().item(message, item), item, told.getOrDefault(reading, List.of()));
            if (list != null) {
                to.add(new ReceivedReading(reading, list, null));
            }
            return;
        }
        Value wire = landing.reader().raw(message);
        if (wire == null) {
            if (landing.arrival().plain()) {
                to.add(new ReceivedReading(reading, null, "came without its value"));
            }
            return; // A message need not bring all that it may.
        }
        WireValue carry = landing.arrival().value();
        Optional<Value> value = (carry == null ? Optional.of(wire) : carry.in(wire))
                .flatMap(v -> typed(spec.type(), v));
        to.add(value.map(v -> new ReceivedReading(reading, v, null)).orElseGet(
                () -> new ReceivedReading(reading, null,
                        "sent “%s”, which the card doesn't expect".formatted(Limits.quoted(wire.toString())))));
    }

    /** A list with one item told anew; without it where nothing is said of it any more. */
    private static Value with(Value.@Nullable Choice told, String id, List<Item> before) {
        List<Value.Choice> all = new ArrayList<>();
        boolean there = false;
        for (Item item : before) {
            boolean same = item.id().equals(id);
            there |= same;
            if (!same) {
                all.add(choice(item));
            } else if (told != null) {
                all.add(told);
            }
        }
        if (!there && told != null && all.size() < Limits.CHOICES) {
            all.add(told);
        }
        return new Value.Choices(all);
    }

    private static Value.Choice choice(Item item) {
        Map<String, Value> fields = new java.util.LinkedHashMap<>();
        item.fields().keySet().forEach(name -> {
            Value field = item.field(name);
            if (field != null) {
                fields.put(name, field);
            }
        });
        return new Value.Choice(item.id(), item.name(), fields);
    }

    /**
     * How the ids of the readings begin that may come from an address; of all where it is null.
     */
    public Set<String> brought(@Nullable String address) {
        return Stream.concat(address == null
                ? Stream.concat(fixed.values().stream().flatMap(List::stream), open.stream())
                : fixed.getOrDefault(address, List.of()).stream(),
                open.stream().filter(l -> address != null && l
                        .arrival().address().match(address).isPresent()))
                .map(l -> l.id().toString().replaceFirst("\\{.*", "")).collect(Collectors.toSet());
    }

    private static Optional<Value> typed(ValueType kind, Value v) {
        return switch (kind) {
            case NUMBER -> !Double.isFinite(v.asNumber()) ? Optional.empty() : Optional.of(Value.of(v.asNumber()));
            case FLAG -> v instanceof Value.Text t && !t.text().matches("(?i)true|false|yes|no|on|off|0|1")
                    ? Optional.empty()
                    : Optional.of(Value.of(v.asFlag()));
            case COLOUR -> v.toString().matches(COLOUR) ? Optional.of(v) : Optional.empty();
            case TEXT, CHOICE, KEYS, PLACE, PATH, SECRET -> Optional.of(Value.of(v.toString()));
            case LIST -> Optional.empty();
        };
    }

    static Optional<String> familyOf(ReadingSpec spec) {
        return spec.id().places().stream().findFirst();
    }

    static Function<String, @Nullable Value> of(String family, Item item) {
        return name -> {
            int dot = name.indexOf('.');
            String base = dot < 0 ? name : name.substring(0, dot);
            return base.equals(family) ? item.field(dot < 0 ? "id" : name.substring(dot + 1)) : null;
        };
    }
}
