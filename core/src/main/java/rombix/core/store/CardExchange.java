package rombix.core.store;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Board;
import rombix.core.board.Button;
import rombix.core.board.Rig;
import rombix.core.card.Card.Command;
import rombix.core.card.Card.ReadingSpec;
import rombix.core.card.Card;
import rombix.core.card.Protocol;
import rombix.core.check.References.Flaw;
import rombix.core.check.References;
import rombix.core.edit.GearEdits;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * A gear's card in place of another, or changed while boards use it: what names a command or a reading of the old one
 * names that of the new one which has the same id, else the same title, else is the only one of its kind; what fits
 * nothing is taken away and listed. Pure.
 */
public final class CardExchange {
    private static final Pattern BUTTON = Pattern.compile("/pages/(\\d+)/buttons/(\\d+)(/.*)?");

    /** The board with the other card; and what did not fit any more, each in words. */
    public record Exchanged(Rig rig, List<String> lost) {
    }

    private final String gear;
    private final Map<String, String> commands = new HashMap<>();
    private final Map<String, String> readings = new HashMap<>();

    private CardExchange(String gear, Card before, Card next) {
        this.gear = gear;
        for (Command c : before.commands()) {
            same(next.commands(), c.id(), String.valueOf(c.title())).ifPresent(n -> commands.put(c.id(), n));
        }
        for (ReadingSpec r : before.readings()) {
            next.readings().stream().filter(n -> n.id().equals(r.id())).findFirst().or(() -> next.readings().stream()
                    .filter(n -> n.type() == r.type() && n.title().toString().equalsIgnoreCase(r.title().toString()))
                    .findFirst()).or(() -> sole(next.readings(), r))
                    .filter(n -> r.id().places().isEmpty() && n.id().places().isEmpty()).ifPresent(n -> readings.put(r
                            .id().toString(), n.id().toString()));
        }
    }

    private static Optional<String> same(List<Command> all, String id, String title) {
        return all.stream().filter(n -> n.id().equals(id)).findFirst().or(() -> all.stream().filter(n -> n.title()
                .toString().equalsIgnoreCase(title)).findFirst()).map(Command::id);
    }

    private static Optional<ReadingSpec> sole(List<ReadingSpec> all, ReadingSpec of) {
        List<ReadingSpec> alike = all.stream().filter(n -> n.type() == of.type()).toList();
        return alike.size() == 1 ? Optional.of(alike.getFirst()) : Optional.empty();
    }

    /** A gear of another card; it is reached as before where that card speaks the protocol. */
    public static Exchanged to(Rig rig, String gear, Card next) {
        Card before = rig.twin(gear).orElseThrow().card();
        Rig known = rig.withCard(next);
        Board board = named(known.board(), new CardExchange(gear, before, next));
        Protocol usual = next.protocols().stream().findFirst().orElse(null);
        Board other = GearEdits.change(board, gear, g -> {
            var as = g.withCard(next.id());
            return usual == null || next.protocols().contains(g.link().protocol())
                    ? as
                    : as.withLink(g.link().reached(usual, g.link().address()));
        });
        return fitted(known.with(other));
    }

    /** A card that was changed, for all gear that it describes. */
    public static Exchanged changed(Rig rig, Card next) {
        Card before = rig.cards().get(next.id());
        Board board = rig.board();
        if (before != null) {
            for (var g : rig.board().gear()) {
                if (g.card().equals(next.id())) {
                    board = named(board, new CardExchange(g.id(), before, next));
                }
            }
        }
        return fitted(rig.withCard(next).with(board));
    }

    private static Board named(Board board, CardExchange names) {
        JsonNode tree = BoardTree.of(board);
        names.rename(tree);
        return read(tree);
    }

    private static Board read(JsonNode tree) {
        try {
            return BoardTree.board(tree);
        } catch (BadFile e) {
            throw new IllegalStateException(e); // It was a board before.
        }
    }

    private void rename(JsonNode node) {
        if (node instanceof ObjectNode object) {
            if (gear.equals(text(object, "gear"))) {
                put(object, "command", commands);
                put(object, "reading", readings);
            }
            for (String name : List.copyOf(object.propertyNames())) {
                JsonNode child = object.get(name);
                if (child.isString()) {
                    object.put(name, formulas(child.stringValue()));
                } else {
                    rename(child);
                }
            }
        } else if (node instanceof ArrayNode array) {
            array.forEach(this::rename);
        }
    }

    private static void put(ObjectNode object, String field, Map<String, String> names) {
        String now = text(object, field);
        if (now != null) {
            object.put(field, names.getOrDefault(now, now));
        }
    }

    private static @Nullable String text(ObjectNode object, String field) {
        JsonNode node = object.get(field);
        return node != null && node.isString() ? node.stringValue() : null;
    }

    /** A text with the readings of the gear in it, {@code {desk:level}}. */
    private String formulas(String text) {
        String all = text;
        for (Map.Entry<String, String> e : readings.entrySet()) {
            all = all.replace("{" + gear + ":" + e.getKey() + "}", "{" + gear + ":" + e.getValue() + "}");
        }
        return all;
    }

    /** Takes away what names something that is not there. */
    public static Exchanged fitted(Rig rig) {
        Map<String, String> lost = new LinkedHashMap<>();
        Rig now = rig;
        for (List<Flaw> flaws = References.flaws(now); !flaws.isEmpty(); flaws = References.flaws(now)) {
            ObjectNode tree = BoardTree.of(now.board());
            Flaw last = flaws.getLast(); // From the end, so that what stands before it keeps its place.
            String gone = remove(tree, last.pointer());
            if (gone == null) {
                return new Exchanged(now, List.copyOf(lost.values()));
            }
            lost.put(gone + last.message(), where(now.board(), last.pointer()) + last.message());
            now = now.with(read(tree));
        }
        return new Exchanged(now, List.copyOf(lost.values()).reversed());
    }

    /** Removes the item of a list, or the member, that a pointer leads into; what it was, null where nothing can go. */
    private static @Nullable String remove(ObjectNode tree, String pointer) {
        String at = pointer;
        while (at.lastIndexOf('/') > 0) {
            int slash = at.lastIndexOf('/');
            String name = at.substring(slash + 1);
            JsonNode parent = tree.at(at.substring(0, slash));
            if (parent instanceof ArrayNode array && name.matches("\\d+")) {
                array.remove(Integer.parseInt(name));
                return at;
            }
            if (parent instanceof ObjectNode object && at.matches(".*/states/\\d+/when|.*/(control|follows)")) {
                object.remove(name);
                return at;
            }
            at = at.substring(0, slash);
        }
        return null;
    }

    private static String where(Board board, String pointer) {
        Matcher m = BUTTON.matcher(pointer);
        if (!m.matches()) {
            return "";
        }
        Button button = board.pages().get(Integer.parseInt(m.group(1))).buttons().get(Integer.parseInt(m.group(2)));
        return "“" + button.name() + "”: ";
    }
}
