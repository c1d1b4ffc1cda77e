package rombix.app.view.card;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.CardEdits;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.board.Gear;
import rombix.core.card.Card;
import rombix.core.card.Protocol;
import rombix.core.listen.CardMaking;
import rombix.core.listen.HeardValue;
import rombix.core.listen.HeardValue.Kind;
import rombix.core.listen.ReadingDraft;
import rombix.core.store.CardLibrary;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.twin.Figures;
import rombix.core.twin.Twin;
import rombix.core.value.Value;

/** Describes a heard value, with everything proposed, and makes a reading and its commands of it. */
@OwnedBy(Owner.INTERFACE)
final class HeardForm {
    private static final double NUMBER_WIDTH = 92;

    private final CardEdits edits;
    private final VBox box = new VBox(Space.S8);
    private final Label told = Fields.read("");
    private final Label makes = Fields.read("");
    private final Button make = new Button("Add to card");
    private String gear = "";
    private Protocol protocol = Protocol.of("osc");
    private @Nullable HeardValue voice;
    private @Nullable ReadingDraft wanted;
    private @Nullable Twin twin;
    /** Whether something was typed: then what is heard changes no proposal any more. */
    private boolean touched;

    HeardForm(CardEdits edits) {
        this.edits = edits;
        told.setId("heard-told");
        make.setId("heard-make");
        make.setDefaultButton(true);
        make.setOnAction(_ -> make());
        clear();
    }

    Node node() {
        return box;
    }

    void clear() {
        voice = null;
        wanted = null;
        box.getChildren().setAll(Fields.read(
                "Choose a message, then give it a type and a name to make it a reading."));
    }

    void card(Gear g, Twin now) {
        protocol = g.link().protocol();
        twin = now;
        if (wanted != null) {
            makes();
        }
    }

    /** Shows a voice that was chosen. */
    void show(String of, HeardValue chosen) {
        gear = of;
        voice = chosen;
        touched = false;
        wanted = proposed(chosen, chosen.likely());
        told.setText("");
        fill();
    }

    /** The one that is shown was heard again: what is proposed follows, until something was typed. */
    void update(HeardValue again) {
        HeardValue before = voice;
        voice = again;
        if (!touched && before != null && !before.seen().equals(again.seen())) {
            wanted = proposed(again, again.likely());
            fill();
        }
    }

    private ReadingDraft proposed(HeardValue v, Kind kind) {
        return ReadingDraft.of(v, kind, "", protocol.descriptor().bothWays()).withTitle(title(v));
    }

    /** A name from where it stands: {@code /ch/1/mute} is “Ch 1 mute”. */
    private static String title(HeardValue v) {
        String from = v.pointer() != null && !v.pointer().isEmpty()
                ? v.pointer()
                : v.before() != null
                        ? v.before()
                        : v.address();
        String words = from.replaceAll("[^\\p{L}\\p{N}]+", " ").replaceAll("(?i) (un)?mute[ds]?\\s*$", "").strip();
        return words.isEmpty()
                ? "Reading"
                : words.substring(0, 1).toUpperCase(Locale.ROOT) + words.substring(
                        1);
    }

    private void become(ReadingDraft next) {
        touched = true;
        boolean other = wanted == null || wanted.kind() != next.kind();
        wanted = next;
        if (other) {
            fill();
        } else {
            makes();
        }
    }

    private void fill() {
        HeardValue v = voice;
        ReadingDraft w = wanted;
        if (v == null || w == null) {
            return;
        }
        box.getChildren().setAll(Styles.label(v.where(), "gear-name"), Fields.row(Fields.named("Type", Fields.choice(
                "heard-kind", List.of(Kind.values()), w.kind(), Kind::words, k -> become(proposed(v, k).withTitle(now()
                        .title())))),
                Fields.named("Name", typed("heard-name", w.title(), t -> become(now().withTitle(t))))));
        switch (w.kind()) {
            case MUTE, SWITCH -> box.getChildren().add(Fields.row(Fields.named(w.kind() == Kind.MUTE
                    ? "Muted value"
                    : "On value",
                    typed("heard-yes", w.yes().toString(), t -> become(now().withYesNo(value(t), now()
                            .no())))),
                    Fields.named(w.kind() == Kind.MUTE ? "Open value" : "Off value", typed(
                            "heard-no", w.no().toString(), t -> become(now().withYesNo(now().yes(), value(
                                    t)))))));
            case LEVEL -> box.getChildren().addAll(Fields.row(Fields.named("Raw range from", number("heard-wire-low", w
                    .wireLow(), n -> become(now().withWire(n, now().wireHigh())))), Fields.named("To", number(
                            "heard-wire-high", w.wireHigh(), n -> become(now().withWire(now().wireLow(), n))))),
                    Fields.row(
                            Fields.named("Shown as", number("heard-low", w.low(), n -> become(now().withRange(n,
                                    now().high(), now().unit())))),
                            Fields.named("To", number("heard-high", w
                                    .high(),
                                    n -> become(now().withRange(now().low(), n, now()
                                            .unit())))),
                            Fields.named("Unit", typed("heard-unit", w
                                    .unit(),
                                    t -> become(now().withRange(now().low(),
                                            now().high(), t.strip()))))));
            case CHOICE -> box.getChildren()
                    .add(Fields.named("Values, separated by commas", typed("heard-choices", String
                            .join(", ", w.choices()),
                            t -> become(now().withChoices(Arrays.stream(t.split(",")).map(
                                    String::strip).filter(c -> !c.isEmpty()).toList())))));
            case COLOUR -> box.getChildren().add(Fields.read("Parts: " + CardMaking.colourWords(v)));
            case TEXT, LIST -> {
            }
        }
        if (w.kind() == Kind.LEVEL) {
            box.getChildren().add(points(w));
        }
        if (w.kind() != Kind.LIST && w.kind() != Kind.COLOUR) {
            box.getChildren()
                    .add(Fields.check("heard-moment", "Momentary: every message counts", w.moment(),
                            on -> become(now().withMoment(on))));
        }
        if (w.kind() != Kind.LIST) {
            TextField at = typed("heard-told-at", w.toldAt(), t -> become(now().withToldAt(t.strip())));
            at.setPromptText("none (read only)");
            box.getChildren().add(Fields.named("Command address", at));
        }
        box.getChildren().addAll(makes, make, told);
        makes();
    }

