package rombix.core.sound;

/** One clip on its way. Owned by whoever owns its {@link Mix}. */
final class Voice {
    /** A level that is changed gets there within so many frames, so that no step is heard. */
    private static final int SMOOTH = Clip.RATE / 100;
    private static final int DOWN = Clip.RATE * 15 / 100;
    private static final int UP = Clip.RATE * 6 / 10;

    final long ticket;
    final Cue cue;
    private final double below;
    private double level;
    private double aim;
    private double step;
    private double ducked = 1;
    private long played;
    private long at;
    /** How many frames are left of a stop, and how many it has; none of either while it is not stopped. */
    private long leaving = -1;
    private long leave;

    Voice(long ticket, Cue cue) {
        this.ticket = ticket;
        this.cue = cue;
        this.at = cue.from();
        this.below = Clip.gain(-Math.abs(cue.under()));
        this.level = Clip.gain(cue.decibels());
        this.aim = level;
    }

    void level(double decibels) {
        aim = Clip.gain(decibels);
        step = (aim - level) / SMOOTH;
    }

    /** It goes down within so many frames; a stop that is on its way is only made shorter. */
    void stop(long frames) {
        if (leaving < 0 || frames < leaving) {
            leave = Math.max(1, frames);
            leaving = leave;
        }
    }

    boolean stopping() {
        return leaving >= 0;
    }

    boolean ended() {
        return leaving == 0 || !cue.again() && at >= cue.to();
    }

    /** How many frames it still plays; -1 where that has no end. */
    long left() {
        return leaving >= 0 ? leaving : cue.again() ? -1 : cue.to() - at;
    }

    /** Adds its next frames to those of the others, as long as it has any. */
    void add(float[] to, int frames, boolean turnedDown) {
        Clip clip = cue.clip();
        if (steady(frames, turnedDown)) {
            float gain = (float) (level * ducked);
            clip.add(to, frames, (int) at, gain);
            played += frames;
            at += frames;
            if (at == cue.to() && cue.again()) {
                at = cue.from();
            }
            return;
        }
        double duckStep = (1 - below) / (turnedDown ? DOWN : UP);
        for (int i = 0; i < frames && !ended(); i++) {
            if (level != aim) {
                level = Math.abs(aim - level) <= Math.abs(step) ? aim : level + step;
            }
            ducked = turnedDown ? Math.max(below, ducked - duckStep) : Math.min(1, ducked + duckStep);
            double gain = level * ducked * shape();
            int frame = (int) at;
            to[2 * i] += (float) (clip.at(frame, 0) * gain);
            to[2 * i + 1] += (float) (clip.at(frame, 1) * gain);
            played++;
            at++;
            if (at == cue.to() && cue.again()) {
                at = cue.from();
            }
            if (leaving > 0) {
                leaving--;
            }
        }
    }

    /** Whether nothing about its loudness changes within so many frames, nor does it come to its end. */
    private boolean steady(int frames, boolean turnedDown) {
        return level == aim && ducked == (turnedDown ? below : 1) && leaving < 0 && played >= cue.in()
                && at + frames <= (cue.again() ? cue.to() : cue.to() - cue.out());
    }

    /** What its fades make of the present frame: straight lines, exact to the sample. */
    private double shape() {
        double shape = 1;
        if (played < cue.in()) {
            shape = (double) played / cue.in();
        }
        long end = cue.to() - at;
        if (!cue.again() && end < cue.out()) {
            shape *= (double) end / cue.out();
        }
        return leaving < 0 ? shape : shape * leaving / leave;
    }
}
