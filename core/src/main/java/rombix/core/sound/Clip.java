package rombix.core.sound;

import java.nio.FloatBuffer;

/**
 * A sound that can be played from anywhere: stereo samples from -1 to 1, left and right in turn, {@value #RATE} of each
 * a second. Immutable, so it is safe to use from any thread.
 */
public final class Clip {
    /** Frames a second: what all is mixed at. */
    public static final int RATE = 48_000;
    /** Samples a frame. */
    public static final int CHANNELS = 2;

    private static final double SILENCE = -60;
    private static final int LEVELS = 16;

    private final FloatBuffer samples;
    private final int frames;

    /** @param samples left and right in turn; it is not to be changed any more */
    public Clip(FloatBuffer samples) {
        this.samples = samples.asReadOnlyBuffer();
        this.frames = samples.limit() / CHANNELS;
    }

    public static Clip of(float... samples) {
        return new Clip(FloatBuffer.wrap(samples.clone()));
    }

    public int frames() {
        return frames;
    }

    public double seconds() {
        return (double) frames / RATE;
    }

    /** @param channel 0 for the left, 1 for the right */
    float at(int frame, int channel) {
        return samples.get(frame * CHANNELS + channel);
    }

    /** Adds so many of its frames to others. */
    void add(float[] to, int count, int from, float gain) {
        for (int i = 0, s = from * CHANNELS; i < count * CHANNELS; i++, s++) {
            to[i] += samples.get(s) * gain;
        }
    }

    /**
     * How loud it is along its length: so many figures from 0 to f, each the highest of its part, f being full scale.
     * The scale is that of a square root, so that what is quiet can be seen.
     */
    public String outline(int parts) {
        StringBuilder outline = new StringBuilder();
        for (int p = 0; p < parts; p++) {
            int from = (int) ((long) frames * p / parts);
            int to = Math.max(from + 1, (int) ((long) frames * (p + 1) / parts));
            float highest = 0;
            for (int f = from; f < Math.min(to, frames); f++) {
                highest = Math.max(highest, Math.max(Math.abs(at(f, 0)), Math.abs(at(f, 1))));
            }
            outline.append(Character.forDigit((int) Math.min(LEVELS - 1, Math.ceil(Math.sqrt(highest) * (LEVELS - 1))),
                    LEVELS));
        }
        return outline.toString();
    }

    /** A time as whole frames, to the nearest. */
    public static long frames(double seconds) {
        return Math.round(seconds * RATE);
    }

    /** What a level in decibels multiplies samples by; 0 dB leaves them as they are, {@value #SILENCE} dB is silence. */
    public static double gain(double decibels) {
        return decibels <= SILENCE ? 0 : Math.pow(10, decibels / 20);
    }
}