    /** For a level that goes unevenly, such as a fader in dB: what it shows here, at two places or more. */
    private Node points(ReadingDraft w) {
        TextField all = typed("heard-points", w.points().stream().map(p -> Value.of(p.getFirst()) + " = "
                + Value.of(p.getLast())).collect(Collectors.joining(", ")), t -> points(t).ifPresent(
                        p -> become(now().withPoints(p))));
        all.setPromptText("-10 = 512, 0 = 768, 10 = 1023");
        TextField shown = new TextField();
        shown.setId("heard-shown");
        shown.setPrefWidth(NUMBER_WIDTH);
        shown.setPromptText("shows");
        Button add = new Button("Add point here");
        add.setId("heard-point");
        add.setOnAction(_ -> {
            double says = Fields.parsed(shown.getText(), Double.NaN);
            HeardValue v = voice;
            if (v != null && !Double.isNaN(says)) {
                all.setText((all.getText().isBlank() ? "" : all.getText() + ", ") + Value.of(says) + " = "
                        + Value.of(v.last().asNumber()));
                shown.clear();
            }
        });
        return new VBox(Space.S6, Fields.named("Calibration points (shown = raw)", all), Fields.row(shown, add));
    }

    private static Optional<List<List<Double>>> points(String text) {
        List<List<Double>> points = new ArrayList<>();
        for (String pair : text.isBlank() ? new String[0] : text.replace('−', '-').split("[,;]")) {
            String[] sides = pair.split("=");
            double shown = sides.length == 2 ? Fields.parsed(sides[0].strip(), Double.NaN) : Double.NaN;
            double raw = sides.length == 2 ? Fields.parsed(sides[1].strip(), Double.NaN) : Double.NaN;
            if (Double.isNaN(shown) || Double.isNaN(raw)) {
                return Optional.empty();
            }
            points.add(List.of(shown, raw));
        }
        return points.size() == 1 ? Optional.empty() : Optional.of(points);
    }

    private ReadingDraft now() {
        ReadingDraft w = wanted;
        if (w == null) {
            throw new IllegalStateException("no selection");
        }
        return w;
    }

    static TextField typed(String id, String value, Consumer<String> changed) {
        TextField field = new TextField(value);
        field.setId(id);
        field.textProperty().addListener((_, _, text) -> changed.accept(text));
        return field;
    }

    private static TextField number(String id, double value, Consumer<Double> changed) {
        TextField field = typed(id, Figures.withUnit(value, null), text -> {
            double n = Fields.parsed(text, Double.NaN);
            if (!Double.isNaN(n)) {
                changed.accept(n);
            }
        });
        field.setPrefWidth(NUMBER_WIDTH);
        return field;
    }

    /** A value as it stands on the wire. */
    private static Value value(String text) {
        String t = text.strip();
        return t.matches("-?\\d+(\\.\\d+)?")
                ? Value.of(Double.parseDouble(t))
                : t.matches("true|false") ? Value.of(t.equals("true")) : Value.of(t);
    }

    /** Shows what will be made, or what is wrong. */
    private void makes() {
        HeardValue v = voice;
        Twin t = twin;
        if (v == null || t == null) {
            return;
        }
        String known = v.on(t).stream().findFirst().orElse(null);
        String trouble = trouble(t.card(), v);
        make.setDisable(trouble != null || known != null);
        if (known != null) {
            Styles.set(makes, "label", "read", "quiet");
            makes.setText("Already on the card: “" + known + "”.");
            return;
        }
        if (trouble != null) {
            Styles.set(makes, "label", "read", "trouble");
            makes.setText(trouble);
            return;
        }
        Card card = CardMaking.withReading(t.card(), protocol, v, now());
        List<String> commands = card.commands().subList(t.card().commands().size(), card.commands().size()).stream()
                .map(
                        c -> "“" + c.title().fill(_ -> Value.of("…")) + "”")
                .toList();
        Styles.set(makes, "label", "read", "quiet");
        makes.setText("Adds the reading “" + now().title() + "”" + (commands.isEmpty()
                ? "; read only."
                : " and " + commands.stream().collect(Collectors.joining(", ")) + "."));
    }

    private @Nullable String trouble(Card card, HeardValue v) {
        ReadingDraft w = now();
        if (w.title().isBlank()) {
            return "Enter a name.";
        }
        if (!w.toldAt().isBlank() && !protocol.descriptor().takes(w.toldAt())) {
            return "“" + w.toldAt() + "” is not " + protocol.descriptor().expected() + ".";
        }
        try {
            return CardEdits.wrong(CardLibrary.format(CardMaking.withReading(card, protocol, v, w)));
        } catch (IllegalArgumentException e) {
            return String.valueOf(e.getMessage());
        }
    }

    private void make() {
        HeardValue v = voice;
        Twin t = twin;
        if (v != null && t != null && trouble(t.card(), v) == null) {
            ReadingDraft made = now();
            edits.change("add “" + made.title() + "”", gear, card -> CardMaking.withReading(card, protocol, v, made));
            told.setText("“" + made.title() + "” added to the card.");
        }
    }
}
