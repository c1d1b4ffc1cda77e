package rombix.core.sound;

/**
 * How a clip is to be played.
 *
 * @param name the clip's, by which it is stopped and turned down
 * @param decibels its level
 * @param again whether it begins anew whenever it has come to its end
 * @param from the first frame, and {@code to} the one behind the last; 0 for the clip's end
 * @param in how many frames it takes to come up, and {@code out} to go down before its end
 * @param under how far it is turned down while others play that are not themselves turned down, in decibels
 */
public record Cue(String name, Clip clip, double decibels, boolean again, long from, long to, long in, long out,
        double under) {
    public Cue {
        to = to <= 0 ? clip.frames() : Math.min(to, clip.frames());
        if (from < 0 || from >= to) {
            throw new IllegalArgumentException("“%s” is empty between %.3f s and %.3f s".formatted(name,
                    (double) from / Clip.RATE, (double) to / Clip.RATE));
        }
        // Where both do not find room, they share what there is.
        long length = to - from;
        if (in + out > length && !again) {
            in = Math.round((double) length * in / (in + out));
            out = length - in;
        }
    }

    /** The whole clip, at its own level, once. */
    public static Cue of(String name, Clip clip) {
        return new Cue(name, clip, 0, false, 0, 0, 0, 0, 0);
    }

    long length() {
        return to - from;
    }
}
