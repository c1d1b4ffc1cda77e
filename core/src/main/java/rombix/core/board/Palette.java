package rombix.core.board;

import java.util.List;

/** The colours that are offered for faces. A board may hold any others. */
public final class Palette {
    /** A colour, {@code #RRGGBB}, and what it is called. */
    public record Colour(String name, String hex) {
    }

    /** For tiles: dark ones first, then bright ones, then light ones. */
    public static final List<Colour> TINTS = List.of(new Colour("pine", "#1F3B2D"), new Colour("fern", "#2F5D50"),
            new Colour("lagoon", "#14424F"), new Colour("dusk", "#23395B"), new Colour("iris", "#3B2F63"),
            new Colour("mulberry", "#5A2A4C"), new Colour("brick", "#6B2530"), new Colour("rust", "#6A3B1F"),
            new Colour("olive", "#5C4A1A"), new Colour("graphite", "#3A3F44"), new Colour("clover", "#257A4B"),
            new Colour("sea", "#22728F"), new Colour("cornflower", "#4464AD"), new Colour("lilac", "#7453AF"),
            new Colour("rose", "#A84477"), new Colour("clay", "#B04530"), new Colour("honey", "#D98E2B"),
            new Colour("sand", "#E8D9B0"), new Colour("mist", "#DDE6DF"), new Colour("paper", "#F4F1E6"));

    /** For labels. */
    public static final List<Colour> INKS = List.of(new Colour("white", "#FFFFFF"), new Colour("chalk", "#E9F0EA"),
            new Colour("cream", "#FFE9B8"), new Colour("mint", "#DFF5E3"), new Colour("ice", "#D8ECFF"),
            new Colour("black", "#14100A"), new Colour("night", "#10243A"), new Colour("bark", "#2B1A10"));

    /** For icons. */
    public static final List<Colour> ACCENTS = List.of(new Colour("saffron", "#F2B134"), new Colour("wheat", "#FFD98A"),
            new Colour("leaf", "#86E293"), new Colour("sky", "#7FD1E0"), new Colour("periwinkle", "#9DB7FF"),
            new Colour("orchid", "#D3B4FF"), new Colour("blush", "#FF9EC0"), new Colour("coral", "#FF9E80"),
            new Colour("white", "#FFFFFF"), new Colour("black", "#14100A"), new Colour("forest", "#0F3D2E"),
            new Colour("garnet", "#5A1A20"));

    private Palette() {
    }

    /** Those of some colours that can be read on a tile of a colour. */
    public static List<Colour> legible(List<Colour> colours, String on, double min) {
        return colours.stream().filter(c -> Contrast.of(c.hex(), on) >= min).toList();
    }

    /** A face whose label and icon can be read on its tint: what cannot is left to the tint to choose. */
    public static Face legible(Face face) {
        String tint = face.tint();
        if (tint == null) {
            return face;
        }
        Face clear = face;
        if (face.ink() != null && Contrast.of(face.ink(), tint) < Contrast.TEXT) {
            clear = clear.withInk(null);
        }
        if (face.accent() != null && Contrast.of(face.accent(), tint) < Contrast.ICON) {
            clear = clear.withAccent(null);
        }
        return clear;
    }
}
