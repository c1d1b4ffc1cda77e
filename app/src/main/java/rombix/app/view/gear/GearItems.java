package rombix.app.view.gear;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.PatchEdits;
import rombix.app.edit.file.ClipFiles;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.board.Board;
import rombix.core.board.Gear;
import rombix.core.card.Card;
import rombix.core.card.Card.Item;
import rombix.core.card.Protocol;
import rombix.core.edit.Edits;
import rombix.core.edit.GearEdits;
import rombix.core.twin.Figures;
import rombix.core.value.Value;

/** The lists of a gear that its card leaves to the board: channels, lamps, locks, each with its numbers. */
final class GearItems {
    private static final double NAME_WIDTH = 150;
    private static final double FIELD_WIDTH = 84;

    private final Desk desk;
    private final BiConsumer<String, UnaryOperator<Board>> edit;
    private final Consumer<String> shown;
    private final GearWays ways;

    /** @param shown shows all anew, with the hand on what has this id */
    GearItems(Desk desk, GearWays ways, BiConsumer<String, UnaryOperator<Board>> edit, Consumer<String> shown) {
        this.desk = desk;
        this.ways = ways;
        this.edit = edit;
        this.shown = shown;
    }

    /** Whether a gear has items to show: a patch, lists, or what a computer doesn't support. */
    boolean has(Gear g, Card card) {
        return here(g) || PatchEdits.patched(card) || !card.lists().isEmpty();
    }

    private static boolean here(Gear g) {
        return g.link().protocol().descriptor().reach() == Protocol.Reach.HERE;
    }

    /** All lists of a gear, each as a table to be edited. */
    Node of(Gear g, Card card) {
        VBox all = new VBox(Space.S10);
        if (here(g)) {
            unable(g, all);
            return all; // The lists of a computer are its card's.
        }
        if (PatchEdits.patched(card)) {
            Button open = Fields.plain("Patch: " + Figures.count(g.patch().size(), "fixture") + "…", "");
            open.setId("gear-patch-" + g.id());
            open.setTooltip(new Tooltip("Universe and slot of each fixture"));
            open.setOnAction(_ -> ways.patch(g.id()));
            all.getChildren().addAll(open, fixtures(g));
        }
        if (!PatchEdits.patched(card) || !g.lists().isEmpty()) {
            card.lists().keySet().stream().sorted().forEach(list -> {
                List<Item> items = desk.bench().rig().twin(g.id())
                        .map(t -> t.items(list, desk.model().state().readings(g.id())))
                        .orElse(List.of());
                String word = list.replace('-', ' ');
                Label title = Styles.label(Figures.count(items.size(), word), "gear-name");
                title.setId("gear-list-" + g.id() + "-" + list);
                all.getChildren().addAll(title, items(g, card, list, items, all));
            });
        }
        return all;
    }

    /** The fixtures of a patch, to be read; they are edited in the patch. */
    private Node fixtures(Gear g) {
        GridPane grid = new GridPane(Space.S16, Space.S4);
        grid.addRow(0, Styles.label("Name", "field-name"), Styles.label("Personality", "field-name"), Styles.label(
                "Universe", "field-name"), Styles.label("First slot", "field-name"));
        g.patch().forEach(f -> {
            Card card = desk.bench().rig().cards().get(f.personality());
            grid.addRow(grid.getRowCount(), Fields.read(f.name()), Fields.read(card == null
                    ? f.personality()
                    : card
                            .title()),
                    Fields.read(String.valueOf(f.universe())), Fields.read(String.valueOf(f.slot())));
        });
        return grid;
    }

    /** What this computer doesn't support, with what to do about it. */
    private void unable(Gear g, VBox to) {
        if (desk.model().state().readings(g.id()).apply("unable") instanceof Value.Choices unable && !unable.choices()
                .isEmpty()) {
            to.getChildren().add(Styles.label("Not supported on this computer", "gear-name"));
            unable.choices().forEach(c -> {
                Label why = Fields.read(c.id() + ": " + c.name());
                why.setId("gear-unable-" + c.id());
                to.getChildren().add(why);
            });
        } else {
            to.getChildren().add(Fields.read("This computer supports everything on its card."));
        }
    }

