package rombix.core.check;

import rombix.core.board.Walk;

/**
 * Something that is wrong with a board, or likely to be.
 *
 * @param pointer where, as a JSON pointer into the board
 * @param where in words: whose it is
 * @param message what is wrong and what to do
 * @param button the id of the button that it is about; empty where it is about none
 */
public record Finding(Kind kind, String pointer, String where, String message, String button) {

    /** What kind of thing is wrong. */
    public enum Kind {
        DEAD_REFERENCE("broken reference"), FORMULA("formula"), UNREACHABLE_STATE("unreachable state"), SAME_LOOK(
                "identical states"), ENDLESS_LOOP("endless loop"), NOT_UNDONE(
                        "release doesn't undo"), OUT_OF_RANGE(
                                "out of range"), MOVES_NOTHING("no effect"), TRIGGER_TWICE(
                                        "trigger used twice"), TAKEN("key conflict"), NO_LINK(
                                                "invalid address"), LABEL_TOO_LONG(
                                                        "label too long"), LOW_CONTRAST("low contrast");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    static Finding of(Kind kind, Walk.Owner owner, String pointer, String message) {
        return new Finding(kind, pointer, owner.words(), message, owner.button() == null ? "" : owner.button().id());
    }
}
