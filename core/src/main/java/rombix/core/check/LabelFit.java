package rombix.core.check;

import rombix.core.board.Button;
import rombix.core.board.Face;
import rombix.core.board.Page;

/**
 * Whether a label fits its tile, reckoned from the widths of the face's letters on a page that fills a window of
 * 1280×800 in Live. The tile's own layout does the same with the real thing.
 */
final class LabelFit {
    /** Widths of the characters from space to tilde in Archivo Narrow Bold, in thousandths of the type size. */
    private static final int[] WIDTHS = {228, 273, 389, 456, 456, 729, 592, 195, 273, 273, 319, 479, 228, 273, 228, 228,
            456, 456, 456, 456, 456, 456, 456, 456, 456, 456, 273, 273, 479, 479, 479, 501, 800, 592, 592, 592, 592,
            547, 501, 638, 592, 228, 456, 592, 501, 683, 592, 638, 547, 638, 592, 547, 501, 592, 547, 774, 547, 547,
            501, 273, 228, 273, 479, 456, 456, 456, 501, 456, 501, 456, 273, 501, 501, 228, 228, 456, 228, 729, 501,
            501, 501, 501, 319, 456, 273, 501, 456, 638, 456, 456, 410, 319, 230, 319, 479};
    private static final double PAGE_WIDTH = 1252;
    private static final double PAGE_HEIGHT = 570;
    private static final double GAP = 8;
    private static final int MAX_LINES = 3;
    private static final double MIN = 11;

    private LabelFit() {
    }

    /** Whether a label fits the button's tile on its page, at the largest type that does or a smaller one. */
    static boolean fits(String label, Page page, Button button, Face face) {
        double w = (PAGE_WIDTH - GAP * (page.columns() - 1)) / page.columns() * button.width() + GAP * (button.width()
                - 1);
        double h = (PAGE_HEIGHT - GAP * (page.rows() - 1)) / page.rows() * button.height() + GAP * (button.height()
                - 1);
        double pad = Math.clamp(h * 0.09, 6, 14);
        double pips = button.states().size() > 1 ? button.states().size() * 14.0 + 4 : 0;
        double room = w - 2 * pad - pips;
        boolean picture = face.icon() != null || face.image() != null && face.image().fit() == Face.Image.Fit.ICON;
        double tall = h - 2 * pad - (picture ? Math.clamp(h * 0.24, 18, 48) + 2 : 0);
        for (double size = Math.clamp(Math.min(h * 0.155, w * 0.135), MIN, 30); size >= MIN; size -= 1) {
            int lines = lines(label, room / size);
            double under = face.second() == null ? 0 : Math.max(MIN, size * 0.8) * 1.1;
            if (lines > 0 && lines <= Math.min(MAX_LINES, Math.max(1, (int) ((tall - under) / (size * 1.15))))) {
                return true;
            }
        }
        return false;
    }

    /** How many lines a label takes in so many times its type size; -1 where a word is wider than that. */
    private static int lines(String label, double room) {
        int lines = 0;
        for (String line : label.split("\n")) {
            double used = 0;
            lines++;
            for (String word : line.split(" ")) {
                double wide = width(word);
                if (wide > room) {
                    return -1;
                }
                double with = used == 0 ? wide : used + width(" ") + wide;
                if (with > room) {
                    lines++;
                    used = wide;
                } else {
                    used = with;
                }
            }
        }
        return lines;
    }

    private static double width(String text) {
        return text.chars().map(c -> c >= ' ' && c <= '~' ? WIDTHS[c - ' '] : 501).sum() / 1000.0;
    }
}
