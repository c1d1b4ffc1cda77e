package rombix.app.view.button;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import rombix.app.view.window.AtTheWindow;
import rombix.core.board.MessageTrigger;
import rombix.core.board.Trigger;
import rombix.core.edit.Edits;

/** The fields of triggers, by their kinds. */
class TriggerFormTest extends AtTheWindow {
    private void trigger(Trigger trigger) {
        robot.interact(() -> {
            bench().edit("test", b -> Edits.button(b, "tea-urn", t -> t.withTriggers(List.of(trigger))));
            bench().select("tea-urn");
        });
        if (find("#triggers-view") == null) {
            key(KeyCode.T, KeyCode.CONTROL);
        }
        soon(() -> find("#trigger-remove") != null);
    }

    private Trigger now() {
        return bench().board().button("tea-urn").orElseThrow().triggers().getFirst();
    }

    private void tick(String id) {
        robot.interact(() -> ((CheckBox) find(id)).fire());
    }

    private String refused() {
        return find("#trigger-form").lookupAll(".trouble").stream().map(n -> ((Label) n).getText()).filter(t -> !t
                .isEmpty()).findFirst().orElse("");
    }

    @Test
    void messagesOfOtherProgramsAreSet() {
        trigger(new MessageTrigger.Http("go", List.of()));
        type("#trigger-hook", "not/a name");
        assertThat(refused()).isNotEmpty();
        type("#trigger-hook", "bell");
        type("#trigger-hook-values", "who, where");
        assertThat(now()).isEqualTo(new MessageTrigger.Http("bell", List.of("who", "where")));
        trigger(new MessageTrigger.Mqtt("house", "bell/rung", null));
        type("#trigger-topic", "bell/#/rung");
        assertThat(refused()).contains("#");
        type("#trigger-topic", "bell/+/rung");
        type("#trigger-topic-text", "twice");
        assertThat(((ComboBox<?>) find("#trigger-broker")).getItems()).isNotEmpty();
        assertThat(now()).isEqualTo(new MessageTrigger.Mqtt("house", "bell/+/rung", "twice"));
        trigger(new Trigger.Osc("/go"));
        type("#trigger-osc", "no/slash");
        assertThat(refused()).isNotEmpty();
        type("#trigger-osc", "/tea");
        type("#trigger-osc-port", "9123");
        assertThat(now()).isEqualTo(new Trigger.Osc("/tea"));
        assertThat(bench().board().listensAt()).isEqualTo(9123);
    }

    @Test
    void controllersAreSet() {
        trigger(new Trigger.Midi("Desk keys", Trigger.Midi.Message.NOTE, 1, 60, null, java.util.Map.of(), false));
        choose("#trigger-message", "control");
        soon(() -> find("#trigger-turns") != null);
        choose("#trigger-turns", "the gear reports " + Trigger.Midi.Turns.ABSOLUTE.words());
        soon(() -> find("#trigger-motor") != null);
        tick("#trigger-motor");
        choose("#trigger-port", "Desk keys");
        type("#trigger-lamp-number-off", "12");
        assertThat(now()).isInstanceOfSatisfying(Trigger.Midi.class, m -> {
            assertThat(m.message()).isEqualTo(Trigger.Midi.Message.CONTROL);
            assertThat(m.turns()).isEqualTo(Trigger.Midi.Turns.ABSOLUTE);
            assertThat(m.motor()).isTrue();
            assertThat(m.leds()).containsEntry("off", new Trigger.Midi.Led(12, 127));
        });
        trigger(new Trigger.Gamepad("Pad one", "A"));
        choose("#trigger-gamepad", "Pad one");
        choose("#trigger-part", rombix.core.touch.GamepadParts.LEFT_STICK);
        assertThat(now()).isEqualTo(new Trigger.Gamepad("Pad one", rombix.core.touch.GamepadParts.LEFT_STICK));
    }

    @Test
    void whatTheDeckDoesItselfIsSet() {
        trigger(new Trigger.When(Trigger.When.What.WENT_LIVE, null));
        choose("#trigger-what", Trigger.When.What.GEAR_BACK.words());
        soon(() -> find("#trigger-gear") != null);
        choose("#trigger-gear", "House");
        assertThat(now()).isEqualTo(new Trigger.When(Trigger.When.What.GEAR_BACK, "house"));
    }

    /** Symptom: a name that was undone came back as the values of an HTTP trigger were typed. */
    @Test
    void whatWasUndoneStaysUndoneWhileTheFormIsOpen() {
        trigger(new MessageTrigger.Http("go", List.of()));
        type("#trigger-hook", "bell");
        robot.interact(() -> bench().undo());
        type("#trigger-hook-values", "who");
        assertThat(now()).isEqualTo(new MessageTrigger.Http("go", List.of("who")));
    }
}
