package rombix.app.view.tile;

import java.util.Locale;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Page;

/** A small picture of a page: where its buttons are, and their tints. */
public final class MiniPage extends Pane {
    public static final double WIDTH = 200;
    private static final double HEIGHT = 112;

    /** @param page null for one that cannot be read */
    public MiniPage(@Nullable Page page) {
        setMinSize(WIDTH, HEIGHT);
        setPrefSize(WIDTH, HEIGHT);
        setMaxSize(WIDTH, HEIGHT);
        getStyleClass().add("welcome-page");
        if (page != null) {
            double w = WIDTH / page.columns();
            double h = HEIGHT / page.rows();
            page.buttons().forEach(b -> {
                Region cell = new Region();
                String tint = b.states().getFirst().face().tint();
                cell.setStyle("-fx-background-color: " + (tint == null
                        ? "-fill-" + b.states().getFirst().face().fill().name().toLowerCase(Locale.ROOT)
                        : tint) + ";");
                cell.resizeRelocate(b.column() * w + 1, b.row() * h + 1, b.width() * w - 2, b.height() * h - 2);
                cell.setManaged(false);
                getChildren().add(cell);
            });
        }
    }
}
