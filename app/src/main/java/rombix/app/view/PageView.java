package rombix.app.view;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
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
import rombix.app.edit.Grab;
import rombix.core.board.Button;
import rombix.core.board.Edits;
import rombix.core.board.Page;
import rombix.core.board.State;
import rombix.core.engine.Event;

/**
 * The page in the middle: its buttons in their cells. In Build a click selects, a drag moves and an empty cell takes a
 * new button; in Live a press presses, and whatever ends it releases.
 */
final class PageView extends Pane {
    private static final double GAP = 8;
    private static final double MARGIN = 14;
    private static final double DRAG = 8;
    private static final PseudoClass TARGET = PseudoClass.getPseudoClass("target");

    private final Desk desk;
    private final FacePopover facePopover;
    private final Map<String, Tile> tiles = new HashMap<>();
    private @Nullable Grab carried;
    private @Nullable Page shown;
    private boolean shownBuilding;
    private @Nullable String pressed;
    private double fromX;
    private double fromY;
    private boolean grabbed;
    private boolean dragging;

    PageView(Desk desk) {
        this.desk = desk;
        this.facePopover = new FacePopover(desk);
        getStyleClass().add("page");
        setId("page");
        desk.bench().watch(this::rebuild);
        desk.model().watch(this::refresh);
        rebuild();
    }

    /** Something other than the hand ends what is held here. */
    void letGo() {
        if (pressed != null) {
            pressed = null;
            desk.post().accept(new Event.LetGo());
        }
    }

    private void released(String source) {
        if (pressed != null) {
            desk.release(pressed, source);
            pressed = null;
        }
    }

    /** The tile of a button; the page itself where the button is on another. */
    Node tileOf(String button) {
        Tile tile = tiles.get(button);
        return tile == null ? this : tile;
    }

    private void rebuild() {
        Page page = desk.bench().page();
        if (page.equals(shown) && desk.building() == shownBuilding) {
            tiles.values().forEach(this::show);
            return;
        }
        letGo();
        String focused = getScene() != null && getScene().getFocusOwner() instanceof Tile t ? t.button().id() : null;
        shown = page;
        shownBuilding = desk.building();
        Map<String, Tile> before = new HashMap<>(tiles);
        tiles.clear();
        getChildren().clear();
        for (int row = 0; row < page.rows(); row++) {
            for (int column = 0; column < page.columns(); column++) {
                Optional<Button> here = page.at(column, row);
                if (here.isEmpty()) {
                    getChildren().add(cell(column, row));
                } else if (here.get().column() == column && here.get().row() == row) {
                    Button b = here.get();
                    Tile tile = before.get(b.id());
                    if (tile == null) {
                        tile = tile(b);
                    }
                    tile.show(b, desk.model(), false);
                    tiles.put(b.id(), tile);
                    getChildren().add(tile);
                    show(tile);
                }
            }
        }
        Tile again = focused == null ? null : tiles.get(focused);
        if (again != null) {
            again.requestFocus();
        }
        requestLayout();
    }

    private void show(Tile tile) {
        boolean picked = desk.building()
                && desk.bench().button().filter(b -> b.id().equals(tile.button().id())).isPresent();
        desk.bench().board().button(tile.button().id()).ifPresent(b -> tile.show(b, desk.model(), picked));
    }

    private void refresh(DeckModel.Changes changes) {
        for (Tile tile : tiles.values()) {
            if (changes.buttons().contains(tile.button().id()) || !changes.gear().isEmpty() && watches(tile, changes)) {
                show(tile);
            } else if (changes.runs() || desk.model().guarding(tile.button().id()) != null) {
                tile.run(desk.model());
            }
        }
    }

    private static boolean watches(Tile tile, DeckModel.Changes changes) {
        return tile.button().states().stream().anyMatch(s -> s.face().label() != null && s.face().label().contains("{")
                || s.face().tally().stream().anyMatch(t -> changes.gear().contains(t.when().gear())));
    }

