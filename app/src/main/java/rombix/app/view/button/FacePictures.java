package rombix.app.view.button;

import java.io.File;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import rombix.app.edit.file.PictureFile;
import rombix.app.view.common.Icons;
import rombix.app.view.common.Shapes;
import rombix.app.view.common.Space;
import rombix.app.view.form.ColourField;
import rombix.app.view.form.Fields;
import rombix.core.board.Board;
import rombix.core.board.Board.Picture;
import rombix.core.board.Button.Proposed;
import rombix.core.board.Face;
import rombix.core.board.Face.Image;
import rombix.core.board.Palette;
import rombix.core.edit.Edits;

/** The icon of a face, found by keywords, or a custom picture. */
final class FacePictures {
    private static final int MAX_ICONS = 40;

    private final FaceSubject subject;
    private final Consumer<String> trouble;
    private final VBox own = new VBox(Space.S6);

    FacePictures(FaceSubject subject, Consumer<String> trouble) {
        this.subject = subject;
        this.trouble = trouble;
    }

    Node node() {
        fillOwn();
        subject.desk().bench().watchWhile(this::fillOwn, () -> own.getScene() != null);
        return new VBox(Space.S8, Fields.named("Icon", icons()), Fields.named("Custom picture", own));
    }

    private Node icons() {
        TextField search = new TextField();
        search.setId("icon-search");
        search.setPromptText("Search, such as lamp or door");
        FlowPane found = new FlowPane(Space.S2, Space.S2);
        found.setPrefWrapLength(306);
        found.setPrefHeight(128);
        found.setMinHeight(128);
        Runnable list = () -> {
            String now = subject.face().icon();
            found.getChildren().clear();
            List<String> names = new ArrayList<>(Icons.find(search.getText(), MAX_ICONS));
            if (search.getText().isBlank() && now != null) {
                names.remove(now);
                names.addFirst(now);
            }
            for (String literal : names.subList(0, Math.min(MAX_ICONS, names.size()))) {
                Button cell = new Button();
                cell.getStyleClass().add("icon-cell");
                if (literal.equals(now)) {
                    cell.getStyleClass().add("now");
                }
                Shapes.icon(literal, 22).ifPresent(cell::setGraphic);
                cell.setAccessibleText("icon " + Icons.words(literal));
                cell.setTooltip(new Tooltip(Icons.words(literal)));
                cell.setOnAction(_ -> subject.edit(Proposed.ICON, f -> f.withIcon(literal).withImage(null)));
                found.getChildren().add(cell);
            }
            if (names.isEmpty()) {
                found.getChildren().add(Fields.read("No icon found. Try a simpler word."));
            }
        };
        search.textProperty().addListener((_, _, _) -> list.run());
        list.run();
        subject.desk().bench().watchWhile(list, () -> found.getScene() != null);
        return new VBox(Space.S4, search, found);
    }

    private void fillOwn() {
        Face face = subject.face();
        Image image = face.image();
        Button choose = Fields.plain(image == null ? "Choose a file…" : "Another file…", "");
        choose.setId("picture-file");
        choose.setTooltip(new Tooltip("PNG, JPEG, GIF, BMP or SVG. You can also drop a file on the button."));
        choose.setOnAction(_ -> choose());
        HBox row = new HBox(Space.S8, choose);
        row.setAlignment(Pos.CENTER_LEFT);
        own.getChildren().setAll(row);
        if (image == null) {
            Label hint = Fields.help("or drop a file on the button");
            row.getChildren().add(hint);
            return;
        }
        Label name = new Label(subject.desk().picture(image.picture()).map(Picture::name).orElse(image.picture()));
        name.setMinWidth(0);
        HBox.setHgrow(name, Priority.ALWAYS);
        Button none = Fields.plain("Remove", "");
        none.setId("picture-none");
        none.setMinWidth(Region.USE_PREF_SIZE);
        none.setOnAction(_ -> subject.edit(null, f -> f.withImage(null)));
        row.getChildren().addAll(name, none);
        var fit = Fields.choice("picture-fit", List.of(Image.Fit.values()), image.fit(), f -> switch (f) {
            case ICON -> "in place of the icon";
            case WHOLE -> "whole tile, uncropped";
            case COVER -> "whole tile, cropped";
        }, f -> image(i -> i.withFit(f)));
        own.getChildren().addAll(Fields.named("Fit", fit), Fields.named("Padding", Fields.slider(
                "Padding", 0, Image.MAX_PADDING, image.padding(), "%", p -> image(i -> i.withPadding(
                        (int) Math.round(p))))),
                tint(image));
    }

    private Node tint(Image image) {
        HBox row = new HBox(Space.S8,
                Fields.check("picture-tint", "Recolour", image.tint() != null, on -> image(i -> i
                        .withTint(on ? Palette.ACCENTS.getFirst().hex() : null))));
        row.setAlignment(Pos.CENTER_LEFT);
        if (image.tint() != null) {
            ColourField picker = ColourField.of("picture-colour", "Original colours", image.tint(),
                    to -> image(i -> i
                            .withTint(to)));
            row.getChildren().add(picker);
        }
        return row;
    }

    private void image(java.util.function.UnaryOperator<Image> change) {
        subject.edit(null, f -> {
            Image image = f.image();
            return image == null ? f : f.withImage(change.apply(image));
        });
    }

    private void choose() {
        FileChooser chooser = new FileChooser();
        chooser.setTitle("Choose a picture");
        chooser.getExtensionFilters().add(new FileChooser.ExtensionFilter("Pictures", "*.png", "*.jpg", "*.jpeg",
                "*.gif", "*.bmp", "*.svg"));
        File file = chooser.showOpenDialog(own.getScene().getWindow());
        if (file != null) {
            try {
                Board.Picture picture = PictureFile.read(file.toPath());
                subject.desk().bench().edit("put a picture on the face", b -> Edits.showPicture(b, subject.button(),
                        subject.state(), picture));
            } catch (IOException e) {
                trouble.accept(String.valueOf(e.getMessage()));
            }
        }
    }
}
