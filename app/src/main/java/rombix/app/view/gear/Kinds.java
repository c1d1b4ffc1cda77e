package rombix.app.view.gear;

import java.util.List;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.layout.HBox;
import javafx.scene.layout.TilePane;
import javafx.scene.layout.VBox;
import rombix.app.view.common.Shapes;
import rombix.app.view.common.Space;
import rombix.app.view.common.Styles;
import rombix.core.card.Card;
import rombix.core.card.Protocol.Reach;

/** The kinds of gear that can be added, each with its picture and what it speaks. */
final class Kinds extends TilePane {
    private static final double WIDTH = 194;
    private static final double HEIGHT = 52;
    private static final double PICTURE = 26;

    /**
     * @param chosen told of the card that was chosen
     * @param other does what is to be done where none of them fits
     */
    Kinds(List<Card> cards, Consumer<Card> chosen, Runnable other) {
        super(Space.S6, Space.S6);
        setId("gear-kinds");
        setPrefColumns(3);
        cards.forEach(c -> getChildren().add(kind(c, chosen)));
        getChildren().add(other(other));
    }

    private static Button kind(Card card, Consumer<Card> chosen) {
        String speaks = card.protocols().stream().map(p -> p.descriptor().reach() == Reach.HERE
                ? "this computer"
                : p.title()).collect(Collectors.joining(", "));
        Button kind = tile(card.title(), speaks, card.icon());
        kind.setId("kind-" + card.id());
        kind.setAccessibleText("Add " + card.title() + ", " + speaks);
        kind.setOnAction(_ -> chosen.accept(card));
        return kind;
    }

    private static Button tile(String title, String under, String icon) {
        HBox face = new HBox(Space.S10, new VBox(Styles.label(title, "gear-name"), Styles.label(under, "quiet")));
        face.setAlignment(Pos.CENTER_LEFT);
        Shapes.icon(icon, PICTURE).ifPresent(face.getChildren()::addFirst);
        Button tile = new Button();
        tile.setGraphic(face);
        tile.getStyleClass().setAll("button", "choice-tile", "kind");
        tile.setMinSize(WIDTH, HEIGHT);
        tile.setPrefSize(WIDTH, HEIGHT);
        return tile;
    }

    private static Button other(Runnable chosen) {
        Button other = tile("Custom gear…", "make its card by listening", "mdi2e-ear-hearing");
        other.setId("kind-other");
        other.setAccessibleText("Add gear that none of these cards fits, and make its card by listening");
        other.setOnAction(_ -> chosen.run());
        return other;
    }
}
