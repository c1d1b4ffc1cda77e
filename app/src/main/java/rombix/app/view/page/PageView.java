package rombix.app.view.page;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.AccessibleRole;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Pane;
import javafx.scene.layout.StackPane;
import org.jspecify.annotations.Nullable;
import rombix.app.edit.ButtonEdits;
import rombix.app.view.button.ButtonMenu;
import rombix.app.view.button.FacePopover;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Styles;
import rombix.app.view.form.Confirm;
import rombix.app.view.tile.ControlDrag;
import rombix.app.view.tile.Retired;
import rombix.app.view.tile.Tile;
import rombix.core.board.Button;
import rombix.core.board.Control;
import rombix.core.board.Page;
import rombix.running.state.Changes;

/**
 * The page in the middle: its buttons in their cells. In Build a click selects, a drag moves and an empty cell takes a
 * new button; in Live a press presses, and whatever ends it releases.
 */
public final class PageView extends Pane implements Cells {
    private static final double GAP = 8;
    private static final double MARGIN = 14;
    private static final PseudoClass ALSO = PseudoClass.getPseudoClass("also");

    private final Desk desk;
    private final FacePopover facePopover;
    private final Retired retired = new Retired();
    private final Map<String, Tile> tiles = new HashMap<>();
    /** The empty cells by column and row, as they are in the mode that is shown. */
    private final Map<List<Integer>, Node> cells = new HashMap<>();
    private final ButtonEdits edits;
    private final Dropping dropping;
    private final NewButton adding;
    private @Nullable Page shown;
    private boolean shownBuilding;
    private final PagePointer hand;

    /** @param trouble told in words of what cannot be put on a page */
    public PageView(Desk desk, ButtonEdits edits, Consumer<String> trouble) {
        this.desk = desk;
        this.edits = edits;
        this.facePopover = new FacePopover(desk, edits, trouble);
        this.adding = new NewButton(desk, this);
        this.hand = new PagePointer(desk, tiles::get);
        this.dropping = new Dropping(desk, this, this, trouble);
        getStyleClass().add("page");
        setId("page");
        desk.bench().watch(this::rebuild);
        desk.model().watch(this::refresh);
        rebuild();
    }

    /** What adds buttons to empty cells. */
    public NewButton adding() {
        return adding;
    }

    /** Takes what is carried over the window and dropped. */
    public Dropping dropping() {
        return dropping;
    }

    /** The hand that presses on the page. */
    public PagePointer hand() {
        return hand;
    }

    /** The tile of a button; the page itself where the button is on another. */
    public Node tileOf(String button) {
        Tile tile = tiles.get(button);
        return tile == null ? this : tile;
    }

    @Override
    public void focusSelected() {
        Node selected = desk.bench().button().<Node>map(b -> tiles.get(b.id())).orElse(null);
        if (selected != null) {
            selected.requestFocus();
        } else {
            getChildren().stream().filter(Node::isFocusTraversable).findFirst().ifPresent(Node::requestFocus);
        }
    }

    public void menuOfSelected() {
        desk.bench().button().map(b -> tiles.get(b.id())).ifPresent(this::menu);
    }

    /** Pastes into the empty cell that has the focus; onto the selected button; else where there is room. */
    public void paste() {
        int[] cell = focusedCell();
        Tile tile = desk.bench().button().map(b -> tiles.get(b.id())).orElse(null);
        if (cell.length == 0 && tile != null && desk.bench().buttons().stream().noneMatch(b -> edits.isCut(b.id()))) {
            new ButtonMenu(desk, edits, facePopover::open).paste(tile);
        } else {
            edits.paste(cell.length == 0 ? 0 : cell[0], cell.length == 0 ? 0 : cell[1]);
        }
    }

    public void deleteSelected() {
        Node by = desk.bench().button().<Node>map(b -> tiles.get(b.id())).orElse(null);
        if (by != null) {
            Confirm.deleteButtons(desk, by, edits);
        }
    }

