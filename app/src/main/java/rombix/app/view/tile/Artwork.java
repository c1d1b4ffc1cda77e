package rombix.app.view.tile;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.Executor;
import javafx.application.Platform;
import javafx.embed.swing.SwingFXUtils;
import javafx.scene.image.Image;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.file.PictureFile;
import rombix.core.board.Board.Picture;
import rombix.core.thread.Idle;

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
    /** Who waits for a picture that is being drawn. */
    private static final Map<Key, List<Runnable>> AWAITED = new HashMap<>();
    /** One after the other, so that no board's pictures take all memory at once. */
    private static final Executor DRAWER = Idle
            .executor(Thread.ofPlatform().daemon().priority(Thread.MIN_PRIORITY).name("pictures")
                    .factory());

    private Artwork() {
    }

    /**
     * The picture, in a colour of its own where one is given; empty where it cannot be drawn, or is still being drawn.
     *
     * @param drawn what is done on the interface's thread once it was
     */
    static Optional<Image> of(Picture picture, @Nullable String tint, Runnable drawn) {
        Key key = new Key(picture, tint);
        Optional<Image> kept = KEPT.get(key);
        if (kept != null) {
            return kept;
        }
        List<Runnable> waiting = AWAITED.get(key);
        if (waiting == null) {
            waiting = new ArrayList<>();
            AWAITED.put(key, waiting);
            DRAWER.execute(() -> {
                Optional<Image> image = draw(key);
                Platform.runLater(() -> {
                    KEPT.put(key, image);
                    Objects.requireNonNull(AWAITED.remove(key)).forEach(Runnable::run);
                });
            });
        }
        waiting.add(drawn);
        return Optional.empty();
    }

    private static Optional<Image> draw(Key key) {
        try {
            return Optional.ofNullable(PictureFile.drawn(key.picture(), key.tint()))
                    .map(drawn -> SwingFXUtils.toFXImage(
                            drawn, null));
        } catch (RuntimeException | OutOfMemoryError | StackOverflowError e) {
            return Optional.empty(); // A picture that nobody could draw must not end those that can be.
        }
    }
}
