package rombix.app.view.window;

import java.util.List;
import rombix.app.edit.StepEdits;
import rombix.app.view.score.ScoreDrawing;
import rombix.app.view.score.ScoreView;
import rombix.app.view.window.Command.Where;

/** What can be done in a score, with its keys: in Build, and where a button is edited on air. */
final class ScoreCommands {
    private ScoreCommands() {
    }

    /** What can be done to the chain that a score shows. */
    static void chain(Commands to, ScoreView score) {
        add(to, Where.BUILD, "Add a step by typing", score::focusFinder, "Slash", "Shift+7", "Divide", "Insert");
        add(to, Where.BUILD, "Add a step that always runs at the end", score::always, "Alt+E");
        add(to, Where.BUILD, "Next state of the button", () -> score.head().stateBy(1), "Alt+Page Down");
        add(to, Where.BUILD, "Previous state of the button", () -> score.head().stateBy(-1), "Alt+Page Up");
        add(to, Where.BUILD, "Add a state", score.head()::addState, "Alt+Insert");
        add(to, Where.BUILD, "Delete the state", score.head()::removeState, "Alt+Delete");
        add(to, Where.BUILD, "Choose the gesture", score.head()::chooseGesture, "Alt+G");
        add(to, Where.BUILD, "Edit the rules of the button", score.head()::editRules, "Shift+F2");
        add(to, Where.BUILD, "Make the opposite", score::opposite, "Alt+O");
        add(to, Where.BUILD, "Switch between list and score", score::toggleList, "F4");
    }

    /**
     * What can be done to the steps that a score shows.
     *
     * @param paste pastes what was copied here or elsewhere
     */
    static void steps(Commands to, ScoreView score, StepEdits steps, Runnable paste) {
        ScoreDrawing drawing = score.drawing();
        add(to, Where.STEPS, "Copy the selected steps", steps::copy, "Ctrl+C");
        add(to, Where.STEPS, "Cut the selected steps", steps::cut, "Ctrl+X");
        add(to, Where.STEPS, "Paste steps after this one", paste, "Ctrl+V");
        add(to, Where.STEPS, "Duplicate the selected steps", steps::duplicate, "Ctrl+D");
        add(to, Where.STEPS, "Select all steps", drawing::selectAll, "Ctrl+A");
        add(to, Where.STEPS, "Delete the selected steps", steps::delete, "Delete", "Backspace");
        add(to, Where.STEPS, "Switch the selected steps on or off", steps::switchOff, "O");
        add(to, Where.STEPS, "Wrap the selected steps", score::wrap, "Alt+Shift+W");
        add(to, Where.STEPS, "Move the step earlier", () -> steps.moveBy(-1), "Alt+Left");
        add(to, Where.STEPS, "Move the step later", () -> steps.moveBy(1), "Alt+Right");
        add(to, Where.STEPS, "Move the step into the next one", steps::moveIn, "Alt+Down");
        add(to, Where.STEPS, "Move the step out one level", steps::moveOut, "Alt+Up");
        add(to, Where.STEPS, "Zoom in", () -> drawing.zoomBy(1), "Ctrl+Equals", "Ctrl+Plus");
        add(to, Where.STEPS, "Zoom out", () -> drawing.zoomBy(-1), "Ctrl+Minus");
        add(to, Where.STEPS, "Zoom to fit", () -> drawing.zoomBy(0), "Ctrl+0");
    }

    private static void add(Commands to, Where where, String words, Runnable run, String... keys) {
        to.add(new Command(() -> words, List.of(keys), where, run));
    }
}
