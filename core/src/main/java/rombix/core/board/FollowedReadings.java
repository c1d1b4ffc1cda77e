package rombix.core.board;

/**
 * The readings that a board has an eye on: by states and lamps of its buttons, its levels, triggers, waits, conditions
 * and texts. Safe to use from any thread.
 */
public final class FollowedReadings {
    private final Board board;
    /** All that may name a reading; read when it is first asked for, as few boards have gear that is asked. */
    private volatile String all = "";

    public FollowedReadings(Board board) {
        this.board = board;
    }

    /** Whether a reading of a gear is followed, by its id, or one of a family, by how their ids begin. */
    public boolean has(String gear, String beginning) {
        if (all.isEmpty()) {
            all = board.pages() + " " + board.chains() + " " + board.values();
        }
        return all.contains("gear=%s, reading=%s".formatted(gear, beginning)) // As conditions and levels are written,
                || all.contains("{%s:%s".formatted(gear, beginning)); // and as formulas and texts are.
    }
}
