package rombix.app.view.page;

import javafx.css.PseudoClass;
import javafx.geometry.Point2D;
import javafx.scene.Cursor;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.ButtonEdits;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Drag;
import rombix.app.view.tile.Tile;
import rombix.core.board.Button;

/**
 * A tile under the hand in Build: a click selects it, a drag moves it to another cell or onto the name of another page,
 * a drag of its corner has it take more or fewer cells.
 */
final class TileDrag {
    private static final double START = 8;
    private static final double CORNER = 16;
    private static final PseudoClass TARGET = PseudoClass.getPseudoClass("target");

    private final Desk desk;
    private final ButtonEdits edits;
    private final Tile tile;
    private final Cells page;
    private double fromX;
    private double fromY;
    private boolean dragging;
    private boolean sizing;
    private @Nullable Node over;

    TileDrag(Desk desk, ButtonEdits edits, Tile tile, Cells page) {
        this.desk = desk;
        this.edits = edits;
        this.tile = tile;
        this.page = page;
        tile.addEventHandler(MouseEvent.MOUSE_PRESSED, e -> {
            if (desk.building() && e.getButton() == MouseButton.SECONDARY) {
                menu();
            }
        });
        Drag.on(tile, this::begins, this::dragged, this::released);
        tile.addEventHandler(MouseEvent.MOUSE_MOVED, e -> tile.setCursor(desk.building() && corner(e)
                ? Cursor.SE_RESIZE
                : Cursor.DEFAULT));
    }

    private boolean corner(MouseEvent e) {
        return e.getX() > tile.getWidth() - CORNER && e.getY() > tile.getHeight() - CORNER;
    }

    private void menu() {
        String id = tile.button().id();
        if (desk.bench().buttons().stream().noneMatch(b -> b.id().equals(id))) {
            desk.bench().select(id);
        }
        page.menu(tile);
    }

    private boolean begins(MouseEvent e) {
        if (!desk.building()) {
            return false;
        }
        if (e.isShortcutDown() || e.isShiftDown()) {
            desk.bench().selectAlso(tile.button().id());
            return false;
        }
        desk.bench().select(tile.button().id());
        fromX = e.getSceneX();
        fromY = e.getSceneY();
        dragging = false;
        sizing = corner(e);
        return true;
    }

    private void dragged(MouseEvent e) {
        double dx = e.getSceneX() - fromX;
        double dy = e.getSceneY() - fromY;
        if (!dragging && Math.hypot(dx, dy) > START) {
            dragging = true;
            desk.overlay().close();
            tile.toFront();
        }
        if (dragging && sizing) {
            int[] size = size(e);
            page.place(tile, tile.button().withWidth(size[0]).withHeight(size[1]));
        } else if (dragging) {
            tile.setTranslateX(dx);
            tile.setTranslateY(dy);
            over(tab(e));
        }
    }

    private int[] size(MouseEvent e) {
        Button b = tile.button();
        double[] pitch = page.pitch();
        return new int[]{Math.max(1, b.width() + (int) Math.round((e.getSceneX() - fromX) / pitch[0])), Math.max(1, b
                .height() + (int) Math.round((e.getSceneY() - fromY) / pitch[1]))};
    }

    private void released(MouseEvent e) {
        boolean was = dragging;
        dragging = false;
        Node tab = over;
        over(null);
        tile.setTranslateX(0);
        tile.setTranslateY(0);
        Button b = tile.button();
        if (was && sizing) {
            int[] size = size(e);
            edits.size(size[0] - b.width(), size[1] - b.height());
            page.placeAll();
        } else if (was && tab != null) {
            edits.moveToPage(String.valueOf(tab.getUserData()));
        } else if (was) {
            double[] pitch = page.pitch();
            edits.moveTo(b, b.column() + (int) Math.round((e.getSceneX() - fromX) / pitch[0]), b.row()
                    + (int) Math.round((e.getSceneY() - fromY) / pitch[1]));
        } else if (e.getClickCount() == 2) {
            page.editFace();
        }
    }

    /** The name of another page that the hand is over. */
    private @Nullable Node tab(MouseEvent e) {
        Scene scene = tile.getScene();
        return scene == null
                ? null
                : scene.getRoot().lookupAll(".page-tab").stream()
                        .filter(n -> n.isVisible() && n.contains(n.sceneToLocal(new Point2D(e
                                .getSceneX(), e.getSceneY()))) && !desk.bench().page().id().equals(n.getUserData()))
                        .findFirst()
                        .orElse(null);
    }

    private void over(@Nullable Node tab) {
        if (over != null) {
            over.pseudoClassStateChanged(TARGET, false);
        }
        over = tab;
        if (tab != null) {
            tab.pseudoClassStateChanged(TARGET, true);
        }
    }
}
