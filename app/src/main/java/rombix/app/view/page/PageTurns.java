package rombix.app.view.page;

import java.util.function.Supplier;
import javafx.geometry.Point2D;
import javafx.scene.Scene;
import javafx.scene.input.MouseEvent;
import javafx.scene.robot.Robot;
import javafx.stage.Stage;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.core.chain.DeckStep.Show.Way;
import rombix.core.event.Happening;
import rombix.core.event.Mode;
import rombix.web.access.Access;
import rombix.links.desktop.Desktop;

/** Shows the pages that chains, or readings that a page follows, have shown. */
public final class PageTurns {
    private final Desk desk;
    private final PageView page;
    private final PageTrail trail;
    private final Scene scene;
    private final Supplier<@Nullable SmallWindow> small;
    private final PopUpPage popUp;
    private final PopUpWindow window;
    private Point2D pointer = new Point2D(640, 400);

    /**
     * @param scene where the pointer is, by which a page pops up
     * @param small the small window; null where there was none yet
     */
    public PageTurns(Desk desk, PageView page, PageTrail trail, Scene scene, Supplier<@Nullable SmallWindow> small) {
        this.desk = desk;
        this.page = page;
        this.trail = trail;
        this.scene = scene;
        this.small = small;
        this.popUp = new PopUpPage(desk, scene);
        this.window = new PopUpWindow(desk, scene);
        scene.addEventFilter(MouseEvent.ANY, e -> pointer = new Point2D(e.getSceneX(), e.getSceneY()));
        desk.model().watch(c -> c.happened().forEach(this::turn));
    }

    private void turn(Happening shown) {
        if (shown instanceof Happening.PageFollows f) {
            if (f.so()) {
                desk.bench().showPage(f.page());
            } else {
                trail.backFrom(f.page());
            }
        } else if (shown instanceof Happening.PageShown p && !Access.isSource(p.source())) { // A device turns its own page.
            String id = p.page();
            if (id == null && p.way() == Way.BACK) {
                trail.back();
            } else if (id == null) {
                desk.bench().showPage(desk.bench().beside(p.way() == Way.NEXT ? 1 : -1).id());
            } else if (p.way() == Way.BACK) {
                page.hand().through(() -> trail.backFrom(id));
            } else if (p.way() == Way.WHILE_HELD) {
                page.hand().through(() -> desk.bench().showPage(id));
            } else if (p.way() == Way.POP_UP && desk.bench().mode() != Mode.BUILD) {
                popUp(id, p.source());
            } else {
                desk.bench().showPage(id);
            }
        }
    }

    /** Pops a page up in the window that the press came from; in one of its own where nobody would see it there. */
    private void popUp(String page, String source) {
        SmallWindow beside = small.get();
        boolean elsewhere = source.endsWith(SmallWindow.NAME) || source.endsWith(PopUpWindow.NAME);
        if (!elsewhere && inSight(source)) {
            popUp.open(page, pointer.getX(), pointer.getY());
        } else if (beside != null && beside.showing()) {
            window.open(page, new Point2D(beside.bounds().getMinX(), beside.bounds().getMaxY() + Space.S6));
        } else {
            window.open(page, new Robot().getMousePosition());
        }
    }

    /** Whether the main window shows what would pop up in it: a hand in it sees it. */
    private boolean inSight(String source) {
        if (!(scene.getWindow() instanceof Stage stage) || !stage.isShowing() || stage.isIconified()) {
            return scene.getWindow() == null; // Nothing else is there: it is painted offscreen.
        }
        return source.equals("mouse") || source.equals("key")
                || Desktop.seen((stage.getX() + scene.getX() + pointer.getX()) * stage.getOutputScaleX(), (stage.getY()
                        + scene.getY() + pointer.getY()) * stage.getOutputScaleY());
    }
}
