package rombix.core.sound;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Iterator;
import java.util.List;

/** Clips that play at once, made into one stream, block by block. Owned by one thread; it does not block. */
public final class Mix {
    /** What ends at once goes down within so many frames, so that it does not click. */
    public static final long SOON = Clip.RATE / 50;

    /** One that plays now; {@code left} is -1 where it has no end. */
    public record Playing(String name, long ticket, long left) {
    }

    private final List<Voice> voices = new ArrayList<>();
    private double level = 1;
    private double aim = 1;

    /**
     * Begins to play a clip with the next frame.
     *
     * @param beside whether the same clip, where it plays, goes on beside it
     */
    public void play(long ticket, Cue cue, boolean beside) {
        if (!beside) {
            stop(cue.name(), SOON);
        }
        voices.add(new Voice(ticket, cue));
    }

    /** A clip goes down within so many frames. */
    public void stop(String name, long frames) {
        voices.stream().filter(v -> v.cue.name().equals(name)).forEach(v -> v.stop(frames));
    }

    /** Fades out what was started with this ticket. */
    public void stopTicket(long ticket) {
        voices.stream().filter(v -> v.ticket == ticket).forEach(v -> v.stop(SOON));
    }

    /** All goes down within so many frames. */
    public void stopAll(long frames) {
        voices.forEach(v -> v.stop(frames));
    }

    /** The level of a clip, wherever it plays. */
    public void level(String name, double decibels) {
        voices.stream().filter(v -> v.cue.name().equals(name)).forEach(v -> v.level(decibels));
    }

    /** The level of all, from the next block on. */
    public void level(double decibels) {
        aim = Clip.gain(decibels);
    }

    public boolean idle() {
        return voices.isEmpty();
    }

    public List<Playing> playing() {
        return voices.stream().map(v -> new Playing(v.cue.name(), v.ticket, v.left())).toList();
    }

    /**
     * Makes the next frames.
     *
     * @param to gets left and right in turn; what was there is gone
     * @return the tickets of those that ended with it, in the order in which they began
     */
    public List<Long> render(float[] to, int frames) {
        Arrays.fill(to, 0, 2 * frames, 0);
        boolean over = voices.stream().anyMatch(v -> v.cue.under() == 0 && !v.stopping());
        for (Voice voice : voices) {
            voice.add(to, frames, over && voice.cue.under() != 0);
        }
        double step = (aim - level) / frames;
        for (int i = 0; i < frames && (step != 0 || level != 1); i++) {
            level += step;
            to[2 * i] *= (float) level;
            to[2 * i + 1] *= (float) level;
        }
        level = aim;
        List<Long> ended = new ArrayList<>();
        for (Iterator<Voice> each = voices.iterator(); each.hasNext();) {
            Voice voice = each.next();
            if (voice.ended()) {
                each.remove();
                ended.add(voice.ticket);
            }
        }
        return ended;
    }
}
