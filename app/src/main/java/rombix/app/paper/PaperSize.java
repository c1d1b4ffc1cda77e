package rombix.app.paper;

import javax.print.attribute.standard.MediaSizeName;

/** Sheets of paper, in points of 1/72 inch, upright. */
public enum PaperSize {
    A4(595.28f, 841.89f, "A4", MediaSizeName.ISO_A4), LETTER(612, 792, "Letter", MediaSizeName.NA_LETTER);

    private final float width;
    private final float height;
    private final String words;
    private final MediaSizeName media;

    PaperSize(float width, float height, String words, MediaSizeName media) {
        this.width = width;
        this.height = height;
        this.words = words;
        this.media = media;
    }

    float width() {
        return width;
    }

    float height() {
        return height;
    }

    /** What printers call it. */
    MediaSizeName media() {
        return media;
    }

    /** What people call it. */
    public String words() {
        return words;
    }
}
