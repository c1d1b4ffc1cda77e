package rombix.app.view.live;

import java.util.List;
import java.util.function.Function;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.PasswordField;
import javafx.scene.control.TextField;
import javafx.scene.layout.VBox;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.form.Fields;
import rombix.core.chain.DeckStep;
import rombix.core.event.Happening.Asked;
import rombix.core.value.Value;
import rombix.running.owner.Secrets;

/** A question of a chain, over the button that asks it. Closing it leaves the question waiting. */
public final class AskPopover {
    private final Desk desk;
    private final Function<String, Node> tile;
    private long shown = -1;

    /** @param tile the tile of a button, or what stands for it where it is on another page */
    public AskPopover(Desk desk, Function<String, Node> tile) {
        this.desk = desk;
        this.tile = tile;
        desk.model().watch(c -> {
            if (c.talk()) {
                follow();
            }
        });
    }

    private void follow() {
        List<Asked> all = desk.model().state().questions();
        if (all.stream().noneMatch(a -> a.question() == shown) && shown >= 0) {
            shown = -1;
            desk.overlay().close();
        }
        if (!all.isEmpty() && all.getFirst().question() != shown) {
            open();
        }
    }

    /** Shows the question that waits longest. */
    public void open() {
        List<Asked> all = desk.model().state().questions();
        if (all.isEmpty()) {
            return;
        }
        Asked a = all.getFirst();
        VBox box = new VBox(Space.S8);
        box.setId("ask-popover");
        Label text = new Label(a.text());
        text.getStyleClass().add("ask-text");
        text.setWrapText(true);
        text.setMaxWidth(320);
        box.getChildren().add(text);
        if (a.kind() == DeckStep.Ask.AnswerType.CHOICE) {
            for (int i = 0; i < a.options().size(); i++) {
                int at = i;
                Button b = Fields.plain(a.options().get(i), "");
                b.setId("answer-" + i);
                b.getStyleClass().add("answer");
                b.setMaxWidth(Double.MAX_VALUE);
                b.setOnAction(_ -> answer(a, Value.of(at)));
                box.getChildren().add(b);
            }
        } else {
            boolean secret = a.kind() == DeckStep.Ask.AnswerType.SECRET;
            TextField field = secret
                    ? new PasswordField()
                    : new TextField(a.preset() == null ? "" : a.preset().toString());
            field.setId("answer");
            field.setAccessibleText(a.text());
            Button done = Fields.plain("Answer", "Enter");
            done.getStyleClass().add("answer");
            Runnable tell = () -> answer(a, a.kind() == DeckStep.Ask.AnswerType.NUMBER
                    ? Value.of(Fields.parsed(field.getText(), Double.NaN))
                    : Value.of(secret ? Secrets.asked(field.getText()) : field.getText()));
            field.setOnAction(_ -> tell.run());
            done.setOnAction(_ -> tell.run());
            box.getChildren().addAll(field, done);
        }
        desk.overlay().show(box, tile.apply(a.button()), () -> {
        });
        shown = a.question();
        javafx.application.Platform.runLater(() -> box.getChildren().get(1).requestFocus());
    }

    private void answer(Asked a, Value value) {
        desk.port().answer(a.question(), value);
    }
}
