package rombix.app.view.patch;

import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TableView;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.PatchEdits;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.board.Gear;
import rombix.core.card.Card;
import rombix.core.card.Channel;
import rombix.core.card.Channel.Kind;
import rombix.core.patch.Fixture;
import rombix.core.patch.Universes;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.twin.Figures;
import rombix.running.Player;

/**
 * The patch of a gear with universes of slots: its fixtures as a list and as a picture, added, moved, lit to be found,
 * read from a table and written to one. Whatever is changed works at once and can be undone. The interface's thread's.
 */
@OwnedBy(Owner.INTERFACE)
public final class PatchSheet {
    private static final double WIDTH = 1200;
    private static final double RIGHT_WIDTH = 580;
    private static final double HEIGHT = 720;
    private static final Set<Kind> SHINES = Set.of(Kind.DIMMER, Kind.RED, Kind.GREEN, Kind.BLUE, Kind.WHITE);

    private final Desk desk;
    private final Player player;
    private final PatchEdits edits;
    private final TableView<Fixture> table = new TableView<>();
    private final UniversePicture picture;
    private final FixtureForm form;
    private final PersonalityForm personality;
    private final Label told = Styles.label("", "read", "quiet");
    private final Label state = Styles.label("", "read");
    private final Label spot = Styles.label("", "read", "quiet");
    private final Label title = Styles.label("", "gear-name");
    private final ToggleButton lit = new ToggleButton("Identify");
    private final Button gone = FixtureForm.way("fixture-gone", "Delete…", this::delete);
    private final HBox numbers = new HBox(Space.S4);
    private final StackPane middle = new StackPane();
    private final Node patch;
    private final AddRow adding;
    private final TableFiles files;
    private String gear = "";
    private int universe = 1;
    private int slot;
    /** The fixture that is chosen; empty where a free slot is. */
    private String chosen = "";
    private boolean open;
    private boolean filling;

    public PatchSheet(Desk desk, Player player) {
        this.desk = desk;
        this.player = player;
        this.edits = new PatchEdits(desk.bench());
        this.form = new FixtureForm(edits);
        this.files = new TableFiles(edits, table, told::setText);
        this.adding = new AddRow(edits, this::added, told::setText);
        this.personality = new PersonalityForm(edits, this::back);
        this.picture = new UniversePicture(new UniversePicture.Hand() {
            @Override
            public void chosen(int at) {
                choose(at);
            }

            @Override
            public void moved(Fixture fixture, int by) {
                edits.change("move “" + fixture.name() + "” to slot " + (fixture.slot() + by), gear, fixture.id(),
                        f -> f
                                .withSlot(f.slot() + by));
            }
        });
        table.setId("fixtures");
        table.setColumnResizePolicy(TableView.CONSTRAINED_RESIZE_POLICY_FLEX_LAST_COLUMN);
        table.setPlaceholder(Fields.read("No fixtures patched yet. Add some above."));
        table.getColumns().setAll(List.of(Fields.<Fixture>column("Fixture", 130, Fixture::name), Fields.<Fixture>column(
                "Personality", 130, f -> title(f)),
                Fields.<Fixture>column("Universe", 64, f -> String.valueOf(f
                        .universe())),
                Fields.<Fixture>column("Slots", 70, this::slots), Fields.<Fixture>column("", 150,
                        this::status)));
        table.getSelectionModel().selectedItemProperty().addListener((_, _, f) -> {
            if (f != null && !filling) {
                universe = f.universe();
                slot = f.slot();
                chosen = f.id();
                shown();
            }
        });
        patch = patch();
        desk.bench().watchWhile(() -> {
            if (open) {
                refresh();
            }
        }, () -> true);
    }

    private String title(Fixture f) {
        Card card = desk.bench().rig().cards().get(f.personality());
        return card == null ? f.personality() + "?" : card.title();
    }

    private String slots(Fixture f) {
        int width = edits.universes(gear).width(f);
        return width == 1 ? String.valueOf(f.slot()) : f.slot() + "–" + (f.slot() + width - 1);
    }

    /** Its error, otherwise how it is sent. */
    private String status(Fixture f) {
        String wrong = edits.universes(gear).wrong(f);
        if (!wrong.isEmpty()) {
            return "✗ " + wrong;
        }
        StringBuilder all = new StringBuilder();
        f.invert().stream().sorted().forEach(k -> all.append(", ").append(k.words()).append(" inverted"));
        if (f.limit() != null) {
            all.append(", up to ").append(f.limit()).append(" %");
        }
        if (f.curve() != null) {
            all.append(", curve");
        }
        return all.isEmpty() ? "" : all.substring(2);
    }

