package rombix.app.view.score;

import java.util.ArrayList;
import java.util.List;
import javafx.css.PseudoClass;
import javafx.scene.Cursor;
import javafx.scene.Node;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Region;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.Score.Mark;
import rombix.app.edit.StepEdits;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Drag;
import rombix.app.view.form.Chooser;
import rombix.core.board.Paths;
import rombix.core.chain.GearStep;
import rombix.core.chain.Step;

/**
 * A step under the hand: dragged along it goes to another time, onto a bracket or a step within one it goes in there,
 * out of its bracket it goes out, onto another gear's lane it tells that gear; dragged by its end it is stretched.
 */
final class StepDrag {
    /** The drawing that the step is dragged over. */
    interface Lanes {
        /** The gear in whose lane a point of the scene is; null where it is in none. */
        @Nullable
        String gearAt(double sceneX, double sceneY);

        /** The bracket of the step that holds the one at a path; null where the chain itself does. */
        @Nullable
        Mark holder(List<Integer> path);

        /** The mark at a point of the scene other than some node's; brackets before the bands of waits. */
        @Nullable
        Node markAt(double sceneX, double sceneY, Node but);

        /** How long a step takes, as it is drawn. */
        double length(Step step);
    }

    private static final PseudoClass TARGET = PseudoClass.getPseudoClass("target");
    private static final double EDGE = 8;
    private final Desk desk;
    private final StepEdits edits;
    private final Region node;
    private final Mark mark;
    private final double perMilli;
    private final Lanes drawing;
    private double fromX;
    private double fromY;
    private boolean stretching;
    private @Nullable Node over;

    /** @param perMilli how many pixels a millisecond takes in the drawing */
    StepDrag(Desk desk, StepEdits edits, Region node, Mark mark, double perMilli, Lanes drawing) {
        this.desk = desk;
        this.edits = edits;
        this.node = node;
        this.mark = mark;
        this.perMilli = perMilli;
        this.drawing = drawing;
        Drag.on(node, this::begins, this::moved, this::released);
        if (stretches()) {
            node.addEventHandler(MouseEvent.MOUSE_MOVED, e -> node.setCursor(atEnd(e) ? Cursor.E_RESIZE : Cursor.HAND));
        }
    }

    private boolean atEnd(MouseEvent e) {
        return stretches() && e.getX() > mark.lengthMillis() * perMilli - EDGE;
    }

    private boolean begins(MouseEvent e) {
        fromX = e.getSceneX();
        fromY = e.getSceneY();
        stretching = atEnd(e);
        return Paths.step(desk.bench().chain(), mark.path()).isPresent();
    }

    private void moved(MouseEvent e) {
        node.setOpacity(0.7);
        if (!stretching) {
            node.setTranslateX(e.getSceneX() - fromX);
            node.setTranslateY(e.getSceneY() - fromY);
            over(target(e));
        }
    }

    private void over(@Nullable Node next) {
        if (over != null) {
            over.pseudoClassStateChanged(TARGET, false);
        }
        over = next;
        if (next != null) {
            next.pseudoClassStateChanged(TARGET, true);
        }
    }

    /** A bracket, or a step within one, that the step would go into. */
    private @Nullable Node target(MouseEvent e) {
        Node at = drawing.markAt(e.getSceneX(), e.getSceneY(), node);
        if (at == null || !(at.getUserData() instanceof Mark m) || starts(m.path(), mark.path())) {
            return null;
        }
        boolean holds = !m.step().inner().isEmpty();
        boolean own = holds ? starts(mark.path(), m.path()) : list(m.path()).equals(list(mark.path()));
        return own || !holds && m.path().size() == 1 ? null : at;
    }

    private static boolean starts(List<Integer> path, List<Integer> with) {
        return path.size() >= with.size() && path.subList(0, with.size()).equals(with);
    }

    private static List<Integer> list(List<Integer> path) {
        return path.subList(0, path.size() - 1);
    }

    private boolean stretches() {
        return mark.step() instanceof Step.Wait w && w.clock() == null && w.condition() == null
                || mark.step() instanceof GearStep.Fade || mark.step() instanceof Step.ForAWhile;
    }

    private void released(MouseEvent e) {
        Node into = over;
        over(null);
        node.setTranslateX(0);
        node.setTranslateY(0);
        node.setOpacity(1);
        if (e.isStillSincePress()) {
            return;
        }
        double by = (e.getSceneX() - fromX) / perMilli;
        if (stretching) {
            stretch(by);
            return;
        }
        if (!desk.bench().steps().contains(mark.path())) {
            desk.bench().selectStep(mark.path());
        }
        if (into != null && into.getUserData() instanceof Mark m) {
            into(m, into);
        } else if (!toLane(e)) {
            inTime(e, mark.startMillis() + by);
        }
    }

    /** Dropped on a step within a bracket it stands behind that; on a bracket, at the end of one of its chains. */
    private void into(Mark m, Node by) {
        boolean stands = Paths.step(desk.bench().chain(), m.path()).isPresent();
        if (stands && m.step().inner().isEmpty()) {
            edits.moveInto(mark.path(), Paths.next(m.path()));
        } else if (!stands) {
            // The mark of a chain that is still empty.
            edits.moveInto(mark.path(), Paths.within(list(m.path()), m.path().getLast(), 0));
        } else if (m.step().inner().size() == 1) {
            end(m, 0);
        } else {
            List<Chooser.Item> chains = new ArrayList<>();
            for (int i = 0; i < m.step().inner().size(); i++) {
                int chain = i;
                chains.add(new Chooser.Item("into-chain-" + i, StepList.name(m.step(), i), "", () -> end(m, chain)));
            }
            Chooser.open(desk, by, "Into which chain?", chains);
        }
    }

    private void end(Mark m, int chain) {
        edits.moveInto(mark.path(), Paths.within(m.path(), chain, m.step().inner().get(chain).steps().size()));
    }

    private boolean toLane(MouseEvent e) {
        String gear = drawing.gearAt(e.getSceneX(), e.getSceneY());
        String own = drawing.gearAt(fromX, fromY);
        return gear != null && !gear.isEmpty() && !gear.equals(own) && edits.moveToGear(mark.path(), gear);
    }

    /** To another time of its own list; a step that is dragged out of the time of its bracket goes out. */
    private void inTime(MouseEvent e, double to) {
        Mark holder = drawing.holder(mark.path());
        if (holder == null) {
            edits.moveInTime(mark.path(), to, drawing::length);
        } else if (to >= holder.startMillis() && to <= holder.startMillis() + Math.max(holder.lengthMillis(), 1)) {
            edits.moveInTime(mark.path(), to - holder.startMillis(), drawing::length);
        } else {
            edits.moveOut(mark.path(), to, drawing::length);
        }
    }

    private void stretch(double by) {
        long ms = Math.max(10, Math.round((mark.lengthMillis() + by) / 10) * 10);
        desk.bench().editChain("stretch a step", c -> Paths.changed(c, mark.path(), s -> switch (s) {
            case Step.Wait w -> new Step.Wait(ms, null, null, null, null, w.how(), w.extra());
            case GearStep.Fade f ->
                f.withMs(ms);
            case Step.ForAWhile f -> f.withMs(ms);
            default -> s;
        }));
    }
}
