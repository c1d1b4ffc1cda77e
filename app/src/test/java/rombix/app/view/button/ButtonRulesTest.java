package rombix.app.view.button;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import javafx.scene.control.ButtonBase;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import rombix.app.view.window.AtTheWindow;
import rombix.core.board.Button;
import rombix.core.board.State;
import rombix.core.chain.DeckStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.StepOptions;

/** The rules of a button, and its context menu, each of them worked once. */
class ButtonRulesTest extends AtTheWindow {
    private void select(String button) {
        robot.interact(() -> {
            bench().select(button);
            tile(button).requestFocus();
        });
    }

    private void fire(String id) {
        soon(() -> find(id) != null);
        robot.interact(() -> ((ButtonBase) find(id)).fire());
    }

    private void menu(String button, String item) {
        select(button);
        key(KeyCode.CONTEXT_MENU);
        fire(item);
    }

    private Button button(String id) {
        return bench().board().button(id).orElseThrow();
    }

    @Test
    void eachRuleIsKept() {
        select("gate");
        key(KeyCode.F2, KeyCode.SHIFT);
        soon(() -> find("#rules-popover") != null);
        choose("#rule-busy", "run again afterwards");
        choose("#rule-guard", "hold to fire");
        soon(() -> find("#rule-guard-ms") != null);
        type("#rule-guard-ms", "0.5 s");
        choose("#rule-then", "stay in this state");
        choose("#rule-fall-back", "back to unlocked");
        soon(() -> find("#rule-fall-back-ms") != null);
        type("#rule-fall-back-ms", "5 s");
        fire("#rule-springs-back");
        fire("#rule-press-also");
        type("#rule-repeat", "0.3 s");
        type("#rule-tag", "doors");
        type("#rule-long", "0.8 s");
        type("#rule-double", "0.4 s");
        Button gate = button("gate");
        State locked = gate.states().getFirst();
        assertThat(gate.busy()).isEqualTo(Button.Busy.QUEUE);
        assertThat(gate.guard()).isEqualTo(new Button.Guard(Button.Guard.Kind.HOLD, 500));
        assertThat(locked.then()).isEqualTo(State.STAY);
        assertThat(locked.fallBack()).isEqualTo(new State.FallBack("unlocked", 5000));
        assertThat(gate.springsBack() && gate.pressAlso()).isTrue();
        assertThat(gate.repeatMillis()).isEqualTo(300);
        assertThat(gate.tag()).isEqualTo("doors");
        assertThat(bench().board().longPressMillis()).isEqualTo(800);
        assertThat(bench().board().doublePressMillis()).isEqualTo(400);
    }

    @Test
    void theContextMenuDoesWhatItSays() {
        menu("next-cue", "#menu-wider");
        assertThat(button("next-cue").width()).isEqualTo(2);
        menu("next-cue", "#menu-narrower");
        assertThat(button("next-cue").width()).isEqualTo(1);
        menu("next-cue", "#menu-taller");
        assertThat(button("next-cue").height()).isEqualTo(2);
        menu("next-cue", "#menu-lower");
        assertThat(button("next-cue").height()).isEqualTo(1);
        long all = bench().board().buttons().count();
        menu("next-cue", "#menu-double");
        assertThat(bench().board().buttons().count()).isEqualTo(all + 1);
        menu("next-cue", "#menu-copy");
        menu("gate", "#menu-paste");
        fire("#paste-whole");
        assertThat(bench().board().buttons().count()).isEqualTo(all + 2);
        menu("next-cue", "#menu-page");
        fire("#to-page-close");
        assertThat(bench().board().pageOf("next-cue").orElseThrow().id()).isEqualTo("close");
        menu("tea-urn", "#menu-face");
        soon(() -> find("#face-popover") != null);
        key(KeyCode.ESCAPE);
        menu("tea-urn", "#menu-delete");
        soon(() -> bench().board().button("tea-urn").isEmpty());
        undoAll();
        assertThat(bench().board().buttons().count()).isEqualTo(all);
    }

    @Test
    void theStepsOfADeletedButtonCanUseAnotherOne() {
        chain("tea-urn", new DeckStep.Use("gate", null, Gesture.PRESS, null, Map.of(),
                StepOptions.PLAIN, Map.of()));
        menu("gate", "#menu-delete");
        soon(() -> find("#confirm") != null);
        choose("#confirm-instead", button("next-cue").name());
        assertThat(bench().board().button("gate")).isEmpty();
        assertThat(button("tea-urn").states().getFirst().chain(Gesture.PRESS).steps().getFirst())
                .isInstanceOfSatisfying(DeckStep.Use.class, u -> assertThat(u.button()).isEqualTo(
                        "next-cue"));
    }
}
