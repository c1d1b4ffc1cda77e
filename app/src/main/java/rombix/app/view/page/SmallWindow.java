package rombix.app.view.page;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import javafx.geometry.Point2D;
import javafx.geometry.Pos;
import javafx.geometry.Rectangle2D;
import javafx.scene.Cursor;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.Slider;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.stage.Screen;
import javafx.stage.Stage;
import javafx.stage.StageStyle;
import javafx.stage.Window;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Manner;
import rombix.app.view.common.Shapes;
import rombix.app.view.common.Space;
import rombix.app.view.common.Theme;
import rombix.app.view.form.Fields;
import rombix.app.view.tile.TileGrid;
import rombix.core.board.Page;
import rombix.running.owner.Settings;

/**
 * A page in a small window of its own that stays on top of everything. It is dragged by its head, may let through what
 * is behind it, and shrinks to its mark and comes back. It presses in Live and in Rehearse.
 */
public final class SmallWindow {
    /** How the log names it where somebody pressed in it. */
    static final String NAME = "the small window";
    private static final double WIDTH = 116;
    private static final double HEIGHT = 72;
    private static final double MARK = 52;
    private static final double LEAST = 0.6;
    private static final double MOST = 3;
    private static final double MIN_OPACITY = 0.35;
    private static final double START = 4;

    private final Desk desk;
    private final Scene main;
    private final Stage stage = new Stage(StageStyle.UNDECORATED);
    private final VBox root = new VBox(Space.S6);
    private final Label mode = new Label();
    private final SmallPlace place = new SmallPlace(new Settings());
    private @Nullable Page shown;
    /** A grid for each page that is shown: the first one's, and those beside it. */
    private List<TileGrid> grids = List.of();
    private final Set<String> beside = new LinkedHashSet<>();
    private boolean mark;
    private double grabX;
    private double grabY;
    private boolean dragged;
    private boolean takes;
    private double scale = 1;
    private String front = "";
    private Manner.Taking taking = _ -> {
    };

    /** @param main the scene whose colours it wears */
    public SmallWindow(Desk desk, Scene main) {
        this.desk = desk;
        this.main = main;
        scale = Math.clamp(place.size(), LEAST, MOST);
        stage.setAlwaysOnTop(true);
        stage.setTitle("Rombix, small window");
        root.getStyleClass().addAll("small-window");
        mode.getStyleClass().add("rehearsal-word");
        Scene scene = new Scene(new StackPane(root));
        scene.getStylesheets().setAll(main.getStylesheets());
        scene.addEventFilter(KeyEvent.KEY_PRESSED, e -> {
            if (e.getCode() == KeyCode.ESCAPE) {
                shrink(true);
                e.consume();
            }
        });
        stage.setScene(scene);
        stage.focusedProperty().addListener((_, _, focused) -> {
            if (!focused) {
                letGo();
            }
        });
        desk.model().watch(_ -> {
            if (stage.isShowing()) {
                grids.forEach(TileGrid::refresh);
                follow();
            }
        });
        desk.bench().watch(this::changed);
    }

    /** The screen that something is on. */
    private static Rectangle2D screen(Rectangle2D of) {
        return Screen.getScreensForRectangle(of).stream().findFirst().orElse(Screen.getPrimary()).getVisualBounds();
    }

    /** What came to the front has a place of its own for this window, where it was put while that was in front. */
    private void follow() {
        String now = desk.bench().rig().twins().keySet().stream()
                .map(g -> desk.model().state().readings(g).apply("front"))
                .filter(v -> v != null).map(String::valueOf).findFirst().orElse("");
        if (now.equals(front)) {
            return;
        }
        front = now;
        place.of(front).ifPresent(at -> {
            Point2D on = SmallPlace.clamped(at, screen(new Rectangle2D(at.getX(), at.getY(), 1, 1)), stage.getWidth(),
                    stage.getHeight());
            stage.setX(on.getX());
            stage.setY(on.getY());
        });
    }

