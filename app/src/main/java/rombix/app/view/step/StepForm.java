package rombix.app.view.step;

import java.util.List;
import javafx.scene.Node;
import rombix.app.view.common.Desk;
import rombix.core.chain.DeckStep;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;

/** What of a step can be set, each kind with controls of its own. A change goes to the step as it is by then. */
final class StepForm {
    private StepForm() {
    }

    /** @param anew builds the form again, after a change of what there is to set */
    static List<Node> of(Step step, Desk desk, List<Integer> path, Runnable anew) {
        return switch (step) {
            case GearStep.Do _,GearStep.Fade _,GearStep.Nudge _ -> new GearStepForm(desk, path, anew).of(step);
            case Step.Wait _,Step.Together _,Step.Pick _,Step.If _,Step.Repeat _,Step.ForAWhile _,DeckStep.Ask _ ->
                new FlowStepForm(desk, path, anew).of(step);
            case DeckStep _ ->
                new BoardStepForm(desk, path, anew).of(
                        step);
        };
    }
}
