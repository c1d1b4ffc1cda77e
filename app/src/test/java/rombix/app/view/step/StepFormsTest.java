package rombix.app.view.step;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import javafx.scene.control.ButtonBase;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import rombix.app.view.window.AtTheWindow;
import rombix.core.chain.Arg;
import rombix.core.chain.DeckStep;
import rombix.core.chain.GearStep;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.chain.StepOptions;
import rombix.core.value.Value;

/** The forms of steps, field by field. */
class StepFormsTest extends AtTheWindow {
    /** Opens a step of a button for editing. */
    private void open(String page, String button, int step) {
        key(KeyCode.ESCAPE);
        robot.interact(() -> {
            bench().showPage(page);
            bench().select(button);
            bench().selectStep(List.of(step));
        });
        soon(() -> find("#step-" + step) != null);
        click(find("#step-" + step));
        soon(() -> find("#manner") != null);
    }

    private void fire(String id) {
        soon(() -> find(id) != null);
        robot.interact(() -> ((ButtonBase) find(id)).fire());
    }

    private Step step(int index) {
        return bench().chain().steps().get(index);
    }

    @Test
    void aStepKeepsWhatIsSaidOfItsFailure() {
        open("doors", "walkway-up", 0);
        fire("#manner-off");
        fire("#manner");
        soon(() -> find("#manner-note") != null);
        type("#manner-note", "Up for the guests");
        choose("#manner-fail", "try again");
        soon(() -> find("#manner-tries") != null);
        type("#manner-tries", "4");
        type("#manner-back-off", "2 s");
        StepOptions how = step(0).how();
        assertThat(how.off()).isTrue();
        assertThat(how.note()).isEqualTo("Up for the guests");
        assertThat(how.fail()).isEqualTo(StepOptions.Fail.RETRY);
        assertThat(how.tries()).isEqualTo(4);
        assertThat(how.backOff()).isEqualTo(2000);
        choose("#manner-fail", "run another chain");
        fire("#into-instead");
        assertThat(bench().cursor().size()).as("the next step goes into the other chain").isGreaterThan(1);
    }

    @Test
    void waitsGroupsAndRepeatsAreSet() {
        open("doors", "walkway-up", 1);
        choose("#arg-wait", "a random time between two");
        soon(() -> find("#arg-most") != null);
        type("#arg-most", "3 s");
        assertThat(((Step.Wait) step(1)).max()).isEqualTo(3000L);
        choose("#arg-wait", "until a time of day");
        soon(() -> find("#arg-clock") != null);
        type("#arg-clock", "23:15");
        assertThat(((Step.Wait) step(1)).clock()).hasToString("23:15");
        open("doors", "doors-open", 0);
        choose("#arg-ends", "with the first (the others are stopped)");
        assertThat(((Step.Together) step(0)).ends()).isEqualTo(Step.Together.Ends.FIRST);
        open("observing", "sting", 0);
        choose("#arg-way", "in order");
        assertThat(((Step.Pick) step(0)).way()).isEqualTo(Step.Pick.Way.IN_TURN);
        open("questions", "applause", 0);
        fire("#arg-times-on");
        assertThat(((Step.Repeat) step(0)).times()).isNull();
    }

    @Test
    void questionsPagesTextsAndStopsAreSet() {
        open("questions", "next-target-ask", 0);
        type("#arg-question", "Where to now?");
        choose("#arg-kind", "a number");
        choose("#arg-into", "Visitors let in");
        DeckStep.Ask ask = (DeckStep.Ask) step(0);
        assertThat(ask.question()).isEqualTo("Where to now?");
        assertThat(ask.kind()).isEqualTo(DeckStep.Ask.AnswerType.NUMBER);
        assertThat(ask.into()).isEqualTo("visitors");
        open("trouble", "test-tone", 0);
        choose("#arg-page", "Close");
        choose("#arg-way", "while the button is held");
        DeckStep.Show show = (DeckStep.Show) step(0);
        assertThat(show.page()).isEqualTo("close");
        assertThat(show.way()).isEqualTo(DeckStep.Show.Way.WHILE_HELD);
        open("questions", "read-out", 0);
        type("#arg-text", "Nothing to read");
        assertThat(((DeckStep.Written) step(0)).text()).isEqualTo("Nothing to read");
        open("trouble", "stop-timers", 0);
        choose("#arg-what", "a button's chains");
        soon(() -> find("#arg-button") != null);
        choose("#arg-button", "Lights out in ten");
        assertThat(((DeckStep.Stop) step(0)).button()).isEqualTo("lights-out");
        open("night", "night-back", 0);
        choose("#arg-where", "the first item");
        assertThat(((DeckStep.Go) step(0)).to().toString()).contains("first");
    }

