package rombix.app.view.gear;

import rombix.core.traffic.Traffic;

/** Where one goes from the gear's window; nowhere as long as there is no window around it. */
public interface GearWays {
    /** To the packets of a gear; to those in vain alone where that is so. */
    default void traffic(String gear, boolean vain) {
    }

    /** To the card of a gear. */
    default void card(String gear) {
    }

    /** To gear that no card describes yet. */
    default void add() {
    }

    /** To the patch of a gear. */
    default void patch(String gear) {
    }

    /** To gear that says by itself that it is here. */
    default void found() {
    }

    /** How much went to and fro of a gear's. */
    default Traffic.Counts counts(String gear) {
        return Traffic.Counts.NONE;
    }

    /** To why a gear cannot be worked. */
    default void why(String gear) {
    }
}