    private Node cell(int column, int row) {
        StackPane cell = new StackPane();
        cell.getStyleClass().add("cell");
        cell.setUserData(new int[]{column, row});
        cell.setId("cell-" + column + "-" + row);
        if (desk.building()) {
            Label add = new Label("+ button");
            cell.getChildren().add(add);
            cell.setAlignment(Pos.CENTER);
            cell.setFocusTraversable(true);
            cell.setAccessibleRole(AccessibleRole.BUTTON);
            cell.setAccessibleText("Add a button in column %d, row %d".formatted(column + 1, row + 1));
            cell.setOnMouseClicked(_ -> addButton(column, row));
            cell.setOnKeyPressed(e -> {
                if (e.getCode() == KeyCode.ENTER || e.getCode() == KeyCode.SPACE) {
                    addButton(column, row);
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

    private void addButton(int column, int row) {
        if (desk.bench().page().at(column, row).isPresent()) {
            return; // Something was dropped here with this very click.
        }
        String name = "New button";
        String id = Edits.freshId(desk.bench().board(), name);
        Button button = new Button(id, name, column, row, 1, 1, Button.Busy.RESTART,
                java.util.List.of(State.named("on")), Map.of());
        desk.bench().edit("add a button", b -> Edits.addButton(b, desk.bench().page().id(), button));
        desk.bench().select(id);
        Tile tile = tiles.get(id);
        if (tile != null) {
            layout();
            tile.requestFocus();
            facePopover.open(tile);
        }
    }

    private Tile tile(Button b) {
        Tile tile = new Tile(b, desk::spoken);
        tile.setId("tile-" + b.id());
        tile.addEventHandler(MouseEvent.MOUSE_PRESSED, e -> mousePressed(tile, e));
        tile.addEventHandler(MouseEvent.MOUSE_DRAGGED, e -> mouseDragged(tile, e));
        tile.addEventHandler(MouseEvent.MOUSE_RELEASED, e -> mouseReleased(tile, e));
        tile.addEventHandler(KeyEvent.KEY_PRESSED, e -> keyPressed(tile, e));
        tile.addEventHandler(KeyEvent.KEY_RELEASED, e -> {
            if (!desk.building() && e.getCode() == KeyCode.SPACE) {
                released("key");
                e.consume();
            }
        });
        tile.focusedProperty().addListener((_, _, focused) -> {
            if (focused && desk.building()) {
                desk.bench().select(tile.button().id());
            } else if (!focused && tile.button().id().equals(pressed)) {
                letGo();
            }
        });
        return tile;
    }

    private void mousePressed(Tile tile, MouseEvent e) {
        tile.requestFocus();
        if (e.getButton() != MouseButton.PRIMARY) {
            return;
        }
        if (desk.building()) {
            desk.bench().select(tile.button().id());
            fromX = e.getSceneX();
            fromY = e.getSceneY();
            grabbed = true;
            dragging = false;
        } else {
            press(tile, "mouse");
        }
    }

    private void press(Tile tile, String source) {
        released(source);
        pressed = tile.button().id();
        desk.press(tile.button().id(), source);
    }

    private void mouseDragged(Tile tile, MouseEvent e) {
        if (!desk.building() || !grabbed) {
            return;
        }
        if (!dragging && Math.hypot(e.getSceneX() - fromX, e.getSceneY() - fromY) > DRAG) {
            dragging = true;
            desk.overlay().close();
            tile.toFront();
        }
        if (dragging) {
            tile.setTranslateX(e.getSceneX() - fromX);
            tile.setTranslateY(e.getSceneY() - fromY);
        }
    }

    private void mouseReleased(Tile tile, MouseEvent e) {
        if (e.getButton() != MouseButton.PRIMARY) {
            return;
        }
        grabbed = false;
        if (!desk.building()) {
            released("mouse");
        } else if (dragging) {
            dragging = false;
            tile.setTranslateX(0);
            tile.setTranslateY(0);
            Button b = tile.button();
            double[] size = cellSize();
            int column = b.column() + (int) Math.round((e.getSceneX() - fromX) / (size[0] + GAP));
            int row = b.row() + (int) Math.round((e.getSceneY() - fromY) / (size[1] + GAP));
            move(b, column, row);
        } else if (e.getClickCount() == 2) {
            facePopover.open(tile);
        }
    }

    private void move(Button b, int column, int row) {
        desk.bench().edit("move " + b.name(), board -> Edits.moveButton(board, b.id(), column, row));
    }

    private void keyPressed(Tile tile, KeyEvent e) {
        Button b = tile.button();
        if (!desk.building()) {
            if (e.getCode() == KeyCode.SPACE) {
                if (!b.id().equals(pressed)) { // The keyboard repeats a key that is held.
                    press(tile, "key");
                }
                e.consume();
            } else {
                arrows(e, b.column(), b.row());
            }
            return;
        }
        switch (e.getCode()) {
            case ENTER, F2 -> {
                facePopover.open(tile);
                e.consume();
            }
            case DELETE, BACK_SPACE -> {
                Confirm.deleteButton(desk, tile, b);
                e.consume();
            }
            default -> {
                if (e.isAltDown() && e.getCode().isArrowKey()) {
                    int[] d = direction(e.getCode());
                    move(b, b.column() + d[0], b.row() + d[1]);
                    e.consume();
                } else {
                    arrows(e, b.column(), b.row());
                }
            }
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
        if (page == null || !e.getCode().isArrowKey() || e.isAltDown()) {
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

    private @Nullable Node nodeAt(Page page, int column, int row) {
        Optional<Button> b = page.at(column, row);
        if (b.isPresent()) {
            return tiles.get(b.get().id());
        }
        return getChildren().stream().filter(n -> n.getUserData() instanceof int[] at && at[0] == column
                && at[1] == row).findFirst().orElse(null);
    }

    /** Opens the face of the selected button for editing. */
    void editFace() {
        desk.bench().button().map(b -> tiles.get(b.id())).ifPresent(facePopover::open);
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
                Button b = t.button();
                place(n, b.column(), b.row(), b.width(), b.height(), size);
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

    /** A control of the rack is carried over the window: where it would land is shown. */
    void carry(Grab grab, double sceneX, double sceneY) {
        carried = grab;
        for (Node n : getChildren()) {
            n.pseudoClassStateChanged(TARGET, n.getBoundsInParent().contains(sceneToLocal(sceneX, sceneY)));
        }
        if (getScene() != null) {
            getScene().setCursor(javafx.scene.Cursor.CLOSED_HAND);
        }
    }

    /** What is carried is let go: on an empty cell it makes a button, on a button or in the score a step. */
    void drop(double sceneX, double sceneY) {
        Grab grab = carried;
        carried = null;
        getChildren().forEach(n -> n.pseudoClassStateChanged(TARGET, false));
        if (getScene() != null) {
            getScene().setCursor(javafx.scene.Cursor.DEFAULT);
        }
        if (grab == null) {
            return;
        }
        for (Node n : List.copyOf(getChildren())) {
            if (n.getBoundsInParent().contains(sceneToLocal(sceneX, sceneY))) {
                if (n instanceof Tile tile) {
                    desk.bench().select(tile.button().id());
                    grab.step().ifPresent(s -> desk.bench().add("grab “" + grab.known().title() + "”", List.of(s)));
                } else if (n.getUserData() instanceof int[] at) {
                    made(grab, at[0], at[1]);
                }
                return;
            }
        }
        Node score = getScene() == null ? null : getScene().lookup("#score-drawing");
        if (score != null && score.contains(score.sceneToLocal(sceneX, sceneY)) && desk.bench().hasChain()) {
            grab.step().ifPresent(s -> desk.bench().add("grab “" + grab.known().title() + "”", List.of(s)));
        }
    }

    private void made(Grab grab, int column, int row) {
        String name = grab.name(desk.model().readings(grab.twin().gear()));
        String id = Edits.freshId(desk.bench().board(), name);
        Button button = grab.button(id, name, column, row);
        desk.bench().edit("grab “" + name + "”", b -> Edits.addButton(b, desk.bench().page().id(), button));
        desk.bench().select(id);
    }
}