    /** Shows a page; where it was put last, or beside the main window. */
    public void show(Page page) {
        fill(page);
        shrink(false);
        if (!stage.isShowing()) {
            stage.getScene().getRoot().applyCss(); // How large it is depends on its styles.
            Window by = main.getWindow();
            Rectangle2D over = by == null
                    ? Screen.getPrimary().getVisualBounds()
                    : new Rectangle2D(by.getX(), by.getY(), by.getWidth(), by.getHeight());
            Point2D at = place.place(over, screen(over), root.prefWidth(-1), root.prefHeight(-1));
            stage.setX(at.getX());
            stage.setY(at.getY());
            taking = Manner.show(stage);
            taking.keyboard(takes);
        }
        stage.toFront();
    }

    public void close() {
        letGo();
        stage.close();
    }

    public boolean showing() {
        return stage.isShowing();
    }

    /** Where it stands on the screen. */
    Rectangle2D bounds() {
        return new Rectangle2D(stage.getX(), stage.getY(), stage.getWidth(), stage.getHeight());
    }

    public Scene scene() {
        return stage.getScene();
    }

    /** The board has changed: the page is shown as it is now, or no more when it is gone. */
    private void changed() {
        Page before = shown;
        if (!stage.isShowing() || before == null) {
            return;
        }
        mode();
        desk.bench().rig().page(before.id()).ifPresentOrElse(p -> {
            if (!p.equals(before) || !beside.isEmpty()) {
                fill(p);
                stage.sizeToScene();
            }
        }, this::close);
    }

    private void mode() {
        mode.setText(switch (desk.bench().mode()) {
            case BUILD -> "BUILD: NOT LIVE";
            case REHEARSE -> "REHEARSAL";
            case LIVE -> "";
        });
        mode.setManaged(!mode.getText().isEmpty());
        mode.setVisible(!mode.getText().isEmpty());
        Theme.of(main.getRoot()).show(stage.getScene().getRoot());
    }

    private void fill(Page page) {
        letGo();
        shown = page;
        mode();
        root.getChildren().setAll(head(page), pages(page), grip(page));
    }

    private void letGo() {
        grids.forEach(TileGrid::letGo);
    }

    /** A page, and those that are shown beside it, each with its name. */
    private HBox pages(Page page) {
        HBox row = new HBox(Space.S12);
        List<TileGrid> all = new ArrayList<>();
        List<Page> shownNow = new ArrayList<>(List.of(page));
        beside.stream().filter(id -> !id.equals(page.id())).forEach(id -> desk.bench().rig().page(id).ifPresent(
                shownNow::add));
        for (Page p : shownNow) {
            TileGrid grid = new TileGrid(desk, p, "small-", WIDTH * scale, HEIGHT * scale, NAME, () -> {
            });
            all.add(grid);
            Label name = new Label(p.name());
            name.getStyleClass().add("where");
            row.getChildren().add(shownNow.size() == 1 ? grid : new VBox(Space.S3, name, grid));
        }
        grids = List.copyOf(all);
        return row;
    }

    /** Chooses the pages that are shown beside. */
    private MenuButton others(Page page) {
        MenuButton more = new MenuButton("+ page");
        more.setId("small-pages");
        more.getStyleClass().add("quiet-choice");
        more.setAccessibleText("Additional pages");
        more.setMinWidth(Region.USE_PREF_SIZE);
        desk.bench().board().pages().stream().filter(p -> !p.id().equals(page.id())).forEach(p -> {
            CheckMenuItem item = new CheckMenuItem(p.name());
            item.setSelected(beside.contains(p.id()));
            item.setOnAction(_ -> {
                if (!beside.remove(p.id())) {
                    beside.add(p.id());
                }
                fill(page);
                stage.sizeToScene();
            });
            more.getItems().add(item);
        });
        return more;
    }

