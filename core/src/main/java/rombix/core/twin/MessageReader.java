package rombix.core.twin;

import com.google.re2j.Matcher;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import rombix.core.card.Arrival;
import rombix.core.card.value.ColourPart;
import rombix.core.card.value.JsonTree;
import rombix.core.card.value.Mapped;
import rombix.core.card.value.Meaning;
import rombix.core.card.value.WireValue;
import rombix.core.value.Limits;
import rombix.core.value.Template;
import rombix.core.value.TextPattern;
import rombix.core.value.Value;
import tools.jackson.databind.JsonNode;

/**
 * Reads messages as an {@link Arrival} says: whether one is meant, and what stands in it. Links, twins, the check and
 * stand-ins read by it. Immutable.
 */
public final class MessageReader {
    private static final Pattern PLACE = Pattern.compile("\\{([a-zA-Z][\\w-]*)}");
    private static final String VALUE = "value";

    private final Arrival arrival;
    private final @Nullable TextPattern pattern;
    private final Map<ColourPart, MessageReader> parts = new EnumMap<>(ColourPart.class);
    /** The places that are found in the pattern, by their groups' names. */
    private final Map<String, String> groups = new HashMap<>();

    public MessageReader(Arrival arrival) {
        this.arrival = arrival;
        arrival.parts().forEach((part, where) -> parts.put(part, new MessageReader(where)));
        Template like = arrival.pattern();
        if (like == null) {
            pattern = null;
            return;
        }
        java.util.regex.Matcher places = PLACE.matcher(like.toString());
        pattern = new TextPattern(places.replaceAll(p -> {
            String group = "place" + groups.size();
            groups.put(group, p.group(1));
            // The text around an item, such as quotes, is none of it.
            return java.util.regex.Matcher.quoteReplacement("(?<" + group + ">[^/\\s\"',;:=]+)");
        }));
    }

    /** What it reads by. */
    public Arrival arrival() {
        return arrival;
    }

    /** A message from a gear. JSON in it is read once. One thread's. */
    public static final class Message {
        private final String address;
        private final List<Value> args;
        private final Map<Integer, @Nullable JsonNode> read = new HashMap<>(1);

        public Message(String address, List<Value> args) {
            this.address = address;
            this.args = args;
        }

        public String address() {
            return address;
        }

        public List<Value> args() {
            return args;
        }

        /** The same with another JSON in an argument. */
        Message with(int arg, JsonNode json) {
            List<Value> changed = new ArrayList<>(args);
            changed.set(arg, JsonTree.value(json));
            Message part = new Message(address, changed);
            part.read.put(arg, json);
            return part;
        }

        @Nullable
        Value arg(int n) {
            return n < args.size() ? args.get(n) : null;
        }

        @Nullable
        JsonNode json(int n) {
            if (!read.containsKey(n)) {
                Value v = arg(n);
                read.put(n, v == null ? null : JsonTree.read(v.toString()));
            }
            return read.get(n);
        }
    }

    /**
     * The messages that stand in one: itself, or each item of the list that {@code each} points to.
     *
     * @param item takes a message, and the places that its name in an object fills
     */
    void forEach(Message message, BiConsumer<Message, Map<String, String>> item) {
        Template each = arrival.each();
        if (each == null) {
            item.accept(message, new HashMap<>());
            return;
        }
        String pointer = each.toString();
        int last = pointer.lastIndexOf('/');
        String place = new Template(pointer.substring(last + 1)).solePlace().orElse(null);
        JsonNode all = JsonTree.at(message.json(arrival.arg()), place == null ? pointer : pointer.substring(0, last));
        if (all == null || !all.isContainer()) {
            return;
        }
        if (place == null) {
            all.forEach(node -> item.accept(message.with(arrival.arg(), node), new HashMap<>()));
        } else if (all.isArray()) {
            for (int i = 0; i < all.size(); i++) {
                item.accept(message.with(arrival.arg(), all.get(i)), new HashMap<>(Map.of(place, String.valueOf(i))));
            }
        } else {
            all.properties().forEach(e -> item.accept(message.with(arrival.arg(), e.getValue()), new HashMap<>(Map.of(
                    place, e.getKey()))));
        }
    }

