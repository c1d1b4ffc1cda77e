package rombix.app.view.page;

import javafx.geometry.Point2D;
import javafx.scene.Scene;
import javafx.scene.input.MouseEvent;
import rombix.app.edit.Workbench.Mode;
import rombix.app.view.common.Desk;
import rombix.core.chain.DeckStep.Show.Way;
import rombix.core.engine.Happening;

/** Shows the pages that chains, or readings that a page follows, have shown. */
public final class PageTurns {
    private final Desk desk;
    private final PageView page;
    private final PageTrail trail;
    private final PopUpPage popUp;
    private Point2D pointer = new Point2D(640, 400);

    /** @param scene where the pointer is, by which a page pops up */
    public PageTurns(Desk desk, PageView page, PageTrail trail, Scene scene) {
        this.desk = desk;
        this.page = page;
        this.trail = trail;
        this.popUp = new PopUpPage(desk);
        scene.addEventFilter(MouseEvent.ANY, e -> pointer = new Point2D(e.getSceneX(), e.getSceneY()));
        desk.model().watch(c -> c.pages().forEach(this::turn));
    }

    private void turn(Happening shown) {
        if (shown instanceof Happening.PageFollows f) {
            if (f.so()) {
                desk.bench().showPage(f.page());
            } else {
                trail.backFrom(f.page());
            }
        } else if (shown instanceof Happening.PageShown p) {
            String id = p.page();
            if (id == null) {
                trail.back();
            } else if (p.way() == Way.BACK) {
                page.hand().through(() -> trail.backFrom(id));
            } else if (p.way() == Way.WHILE_HELD) {
                page.hand().through(() -> desk.bench().showPage(id));
            } else if (p.way() == Way.POP_UP && desk.bench().mode() != Mode.BUILD) {
                popUp.open(id, pointer.getX(), pointer.getY());
            } else {
                desk.bench().showPage(id);
            }
        }
    }
}