    private HBox head(Page page) {
        Label name = new Label(page.name());
        name.getStyleClass().add("gear-name");
        name.setMinWidth(Region.USE_PREF_SIZE);
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        Slider opacity = new Slider(MIN_OPACITY, 1, stage.getOpacity());
        opacity.setId("small-opacity");
        opacity.setPrefWidth(72);
        opacity.setMinWidth(48);
        opacity.setAccessibleText("Opacity of the small window");
        opacity.valueProperty().addListener((_, _, o) -> stage.setOpacity(o.doubleValue()));
        Label through = new Label("opacity");
        through.getStyleClass().add("where");
        through.setMinWidth(0);
        ToggleButton keys = new ToggleButton("keys");
        keys.getStyleClass().setAll("toggle-button", "tab");
        keys.setId("small-keys");
        keys.setSelected(takes);
        keys.setAccessibleText("Take the keyboard when clicked");
        keys.setTooltip(new javafx.scene.control.Tooltip(
                "Take the keyboard when clicked. Off: the program you type into keeps it."));
        keys.setOnAction(_ -> {
            takes = keys.isSelected();
            taking.keyboard(takes);
        });
        Button shrink = small("small-shrink", "–", "Shrink to the mark (Esc)");
        shrink.setOnAction(_ -> shrink(true));
        Button close = small("small-close", "×", "Close the small window");
        close.setOnAction(_ -> close());
        Node rhombus = Shapes.rhombus(16, "mark");
        HBox head = new HBox(Space.S8, rhombus, name, mode, space, others(page), through, opacity, keys, shrink, close);
        head.setAlignment(Pos.CENTER_LEFT);
        head.setId("small-head");
        drag(head, () -> {
        });
        return head;
    }

    /** The corner by which the window is made larger or smaller. */
    private HBox grip(Page page) {
        Label corner = new Label("◢");
        corner.getStyleClass().add("where");
        corner.setId("small-grip");
        corner.setAccessibleText("Size of the small window");
        corner.setCursor(Cursor.SE_RESIZE);
        double[] from = new double[2];
        corner.setOnMousePressed(e -> {
            from[0] = e.getScreenX();
            from[1] = scale;
            e.consume();
        });
        corner.setOnMouseDragged(e -> {
            double wide = Math.max(1, root.getWidth() / scale);
            double next = Math.clamp(from[1] + (e.getScreenX() - from[0]) / wide, LEAST, MOST);
            if (Math.abs(next - scale) > 0.02) {
                scale = next;
                resize(page, corner);
            }
            e.consume();
        });
        corner.setOnMouseReleased(e -> {
            place.size(scale);
            fill(page);
            stage.sizeToScene();
            e.consume();
        });
        HBox foot = new HBox(corner);
        foot.setAlignment(Pos.CENTER_RIGHT);
        return foot;
    }

    /** The tiles take another size, while the hand stays on the corner. */
    private void resize(Page page, Label corner) {
        letGo();
        root.getChildren().set(1, pages(page));
        corner.applyCss();
        stage.sizeToScene();
    }

    private static Button small(String id, String sign, String words) {
        Button b = Fields.plain(sign, "");
        b.setId(id);
        b.setAccessibleText(words);
        b.setTooltip(new javafx.scene.control.Tooltip(words));
        b.setMinWidth(30);
        return b;
    }

    /** Shrinks to the mark, or comes back from it. */
    public void shrink(boolean to) {
        Page page = shown;
        if (to == mark || page == null) {
            return;
        }
        mark = to;
        if (to) {
            letGo();
            grids = List.of();
            StackPane only = new StackPane(Shapes.rhombus(28, "mark"));
            only.setId("small-mark");
            only.setPrefSize(MARK, MARK);
            only.setAccessibleText("Small window: " + page.name());
            drag(only, () -> shrink(false));
            root.getChildren().setAll(List.of(only));
        } else {
            fill(page);
        }
        stage.sizeToScene();
    }

    /** The window is dragged by a node; a click that drags nothing does something else. */
    private void drag(Node by, Runnable click) {
        by.addEventHandler(MouseEvent.MOUSE_PRESSED, e -> {
            grabX = e.getScreenX() - stage.getX();
            grabY = e.getScreenY() - stage.getY();
            dragged = false;
        });
        by.addEventHandler(MouseEvent.MOUSE_DRAGGED, e -> {
            double x = e.getScreenX() - grabX;
            double y = e.getScreenY() - grabY;
            dragged |= Math.hypot(x - stage.getX(), y - stage.getY()) > START;
            if (dragged) {
                Point2D at = SmallPlace.clamped(new Point2D(x, y), screen(new Rectangle2D(e.getScreenX(), e
                        .getScreenY(), 1, 1)), stage.getWidth(), stage.getHeight());
                stage.setX(at.getX());
                stage.setY(at.getY());
            }
        });
        by.addEventHandler(MouseEvent.MOUSE_RELEASED, _ -> {
            if (dragged) {
                place.remember(stage.getX(), stage.getY(), front);
            } else {
                click.run();
            }
        });
    }
}