    /**
     * Whether a message is meant.
     *
     * @param found takes the places that are found in it, beside those of its address
     */
    boolean means(Message message, Map<String, String> found) {
        for (Map.Entry<String, Meaning> e : arrival.where().entrySet()) {
            Value there = valueAt(message, e.getKey());
            String place = e.getValue().place();
            if (there == null || place == null && !e.getValue().is(there)) {
                return false;
            }
            if (place != null) {
                found.put(place, there.toString());
            }
        }
        Matcher m = matcher(message);
        if (m == null) {
            return pattern == null;
        }
        groups.forEach((group, place) -> found.put(place, String.valueOf(m.group(group))));
        return true;
    }

    /** Whether a message is meant, whatever stands in its places; its address counts where one is given. */
    public boolean means(Message message) {
        Template from = arrival.from();
        return (from == null || from.match(message.address()).isPresent()) && means(message, new HashMap<>());
    }

    private @Nullable Value valueAt(Message message, String where) {
        if (!where.isEmpty() && Character.isDigit(where.charAt(0))) {
            return message.arg(Integer.parseInt(where));
        }
        JsonNode node = JsonTree.at(message.json(arrival.each() == null ? 0 : arrival.arg()), where);
        return node == null ? null : JsonTree.value(node);
    }

    private @Nullable Matcher matcher(Message message) {
        Value text = message.arg(arrival.arg());
        if (pattern == null || text == null) {
            return null;
        }
        Matcher m = pattern.in(text.toString());
        return m.find() ? m : null;
    }

    /** What stands there in a message that is meant, as it came; null where nothing does. */
    public @Nullable Value raw(Message message) {
        if (!parts.isEmpty()) {
            return colour(message);
        }
        Template at = arrival.at();
        if (at != null) {
            JsonNode node = JsonTree.at(message.json(arrival.arg()), at.toString());
            return node == null ? null : JsonTree.value(node);
        }
        Value whole = message.arg(arrival.arg());
        if (arrival.first() != null && whole != null) {
            return arrival.value() instanceof Mapped m && m.packed() != null
                    ? digits(whole.toString(), arrival.first(), m.packed().bytes())
                    : bytes(whole.toString(), arrival.first());
        }
        Matcher m = matcher(message);
        String part = m == null ? null : m.group(group(m));
        return m == null ? whole : part == null ? null : Value.of(part);
    }

    /** The colour that its parts make; null where one of them is missing. */
    private @Nullable Value colour(Message message) {
        Map<ColourPart, Double> told = new EnumMap<>(ColourPart.class);
        for (Map.Entry<ColourPart, MessageReader> e : parts.entrySet()) {
            MessageReader part = e.getValue();
            Value raw = part.means(message, new HashMap<>()) ? part.raw(message) : null;
            WireValue carry = part.arrival.value();
            Optional<Value> read = raw == null ? Optional.empty() : carry == null ? Optional.of(raw) : carry.in(raw);
            if (read.isEmpty()) {
                return null;
            }
            told.put(e.getKey(), read.get().asNumber());
        }
        return Mapped.colour(told).orElse(null);
    }

    private static @Nullable Value digits(String digits, int first, int count) {
        String all = digits.replace(" ", "");
        return all.length() < 2 * (first + count) ? null : Value.of(all.substring(2 * first, 2 * (first + count)));
    }

    private int group(Matcher m) {
        Integer said = arrival.group();
        if (said != null) {
            return Math.min(said, m.groupCount());
        }
        Map<String, Integer> names = pattern == null ? Map.of() : pattern.groups();
        Integer named = names.get(VALUE);
        if (named != null) {
            return named;
        }
        for (int i = 1; i <= m.groupCount(); i++) {
            if (!names.containsValue(i)) {
                return i;
            }
        }
        return 0;
    }

    private @Nullable Value bytes(String digits, int first) {
        try {
            byte[] all = HexFormat.of().parseHex(digits.replace(" ", ""));
            int count = arrival.bytes() == null ? 1 : arrival.bytes();
            if (first + count > all.length) {
                return null;
            }
            long number = 0;
            for (int i = 0; i < count; i++) {
                number = number << 8 | all[first + i] & 0xFF;
            }
            List<Integer> bits = arrival.bits();
            if (bits != null) {
                int width = bits.get(1) - bits.get(0) + 1;
                number = number >>> bits.get(0) & (width > 63 ? -1L : (1L << width) - 1);
            }
            return Value.of(number);
        } catch (IllegalArgumentException e) {
            return null; // No bytes.
        }
    }