    private Node items(Gear g, Card card, String list, List<Item> items, VBox box) {
        GridPane grid = new GridPane(Space.S6, Space.S4);
        List<String> fields = List.copyOf(card.fields(list, g.link().protocol()));
        grid.add(Styles.label("Name", "field-name"), 0, 0);
        for (int f = 0; f < fields.size(); f++) {
            grid.add(Styles.label(capital(fields.get(f)), "field-name"), f + 1, 0);
        }
        String at = "gear-item-" + g.id() + "-" + list + "-";
        for (int i = 0; i < items.size(); i++) {
            Item item = items.get(i);
            int index = i;
            TextField name = Fields.text(at + item.id(), item.name(), text -> {
                if (!text.isBlank()) {
                    listed(g, list, changed(items, index, new Item(item.id(), text.strip(), item.fields())));
                }
            });
            name.setPrefWidth(NAME_WIDTH);
            name.setAccessibleText("Name");
            grid.add(name, 0, i + 1);
            for (int f = 0; f < fields.size(); f++) {
                String of = fields.get(f);
                if (list.equals(ClipFiles.CLIP) && of.equals(ClipFiles.FILE)) {
                    String id = at + item.id() + "-" + of;
                    grid.add(new ClipFileField(id, desk.bench().rig(), item, why -> wrong(id, why, grid),
                            next -> {
                                listed(g, list, changed(items, index, next));
                                shown.accept(id);
                            }), f + 1, i + 1);
                    continue;
                }
                TextField field = Fields.text(at + item.id() + "-" + of, String.valueOf(item.fields().getOrDefault(of,
                        "")), text -> {
                            if (wrong(g, list, with(item, of, text), of) == null) {
                                listed(g, list, changed(items, index, with(item, of, text)));
                            }
                        });
                field.textProperty()
                        .subscribe(text -> wrong(field.getId(), wrong(g, list, with(item, of, text), of), grid));
                field.setPrefWidth(FIELD_WIDTH);
                field.setAccessibleText(of + " of " + item.name());
                grid.add(field, f + 1, i + 1);
            }
            Button gone = Fields.plain("×", "");
            gone.setId(at + item.id() + "-gone");
            gone.setAccessibleText("Delete " + item.name());
            gone.setOnAction(_ -> delete(g, card, list, items, item, box));
            grid.add(gone, fields.size() + 1, i + 1);
        }
        Button add = Fields.plain("Add " + list.replace('-', ' '), "");
        add.setId(at + "add");
        add.setOnAction(_ -> {
            Item fresh = fresh(list, fields, items);
            listed(g, list, plus(items, fresh));
            shown.accept(at + fresh.id());
        });
        grid.add(add, 0, items.size() + 1);
        return grid;
    }

    private static String capital(String word) {
        return word.substring(0, 1).toUpperCase(Locale.ROOT) + word.substring(1).replace('-', ' ');
    }

    /** Why a field cannot be what it is; null where it can. */
    private @Nullable String wrong(Gear g, String list, Item item, String field) {
        return desk.bench().rig().twin(g.id()).map(t -> t.wrong(list, item).get(field)).orElse(null);
    }

    /** Says below all items what is wrong with a field as it is typed: it is not taken until it is right. */
    private static void wrong(String field, @Nullable String why, GridPane grid) {
        String id = field + "-wrong";
        grid.getChildren().removeIf(n -> id.equals(n.getId()));
        if (why != null) {
            Label said = Styles.label(why, "read", "trouble");
            said.setId(id);
            said.setWrapText(true);
            grid.add(said, 0, grid.getRowCount(), GridPane.REMAINING, 1);
        }
    }

    private void listed(Gear g, String list, List<Item> items) {
        edit.accept("change the " + list.replace('-', ' ') + "s of “" + g.name() + "”",
                b -> GearEdits.listed(b, g.id(), list, items));
    }

    /** An item that is used stays: what names it would name nothing. */
    private void delete(Gear g, Card card, String list, List<Item> items, Item item, VBox box) {
        List<String> uses = GearEdits.uses(desk.bench().board(), g.id(), card, list, item.id());
        if (uses.isEmpty()) {
            listed(g, list, items.stream().filter(i -> i != item).toList());
            return;
        }
        Label why = Styles
                .label("“%s” is used by %s%s. Remove it there first, or change its name and numbers instead."
                        .formatted(item.name(), String.join("; ", uses.subList(0, Math.min(3, uses.size()))),
                                uses.size() > 3 ? " and " + (uses.size() - 3) + " more" : ""),
                        "read", "trouble");
        why.setWrapText(true);
        why.setId("gear-item-used");
        box.getChildren().removeIf(n -> why.getId().equals(n.getId()));
        box.getChildren().add(box.getChildren().size() - 1, why);
    }

    private static Item with(Item item, String field, String text) {
        Map<String, Object> fields = new HashMap<>(item.fields());
        String plain = text.strip();
        if (plain.isEmpty()) {
            fields.remove(field);
        } else {
            fields.put(field, plain.matches("\\d{1,9}") ? (Object) Integer.valueOf(plain) : plain);
        }
        return new Item(item.id(), item.name(), fields);
    }

    /** One more, its numbers those that follow the highest. */
    private static Item fresh(String list, List<String> fields, List<Item> items) {
        String name = capital(list) + " " + (items.size() + 1);
        Map<String, Object> numbers = new HashMap<>();
        fields.stream().filter(f -> !f.equals(ClipFiles.FILE)).forEach(
                f -> numbers.put(f, items.stream().map(i -> i.fields().get(f)).filter(Integer.class::isInstance)
                        .mapToInt(n -> (Integer) n + (f.equals("universe") ? 0 : 1)).max().orElse(1)));
        return new Item(Edits.freshId(name, list, id -> items.stream().anyMatch(i -> i.id().equals(id))), name,
                numbers);
    }

    private static List<Item> changed(List<Item> items, int index, Item to) {
        List<Item> all = new ArrayList<>(items);
        all.set(index, to);
        return all;
    }

    private static List<Item> plus(List<Item> items, Item more) {
        List<Item> all = new ArrayList<>(items);
        all.add(more);
        return all;
    }
}
