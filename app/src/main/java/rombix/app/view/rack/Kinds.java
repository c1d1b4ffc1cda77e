package rombix.app.view.rack;

import java.util.List;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
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

    /** @param chosen told of the card that was chosen */
    Kinds(List<Card> cards, Consumer<Card> chosen) {
        super(Space.S6, Space.S6);
        setId("gear-kinds");
        setPrefColumns(3);
        cards.forEach(c -> getChildren().add(kind(c, chosen)));
    }

    private static Button kind(Card card, Consumer<Card> chosen) {
        Label title = Styles.label(card.title(), "gear-name");
        String speaks = card.protocols().stream().map(p -> p.descriptor().reach() == Reach.HERE
                ? "this computer"
                : p.title()).collect(Collectors.joining(", "));
        HBox face = new HBox(Space.S10, new VBox(title, Styles.label(speaks, "quiet")));
        face.setAlignment(Pos.CENTER_LEFT);
        Shapes.icon(card.icon(), PICTURE).ifPresent(icon -> {
            icon.getStyleClass().add("kind-picture");
            face.getChildren().addFirst(icon);
        });
        Button kind = new Button();
        kind.setId("kind-" + card.id());
        kind.setGraphic(face);
        kind.setAccessibleText("Add " + card.title() + ", " + speaks);
        kind.getStyleClass().setAll("button", "choice-tile", "kind");
        kind.setMinSize(WIDTH, HEIGHT);
        kind.setPrefSize(WIDTH, HEIGHT);
        kind.setOnAction(_ -> chosen.accept(card));
        return kind;
    }
}
