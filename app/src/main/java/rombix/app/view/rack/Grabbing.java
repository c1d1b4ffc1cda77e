package rombix.app.view.rack;

import java.util.function.Supplier;
import javafx.scene.Node;
import javafx.scene.control.Button;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.Grab;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Drag;
import rombix.app.view.page.PageView;
import rombix.core.twin.Twin;
import rombix.core.value.Value;

/** A control of the rack can be grabbed in Build and dragged onto the page, a button, or the score. */
record Grabbing(Desk desk, PageView page, Twin twin) {
    /** @param value the value that is carried, asked as the drag begins */
    void on(Node node, Twin.Reading reading, Supplier<@Nullable Value> value) {
        boolean[] carrying = new boolean[1];
        Drag.on(node, _ -> {
            carrying[0] = false;
            return desk.building();
        }, e -> Grab.of(twin, reading, value.get()).ifPresent(g -> {
            carrying[0] = true;
            page.dropping().carry(g, e.getSceneX(), e.getSceneY());
        }), e -> {
            if (carrying[0]) {
                // A press that became a drag does not tell the gear.
                if (node instanceof Button b) {
                    b.disarm();
                }
                page.dropping().drop(e.getSceneX(), e.getSceneY());
                e.consume();
            }
        });
    }
}
