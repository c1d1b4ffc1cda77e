package rombix.app.view.form;

import javafx.scene.paint.Color;

/** Colours as boards write them. */
public final class Colours {
    private Colours() {
    }

    /** {@code #RRGGBB}. */
    public static String text(Color c) {
        return "#%02X%02X%02X".formatted(Math.round(c.getRed() * 255), Math.round(c.getGreen() * 255),
                Math.round(c.getBlue() * 255));
    }
}
