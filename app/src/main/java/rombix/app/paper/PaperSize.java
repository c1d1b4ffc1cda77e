package rombix.app.paper;

/** Sheets of paper, in points of 1/72 inch, upright. */
public enum PaperSize {
    A4(595.28f, 841.89f, "A4"), LETTER(612, 792, "Letter");

    private final float width;
    private final float height;
    private final String words;

    PaperSize(float width, float height, String words) {
        this.width = width;
        this.height = height;
        this.words = words;
    }

    float width() {
        return width;
    }

    float height() {
        return height;
    }

    /** What people call it. */
    public String words() {
        return words;
    }
}
