package rombix.app.view;

import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Region;
import rombix.app.edit.Paths;
import rombix.app.edit.Score;
import rombix.app.edit.Score.Mark;
import rombix.app.edit.StepEdits;
import rombix.core.chain.Chain;
import rombix.core.chain.Step;

/** A step under the hand: dragged along it goes to another time, by its end it is stretched. */
final class StepDrag {
    private static final double EDGE = 8;
    private final Desk desk;
    private final StepEdits edits;
    private final Region node;
    private final Mark mark;
    private final double perMilli;
    private double fromX;
    private boolean stretching;

    /** @param perMilli how many pixels a millisecond takes in the drawing */
    StepDrag(Desk desk, StepEdits edits, Region node, Mark mark, double perMilli) {
        this.desk = desk;
        this.edits = edits;
        this.node = node;
        this.mark = mark;
        this.perMilli = perMilli;
        node.addEventHandler(MouseEvent.MOUSE_PRESSED, e -> {
            fromX = e.getSceneX();
            stretching = stretches() && e.getX() > mark.lengthMillis() * perMilli - EDGE;
        });
        node.addEventHandler(MouseEvent.MOUSE_DRAGGED, e -> {
            if (!e.isStillSincePress()) {
                node.setTranslateX(stretching ? 0 : e.getSceneX() - fromX);
                node.setOpacity(0.7);
            }
        });
        node.addEventHandler(MouseEvent.MOUSE_RELEASED, this::released);
        if (stretches()) {
            node.addEventHandler(MouseEvent.MOUSE_MOVED, e -> node.setCursor(e.getX() > mark.lengthMillis()
                    * perMilli - EDGE ? javafx.scene.Cursor.E_RESIZE : javafx.scene.Cursor.HAND));
        }
    }

    private boolean stretches() {
        return mark.step() instanceof Step.Wait w && w.clock() == null && w.condition() == null
                || mark.step() instanceof Step.Fade || mark.step() instanceof Step.ForAWhile;
    }

    private void released(MouseEvent e) {
        node.setTranslateX(0);
        node.setOpacity(1);
        if (e.isStillSincePress()) {
            return;
        }
        double by = (e.getSceneX() - fromX) / perMilli;
        if (stretching) {
            long ms = Math.max(10, Math.round((mark.lengthMillis() + by) / 10) * 10);
            desk.bench().editChain("stretch a step", c -> Paths.changed(c, mark.path(), s -> switch (s) {
                case Step.Wait w -> new Step.Wait(ms, null, null, null, null, w.how(), w.extra());
                case Step.Fade f -> new Step.Fade(f.gear(), f.command(), f.with(), f.param(), f.from(), f.to(), ms,
                        f.curve(), f.how(), f.extra());
                case Step.ForAWhile f -> new Step.ForAWhile(f.chain(), ms, f.how(), f.extra());
                default -> s;
            }));
        } else {
            if (!desk.bench().steps().contains(mark.path())) {
                desk.bench().selectStep(mark.path());
            }
            edits.moveInTime(mark.path(), mark.startMillis() + by, s -> Score.length(Chain.of(s), desk.bench()
                    .rig()));
        }
    }
}
