package rombix.app.view.gear;

import rombix.core.traffic.Traffic;

/** Where the sheet of gear leads to; nowhere as long as there is no window around it. */
public interface GearWays {
    /** Opens the card of a gear to be edited. */
    default void card(String gear) {
    }

    /** Adds gear that no card describes yet, and opens its card. */
    default void add() {
    }

    /** Opens the patch of a gear. */
    default void patch(String gear) {
    }

    /** How many packets a gear was sent and has sent. */
    default Traffic.Counts counts(String gear) {
        return Traffic.Counts.NONE;
    }
}
