package rombix.app.view.tile;

import java.util.Collection;
import java.util.List;
import javafx.animation.AnimationTimer;
import javafx.scene.Group;
import javafx.scene.Node;

/**
 * Takes nodes out of the scene that are cached as pictures. The toolkit frees a picture when it paints the node without
 * one; the picture of a node that just leaves is kept until memory runs low, on screen cards and in software alike. So
 * the nodes stay here, invisible and without their pictures, until they were painted once.
 */
public final class Retired extends Group {
    private static final int PULSES = 2;

    public void retire(Collection<? extends Node> nodes) {
        if (nodes.isEmpty()) {
            return;
        }
        List<Node> leaving = List.copyOf(nodes);
        getChildren().addAll(leaving);
        for (Node node : leaving) {
            node.setId(null); // Another of this name may be in the scene.
            node.setVisible(false);
            node.setCache(false);
        }
        new AnimationTimer() {
            private int pulses;

            @Override
            public void handle(long now) {
                if (pulses++ == PULSES) {
                    stop();
                    getChildren().removeAll(leaving);
                }
            }
        }.start();
    }
}
