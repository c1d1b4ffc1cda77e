package rombix.core.board;

/** The contrast of two colours, by the formula of WCAG 2.2, section 1.4.3. */
public final class Contrast {
    /** The least for text. */
    public static final double TEXT = 4.5;
    /** The least for icons. */
    public static final double ICON = 3;
    private static final String LIGHT = "#E9F0EA";
    private static final String DARK = "#16201B";

    private Contrast() {
    }

    /** From 1, the same, to 21, black on white. Colours are {@code #RRGGBB}. */
    public static double of(String one, String other) {
        double a = luminance(one);
        double b = luminance(other);
        return (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);
    }

    /** The light or the dark ink, whichever reads better on a colour. */
    public static String inkOn(String colour) {
        return of(LIGHT, colour) >= of(DARK, colour) ? LIGHT : DARK;
    }

    private static double luminance(String colour) {
        return 0.2126 * part(colour, 1) + 0.7152 * part(colour, 3) + 0.0722 * part(colour, 5);
    }

    private static double part(String colour, int at) {
        double c = Integer.parseInt(colour.substring(at, at + 2), 16) / 255.0;
        return c <= 0.04045 ? c / 12.92 : Math.pow((c + 0.055) / 1.055, 2.4);
    }
}
