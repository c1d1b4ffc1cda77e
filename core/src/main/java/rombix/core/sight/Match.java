package rombix.core.sight;

/**
 * A place where a picture is to be seen.
 *
 * @param x of its left edge, in pixels
 * @param y of its upper edge
 * @param alike from 0 to 1, where 1 is the same in every pixel
 */
public record Match(int x, int y, int width, int height, double alike) {
    /** The pixel in its middle. */
    public int middleX() {
        return x + width / 2;
    }

    public int middleY() {
        return y + height / 2;
    }
}
