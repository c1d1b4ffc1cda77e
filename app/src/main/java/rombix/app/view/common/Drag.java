package rombix.app.view.common;

import java.util.function.Consumer;
import java.util.function.Predicate;
import javafx.event.EventHandler;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;

/** A press on a node that may become a drag: wherever the hand goes from then on, the drag goes along. */
public final class Drag {
    private Drag() {
    }

    /**
     * @param begins whether a press with the first button begins one
     * @param moved told of each move once the press is more than a click
     * @param ended told once, at the release; {@link MouseEvent#isStillSincePress} says whether it was a click
     */
    public static void on(Node node, Predicate<MouseEvent> begins, Consumer<MouseEvent> moved,
            Consumer<MouseEvent> ended) {
        node.addEventFilter(MouseEvent.MOUSE_PRESSED, press -> {
            Scene scene = node.getScene();
            if (scene == null || press.getButton() != MouseButton.PRIMARY || !begins.test(press)) {
                return;
            }
            // The scene, not the node: the hand may leave the node, and an edit may take it away.
            EventHandler<MouseEvent> dragged = e -> {
                if (!e.isStillSincePress()) {
                    moved.accept(e);
                    e.consume(); // It is nobody else's: not the slider's that the hand passes over.
                }
            };
            scene.addEventFilter(MouseEvent.MOUSE_DRAGGED, dragged);
            scene.addEventFilter(MouseEvent.MOUSE_RELEASED, new EventHandler<>() {
                @Override
                public void handle(MouseEvent e) {
                    scene.removeEventFilter(MouseEvent.MOUSE_DRAGGED, dragged);
                    scene.removeEventFilter(MouseEvent.MOUSE_RELEASED, this);
                    ended.accept(e);
                }
            });
        });
    }
}