    /** Shows the page as it is now. */
    public void rebuild() {
        Page page = desk.bench().page();
        if (page.equals(shown) && desk.building() == shownBuilding) {
            tiles.values().forEach(this::show);
            return;
        }
        List<String> style = new ArrayList<>(List.of("page"));
        Optional.ofNullable(page.fill()).ifPresent(f -> style.add(f.name().toLowerCase(Locale.ROOT)));
        Styles.set(this, style.toArray(String[]::new));
        hand.turned();
        String focused = getScene() != null && getScene().getFocusOwner() instanceof Tile t ? t.button().id() : null;
        if (desk.building() != shownBuilding) {
            cells.clear();
        }
        shown = page;
        shownBuilding = desk.building();
        Map<String, Tile> before = new HashMap<>(tiles);
        tiles.clear();
        List<Node> nodes = new ArrayList<>();
        for (int row = 0; row < page.rows(); row++) {
            for (int column = 0; column < page.columns(); column++) {
                Optional<Button> here = page.at(column, row);
                if (here.isEmpty()) {
                    nodes.add(cells.computeIfAbsent(List.of(column, row), at -> cell(at.get(0), at.get(1))));
                } else if (here.get().column() == column && here.get().row() == row) {
                    Button b = here.get();
                    Tile tile = before.get(b.id());
                    if (tile == null) {
                        tile = tile(b);
                    }
                    tile.show(b, false);
                    tiles.put(b.id(), tile);
                    nodes.add(tile);
                    show(tile);
                }
            }
        }
        nodes.add(retired);
        if (!nodes.equals(getChildren())) { // What stays in its place is not styled anew.
            getChildren().setAll(nodes);
        }
        before.keySet().removeAll(tiles.keySet());
        retired.retire(before.values());
        if (focused != null && tiles.get(focused) instanceof Tile again) {
            again.requestFocus();
        }
        requestLayout();
    }

    private void show(Tile tile) {
        String id = tile.button().id();
        boolean building = desk.building();
        boolean picked = building && desk.bench().button().filter(b -> b.id().equals(id)).isPresent();
        boolean among = desk.bench().buttons().stream().anyMatch(b -> b.id().equals(id));
        tile.pseudoClassStateChanged(ALSO, building && !picked && among);
        tile.setOpacity(edits.isCut(id) ? 0.5 : 1);
        desk.bench().rig().button(tile.button().id()).ifPresent(b -> tile.show(b, picked));
    }

    private void refresh(Changes changes) {
        for (Tile tile : tiles.values()) {
            if (tile.sources().concerned(changes)) {
                show(tile);
            } else if (changes.runs() || desk.model().state().guarding(tile.button().id()) != null) {
                tile.run();
            }
        }
    }

    private Node cell(int column, int row) {
        StackPane cell = new StackPane();
        cell.getStyleClass().add("empty-cell");
        cell.setUserData(new int[]{column, row});
        cell.setId("cell-" + column + "-" + row);
        if (desk.building()) {
            Label add = new Label("+ button");
            cell.getChildren().add(add);
            cell.setAlignment(Pos.CENTER);
            cell.setFocusTraversable(true);
            cell.setAccessibleRole(AccessibleRole.BUTTON);
            cell.setAccessibleText("Add a button in column %d, row %d".formatted(column + 1, row + 1));
            cell.setOnMouseClicked(_ -> adding.add(column, row));
            cell.setOnKeyPressed(e -> {
                if (e.getCode() == KeyCode.ENTER || e.getCode() == KeyCode.SPACE) {
                    adding.add(column, row);
                    e.consume();
                } else {
                    arrows(e, column, row);
                }
            });
        } else {
            cell.setMouseTransparent(true);
            cell.setOpacity(0.5);
        }
        return cell;
    }

    /** The empty cell that has the focus: column and row; nothing where none has. */
    public int[] focusedCell() {
        return getScene() != null && getScene().getFocusOwner() instanceof StackPane cell
                && cell.getUserData() instanceof int[] at ? at : new int[0];
    }

    @Override
    public void menu(Node by) {
        new ButtonMenu(desk, edits, facePopover::open).open(by);
    }

    private Tile tile(Button b) {
        Tile tile = new Tile(b, desk);
        new TileDrag(desk, edits, tile, this);
        new ControlDrag(desk, tile, hand::control);
        tile.setId("tile-" + b.id());
        tile.setManaged(false); // It is placed by its cells: what changes in it moves nothing else.
        tile.setCache(true); // Painted as a picture until it changes; see Retired.
        tile.addEventHandler(MouseEvent.MOUSE_PRESSED, e -> mousePressed(tile, e));
        tile.addEventHandler(MouseEvent.MOUSE_RELEASED, e -> {
            if (e.getButton() == MouseButton.PRIMARY && !desk.building()) {
                hand.release("mouse");
            }
        });
        tile.addEventHandler(KeyEvent.KEY_PRESSED, e -> keyPressed(tile, e));
        tile.addEventHandler(KeyEvent.KEY_RELEASED, e -> {
            if (!desk.building() && e.getCode() == KeyCode.SPACE) {
                hand.release("key");
                e.consume();
            }
        });
        tile.focusedProperty().addListener((_, _, focused) -> {
            if (focused && desk.building() && desk.bench().buttons().stream().noneMatch(b2 -> b2.id().equals(tile
                    .button().id()))) {
                desk.bench().select(tile.button().id());
            } else if (!focused) {
                hand.left(tile);
            }
        });
        return tile;
    }

