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
import rombix.core.card.Card.Item;
import rombix.core.card.Card.ReadingSpec;
import rombix.core.card.Card;
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

    private record Landing(ReadingSpec spec, Arrival arrival, MessageReader reader, Template id) {
    }

    /**
     * @param lists those that can be known without asking the gear; readings of others land wherever their address fits
     * @param told what the gear has listed by now: the fields of its items are known
     */
    Landings(Card card, Protocol protocol, Map<String, List<Item>> lists, Map<String, List<Item>> told) {
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
        Optional<String> family = familyOf(spec);
        if (family.isEmpty()) {
            land(new Landing(spec, arrival, new MessageReader(arrival), spec.id()));
        } else if (lists.containsKey(family.get())) {
            lists.getOrDefault(family.get(), List.of()).forEach(item -> land(spec, arrival, family.get(), item));
        } else if (arrival.address().places().isEmpty() && !byField(arrival, family.get())) {
            land(new Landing(spec, arrival, new MessageReader(arrival), spec.id())); // Its item is told within the message.
        } else {
            told.getOrDefault(family.get(), List.of()).forEach(item -> land(spec, arrival, family.get(), item));
            if (!byField(arrival, family.get())) { // Fields are known once they are listed.
                open.add(new Landing(spec, arrival, new MessageReader(arrival), spec.id()));
            }
        }
    }

    private void land(ReadingSpec spec, Arrival arrival, String family, Item item) {
        Function<String, @Nullable Value> filled = of(family, item);
        Arrival of = arrival.filled(filled);
        if (!byField(of, family)) { // An item may lack the field.
            land(new Landing(spec, of, new MessageReader(of), new Template(spec.id().fill(filled))));
        }
    }

    private static boolean byField(Arrival arrival, String family) {
        return arrival.places().stream().anyMatch(p -> p.startsWith(family + "."));
    }

    private void land(Landing landing) {
        fixed.computeIfAbsent(landing.arrival().address().toString(), _ -> new ArrayList<>()).add(landing);
    }

    /** The readings that a packet from the gear brings; empty if the card knows no such packet. */
    public List<Landed> land(Message message) {
        List<Landing> exact = fixed.get(message.address());
        List<Landed> landed = new ArrayList<>();
        if (exact != null) {
            exact.forEach(l -> land(l, message, new HashMap<>(), landed));
            return landed;
        }
        Template from = null; // Families are told apart by the first address that fits; several may share one.
        for (Landing l : open) {
            Optional<Map<String, String>> places = from == null || from.equals(l.arrival().address())
                    ? l.arrival().address().match(message.address())
                    : Optional.empty();
            if (places.isPresent()) {
                from = l.arrival().address();
                land(l, message, new HashMap<>(places.get()), landed);
            }
        }
        return landed;
    }

    /** Lands what a message brings, where it is one that is meant. */
    private static void land(Landing landing, Message message, Map<String, String> places, List<Landed> to) {
        if (!landing.reader().means(message, places)) {
            return;
        }
        String reading = places.isEmpty() ? landing.id().toString() : landing.id().fill(n -> {
            String found = places.get(n);
            return found == null ? null : Value.of(found);
        });
        ReadingSpec spec = landing.spec();
        if (spec.type() == ValueType.LIST) {
            Value list = landing.reader().list(message);
            if (list != null) {
                to.add(new Landed(reading, list, null));
            }
            return;
        }
        Value wire = landing.reader().raw(message);
        if (wire == null) {
            if (landing.arrival().plain()) {
                to.add(new Landed(reading, null, "came without its value"));
            }
            return; // A message need not bring all that it may.
        }
        WireValue carry = landing.arrival().value();
        Optional<Value> value = (carry == null ? Optional.of(wire) : carry.in(wire))
                .flatMap(v -> typed(spec.type(), v));
        to.add(value.map(v -> new Landed(reading, v, null)).orElseGet(
                () -> new Landed(reading, null,
                        "brought “%s”, which its card does not expect".formatted(Limits.quoted(wire.toString())))));
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
