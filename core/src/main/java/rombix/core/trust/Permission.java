package rombix.core.trust;

import java.util.function.Function;
import java.util.function.Predicate;
import rombix.core.board.Rig;

/**
 * What a board that is played may do. Immutable; safe to use from any thread.
 *
 * @param reaches whether a gear may be reached, by its id
 * @param grants what else it may do, for each version of the board
 */
public record Permission(Predicate<String> reaches, Function<Rig, Grants> grants) {
    /** A board that is trusted: all that it asks for. */
    public static final Permission TRUSTED = new Permission(_ -> true, Grants::of);
    /** A guest: nothing. */
    public static final Permission GUEST = new Permission(_ -> false, _ -> Grants.NONE);
}
