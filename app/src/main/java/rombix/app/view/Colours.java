package rombix.app.view;

import javafx.scene.paint.Color;

/** Colours as boards write them. */
final class Colours {
    private Colours() {
    }

    /** {@code #RRGGBB}. */
    static String text(Color c) {
        return "#%02X%02X%02X".formatted(Math.round(c.getRed() * 255), Math.round(c.getGreen() * 255),
                Math.round(c.getBlue() * 255));
    }
}
