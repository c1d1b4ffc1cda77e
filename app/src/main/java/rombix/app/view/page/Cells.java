package rombix.app.view.page;

import javafx.scene.Node;
import org.jspecify.annotations.Nullable;
import rombix.app.view.tile.Tile;
import rombix.core.board.Button;

/** The cells of the page, for what a hand does over them. */
interface Cells {
    /** The tile or the cell under a point of the scene. */
    @Nullable
    Node nodeAt(double sceneX, double sceneY);

    /** The tile or the cell at a place; null where there is none. */
    @Nullable
    Node at(int column, int row);

    /** Puts the hand on the selected button, else on the first thing of the page. */
    void focusSelected();

    /** Lays out now what is to be laid out. */
    void layout();

    /** How far it is from one cell to the next, across and down. */
    double[] pitch();

    /** Lays a tile out as if its button stood so. */
    void place(Tile tile, Button as);

    /** Lays all tiles out where they stand. */
    void placeAll();

    /** Offers what can be done with the button of a tile. */
    void menu(Node by);

    /** Opens the face of the selected button for editing. */
    void editFace();
}