    private Node patch() {
        Styles.set(lit, "toggle-button", "switch");
        lit.setId("fixture-light");
        lit.setTooltip(new Tooltip(
                "Sets the selected fixture or slot to full, so you can see which one it is"));
        lit.setOnAction(_ -> light());
        told.setWrapText(true);
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox head = new HBox(Space.S8, Fields.read("Universe"), numbers, space, lit, gone);
        numbers.setAlignment(Pos.CENTER_LEFT);
        head.setAlignment(Pos.CENTER_LEFT);
        ScrollPane under = new ScrollPane(new VBox(Space.S8, spot, form, told)); // A low window has no room for all.
        under.setFitToWidth(true);
        under.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        under.getStyleClass().add("popover-scroll");
        VBox.setVgrow(under, Priority.ALWAYS);
        VBox right = new VBox(Space.S8, head, picture, under);
        right.setMinWidth(RIGHT_WIDTH); // Whatever is said of a fixture, the picture stays where it is.
        right.setMaxWidth(RIGHT_WIDTH);
        HBox.setHgrow(table, Priority.ALWAYS);
        HBox both = new HBox(Space.S16, table, right);
        VBox.setVgrow(both, Priority.ALWAYS);
        return new VBox(Space.S10, adding, both);
    }

    /** Opens it on the patch of a gear. */
    public void open(Node by, String of) {
        desk.overlay().close();
        gear = of;
        open = true;
        told.setText("");
        chosen = "";
        lit.setSelected(false);
        List<Fixture> all = edits.fixtures(gear);
        universe = all.isEmpty() ? first() : all.getFirst().universe();
        slot = all.isEmpty() ? 1 : all.getFirst().slot();
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        Button close = Fields.plain("Close", "Esc");
        close.setId("patch-close");
        close.setOnAction(_ -> desk.overlay().close());
        HBox head = new HBox(Space.S10, title, state, space, FixtureForm.way("patch-personalities", "Personalities…",
                () -> personality(null)), FixtureForm.way("patch-read", "Read CSV…", () -> files.readChosen(gear)),
                FixtureForm.way(
                        "patch-write", "Write CSV…", () -> files.writeChosen(gear)),
                close);
        head.setAlignment(Pos.CENTER_LEFT);
        middle.getChildren().setAll(patch);
        VBox.setVgrow(middle, Priority.ALWAYS);
        VBox box = new VBox(Space.S10, head, middle);
        box.setId("patch");
        box.setPrefSize(WIDTH, HEIGHT);
        adding.show(gear, universe);
        refresh();
        desk.overlay().show(box, by, () -> {
            open = false;
            player.light(gear, Map.of());
        });
        adding.begin();
    }

    /** The number that its protocol begins with. */
    private int first() {
        return desk.bench().board().gear(gear).map(Gear::link).map(l -> l.protocol().descriptor().takes("0 1") ? 0 : 1)
                .orElse(1);
    }

    /** Shows what was added. */
    private void added(int in, int at) {
        universe = in;
        slot = at;
        chosen = "";
        refresh();
    }

    /** Takes the fixtures of a table in place of those there are. */
    public void read(Path file) {
        files.read(gear, file);
    }

    /** Writes the fixtures as a table. */
    public void write(Path file) {
        files.write(gear, file);
    }

    private @Nullable Fixture fixture() {
        List<Fixture> there = edits.universes(gear).at(universe, slot);
        return there.stream().filter(f -> f.id().equals(chosen)).findFirst().orElse(there.isEmpty()
                ? null
                : there.getFirst());
    }

    private void choose(int at) {
        slot = at;
        chosen = "";
        shown();
    }

