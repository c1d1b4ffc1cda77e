package rombix.running.input;

import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import rombix.core.computer.Input;
import rombix.core.touch.Touch;

/** Triggers from outside the window. Safe to use from any thread. */
public interface Touches {
    /**
     * Where touches can come from now.
     *
     * @param open the MIDI ports that are listened to, and {@code ports} all that there are
     * @param gamepads the gamepads and joysticks that are plugged in, as far as any is looked for
     * @param keysSeen whether keys are seen while another application is in front, and {@code keys} why not, in words
     * @param oscPort where OSC messages are awaited, -1 where they are not, and {@code osc} why not, in words
     * @param senders the computers from which OSC is taken, beside this one
     * @param armed whether they press now: in Live and in Rehearse
     * @param dropped how many pushes came faster than they could be taken
     */
    record Sources(Set<String> open, Set<String> ports, Set<String> gamepads, boolean keysSeen, String keys,
            int oscPort, String osc, List<String> senders,
            boolean armed, int dropped) {
        /** Where there is nothing. */
        public static final Sources NONE = new Sources(Set.of(), Set.of(), Set.of(), false, "", -1, "", List.of(),
                false, 0);
    }

    Sources sources();

    /** Whether keys are seen whatever application is in front, this one included. */
    boolean keysSeen();

    /** Hands the next touches to a learner, on the interface's thread, and to no button; null ends that. */
    void learn(@Nullable Consumer<Touch> learner);

    /** Hands all that hands do at this computer to another, on the interface's thread; null ends that. */
    void record(@Nullable Consumer<Input> to);

    /**
     * A key that works Rombix itself, whatever application is in front; it presses no button then.
     *
     * @param key as boards write it; empty for none
     * @param pressed done on the interface's thread
     */
    void summon(String key, Runnable pressed);

    /** Nothing touches from outside. */
    Touches NONE = new Touches() {
        @Override
        public Sources sources() {
            return Sources.NONE;
        }

        @Override
        public boolean keysSeen() {
            return false;
        }

        @Override
        public void learn(@Nullable Consumer<Touch> learner) {
            // Nothing will come.
        }

        @Override
        public void record(@Nullable Consumer<Input> to) {
            // Nothing will come.
        }

        @Override
        public void summon(String key, Runnable pressed) {
            // Nothing will come.
        }
    };
}
