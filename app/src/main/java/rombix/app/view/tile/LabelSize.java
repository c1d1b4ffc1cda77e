package rombix.app.view.tile;

import javafx.scene.text.Font;
import javafx.scene.text.FontWeight;
import javafx.scene.text.Text;

/** How large a label can be set: as large as its room allows in at most three lines, with no word broken. */
final class LabelSize {
    /** The smallest size at which a label is still set. */
    static final double MIN = 11;
    private static final int MAX_LINES = 3;
    private static final Text MEASURE = new Text();

    private LabelSize() {
    }

    static Font bold(double size) {
        return Font.font("Archivo Narrow", FontWeight.BOLD, size);
    }

    /** The largest size from {@code max} down that fits. The interface's thread's. */
    static double fitting(String text, double max, double width, double height) {
        for (double size = max; size > MIN; size -= 1) {
            if (fits(text, size, width, height)) {
                return size;
            }
        }
        return MIN;
    }

    private static boolean fits(String text, double size, double width, double height) {
        MEASURE.setFont(bold(size));
        MEASURE.setWrappingWidth(0);
        MEASURE.setText("Mg");
        double line = MEASURE.getLayoutBounds().getHeight();
        MEASURE.setText(text);
        if (text.indexOf('\n') < 0 && MEASURE.getLayoutBounds().getWidth() <= width) {
            return line <= height;
        }
        for (String word : text.split("\\s+")) {
            MEASURE.setText(word);
            if (MEASURE.getLayoutBounds().getWidth() > width) {
                return false;
            }
        }
        MEASURE.setText(text);
        MEASURE.setWrappingWidth(Math.max(1, width));
        double tall = MEASURE.getLayoutBounds().getHeight();
        return tall <= height && tall <= line * (MAX_LINES + 0.5);
    }
}