    /** The list that stands there; null where none does. */
    @Nullable
    Value list(Message message) {
        Template at = arrival.at();
        if (arrival.list() == null && at == null && pattern == null) {
            return pairs(message.args().subList(Math.min(arrival.arg(), message.args().size()), message.args().size()));
        }
        if (pattern != null) {
            return matches(message);
        }
        JsonNode node = JsonTree.at(message.json(arrival.arg()), at == null ? "" : at.toString());
        if (node == null || !node.isContainer()) {
            return null;
        }
        Arrival.Listed as = arrival.list() == null ? new Arrival.Listed(null, null) : arrival.list();
        List<Value.Choice> choices = new ArrayList<>();
        if (node.isArray()) {
            node.forEach(item -> choice(as, null, item, choices));
        } else {
            node.properties().forEach(e -> choice(as, e.getKey(), e.getValue(), choices));
        }
        return new Value.Choices(choices);
    }

    private static void choice(Arrival.Listed as, @Nullable String key, JsonNode item, List<Value.Choice> to) {
        JsonNode told = as.id() == null ? null : JsonTree.at(item, as.id());
        String id = told != null
                ? JsonTree.value(told).toString()
                : key != null ? key : item.isContainer() ? null : JsonTree.value(item).toString();
        if (id == null || to.size() >= Limits.CHOICES) {
            return; // What has no id cannot be told from others.
        }
        JsonNode name = as.name() == null ? null : JsonTree.at(item, as.name());
        Map<String, Value> fields = new LinkedHashMap<>();
        item.properties().stream().filter(e -> e.getValue().isValueNode() && !e.getValue().isNull()).forEach(
                e -> fields.put(e.getKey(), JsonTree.value(e.getValue())));
        to.add(new Value.Choice(id, name == null ? id : JsonTree.value(name).toString(), fields));
    }

    /** One item of a list that is told item by item; null where nothing stands there any more. */
    Value.@Nullable Choice item(Message message, String id) {
        Value raw = raw(message);
        if (raw == null || raw.toString().isBlank()) {
            return null;
        }
        Template at = arrival.at();
        JsonNode node = JsonTree.at(message.json(arrival.arg()), at == null ? "" : at.toString());
        if (node != null && node.isObject()) {
            List<Value.Choice> one = new ArrayList<>();
            String name = arrival.list() == null ? null : arrival.list().name();
            choice(new Arrival.Listed(null, name), id, node, one);
            return one.isEmpty() ? null : one.getFirst();
        }
        Matcher m = matcher(message);
        Integer named = pattern == null ? null : pattern.groups().get("name");
        String name = m == null || named == null ? raw.toString() : m.group(named);
        return new Value.Choice(id, name == null ? id : name);
    }

    /** Each place where the pattern fits is an item: its groups {@code id} and {@code name}, else the first and second. */
    private Value matches(Message message) {
        List<Value.Choice> choices = new ArrayList<>();
        Value text = message.arg(arrival.arg());
        if (pattern == null || text == null) {
            return new Value.Choices(choices);
        }
        Matcher m = pattern.in(text.toString());
        while (choices.size() < Limits.CHOICES && m.find() && !m.group().isEmpty()) {
            String id = m.group(Math.min(pattern.groups().getOrDefault("id", 1), m.groupCount()));
            String name = m.group(Math.min(pattern.groups().getOrDefault("name", 2), m.groupCount()));
            if (id != null) {
                choices.add(new Value.Choice(id, name == null ? id : name));
            }
        }
        return new Value.Choices(choices);
    }

    private static Value pairs(List<Value> args) {
        List<Value.Choice> choices = new ArrayList<>();
        for (int i = 0; i + 1 < args.size() && choices.size() < Limits.CHOICES; i += 2) {
            choices.add(new Value.Choice(args.get(i).toString(), args.get(i + 1).toString()));
        }
        return new Value.Choices(choices);
    }
}
