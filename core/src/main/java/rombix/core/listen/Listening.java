package rombix.core.listen;

import com.google.re2j.Matcher;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rombix.core.card.value.JsonTree;
import rombix.core.traffic.TrafficPacket;
import rombix.core.value.Limits;
import rombix.core.value.TextPattern;
import rombix.core.value.Value;
import tools.jackson.databind.JsonNode;

/** Finds what changes in a gear's messages: by address and argument, in JSON by its members, in lines by their words. */
public final class Listening {
    private static final int DEEPEST = 4;
    private static final int MOST = 500;
    private static final List<String> IDS = List.of("id", "uid", "key", "name");
    private static final List<String> NAMES = List.of("name", "title", "label");
    private static final List<String> BYTES = List.of("bytes", "sysex");
    /** How many bytes tell kinds of messages apart. */
    private static final int HEAD = 2;
    private static final int LONGEST_FRAME = 64;
    private static final TextPattern PAIR = new TextPattern("(\\S+[=:])([^=:\\s]+)");

    private final Map<String, HeardValue> voices = new LinkedHashMap<>();

    private Listening() {
    }

    /** What stands in packets, what came last first. */
    public static List<HeardValue> to(Collection<TrafficPacket> packets) {
        Listening all = new Listening();
        packets.stream().filter(p -> p.way() == TrafficPacket.Way.IN && !p.address().isEmpty()).forEach(all::hear);
        all.bytes(
                packets.stream().filter(p -> p.way() == TrafficPacket.Way.IN && BYTES.contains(p.address()) && p.args()
                        .size() == 1).toList());
        return all.voices.values().stream().sorted(Comparator.comparing(HeardValue::at).reversed()).collect(Collectors
                .toList());
    }

    private void hear(TrafficPacket p) {
        if (p.args().isEmpty()) {
            add(p, HeardValue.EVENT, null, null, Value.of(true));
        }
        for (int i = 0; i < p.args().size(); i++) {
            Value value = p.args().get(i);
            JsonNode tree = value instanceof Value.Text ? json(value.toString()) : null;
            if (tree != null) {
                members(p, i, "", tree, 0);
            } else if (p.address().equals("line")) {
                line(p, i, value.toString());
            } else {
                add(p, i, null, null, value);
            }
        }
    }

    private void members(TrafficPacket p, int arg, String pointer, JsonNode node, int depth) {
        if (node.isArray()) {
            add(p, arg, pointer, null, JsonTree.value(node));
            node.forEach(item -> item(p, arg, pointer, item));
        } else if (ColourFormat.in(node) != null) {
            add(p, arg, pointer, null, JsonTree.value(node));
        } else if (node.isValueNode() && !node.isNull()) {
            add(p, arg, pointer, null, JsonTree.value(node));
        } else if (depth < DEEPEST) {
            node.properties().forEach(e -> members(p, arg, pointer + "/" + e.getKey().replace("~", "~0").replace("/",
                    "~1"), e.getValue(), depth + 1));
        }
    }

    /** What an item of a list has beside its id and its name. */
    private void item(TrafficPacket p, int arg, String list, JsonNode item) {
        String id = IDS.stream().filter(name -> item.path(name).isValueNode() && !item.path(name).isNull()).findFirst()
                .orElse(null);
        if (id == null) {
            return;
        }
        item.properties().stream().filter(e -> !e.getKey().equals(id) && !NAMES.contains(e.getKey()) && (e.getValue()
                .isValueNode() && !e.getValue().isNull() || ColourFormat.in(e.getValue()) != null)).forEach(e -> add(p,
                        new HeardValue(p.address(), arg, "/" + e.getKey().replace("~", "~0").replace("/", "~1"), null,
                                new HeardValue.Items(list, id), null, List.of(JsonTree.value(e.getValue())), p.args(),
                                1, p
                                        .at())));
    }

    /** Bytes: messages of one length that begin alike are of one kind, and what changes in them are voices. */
    private void bytes(List<TrafficPacket> packets) {
        Map<String, List<TrafficPacket>> kinds = new LinkedHashMap<>();
        for (TrafficPacket p : packets) {
            String digits = p.args().getFirst().toString().replace(" ", "");
            if (digits.length() >= 2 * HEAD && digits.length() <= 2 * LONGEST_FRAME
                    && digits.matches("([0-9a-f]{2})+")) {
                kinds.computeIfAbsent(digits.length() + digits.substring(0, 2 * HEAD), _ -> new ArrayList<>()).add(p);
            }
        }
        kinds.values().forEach(this::kind);
    }

    private void kind(List<TrafficPacket> alike) {
        List<String> all = alike.stream().map(p -> p.args().getFirst().toString().replace(" ", "")).toList();
        String first = all.getFirst();
        StringBuilder like = new StringBuilder();
        for (int i = 0; i < first.length(); i += 2) {
            String here = first.substring(i, i + 2);
            int at = i;
            like.append(all.stream().allMatch(m -> m.startsWith(here, at)) ? here : "..");
        }
        for (int i = 0; i < first.length(); i += 2) {
            if (like.substring(i, i + 2).equals("..")) {
                for (int n = 0; n < all.size(); n++) {
                    TrafficPacket p = alike.get(n);
                    add(p, new HeardValue(p.address(), 0, null, null, null,
                            new HeardValue.Slice(i / 2, like.toString()),
                            List.of(
                                    Value.of(Integer.parseInt(all.get(n).substring(i, i + 2), 16))),
                            p.args(), 1, p.at()));
                }
            }
        }
    }

    private void line(TrafficPacket p, int arg, String whole) {
        String text = whole.length() > Limits.LISTENED ? whole.substring(0, Limits.LISTENED) : whole;
        Map<String, Value> pairs = new LinkedHashMap<>();
        for (Matcher m = PAIR.in(text); m.find();) {
            pairs.put(m.group(1), Value.of(m.group(2)));
        }
        if (pairs.size() > 1) {
            pairs.forEach((name, value) -> add(p, arg, null, HeardValue.INSIDE + name, value));
            return;
        }
        int told = valueStart(text);
        if (told > 0 && told < text.length() && !Character.isWhitespace(text.charAt(0))) {
            add(p, arg, null, text.substring(0, told), Value.of(text.substring(told)));
        } else {
            add(p, arg, null, null, Value.of(text));
        }
    }

    /** Where the word begins that a line ends with, behind a blank, a colon or an equals sign: {@code LEVEL=42}, {@code VOL 42}. */
    private static int valueStart(String text) {
        int at = text.length();
        while (at > 0 && "=:".indexOf(text.charAt(at - 1)) < 0 && !Character.isWhitespace(text.charAt(at - 1))) {
            at--;
        }
        return at > 0 && "=: ".indexOf(text.charAt(at - 1)) >= 0 ? at : 0;
    }

    private void add(TrafficPacket p, int arg, @Nullable String pointer, @Nullable String before, Value value) {
        add(p, new HeardValue(p.address(), arg, pointer, before, null, null, List.of(value), p.args(), 1, p.at()));
    }

    private void add(TrafficPacket p, HeardValue fresh) {
        voices.merge(fresh.key(), fresh, (known, _) -> known.again(fresh.last(), p.args(), p.at()));
        if (voices.size() > MOST) {
            voices.remove(voices.keySet().iterator().next());
        }
    }

    private static @Nullable JsonNode json(String text) {
        JsonNode tree = JsonTree.read(text);
        return tree == null || tree.isValueNode() ? null : tree;
    }
}
