package rombix.app.view.patch;

import rombix.core.twin.Figures;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.CardEdits;
import rombix.app.edit.PatchEdits;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.card.Card;
import rombix.core.card.Channel.Kind;
import rombix.core.card.Channel.Step;
import rombix.core.card.Channel;
import rombix.core.store.CardLibrary;

/** Personalities: what each slot of a fixture means, as its manual lists them, chosen or made here. */
final class PersonalityForm extends HBox {
    private static final double LIST_WIDTH = 220;
    private static final double NUMBER_WIDTH = 44;
    private static final double KIND_WIDTH = 170;
    private static final double NAME_WIDTH = 130;
    private static final double FIGURE_WIDTH = 76;
    private static final Pattern WRITTEN = Pattern.compile("\\s*(.+?)\\s+(\\d{1,3})\\s*");

    private final PatchEdits edits;
    private final Runnable done;
    private final ListView<Card> list = new ListView<>();
    private final TextField title = new TextField();
    private final VBox rows = new VBox(Space.S4);
    private final Label wrong = Styles.label("", "read", "quiet");
    private final Button keep;
    private final List<Row> channels = new ArrayList<>();
    private String id = "";

    /** @param done goes back to the patch */
    PersonalityForm(PatchEdits edits, Runnable done) {
        super(Space.S16);
        this.edits = edits;
        this.done = done;
        setId("personalities");
        keep = FixtureForm.way("personality-keep", "Save as a card", this::keep);
        list.setPrefWidth(LIST_WIDTH);
        list.setMinWidth(LIST_WIDTH);
        list.setId("personality-list");
        list.setCellFactory(_ -> new ListCell<>() {
            @Override
            protected void updateItem(@Nullable Card card, boolean empty) {
                super.updateItem(card, empty);
                setText(card == null || empty ? "" : card.title() + (PatchEdits.ships(card) ? "" : " · custom"));
            }
        });
        list.getSelectionModel().selectedItemProperty().addListener((_, _, card) -> {
            if (card != null) {
                take(card);
            }
        });
        title.setId("personality-title");
        title.textProperty().addListener((_, _, _) -> check());
        wrong.setId("personality-check");
        wrong.setWrapText(true);
        ScrollPane scroll = new ScrollPane(rows);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("popover-scroll");
        VBox.setVgrow(scroll, Priority.ALWAYS);
        HBox head = new HBox(Space.S8, Fields.named("Name", title), FixtureForm.way("personality-new", "New",
                this::fresh), keep, FixtureForm.way("personality-back", "Back to patch", done));
        head.setAlignment(Pos.BOTTOM_LEFT);
        Label about = Fields.read(
                "One row per slot, in the order of the fixture's manual. Changing a built-in personality makes a copy.");
        VBox right = new VBox(Space.S8, head, about, headings(), scroll, FixtureForm.way("channel-add", "Add a slot",
                () -> {
                    channels.add(new Row(Channel.of(Kind.DIMMER)));
                    show();
                }), wrong);
        HBox.setHgrow(right, Priority.ALWAYS);
        getChildren().setAll(list, right);
    }

