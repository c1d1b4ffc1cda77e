package rombix.app.view.button;

import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import rombix.app.edit.Conditions;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.form.Fields;
import rombix.app.view.step.ConditionField;
import rombix.core.board.Face.Tally;
import rombix.core.card.Card.Tone;
import rombix.core.chain.Condition;

/** The lamps of a face: a word and a condition each. The first whose condition is true is shown. */
final class LampsForm extends VBox {
    private final Desk desk;
    private final FaceSubject subject;

    LampsForm(Desk desk, FaceSubject subject) {
        super(Space.S6);
        this.desk = desk;
        this.subject = subject;
        fill();
    }

    private void fill() {
        getChildren().clear();
        List<Tally> all = subject.face().tally();
        for (int i = 0; i < all.size(); i++) {
            getChildren().add(Fields.named(all.size() == 1 ? "Lamp" : "Lamp " + (i + 1), lamp(all.get(i), i)));
        }
        Button add = Fields.plain("Add a lamp", "");
        add.setId("lamp-add");
        add.setTooltip(new Tooltip("A word in the corner of the button, shown while its condition is true"));
        add.setOnAction(_ -> {
            Condition first = Conditions.first(desk.bench().rig(), g -> desk.model().state().readings(g));
            change(t -> t.add(new Tally(first, "ON", Tone.QUIET, java.util.Map.of())));
            fill();
            desk.overlay().requestLayout();
        });
        getChildren().add(add);
    }

    private Node lamp(Tally lamp, int at) {
        String id = at == 0 ? "lamp" : "lamp-" + (at + 1);
        var word = Fields.text(id + "-word", lamp.word(), w -> {
            if (!w.isBlank()) {
                edit(at, t -> new Tally(t.when(), w.strip(), t.tone(), t.extra()));
            }
        });
        word.setAccessibleText("Text of the lamp");
        HBox.setHgrow(word, Priority.ALWAYS);
        var tone = Fields.choice(id + "-tone", List.of(Tone.values()), lamp.tone(), LampsForm::words, to -> edit(at,
                t -> new Tally(t.when(), t.word(), to, t.extra())));
        tone.setAccessibleText("Look of the lamp");
        tone.setMinWidth(110);
        Button remove = Fields.plain("×", "");
        remove.setId(id + "-remove");
        remove.setAccessibleText("Remove this lamp");
        remove.setTooltip(new Tooltip("Remove this lamp"));
        remove.setOnAction(_ -> {
            change(t -> t.remove(at));
            fill();
            desk.overlay().requestLayout();
        });
        HBox row = new HBox(Space.S6, word, tone, remove);
        row.setAlignment(Pos.CENTER_LEFT);
        return new VBox(Space.S4, row, new ConditionField(desk, id + "-when", lamp.when(), List.of(
                new Conditions.Offered("no other lamp's condition is true", new Condition.Otherwise())),
                c -> {
                    if (c != null) {
                        edit(at, t -> new Tally(c, t.word(), t.tone(), t.extra()));
                    }
                }));
    }

    private static String words(Tone tone) {
        return switch (tone) {
            case AIR -> "on air";
            case READY -> "ready";
            case QUIET -> "quiet";
        };
    }

    private void edit(int at, UnaryOperator<Tally> change) {
        change(all -> all.set(at, change.apply(all.get(at))));
    }

    private void change(java.util.function.Consumer<List<Tally>> change) {
        subject.edit(null, f -> {
            List<Tally> all = new ArrayList<>(f.tally());
            change.accept(all);
            return f.withTally(all);
        });
    }
}
