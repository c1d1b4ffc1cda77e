package rombix.app.view.common;

/** The spaces of the token sheet, in pixels, for what is laid out by code. */
public final class Space {
    public static final double S1 = Tokens.size("-space-1");
    public static final double S2 = Tokens.size("-space-2");
    public static final double S3 = Tokens.size("-space-3");
    public static final double S4 = Tokens.size("-space-4");
    public static final double S5 = Tokens.size("-space-5");
    public static final double S6 = Tokens.size("-space-6");
    public static final double S8 = Tokens.size("-space-8");
    public static final double S10 = Tokens.size("-space-10");
    public static final double S12 = Tokens.size("-space-12");
    public static final double S14 = Tokens.size("-space-14");
    public static final double S16 = Tokens.size("-space-16");
    public static final double S22 = Tokens.size("-space-22");

    private Space() {
    }
}
