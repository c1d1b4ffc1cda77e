package rombix.app.view;

import rombix.core.board.Rig;
import rombix.core.engine.Event;
import rombix.core.engine.Known;

/** What plays a board: on its gear, or in rehearsal on twins. Safe to use from any thread. */
public interface Player {
    /** Plays a board from now on. */
    void load(Rig rig);

    void post(Event event);

    /** Plays on twins only, or on the gear again. What runs is stopped. */
    void rehearse(boolean on);

    /** What is known of the gear now. */
    Known known();
}
