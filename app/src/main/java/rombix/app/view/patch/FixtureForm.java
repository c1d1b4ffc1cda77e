package rombix.app.view.patch;

import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.function.IntConsumer;
import java.util.function.UnaryOperator;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.PatchEdits;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.card.Card;
import rombix.core.card.Channel.Kind;
import rombix.core.card.Personality.Ability;
import rombix.core.card.Personality;
import rombix.core.card.value.Mapped.Curve;
import rombix.core.patch.Fixture;

/** The fixture that is chosen: all that the patch says of it. */
final class FixtureForm extends VBox {
    private static final Set<Kind> TURNED = EnumSet.of(Kind.PAN, Kind.TILT, Kind.DIMMER, Kind.STROBE, Kind.WARMTH);
    private static final double NAME_WIDTH = 170;
    private static final double NUMBER_WIDTH = 70;

    private final PatchEdits edits;
    private String gear = "";

    FixtureForm(PatchEdits edits) {
        super(Space.S8);
        this.edits = edits;
        setId("fixture-form");
    }

    void show(String of, @Nullable Fixture chosen) {
        gear = of;
        getChildren().clear();
        if (chosen == null) {
            getChildren().setAll(Fields.read("Select a fixture or a slot to see its details."));
            return;
        }
        TextField name = Fields.text("fixture-name", chosen.name(), t -> {
            if (!t.isBlank()) {
                change(chosen, "name “" + t.strip() + "”", f -> f.withName(t.strip()));
            }
        });
        List<Card> all = edits.personalities();
        Card now = all.stream().filter(c -> c.id().equals(chosen.personality())).findFirst().orElse(null);
        var personality = Fields.choice("fixture-personality", all, now, Card::title,
                c -> change(chosen, "“" + chosen.name()
                        + "” is a " + c.title(), f -> f.withPersonality(c.id())));
        name.setPrefWidth(NAME_WIDTH);
        TextField universe = number("fixture-universe", chosen.universe(), n -> change(chosen, "move “" + chosen.name()
                + "” to universe " + n, f -> f.withUniverse(n)), 0);
        TextField slot = number("fixture-slot", chosen.slot(),
                n -> change(chosen, "move “" + chosen.name() + "” to slot " + n,
                        f -> f.withSlot(n)),
                1);
        HBox turned = now == null ? new HBox() : inverts(chosen, now);
        getChildren().setAll(row(Fields.named("Name", name), Fields.named("Personality", personality), Fields.named(
                "Universe", universe), Fields.named("Slot", slot)),
                row(Fields.named("Limit", limit(chosen)), Fields.named(
                        "Dimmer curve", curve(chosen))),
                turned);
        if (now != null) {
            getChildren().add(can(now));
        }
    }

    private static HBox row(Node... fields) {
        HBox row = new HBox(Space.S8, fields);
        row.setAlignment(Pos.BOTTOM_LEFT);
        return row;
    }

    /** @param of the fixture that is meant, whichever is chosen by then */
    private void change(Fixture of, String what, UnaryOperator<Fixture> change) {
        edits.change(what, gear, of.id(), change);
    }

    private static TextField number(String id, int now, IntConsumer changed, int least) {
        TextField field = Fields.text(id, String.valueOf(now), t -> {
            double n = Fields.parsed(t, Double.NaN);
            if (n >= least && n == Math.rint(n) && n < 64_000 && (int) n != now) {
                changed.accept((int) n);
            }
        });
        field.setPrefWidth(NUMBER_WIDTH);
        return field;
    }

    private TextField limit(Fixture of) {
        Integer now = of.limit();
        TextField field = Fields.text("fixture-limit", now == null ? "100 %" : now + " %", t -> {
            double n = Fields.parsed(t.replace("%", ""), Double.NaN);
            if (n >= 0 && n <= 100) {
                change(of, "limit “" + of.name() + "” to " + (int) n + " %",
                        f -> f.withLimit(n == 100 ? null : (int) n));
            }
        });
        field.setPrefWidth(NUMBER_WIDTH);
        field.setAccessibleText("Maximum level of the dimmer");
        return field;
    }

    private Node curve(Fixture of) {
        Curve now = of.curve();
        return Fields.choice("fixture-curve", List.of(Curve.values()), now == null ? Curve.LINEAR : now,
                c -> switch (c) {
                    case LINEAR -> "linear";
                    case SQUARE -> "square (as the eye sees it)";
                    case S_CURVE -> "S-curve (slow at both ends)";
                }, c -> change(of, "curve of “" + of.name() + "”", f -> f.withCurve(c == Curve.LINEAR ? null : c)));
    }

    /** What of it can go the other way round. */
    private HBox inverts(Fixture of, Card personality) {
        HBox row = new HBox(Space.S10);
        row.setAlignment(Pos.BOTTOM_LEFT);
        row.setMinHeight(Region.USE_PREF_SIZE);
        Personality.abilities(personality).stream().map(Ability::kind).filter(TURNED::contains).distinct().forEach(
                kind -> row.getChildren().add(Fields.check("fixture-invert-" + kind.name().toLowerCase(
                        Locale.ROOT), "invert " + (kind == Kind.WARMTH ? "temperature" : kind.words()),
                        of.invert().contains(kind),
                        on -> change(of, (on
                                ? "invert "
                                : "do not invert ") + kind.words() + " of “" + of.name() + "”",
                                f -> f.withInvert(turned(
                                        f.invert(), kind, on))))));
        return row;
    }

    private static Set<Kind> turned(Set<Kind> before, Kind kind, boolean on) {
        Set<Kind> all = EnumSet.noneOf(Kind.class);
        all.addAll(before);
        if (on) {
            all.add(kind);
        } else {
            all.remove(kind);
        }
        return all;
    }

    /** Its channels, slot by slot. */
    private static FlowPane can(Card personality) {
        FlowPane all = new FlowPane(Space.S6, Space.S4);
        for (int i = 0; i < personality.channels().size(); i++) {
            Label one = Styles.label((i + 1) + " " + personality.channels().get(i).label(), "channel");
            all.getChildren().add(one);
        }
        return all;
    }

    /** A button for what is done with the fixture that is chosen. */
    static Button way(String id, String words, Runnable run) {
        Button way = Fields.plain(words, "");
        way.setId(id);
        way.setOnAction(_ -> run.run());
        return way;
    }
}
