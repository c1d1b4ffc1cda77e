package rombix.running.log;

/**
 * A row of the as-run log.
 *
 * @param id its number, rising; 0 before it is kept
 * @param atMillis when it was, on the wall's clock, in milliseconds since 1970
 * @param press what belongs to one press has one number; 0 for what was told by hand
 * @param button the button's id; empty for what was told by hand
 * @param name the button's name as it was then
 * @param who what pressed it, or stopped it: {@code mouse}, {@code key F9}, {@code going live}
 * @param place where the step stands in its chain: {@code press/3}; for a press the gesture
 * @param gear the gear's id; empty for what told none
 * @param words what was done, in words
 * @param lateMicros how much later than due, in microseconds
 * @param message why it failed; empty when it did not
 * @param rehearsed whether it ran on twins only
 */
public record LogRow(long id, long atMillis, Kind kind, long press, String button, String name, String who,
        String place, String gear, String words, long lateMicros, String message, boolean rehearsed) {

    /** What kind of thing happened. */
    public enum Kind {
        PRESS("press"), STEP("step"), ANSWER("answer"), FAULT("fault"), NOTE("note"), STOP("stop"), END("end");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }
}