    private void mousePressed(Tile tile, MouseEvent e) {
        tile.requestFocus();
        // Only when it is let go it is known whether a dial was pressed or turned, and what of a row was chosen.
        Control control = tile.button().control();
        if (e.getButton() == MouseButton.PRIMARY && !desk.building() && (control == null || control.pressed())) {
            hand.press(tile, "mouse");
        }
    }

    private void keyPressed(Tile tile, KeyEvent e) {
        Button b = tile.button();
        if (!desk.building()) {
            if (e.getCode() == KeyCode.SPACE) {
                if (!hand.holds(b.id())) { // The keyboard repeats a key that is held.
                    hand.press(tile, "key");
                }
                e.consume();
            } else {
                arrows(e, b.column(), b.row());
            }
            return;
        }
        if (e.getCode() == KeyCode.ENTER) {
            facePopover.open(tile);
            e.consume();
        } else {
            arrows(e, b.column(), b.row());
        }
    }

    private static int[] direction(KeyCode code) {
        return switch (code) {
            case LEFT -> new int[]{-1, 0};
            case RIGHT -> new int[]{1, 0};
            case UP -> new int[]{0, -1};
            case DOWN -> new int[]{0, 1};
            default -> new int[]{0, 0};
        };
    }

    /** Moves the focus from cell to cell; in Live past empty ones. */
    private void arrows(KeyEvent e, int column, int row) {
        Page page = shown;
        if (page == null || !e.getCode().isArrowKey() || e.isAltDown() || e.isConsumed()) {
            return;
        }
        int[] d = direction(e.getCode());
        int c = column + d[0];
        int r = row + d[1];
        while (c >= 0 && r >= 0 && c < page.columns() && r < page.rows()) {
            Node there = nodeAt(page, c, r);
            if (there != null && there.isFocusTraversable() && !(there instanceof Tile t && t.button().covers(column,
                    row))) {
                there.requestFocus();
                break;
            }
            c += d[0];
            r += d[1];
        }
        e.consume();
    }

    @Override
    public @Nullable Node nodeAt(double sceneX, double sceneY) {
        return getChildren().stream().filter(n -> n.getBoundsInParent().contains(sceneToLocal(sceneX, sceneY)))
                .findFirst().orElse(null);
    }

    @Override
    public @Nullable Node at(int column, int row) {
        return nodeAt(desk.bench().page(), column, row);
    }

    private @Nullable Node nodeAt(Page page, int column, int row) {
        Optional<Button> b = page.at(column, row);
        if (b.isPresent()) {
            return tiles.get(b.get().id());
        }
        return getChildren().stream().filter(n -> n.getUserData() instanceof int[] at && at[0] == column
                && at[1] == row).findFirst().orElse(null);
    }

    @Override
    public void editFace() {
        desk.bench().button().map(b -> tiles.get(b.id())).ifPresent(facePopover::open);
    }

    @Override
    public double[] pitch() {
        double[] size = cellSize();
        return new double[]{size[0] + GAP, size[1] + GAP};
    }

    @Override
    public void placeAll() {
        requestLayout();
    }

    @Override
    public void place(Tile tile, Button as) {
        place(tile, as.column(), as.row(), as.width(), as.height(), cellSize());
    }

    private double[] cellSize() {
        Page page = desk.bench().page();
        return new double[]{(getWidth() - 2 * MARGIN - GAP * (page.columns() - 1)) / page.columns(),
                (getHeight() - 2 * MARGIN - GAP * (page.rows() - 1)) / page.rows()};
    }

    @Override
    protected void layoutChildren() {
        double[] size = cellSize();
        for (Node n : getChildren()) {
            if (n instanceof Tile t) {
                place(t, t.button());
            } else if (n.getUserData() instanceof int[] at) {
                place(n, at[0], at[1], 1, 1, size);
            }
        }
    }

    private static void place(Node n, int column, int row, int width, int height, double[] size) {
        double x = Math.rint(MARGIN + column * (size[0] + GAP));
        double y = Math.rint(MARGIN + row * (size[1] + GAP));
        n.resizeRelocate(x, y, Math.rint(width * size[0] + (width - 1) * GAP),
                Math.rint(height * size[1] + (height - 1) * GAP));
    }
}
