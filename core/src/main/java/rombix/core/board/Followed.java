package rombix.core.board;

/**
 * The readings that a board has an eye on: by states and lamps of its buttons, its levels, triggers, waits, conditions
 * and texts. Immutable.
 */
public final class Followed {
    private final String all;

    /** @param board read once; all that may name a reading stands in its pages, its chains and its values */
    public Followed(Board board) {
        all = board.pages() + " " + board.chains() + " " + board.values();
    }

    /** Whether a reading of a gear is followed, by its id, or one of a family, by how their ids begin. */
    public boolean has(String gear, String beginning) {
        return all.contains("gear=%s, reading=%s".formatted(gear, beginning)) // As conditions and levels are written,
                || all.contains("{%s:%s".formatted(gear, beginning)); // and as formulas and texts are.
    }
}