    /** Shows the patch as it is now. */
    private void refresh() {
        Gear of = desk.bench().board().gear(gear).orElse(null);
        if (of == null) {
            desk.overlay().close(); // It was undone.
            return;
        }
        title.setText("Patch of “" + of.name() + "”");
        of.patch().stream().filter(f -> f.id().equals(chosen) && !f.equals(fixture())).findFirst().ifPresent(f -> {
            universe = f.universe(); // It was moved: the hand goes with it.
            slot = f.slot();
        });
        Universes all = edits.universes(gear);
        int clashes = all.clashes().size();
        int beyond = all.beyond().size();
        int gaps = all.gaps().size();
        state.setText(Figures.count(of.patch().size(), "fixture")
                + (clashes == 0 ? "" : " · ✗ " + Figures.count(clashes, "overlap"))
                + (beyond == 0 ? "" : " · ✗ " + beyond + " beyond slot 512")
                + (gaps == 0 ? "" : " · " + Figures.count(gaps, "gap")));
        Styles.set(state, "label", "read", clashes + beyond == 0 ? "quiet" : "trouble");
        filling = true;
        table.getItems().setAll(of.patch());
        filling = false;
        Set<Integer> known = new TreeSet<>(all.numbers());
        known.add(universe);
        numbers.getChildren().setAll(known.stream().map(this::number).toList());
        adding.propose();
        shown();
    }

    private Node number(int which) {
        ToggleButton number = new ToggleButton(String.valueOf(which));
        Styles.set(number, "toggle-button", "tab");
        number.setId("universe-" + which);
        number.setAccessibleText("Universe " + which);
        number.setSelected(which == universe);
        number.setOnAction(_ -> {
            universe = which;
            slot = 1;
            chosen = "";
            adding.show(gear, which);
            refresh();
        });
        return number;
    }

    /** Shows what is chosen. */
    private void shown() {
        Universes all = edits.universes(gear);
        picture.show(all, universe, slot);
        Fixture now = fixture();
        chosen = now == null ? "" : now.id();
        filling = true;
        if (now == null) {
            table.getSelectionModel().clearSelection();
        } else if (!now.equals(table.getSelectionModel().getSelectedItem())) {
            table.getSelectionModel().select(now);
            table.scrollTo(now);
        }
        filling = false;
        spot.setText("Slot " + slot + ": " + standing(all));
        form.show(gear, now);
        gone.setDisable(now == null);
        gone.setText("Delete…");
        light();
    }

    private String standing(Universes all) {
        List<Fixture> there = all.at(universe, slot);
        if (there.isEmpty()) {
            return "free";
        }
        return String.join("; ", there.stream().map(f -> {
            Card card = desk.bench().rig().cards().get(f.personality());
            int at = slot - f.slot();
            return f.name()
                    + (card == null || at >= card.channels().size() ? "" : ", " + card.channels().get(at).label());
        }).toList());
    }

    /** Lights what is chosen; what shines of it, and what lets it shine. */
    private void light() {
        if (!lit.isSelected()) {
            player.light(gear, Map.of());
            return;
        }
        Map<Integer, Integer> slots = new LinkedHashMap<>();
        Fixture now = fixture();
        Card card = now == null ? null : desk.bench().rig().cards().get(now.personality());
        if (now == null || card == null) {
            slots.put(slot, Channel.FULL);
        } else {
            for (int i = 0; i < card.channels().size() && now.slot() + i <= Universes.SLOTS; i++) {
                Channel c = card.channels().get(i);
                if (SHINES.contains(c.is())) {
                    slots.put(now.slot() + i, Channel.FULL);
                } else if (c.is() == Kind.WHEEL && !c.steps().isEmpty()) {
                    slots.put(now.slot() + i, c.steps().getFirst().value());
                }
            }
        }
        player.light(gear, Map.of(universe, slots));
    }

    private void delete() {
        Fixture now = fixture();
        if (now == null) {
            return;
        }
        List<String> uses = edits.uses(gear, now);
        if (!uses.isEmpty() && !gone.getText().startsWith("Delete it")) {
            gone.setText("Delete it and its " + Figures.count(uses.size(), "use"));
            told.setText("Used in: " + String.join("; ", uses.subList(0, Math.min(4, uses.size()))));
            return;
        }
        told.setText("");
        edits.delete(gear, now);
    }

    /** Shows the personalities; the one that is to be changed first. */
    private void personality(@Nullable Card of) {
        Fixture now = fixture();
        personality.show(of != null
                ? of
                : now == null
                        ? null
                        : desk.bench().rig().cards().get(now.personality()));
        middle.getChildren().setAll(personality);
    }

    private void back() {
        middle.getChildren().setAll(patch);
        adding.show(gear, universe);
        refresh();
    }
}