    private void made(Step... steps) {
        chain("tea-urn", steps);
        open(bench().board().pageOf("tea-urn").orElseThrow().id(), "tea-urn", 0);
    }

    @Test
    void fadesStepsByAndCommandsAreSet() {
        made(new GearStep.Fade("desk", "level", Map.of("channel", Arg.of("music-bed")), "level", null, Arg.of(-10),
                2000,
                GearStep.Fade.Curve.LINEAR, StepOptions.PLAIN, Map.of()));
        fire("#arg-from-on");
        choose("#arg-curve", "S-curve (slow at both ends)");
        assertThat(((GearStep.Fade) step(0)).from()).isNotNull();
        assertThat(((GearStep.Fade) step(0)).curve()).isEqualTo(GearStep.Fade.Curve.S_CURVE);
        made(new GearStep.Nudge("desk", "level", Map.of("channel", Arg.of("music-bed")), "level", Arg.of(1), false,
                StepOptions.PLAIN, Map.of()));
        fire("#arg-wrap");
        assertThat(((GearStep.Nudge) step(0)).wrap()).isTrue();
        made(new GearStep.Do("house", "switch-on", Map.of("plug", Value.of("tea-urn"))));
        fire("#arg-answer");
        soon(() -> find("#arg-answer-ms") != null);
        type("#arg-answer-ms", "4 s");
        assertThat(((GearStep.Do) step(0)).answer()).isEqualTo(4000);
    }

    @Test
    void whatTheDeckItselfDoesIsSet() {
        made(new DeckStep.Use("gate", null, Gesture.PRESS, null, Map.of(), StepOptions.PLAIN, Map.of()));
        choose("#arg-use", "Chain: Dim the desk");
        soon(() -> find("#arg-level") != null);
        assertThat(((DeckStep.Use) step(0)).chain()).isEqualTo("dim-desk");
        made(new DeckStep.Set("visitors", Arg.of(1), StepOptions.PLAIN, Map.of()));
        choose("#arg-value", "Votes for yes");
        assertThat(((DeckStep.Set) step(0)).value()).isEqualTo("yes");
        made(new DeckStep.Stop(DeckStep.Stop.What.TAG, null, "noise", StepOptions.PLAIN, Map.of()));
        choose("#arg-tag", "timers");
        assertThat(((DeckStep.Stop) step(0)).tag()).isEqualTo("timers");
        made(new DeckStep.Show(null, DeckStep.Show.Way.TURN, "gate", "locked", StepOptions.PLAIN, Map.of()));
        choose("#arg-state", "unlocked");
        assertThat(((DeckStep.Show) step(0)).state()).isEqualTo("unlocked");
        made(new DeckStep.Say("Now: ", StepOptions.PLAIN, Map.of()));
        choose("#arg-text-insert", "Value: Target of the night");
        assertThat(((DeckStep.Written) step(0)).text()).contains("{target}").contains("Now: ");
        made(new DeckStep.Go("night", Arg.of(Value.of("next")), StepOptions.PLAIN, Map.of()));
        choose("#arg-list", "The night");
        choose("#arg-where", "a formula…");
        soon(() -> find("#arg-where-formula") != null);
        assertThat(((DeckStep.Go) step(0)).to()).isEqualTo(new Arg.Computed("{night} + 1"));
        made(new DeckStep.Ask("How many?", DeckStep.Ask.AnswerType.NUMBER, List.of(), "visitors", null, 5000L,
                StepOptions.PLAIN, Map.of()));
        type("#arg-default", "12");
        assertThat(((DeckStep.Ask) step(0)).preset()).isEqualTo(Value.of(12));
    }
}
