package rombix.app.view.common;

import java.util.List;
import javafx.scene.text.Font;

/** The fonts that ship. */
public final class Fonts {
    private static final List<String> ALL = List.of("archivo-narrow-latin-400-normal",
            "archivo-narrow-latin-600-normal", "archivo-narrow-latin-700-normal",
            "atkinson-hyperlegible-latin-400-normal", "atkinson-hyperlegible-latin-700-normal");

    private Fonts() {
    }

    /** Makes them known to the toolkit. Takes some time: it is done while the board is read. */
    public static void load() {
        for (String font : ALL) {
            Font.loadFont(Fonts.class.getResourceAsStream("/rombix/running/face/fonts/" + font + ".woff"), 14);
        }
    }
}
