package rombix.app.view.page;

import java.util.Map;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import rombix.app.view.common.Desk;
import rombix.app.view.common.KeyNames;
import rombix.app.view.common.Space;
import rombix.app.view.form.Fields;
import rombix.app.view.form.KeyField;
import rombix.core.board.Button;
import rombix.core.board.Trigger;
import rombix.core.check.TriggerConflicts;
import rombix.running.input.Touches;
import rombix.running.owner.Settings;

/** The key by which the small window comes and goes, whatever is in front. It is this computer's, not the board's. */
public final class SmallKey {
    private static final String SETTING = "small.key";

    private final Desk desk;
    private final Touches touches;
    private final Settings settings = new Settings();
    private final Runnable turn;
    private String key;

    /** @param turn has the small window come, or go */
    public SmallKey(Desk desk, Touches touches, Runnable turn) {
        this.desk = desk;
        this.touches = touches;
        this.turn = turn;
        key = settings.get(SETTING).orElse("");
        if (!key.isEmpty()) {
            touches.summon(key, turn);
        }
    }

    /** Does it where the key is pressed in Rombix's own window and is not seen elsewhere; whether it was that key. */
    public boolean pressed(KeyEvent e) {
        boolean own = !key.isEmpty() && !touches.keysSeen() && new Trigger.Key(KeyNames.name(e)).normal().equals(
                new Trigger.Key(key).normal());
        if (own) {
            turn.run();
        }
        return own;
    }

    /** Where it is chosen, with what is wrong with it. */
    public HBox field() {
        Label trouble = Fields.read(trouble());
        trouble.setId("small-key-trouble");
        trouble.getStyleClass().add("trouble");
        TextField field = KeyField.of("small-key", key, pressed -> {
            key = pressed;
            settings.set(Map.of(SETTING, key));
            touches.summon(key, turn);
            trouble.setText(trouble());
        });
        field.setPromptText("press a key");
        field.setPrefColumnCount(10);
        field.setAccessibleText("Shortcut for the small window");
        Label words = Fields.read("Shortcut for the small window");
        words.setMinWidth(Region.USE_PREF_SIZE);
        HBox row = new HBox(Space.S8, trouble, words, field);
        row.setAlignment(Pos.CENTER_RIGHT);
        return row;
    }

    private String trouble() {
        if (key.isEmpty()) {
            return "";
        }
        Trigger.Key own = new Trigger.Key(key, true);
        return desk.bench().board().buttons().filter(b -> b.triggers().stream().anyMatch(t -> t.normal().equals(own
                .normal()))).map(Button::name).findFirst().map(b -> "it no longer presses “%s”".formatted(b)).or(
                        () -> TriggerConflicts.by(own, desk.bench().rig()))
                .orElse("");
    }
}
