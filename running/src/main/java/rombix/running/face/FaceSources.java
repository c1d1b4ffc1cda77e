package rombix.running.face;

import java.util.Collections;
import java.util.HashSet;
import java.util.Set;
import rombix.core.board.Button;
import rombix.core.board.Control;
import rombix.core.board.Face.Tally;
import rombix.core.board.Question;
import rombix.core.board.State;
import rombix.core.value.Formula;
import rombix.running.state.Changes;

/**
 * What a button's face is made of, so that it is made anew only when some of that changed.
 *
 * @param button its id
 * @param readings the readings, {@code gear:reading}, that it shows
 * @param worded whether values, the time of day or formulas stand in its words: any reading may change those
 * @param ticks whether it changes as seconds pass, though nothing happens
 */
public record FaceSources(String button, Set<String> readings, boolean worded, boolean ticks) {
    public FaceSources {
        readings = Set.copyOf(readings);
    }

    public static FaceSources of(Button button) {
        Set<String> all = new HashSet<>();
        boolean worded = false;
        boolean ticks = button.control() instanceof Control.Items;
        for (State s : button.states()) {
            for (Tally t : s.face().tally()) {
                for (String name : Question.of(t.when()).map(Question::names).orElse(Set.of())) {
                    all.add(name);
                    worded |= name.indexOf(':') < 0; // A value, or the time of day.
                }
            }
            String words = s.face().label() + " " + s.face().second();
            worded |= words.indexOf('{') >= 0;
            ticks |= Formula.ticks(words);
        }
        Control control = button.control();
        worded |= control instanceof Control.Items; // Where it is, values say.
        if (control != null) {
            control.axes().forEach(a -> all.add(a.gear() + ":" + a.reading()));
        }
        return new FaceSources(button.id(), all, worded, ticks);
    }

    /** Whether the face may look otherwise after these changes. */
    public boolean concerned(Changes changes) {
        return changes.buttons().contains(button) || !changes.gear().isEmpty() && (worded || !changes.whole().isEmpty()
                || !Collections.disjoint(readings, changes.readings()));
    }
}
