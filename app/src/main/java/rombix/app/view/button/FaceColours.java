package rombix.app.view.button;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Space;
import rombix.app.view.form.ColourField;
import rombix.app.view.form.Fields;
import rombix.core.board.Button.Proposed;
import rombix.core.board.Contrast;
import rombix.core.board.Face;
import rombix.core.board.Face.Fill;
import rombix.core.board.Palette;
import rombix.core.board.Palette.Colour;

/** The colours of a face: a theme tint, or a custom tint with label and icon colours and their contrast. */
final class FaceColours {
    private final FaceSubject subject;
    private final VBox box = new VBox(Space.S6);
    private final HBox contrast = new HBox(Space.S10);
    private final List<ColourField> pickers = new ArrayList<>();

    FaceColours(FaceSubject subject) {
        this.subject = subject;
    }

    Node node() {
        contrast.setAlignment(Pos.CENTER_LEFT);
        fill();
        subject.desk().bench().watchWhile(this::follow, () -> box.getScene() != null);
        return box;
    }

    private void edit(java.util.function.UnaryOperator<Face> change) {
        subject.edit(Proposed.FILL, change);
    }

    /** Shows the face as it is now, however it was changed; a picker that is open stays under the hand. */
    private void follow() {
        Optional<ColourField> open = pickers.stream().filter(ColourField::isShowing).findFirst();
        open.ifPresent(picker -> picker.setOnHidden(_ -> fill()));
        if (open.isEmpty()) {
            fill();
        } else if (subject.face().tint() instanceof String tint) {
            contrast(subject.face(), tint);
        }
    }

    private void fill() {
        Face face = subject.face();
        String tint = face.tint();
        pickers.clear();
        HBox named = new HBox(Space.S4);
        for (Fill fill : Fill.values()) {
            String name = fill.name().toLowerCase(Locale.ROOT);
            Button swatch = new Button(name);
            swatch.getStyleClass().setAll("button", "swatch", name);
            if (tint == null && face.fill() == fill) {
                swatch.getStyleClass().add("now");
            }
            swatch.setOnAction(_ -> edit(f -> f.withFill(fill).withTint(null).withInk(null).withAccent(null)));
            named.getChildren().add(swatch);
        }
        HBox own = new HBox(Space.S10, row("tint", Palette.TINTS, tint, c -> edit(f -> Palette.legible(f.withTint(c)))),
                customColour(
                        "tint", tint, c -> edit(f -> Palette.legible(f.withTint(c)))));
        box.getChildren().setAll(Fields.named("Theme tint", named), Fields.named(
                "Custom colour", own));
        if (tint == null) {
            return;
        }
        HBox inks = new HBox(Space.S6,
                preset("ink-usual", "automatic", face.ink() == null, () -> edit(f -> f.withInk(null))),
                row("ink", Palette.legible(Palette.INKS, tint, Contrast.TEXT), face.ink(), c -> edit(f -> f.withInk(
                        c))),
                customColour("ink", face.ink(), c -> edit(f -> f.withInk(c))));
        HBox accents = new HBox(Space.S6,
                preset("accent-usual", "same as the label", face.accent() == null, () -> edit(f -> f
                        .withAccent(null))),
                row("accent", Palette.legible(Palette.ACCENTS, tint, Contrast.ICON), face
                        .accent(), c -> edit(f -> f.withAccent(c))),
                customColour("accent", face.accent(), c -> edit(f -> f
                        .withAccent(c))));
        inks.setAlignment(Pos.CENTER_LEFT);
        accents.setAlignment(Pos.CENTER_LEFT);
        box.getChildren().addAll(Fields.named("Label colour", inks), Fields.named("Icon colour", accents),
                contrast);
        contrast(face, tint);
    }

    private static Button preset(String id, String words, boolean now, Runnable chosen) {
        Button preset = new Button(words);
        preset.setId(id);
        preset.getStyleClass().setAll("button", "swatch");
        preset.setMinWidth(Region.USE_PREF_SIZE);
        if (now) {
            preset.getStyleClass().add("now");
        }
        preset.setOnAction(_ -> chosen.run());
        return preset;
    }

    private static Node row(String what, List<Colour> colours, @Nullable String now, Consumer<String> chosen) {
        FlowPane row = new FlowPane(Space.S4, Space.S4);
        row.setPrefWrapLength(Math.min(colours.size(), what.equals("tint") ? 8 : 5) * 31);
        for (Colour c : colours) {
            Button swatch = new Button();
            swatch.setId(what + "-" + c.name());
            swatch.getStyleClass().setAll("button", "colour");
            // The colour is a datum of the board's, not of the theme's.
            swatch.setStyle("-fx-background-color: " + c.hex() + ";");
            if (c.hex().equalsIgnoreCase(now)) {
                swatch.getStyleClass().add("now");
            }
            swatch.setAccessibleText(what + " " + c.name());
            swatch.setTooltip(new Tooltip(c.name()));
            swatch.setOnAction(_ -> chosen.accept(c.hex()));
            row.getChildren().add(swatch);
        }
        return row;
    }

    private Node customColour(String what, @Nullable String now, Consumer<String> chosen) {
        ColourField picker = ColourField.of(what + "-own", what + ", custom", now,
                chosen);
        picker.setTooltip(new Tooltip("Custom colour"));
        pickers.add(picker);
        return picker;
    }

    /** What the contrast is; where it is too little, that is said, with the way out. */
    private void contrast(Face face, String tint) {
        String ink = face.ink() == null ? Contrast.inkOn(tint) : face.ink();
        String icon = face.accent() == null ? ink : face.accent();
        double label = Contrast.of(ink, tint);
        double mark = Contrast.of(icon, tint);
        boolean legal = label >= Contrast.TEXT && mark >= Contrast.ICON;
        Label words = Fields.read(String.format(Locale.ROOT, "Contrast: label %.1f, icon %.1f. %s", label, mark,
                legal ? "Both are readable." : "Too low: labels need 4.5, icons 3."));
        words.setId("contrast");
        contrast.getChildren().setAll(words);
        if (!legal) {
            words.getStyleClass().add("trouble");
            Button mend = Fields.plain("Fix the contrast", "");
            mend.setId("make-readable");
            mend.setOnAction(_ -> edit(Palette::legible));
            contrast.getChildren().add(mend);
        }
    }
}
