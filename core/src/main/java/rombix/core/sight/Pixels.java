package rombix.core.sight;

import java.util.Arrays;
import java.util.Objects;

/**
 * A picture in memory, row by row from the upper left: {@code 0xRRGGBB} for each pixel, with nothing above. What is handed
 * in is not to be changed afterwards.
 */
public record Pixels(int width, int height, int[] rgb) {
    public Pixels {
        if (width < 1 || height < 1 || rgb.length != width * height) {
            throw new IllegalArgumentException(
                    "%d pixels don't fit a picture of %d×%d".formatted(rgb.length, width, height));
        }
    }

    public int at(int x, int y) {
        return rgb[y * width + x];
    }

    /** A part of it. */
    public Pixels part(int x, int y, int w, int h) {
        int[] part = new int[w * h];
        for (int row = 0; row < h; row++) {
            System.arraycopy(rgb, (y + row) * width + x, part, row * w, w);
        }
        return new Pixels(w, h, part);
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Pixels p && p.width == width && p.height == height && Arrays.equals(p.rgb, rgb);
    }

    @Override
    public int hashCode() {
        return Objects.hash(width, height, Arrays.hashCode(rgb));
    }

    @Override
    public String toString() {
        return width + "×" + height + " pixels";
    }
}
