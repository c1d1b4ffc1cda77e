package rombix.app.view.step;

import java.io.ByteArrayInputStream;
import java.io.File;
import java.io.IOException;
import java.util.Base64;
import java.util.List;
import java.util.function.Consumer;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.file.PictureFile;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Fields;
import rombix.core.board.Board;
import rombix.core.computer.Place;
import rombix.core.edit.Edits;
import rombix.core.sight.Pixels;
import rombix.core.twin.Twin;

/** A place for the pointer: shown on the screen, never typed. */
final class PlaceField extends VBox {
    private final Desk desk;
    private final @Nullable Twin twin;
    private final String name;
    private final Consumer<String> changed;

    PlaceField(Desk desk, String id, @Nullable Twin twin, String now, Consumer<String> changed) {
        super(Space.S4);
        this.desk = desk;
        this.twin = twin;
        this.name = id;
        this.changed = changed;
        show(Place.parse(now).orElse(Place.HERE), List.of(), null);
    }

    /** @param same other ways to say the same place, as it was just shown */
    private void show(Place place, List<Place> same, @Nullable Pixels screen) {
        Label words = Styles.label(place.words(), "read");
        words.setId(name + "-words");
        words.setWrapText(true);
        Button show = Fields.plain("Show me…", "");
        show.setId(name + "-show");
        show.setOnAction(_ -> ShowMe.place(desk, twin, getScene().getWindow(), false, this::shown));
        Button here = Fields.plain("Address", "");
        here.setId(name + "-here");
        here.setDisable(place instanceof Place.Here);
        here.setOnAction(_ -> become(Place.HERE, List.of(), null));
        Button find = Fields.plain("Find a picture…", "");
        find.setId(name + "-find");
        find.setOnAction(_ -> ShowMe.place(desk, twin, getScene().getWindow(), true, this::framed));
        Button file = Fields.plain("From a file…", "");
        file.setId(name + "-file");
        file.setOnAction(_ -> {
            File chosen = new FileChooser().showOpenDialog(getScene().getWindow());
            if (chosen != null) {
                fromFile(chosen);
            }
        });
        FlowPane row = new FlowPane(Space.S6, Space.S6, show, here, find, file);
        String seen = place.seen();
        if (seen != null && !(place instanceof Place.OnPicture)) {
            desk.picture(seen).ifPresent(p -> {
                ImageView picture = new ImageView(new Image(new ByteArrayInputStream(Base64.getDecoder().decode(p
                        .data()))));
                picture.setFitHeight(40);
                picture.setPreserveRatio(true);
                picture.setId(name + "-seen");
                row.getChildren().add(picture);
            });
        }
        getChildren().setAll(words, row);
        if (place instanceof Place.OnPicture p) {
            getChildren().add(new FindField(desk, name, twin, p, screen, next -> {
                changed.accept(next.toString());
                words.setText(next.words());
            }));
        }
        if (same.size() > 1) {
            ComboBox<Place> as = Fields.choice(name + "-as", same, place, Place::words, p -> become(p, same, null));
            as.setMaxWidth(Double.MAX_VALUE);
            as.setAccessibleText("Measured from");
            getChildren().add(new VBox(Space.S3, Styles.label("Measured from", "field-name"), as));
        }
    }

    private void shown(ShowMe.Shown shown) {
        Board.Picture picture = shown.picture();
        if (picture != null) {
            desk.bench().edit("keep the picture", b -> Edits.addPicture(b, picture));
        }
        become(shown.places().getFirst(), shown.places(), null);
    }

    private void framed(ShowMe.Shown shown) {
        Board.Picture picture = shown.picture();
        if (picture != null) {
            desk.bench().edit("frame a picture", b -> Edits.addPicture(b, picture));
            become(Place.OnPicture.of(picture.id()), List.of(), shown.screen());
        } else {
            Label unseen = Fields
                    .read("Can't see the screen. Check that “This computer” is connected, then try again.");
            unseen.setId(name + "-unseen");
            getChildren().removeIf(n -> unseen.getId().equals(n.getId()));
            getChildren().add(unseen);
        }
    }

    /** A picture from a file is looked for. */
    void fromFile(File chosen) {
        try {
            Board.Picture picture = PictureFile.exact(chosen.toPath());
            desk.bench().edit("find a picture from a file", b -> Edits.addPicture(b, picture));
            become(Place.OnPicture.of(picture.id()), List.of(), null);
        } catch (IOException e) {
            getChildren().add(Fields.read(String.valueOf(e.getMessage())));
        }
    }

    private void become(Place place, List<Place> same, @Nullable Pixels screen) {
        changed.accept(place.toString());
        show(place, same, screen);
    }
}
