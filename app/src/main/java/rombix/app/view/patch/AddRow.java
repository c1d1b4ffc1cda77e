package rombix.app.view.patch;

import java.util.List;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.control.ComboBox;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import rombix.app.edit.PatchEdits;
import rombix.app.view.common.Space;
import rombix.app.view.form.Fields;
import rombix.core.card.Card;
import rombix.core.card.Personality;

/** Adds fixtures, many at a time, at the first place with room for all of them. */
final class AddRow extends HBox {
    private static final double NUMBER_WIDTH = 60;
    private static final int LAST = 63_999;

    /** Told where fixtures were added. */
    interface Added {
        void at(int universe, int slot);
    }

    private final PatchEdits edits;
    private final Added added;
    private final Consumer<String> trouble;
    private final TextField name = new TextField();
    private final TextField count = new TextField("1");
    private final TextField to = new TextField();
    private final TextField from = new TextField();
    private ComboBox<Card> kind = new ComboBox<>();
    private String gear = "";
    private int universe = 1;

    /** @param trouble told why nothing could be added */
    AddRow(PatchEdits edits, Added added, Consumer<String> trouble) {
        super(Space.S8);
        this.edits = edits;
        this.added = added;
        this.trouble = trouble;
        setAlignment(Pos.BOTTOM_LEFT);
        name.setId("patch-name");
        name.setPromptText("Spot");
        count.setId("patch-count");
        to.setId("patch-universe");
        from.setId("patch-slot");
        List.of(count, to, from).forEach(field -> field.setPrefWidth(NUMBER_WIDTH));
        count.textProperty().addListener((_, _, _) -> propose());
        to.textProperty().addListener((_, _, _) -> propose());
        name.setOnAction(_ -> add());
        from.setOnAction(_ -> add());
    }

    /** Begins with a universe of a gear; the personality that was chosen last stays. */
    void show(String of, int in) {
        gear = of;
        universe = in;
        List<Card> all = edits.personalities();
        Card before = kind.getValue();
        kind = Fields.choice("patch-kind", all, all.stream().filter(c -> before != null && c.id().equals(before.id()))
                .findFirst().orElse(all.isEmpty() ? null : all.getFirst()), Card::title, _ -> propose());
        to.setText(String.valueOf(in));
        getChildren().setAll(Fields.named("Count", count), Fields.named("Personality", kind),
                Fields.named("Name",
                        name),
                Fields.named("Universe", to), Fields.named("First slot", from), FixtureForm.way("patch-add",
                        "Add", this::add));
        propose();
    }

    void begin() {
        name.requestFocus();
    }

    private static int number(TextField field, int otherwise) {
        double n = Fields.parsed(field.getText(), otherwise);
        return n >= 0 && n <= LAST ? (int) n : otherwise;
    }

    private int wanted() {
        return Math.max(1, number(count, 1));
    }

    /** Proposes the first place with room for all that is to be added. */
    void propose() {
        Card card = kind.getValue();
        if (card != null) {
            int free = edits.universes(gear).free(number(to, universe), wanted() * Personality.width(card));
            from.setText(free == 0 ? "" : String.valueOf(free));
            from.setPromptText("full");
        }
    }

    private void add() {
        Card card = kind.getValue();
        int at = number(from, 0);
        if (card == null || at == 0) {
            trouble.accept("Not enough free slots in this universe.");
            return;
        }
        trouble.accept("");
        int in = number(to, universe);
        edits.add(gear, name.getText().isBlank() ? card.title() : name.getText().strip(), card.id(), in, at, wanted());
        added.at(in, at);
    }
}
