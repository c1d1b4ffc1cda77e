package rombix.links.dmx;

import java.util.Arrays;
import org.jspecify.annotations.Nullable;
import rombix.core.chain.GearStep.Fade.Curve;
import rombix.core.event.Glide;

/**
 * The levels of a universe that move by themselves, in the figures of the wire. Plain arrays side by side: a link wakes
 * up 44 times a second with cold caches, and thousands of levels are gone through each time. Guarded by the link's lock.
 */
final class Moving {
    private int count;
    private @Nullable Glide[] glides = new Glide[16];
    private int[] slots = new int[16];
    private float[] from = new float[16];
    private float[] to = new float[16];
    private long[] starts = new long[16];
    private float[] perNano = new float[16];
    /** 0 a straight line, 1 an S, 2 whatever the glide itself says. */
    private byte[] curves = new byte[16];

    boolean isEmpty() {
        return count == 0;
    }

    void add(Glide glide, int slot, double first, double last) {
        if (count == slots.length) {
            int room = count * 2;
            glides = Arrays.copyOf(glides, room);
            slots = Arrays.copyOf(slots, room);
            from = Arrays.copyOf(from, room);
            to = Arrays.copyOf(to, room);
            starts = Arrays.copyOf(starts, room);
            perNano = Arrays.copyOf(perNano, room);
            curves = Arrays.copyOf(curves, room);
        }
        glides[count] = glide;
        slots[count] = slot;
        from[count] = (float) first;
        to[count] = (float) last;
        starts[count] = glide.startNanos();
        perNano[count] = 1f / glide.nanos();
        curves[count] = (byte) (glide.curve() == Curve.LINEAR ? 0 : glide.curve() == Curve.S_CURVE ? 1 : 2);
        count++;
    }

    /** Puts each where it should be by now, and lets go of those that have arrived. */
    void move(long now, byte[] levels) {
        boolean arrived = false;
        for (int i = 0; i < count; i++) {
            float t = Math.clamp((now - starts[i]) * perNano[i], 0f, 1f);
            arrived |= t == 1f;
            Glide glide = curves[i] == 2 ? glides[i] : null;
            float share = curves[i] == 0 ? t : glide == null ? t * t * (3 - 2 * t) : (float) glide.share(t);
            levels[slots[i]] = (byte) (int) (from[i] + (to[i] - from[i]) * share + 0.5f);
        }
        if (arrived) {
            for (int i = count - 1; i >= 0; i--) {
                if ((now - starts[i]) * perNano[i] >= 1f) {
                    remove(i);
                }
            }
        }
    }

    boolean has(Glide glide) {
        return Arrays.asList(glides).subList(0, count).contains(glide);
    }

    void remove(Glide glide) {
        for (int i = count - 1; i >= 0; i--) {
            if (glides[i] == glide) {
                remove(i);
            }
        }
    }

    void removeSlot(int slot) {
        for (int i = count - 1; i >= 0; i--) {
            if (slots[i] == slot) {
                remove(i);
            }
        }
    }

    private void remove(int i) {
        int last = --count;
        glides[i] = glides[last];
        slots[i] = slots[last];
        from[i] = from[last];
        to[i] = to[last];
        starts[i] = starts[last];
        perNano[i] = perNano[last];
        curves[i] = curves[last];
        glides[last] = null;
    }
}
