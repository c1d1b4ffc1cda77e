package rombix.core.listen;

import com.google.re2j.Matcher;
import java.util.Collection;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rombix.core.card.value.JsonTree;
import rombix.core.traffic.Packet;
import rombix.core.value.Limits;
import rombix.core.value.TextPattern;
import rombix.core.value.Value;
import tools.jackson.databind.JsonNode;

/** Finds what changes in a gear's messages: by address and argument, in JSON by its members, in lines by their words. */
public final class Listening {
    private static final int DEEPEST = 4;
    private static final int MOST = 500;
    private static final TextPattern PAIR = new TextPattern("(\\S+[=:])([^=:\\s]+)");

    private final Map<String, Voice> voices = new LinkedHashMap<>();

    private Listening() {
    }

    /** What stands in packets, what came last first. */
    public static List<Voice> to(Collection<Packet> packets) {
        Listening all = new Listening();
        packets.stream().filter(p -> p.way() == Packet.Way.IN && !p.address().isEmpty()).forEach(all::hear);
        return all.voices.values().stream().sorted(Comparator.comparing(Voice::at).reversed()).collect(Collectors
                .toList());
    }

    private void hear(Packet p) {
        if (p.args().isEmpty()) {
            heard(p, Voice.EVENT, null, null, Value.of(true));
        }
        for (int i = 0; i < p.args().size(); i++) {
            Value value = p.args().get(i);
            JsonNode tree = value instanceof Value.Text ? json(value.toString()) : null;
            if (tree != null) {
                members(p, i, "", tree, 0);
            } else if (p.address().equals("line")) {
                line(p, i, value.toString());
            } else {
                heard(p, i, null, null, value);
            }
        }
    }

    private void members(Packet p, int arg, String pointer, JsonNode node, int depth) {
        if (node.isArray()) {
            heard(p, arg, pointer, null, JsonTree.value(node));
        } else if (node.isValueNode() && !node.isNull()) {
            heard(p, arg, pointer, null, JsonTree.value(node));
        } else if (depth < DEEPEST) {
            node.properties().forEach(e -> members(p, arg, pointer + "/" + e.getKey().replace("~", "~0").replace("/",
                    "~1"), e.getValue(), depth + 1));
        }
    }

    private void line(Packet p, int arg, String whole) {
        String text = whole.length() > Limits.LISTENED ? whole.substring(0, Limits.LISTENED) : whole;
        Map<String, Value> pairs = new LinkedHashMap<>();
        for (Matcher m = PAIR.in(text); m.find();) {
            pairs.put(m.group(1), Value.of(m.group(2)));
        }
        if (pairs.size() > 1) {
            pairs.forEach((name, value) -> heard(p, arg, null, Voice.INSIDE + name, value));
            return;
        }
        int told = told(text);
        if (told > 0 && told < text.length() && !Character.isWhitespace(text.charAt(0))) {
            heard(p, arg, null, text.substring(0, told), Value.of(text.substring(told)));
        } else {
            heard(p, arg, null, null, Value.of(text));
        }
    }

    /** Where the word begins that a line ends with, behind a blank, a colon or an equals sign: {@code LEVEL=42}, {@code VOL 42}. */
    private static int told(String text) {
        int at = text.length();
        while (at > 0 && "=:".indexOf(text.charAt(at - 1)) < 0 && !Character.isWhitespace(text.charAt(at - 1))) {
            at--;
        }
        return at > 0 && "=: ".indexOf(text.charAt(at - 1)) >= 0 ? at : 0;
    }

    private void heard(Packet p, int arg, @Nullable String pointer, @Nullable String before, Value value) {
        Voice fresh = new Voice(p.address(), arg, pointer, before, List.of(value), p.args(), 1, p.at());
        voices.merge(fresh.key(), fresh, (known, _) -> known.again(value, p.args(), p.at()));
        if (voices.size() > MOST) {
            voices.remove(voices.keySet().iterator().next());
        }
    }

    private static @Nullable JsonNode json(String text) {
        JsonNode tree = JsonTree.read(text);
        return tree == null || tree.isValueNode() ? null : tree;
    }
}
