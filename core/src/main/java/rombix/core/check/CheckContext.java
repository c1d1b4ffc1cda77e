package rombix.core.check;

import java.util.Collection;
import java.util.List;
import rombix.core.twin.Twin;

/** What is known beyond the board itself. */
public interface CheckContext {
    /** Nothing: gear has said nothing, and every icon is taken for one that there is. */
    CheckContext NONE = new CheckContext() {
    };

    /** What a gear says now; what it lists is checked as well. */
    default Twin.Readings readings(String gear) {
        return Twin.Readings.NONE;
    }

    /** Whether there is an icon of this name. */
    default boolean icon(String name) {
        return true;
    }

    /** The names of all icons, for the nearest to one that there is not. */
    default Collection<String> icons() {
        return List.of();
    }
}
