package rombix.core.card.value;

import com.fasterxml.jackson.annotation.JsonProperty;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/**
 * One number of a colour, as gear tells colours in several ways: red, green and blue (0 to 255 each); hue (degrees),
 * saturation and brightness (percent); the chromaticity x and y (CIE 1931, from 0 to 1, with the primaries and the white
 * of sRGB); or a colour temperature in mireds (a million divided by kelvins).
 */
public enum ColourPart {
    @JsonProperty("red")
    RED, @JsonProperty("green")
    GREEN, @JsonProperty("blue")
    BLUE, @JsonProperty("hue")
    HUE, @JsonProperty("saturation")
    SATURATION, @JsonProperty("brightness")
    BRIGHTNESS, @JsonProperty("x")
    X, @JsonProperty("y")
    Y, @JsonProperty("mireds")
    MIREDS;

    private static final List<Set<ColourPart>> WHOLE = List.of(Set.of(RED, GREEN, BLUE), Set.of(HUE, SATURATION),
            Set.of(
                    HUE, SATURATION, BRIGHTNESS),
            Set.of(X, Y), Set.of(X, Y, BRIGHTNESS), Set.of(MIREDS), Set.of(MIREDS,
                    BRIGHTNESS));

    /**
     * Refuses parts that make no colour.
     *
     * @throws IllegalArgumentException in plain words
     */
    public static void together(Set<ColourPart> parts) {
        if (!WHOLE.contains(parts)) {
            throw new IllegalArgumentException(
                    "the parts of a colour are red, green and blue; hue and saturation; x and y; or mireds; the last three"
                            + " with brightness or without");
        }
    }

    /** As cards write it. */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }

    /**
     * This part of a colour.
     *
     * @param rgb red, green and blue, from 0 to 1
     */
    double of(double[] rgb) {
        return switch (this) {
            case RED -> rgb[0] * 255;
            case GREEN -> rgb[1] * 255;
            case BLUE -> rgb[2] * 255;
            case HUE -> hue(rgb);
            case SATURATION -> most(rgb) == 0 ? 0 : 100 * (most(rgb) - least(rgb)) / most(rgb);
            case BRIGHTNESS -> 100 * most(rgb);
            case X -> xy(rgb)[0];
            case Y -> xy(rgb)[1];
            case MIREDS -> 1e6 / kelvins(xy(rgb));
        };
    }

    /** The colour that parts make, red, green and blue from 0 to 1; without brightness as bright as it can be. */
    static double[] colour(Map<ColourPart, Double> parts) {
        double bright = Math.clamp(parts.getOrDefault(BRIGHTNESS, 100.0) / 100, 0, 1);
        if (parts.containsKey(RED)) {
            return new double[]{unit(part(parts, RED) / 255), unit(part(parts, GREEN) / 255), unit(part(parts, BLUE)
                    / 255)};
        }
        if (parts.containsKey(HUE)) {
            return ofHue(part(parts, HUE), unit(part(parts, SATURATION) / 100), bright);
        }
        double[] xy = parts.containsKey(X)
                ? new double[]{part(parts, X), part(parts, Y)}
                : ofKelvins(1e6 / part(parts, MIREDS));
        double[] rgb = ofXy(xy);
        return new double[]{rgb[0] * bright, rgb[1] * bright, rgb[2] * bright};
    }

    private static double part(Map<ColourPart, Double> parts, ColourPart part) {
        return parts.getOrDefault(part, 0.0);
    }

    private static double unit(double x) {
        return Math.clamp(x, 0, 1);
    }

    private static double most(double[] rgb) {
        return Math.max(rgb[0], Math.max(rgb[1], rgb[2]));
    }

    private static double least(double[] rgb) {
        return Math.min(rgb[0], Math.min(rgb[1], rgb[2]));
    }

    private static double hue(double[] rgb) {
        double span = most(rgb) - least(rgb);
        if (span == 0) {
            return 0;
        }
        double sixth = most(rgb) == rgb[0]
                ? (rgb[1] - rgb[2]) / span
                : most(rgb) == rgb[1] ? (rgb[2] - rgb[0]) / span + 2 : (rgb[0] - rgb[1]) / span + 4;
        return (sixth * 60 + 360) % 360;
    }

    private static double[] ofHue(double hue, double saturation, double bright) {
        double[] rgb = new double[3];
        int[] offsets = {5, 3, 1};
        for (int i = 0; i < 3; i++) {
            double k = (offsets[i] + (hue % 360 + 360) % 360 / 60) % 6;
            rgb[i] = bright - bright * saturation * Math.clamp(Math.min(k, 4 - k), 0, 1);
        }
        return rgb;
    }

    /** IEC 61966-2-1. */
    private static double linear(double c) {
        return c <= 0.04045 ? c / 12.92 : Math.pow((c + 0.055) / 1.055, 2.4);
    }

    private static double coded(double c) {
        return c <= 0.0031308 ? c * 12.92 : 1.055 * Math.pow(c, 1 / 2.4) - 0.055;
    }

    private static double[] xy(double[] rgb) {
        double r = linear(rgb[0]);
        double g = linear(rgb[1]);
        double b = linear(rgb[2]);
        double x = 0.4124 * r + 0.3576 * g + 0.1805 * b;
        double y = 0.2126 * r + 0.7152 * g + 0.0722 * b;
        double z = 0.0193 * r + 0.1192 * g + 0.9505 * b;
        double sum = x + y + z;
        return sum == 0 ? new double[]{0.3127, 0.3290} : new double[]{x / sum, y / sum};
    }

    private static double[] ofXy(double[] xy) {
        double y = Math.max(xy[1], 1e-6);
        double big = xy[0] / y;
        double z = (1 - xy[0] - xy[1]) / y;
        double[] rgb = {3.2406 * big - 1.5372 - 0.4986 * z, -0.9689 * big + 1.8758 + 0.0415 * z, 0.0557 * big - 0.2040
                + 1.0570 * z};
        double top = Math.max(most(rgb), 1e-9);
        for (int i = 0; i < 3; i++) {
            rgb[i] = unit(coded(Math.max(0, rgb[i] / top)));
        }
        return rgb;
    }

    /** McCamy, 1992: within 2 K from 2856 to 6500 K. */
    private static double kelvins(double[] xy) {
        double n = (xy[0] - 0.3320) / (0.1858 - xy[1]);
        return 449 * n * n * n + 3525 * n * n + 6823.3 * n + 5520.33;
    }

    /** Kim and others, 2002: the Planckian locus from 1667 to 25000 K. */
    private static double[] ofKelvins(double kelvins) {
        double t = Math.clamp(kelvins, 1667, 25_000);
        double x = t <= 4000
                ? -0.2661239e9 / (t * t * t) - 0.2343589e6 / (t * t) + 0.8776956e3 / t + 0.179910
                : -3.0258469e9 / (t * t * t) + 2.1070379e6 / (t * t) + 0.2226347e3 / t + 0.240390;
        double y = t <= 2222
                ? -1.1063814 * x * x * x - 1.34811020 * x * x + 2.18555832 * x - 0.20219683
                : t <= 4000
                        ? -0.9549476 * x * x * x - 1.37418593 * x * x + 2.09137015 * x - 0.16748867
                        : 3.0817580 * x * x * x - 5.87338670 * x * x + 3.75112997 * x - 0.37001483;
        return new double[]{x, y};
    }
}
