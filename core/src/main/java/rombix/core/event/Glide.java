package rombix.core.event;

import rombix.core.chain.GearStep.Fade.Curve;
import rombix.core.twin.Ramp;

/** A level on its way from a value to another over a time. Each is one fade: compared by identity. Immutable. */
public final class Glide {
    private final Ramp ramp;
    private final double from;
    private final double to;
    private final long startNanos;
    private final long nanos;
    private final Curve curve;

    /** @param nanos how long it takes, more than 0 */
    public Glide(Ramp ramp, double from, double to, long startNanos, long nanos, Curve curve) {
        this.ramp = ramp;
        this.from = from;
        this.to = to;
        this.startNanos = startNanos;
        this.nanos = nanos;
        this.curve = curve;
    }

    /** What makes the orders. */
    public Ramp ramp() {
        return ramp;
    }

    public double from() {
        return from;
    }

    public double to() {
        return to;
    }

    public long startNanos() {
        return startNanos;
    }

    /** How long it takes. */
    public long nanos() {
        return nanos;
    }

    /** How far it has come when a share of its time is over, both from 0 to 1: a curve has its own way of getting there. */
    public double share(double t) {
        return switch (curve) {
            case LINEAR -> t;
            case S_CURVE -> t * t * (3 - 2 * t);
            case EQUAL_POWER -> to > from ? Math.sin(t * Math.PI / 2) : 1 - Math.cos(t * Math.PI / 2);
            case DECIBEL -> from > 0 && to > 0 ? (from * Math.pow(to / from, t) - from) / (to - from) : t;
        };
    }

    /** How it gets there. */
    public Curve curve() {
        return curve;
    }

    /** The value at a moment. */
    public double at(long nowNanos) {
        return from + (to - from) * share(Math.clamp((double) (nowNanos - startNanos) / nanos, 0, 1));
    }
}