    private static HBox headings() {
        HBox row = new HBox(Space.S6, Fields.wide(Styles.label("Slot", "quiet"), NUMBER_WIDTH),
                Fields.wide(Styles.label("Kind",
                        "quiet"), KIND_WIDTH),
                Fields.wide(Styles.label("Name", "quiet"), NAME_WIDTH), Fields.wide(
                        Styles.label("16 bits",
                                "quiet"),
                        FIGURE_WIDTH),
                Fields.wide(Styles.label("Lowest", "quiet"), FIGURE_WIDTH), Fields.wide(Styles.label(
                        "Highest", "quiet"), FIGURE_WIDTH),
                Styles.label(
                        "Steps with levels, or one fixed level", "quiet"));
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    /** @param card the one that is shown; a new one where there is none */
    void show(@Nullable Card card) {
        list.getItems().setAll(edits.personalities());
        if (card == null) {
            fresh();
        } else {
            list.getSelectionModel().select(card);
            take(card);
        }
    }

    private void fresh() {
        list.getSelectionModel().clearSelection();
        id = "";
        title.setText("New fixture");
        channels.clear();
        channels.add(new Row(Channel.of(Kind.DIMMER)));
        show();
    }

    private void take(Card card) {
        id = card.id();
        title.setText(card.title());
        channels.clear();
        card.channels().forEach(c -> channels.add(new Row(c)));
        show();
    }

    private void show() {
        rows.getChildren().setAll(channels.stream().map(r -> r.node(channels.indexOf(r) + 1)).toList());
        check();
    }

    private List<Channel> made() {
        return channels.stream().map(Row::channel).toList();
    }

    private void check() {
        String why = null;
        try {
            if (title.getText().isBlank()) {
                why = "enter a name";
            } else {
                why = CardEdits.wrong(CardLibrary.format(Card.personality("check", title.getText(), made())));
            }
        } catch (IllegalArgumentException e) {
            why = String.valueOf(e.getMessage());
        }
        Styles.set(wrong, "label", "read", why == null ? "quiet" : "trouble");
        wrong.setText(why == null ? Figures.count(channels.size(), "slot") : why);
        keep.setDisable(why != null);
    }

    private void keep() {
        if (!keep.isDisabled()) {
            String as = edits.keep(id, title.getText().strip(), made());
            list.getItems().setAll(edits.personalities());
            list.getItems().stream().filter(c -> c.id().equals(as)).findFirst().ifPresent(c -> list.getSelectionModel()
                    .select(c));
            wrong.setText("saved as the card “" + as + "”");
        }
    }

    /** A slot in the making. */
    private final class Row {
        private final ComboBox<Kind> kind;
        private final TextField name = new TextField();
        private final CheckBox fine = new CheckBox("fine");
        private final TextField from = new TextField();
        private final TextField to = new TextField();
        private final TextField more = new TextField();

        Row(Channel c) {
            kind = Fields.choice("", List.of(Kind.values()), c.is(), Kind::words, _ -> changed());
            name.setText(c.name() == null ? "" : c.name());
            fine.setSelected(c.fine());
            from.setText(c.from() == null ? "" : figure(c.from()));
            to.setText(c.to() == null ? "" : figure(c.to()));
            more.setText(c.value() != null
                    ? String.valueOf(c.value())
                    : c.steps().stream().map(i -> i.name() + " " + i.value()).collect(Collectors.joining(", ")));
            List.of(name, from, to, more).forEach(f -> f.textProperty().addListener((_, _, _) -> check()));
            fine.setOnAction(_ -> changed());
            changed();
        }

        private void changed() {
            Kind is = kind.getValue();
            boolean ranged = !fine.isSelected() && (is == Kind.PAN || is == Kind.TILT || is == Kind.WARMTH);
            from.setDisable(!ranged);
            to.setDisable(!ranged);
            name.setDisable(is != Kind.WHEEL && is != Kind.LEVEL);
            more.setDisable(is != Kind.WHEEL && is != Kind.FIXED);
            more.setPromptText(is == Kind.WHEEL ? "Open 0, Red 20, Amber 40" : is == Kind.FIXED ? "255" : "");
            from.setPromptText(
                    is == Kind.PAN ? "−270°" : is == Kind.TILT ? "−135°" : is == Kind.WARMTH ? "2700 K" : "");
            to.setPromptText(!ranged
                    ? ""
                    : is == Kind.PAN ? "270°" : is == Kind.TILT ? "135°" : is == Kind.WARMTH ? "6500 K" : "");
            check();
        }

        private static String figure(double number) {
            return number == Math.rint(number) ? String.valueOf((long) number) : String.valueOf(number);
        }

        HBox node(int number) {
            kind.setId("channel-kind-" + number);
            name.setId("channel-name-" + number);
            fine.setId("channel-fine-" + number);
            from.setId("channel-from-" + number);
            to.setId("channel-to-" + number);
            more.setId("channel-more-" + number);
            kind.setAccessibleText("Kind of slot " + number);
            name.setAccessibleText("Name of slot " + number);
            fine.setAccessibleText("Slot " + number + " is the fine byte (16 bit)");
            from.setAccessibleText("Lowest value of slot " + number);
            to.setAccessibleText("Highest value of slot " + number);
            more.setAccessibleText("Steps of slot " + number);
            Button gone = FixtureForm.way("channel-gone-" + number, "×", () -> {
                channels.remove(this);
                show();
            });
            gone.setAccessibleText("Delete slot " + number);
            HBox.setHgrow(more, Priority.ALWAYS);
            Node[] all = {Fields.wide(Styles.label(String.valueOf(number), "read"), NUMBER_WIDTH),
                    Fields.wide(kind, KIND_WIDTH),
                    Fields.wide(
                            name, NAME_WIDTH),
                    Fields.wide(fine, FIGURE_WIDTH), Fields.wide(from, FIGURE_WIDTH), Fields.wide(to, FIGURE_WIDTH),
                    more,
                    gone};
            HBox row = new HBox(Space.S6, all);
            row.setAlignment(Pos.CENTER_LEFT);
            return row;
        }

        /** @throws IllegalArgumentException in plain words, where it is none yet */
        Channel channel() {
            Kind is = kind.getValue();
            boolean named = is == Kind.WHEEL || is == Kind.LEVEL;
            return new Channel(is, named && !name.getText().isBlank() ? name.getText().strip() : null,
                    fine.isSelected(),
                    number(from), number(to), is == Kind.WHEEL && !fine.isSelected() ? steps() : List.of(),
                    is == Kind.FIXED
                            ? (int) Fields.parsed(more.getText(), -1)
                            : null);
        }

        private @Nullable Double number(TextField field) {
            String text = field.getText().replaceAll("[°K\\s]", "");
            if (field.isDisabled() || text.isEmpty()) {
                return null;
            }
            double n = Fields.parsed(text, Double.NaN);
            if (Double.isNaN(n)) {
                throw new IllegalArgumentException("“" + field.getText() + "” isn't a number");
            }
            return n;
        }

        private List<Step> steps() {
            Map<String, Step> all = new LinkedHashMap<>();
            for (String step : more.getText().split(",")) {
                if (step.isBlank()) {
                    continue;
                }
                Matcher m = WRITTEN.matcher(step);
                if (!m.matches()) {
                    throw new IllegalArgumentException("“" + step.strip()
                            + "” isn't a step: enter name and level, such as Red 20");
                }
                Step made = new Step(m.group(1), Integer.parseInt(m.group(2)));
                if (all.putIfAbsent(made.id(), made) != null) {
                    throw new IllegalArgumentException("two steps have the name “" + m.group(1) + "”");
                }
            }
            return List.copyOf(all.values());
        }
    }
}
