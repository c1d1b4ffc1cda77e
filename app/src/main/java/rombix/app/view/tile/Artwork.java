package rombix.app.view.tile;

import java.awt.image.BufferedImage;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import javafx.embed.swing.SwingFXUtils;
import javafx.scene.image.Image;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.PictureFile;
import rombix.core.board.Board.Picture;

/** A board's pictures as they are drawn on faces, kept as long as they are used. The interface's thread's. */
final class Artwork {
    private static final int MAX_KEPT = 256;

    private record Key(Picture picture, @Nullable String tint) {
    }

    private static final Map<Key, Optional<Image>> KEPT = new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<Key, Optional<Image>> eldest) {
            return size() > MAX_KEPT;
        }
    };

    private Artwork() {
    }

    /** The picture, in a colour of its own where one is given; empty where it cannot be drawn. */
    static Optional<Image> of(Picture picture, @Nullable String tint) {
        return KEPT.computeIfAbsent(new Key(picture, tint), k -> Optional.ofNullable(PictureFile.drawn(picture)).map(
                drawn -> SwingFXUtils.toFXImage(tint == null ? drawn : tinted(drawn, tint), null)));
    }

    /** The same shape in one colour. */
    private static BufferedImage tinted(BufferedImage drawn, String tint) {
        int colour = Integer.parseInt(tint.substring(1), 16);
        BufferedImage out = new BufferedImage(drawn.getWidth(), drawn.getHeight(), BufferedImage.TYPE_INT_ARGB);
        for (int y = 0; y < drawn.getHeight(); y++) {
            for (int x = 0; x < drawn.getWidth(); x++) {
                out.setRGB(x, y, drawn.getRGB(x, y) & 0xFF000000 | colour);
            }
        }
        return out;
    }
}
