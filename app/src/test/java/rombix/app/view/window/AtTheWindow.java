package rombix.app.view.window;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.Callable;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Labeled;
import javafx.scene.control.ListView;
import javafx.scene.control.MenuButton;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.control.TextInputControl;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.stage.Stage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.api.FxRobotInterface;
import org.testfx.util.WaitForAsyncUtils;
import rombix.app.edit.Workbench;
import rombix.app.show.Session;
import rombix.app.view.tile.Tile;
import rombix.core.chain.Chain;
import rombix.core.chain.Gesture;
import rombix.core.chain.Step;
import rombix.core.edit.Edits;
import rombix.core.event.Mode;
import rombix.running.input.TriggerInputs;
import rombix.running.log.LogStore;
import rombix.running.owner.OpenedBoard;
import rombix.running.owner.Trust;
import rombix.standins.set.StandIns;

/** A window on a board with real stand-ins, offscreen, and a robot that does what a person does. */
@Timeout(300)
public abstract class AtTheWindow {
    static {
        System.setProperty("testfx.robot.write_sleep", "0"); // Read once, by the first robot.
    }

    /** A port of this machine at which nothing listens. */
    private static final String NOWHERE = "127.0.0.1:9";

    @TempDir
    public Path folder;
    public final Hand robot = new Hand();
    public StandIns gear;
    public Session session;
    public Stage stage;
    public Path file;

    @BeforeAll
    public static void toolkit() {
        Session.startToolkit(true);
    }

    /** Writes the board that the window is opened on. */
    public void board(Path to) throws Exception {
        Files.copy(Path.of("../demo/star-night.json"), to);
    }

    /** The gear that is switched off. */
    public Set<String> off() {
        return Set.of();
    }

    @BeforeEach
    public void open() throws Exception {
        file = folder.resolve("star-night.json");
        board(file);
        gear = StandIns.onFreePorts();
        Map<String, String> addresses = new HashMap<>(gear.addresses());
        addresses.put(TriggerInputs.OSC, "0");
        off().forEach(g -> addresses.put(g, NOWHERE));
        session = Session.open(OpenedBoard.read(file), addresses, LogStore.beside(file), s -> {
            s.setWidth(1280);
            s.setHeight(800);
            stage = s;
        }, trust());
        if (trust().missing(session.window().bench().rig()).isEmpty()) {
            reached();
        }
    }

    /** What the owner of this computer has agreed to. */
    public Trust trust() {
        return Trust.all();
    }

    /** Waits until the gear has said how it is. */
    public void reached() {
        soon(() -> label("#rack-desk-muted/host").equals("MUTED") && label("#rack-house-locked/gate").equals("LOCKED")
                && find("#rack-studio-scene-host-desk") != null);
    }

    @AfterEach
    public void close() throws Exception {
        robot.release(new KeyCode[0]);
        robot.release(new MouseButton[0]);
        if (stage != null) {
            robot.interact(() -> stage.hide());
        }
        session.close();
        gear.close();
    }

    public static void soon(Callable<Boolean> what) {
        await().atMost(Duration.ofSeconds(60)).pollInterval(Duration.ofMillis(10)).until(what);
    }

    /** The node with an id, such as {@code #tile-gate}; null where there is none now. */
    public Node find(String id) {
        return WaitForAsyncUtils.waitForAsyncFx(60_000, () -> under(stage.getScene().getRoot(), id.substring(1)));
    }

    /** A selector would take signs of an id for its own. */
    private static Node under(Node node, String id) {
        if (id.equals(node.getId())) {
            return node;
        }
        if (node instanceof Parent parent) {
            for (Node child : parent.getChildrenUnmodifiable()) {
                Node found = under(child, id);
                if (found != null) {
                    return found;
                }
            }
        }
        return null;
    }

    /** The first node that a selector finds; null where it finds none. The scene belongs to the interface's thread. */
    public Node there(String selector) {
        return WaitForAsyncUtils.waitForAsyncFx(60_000, () -> stage.getScene().getRoot().lookup(selector));
    }

    /** The middle of a node on the screen, when what was just made there has found its place. */
    public Point2D middle(Node node) {
        return WaitForAsyncUtils.waitForAsyncFx(60_000, () -> {
            Node now = node.getScene() == null && node.getId() != null
                    ? stage.getScene().lookup("#" + node.getId()) // It was built anew since it was found.
                    : node;
            now.getScene().getRoot().applyCss();
            now.getScene().getRoot().layout();
            Bounds b = now.localToScreen(now.getBoundsInLocal());
            return new Point2D(b.getCenterX(), b.getCenterY());
        });
    }

    /** Moves the mouse onto a node. */
    public FxRobotInterface moveTo(Node node) {
        return robot.moveTo(middle(node));
    }

    /** The rows of a table, which belong to the interface's thread; none where there is no such table now. */
    @SuppressWarnings("unchecked")
    public <T> List<T> rowsOf(String id) {
        Node table = find(id);
        return WaitForAsyncUtils.waitForAsyncFx(60_000,
                () -> table instanceof TableView<?> t ? List.copyOf((List<T>) t.getItems()) : List.of());
    }

    public String label(String id) {
        return find(id) instanceof Labeled l ? l.getText() : "";
    }

    /** What is said of a node to those who do not see it; nothing where there is no such node now. */
    public String said(String id) {
        Node node = find(id);
        return node == null || node.getAccessibleText() == null ? "" : node.getAccessibleText();
    }

    public Workbench bench() {
        return session.window().bench();
    }

    /** Selects a gear in its sheet, and one of its tabs: connection, items, card or traffic. */
    public void gear(String id, String tab) {
        robot.interact(() -> {
            ListView<?> all = (ListView<?>) under(stage.getScene().getRoot(), "gear-all");
            all.getSelectionModel().select(all.getItems().indexOf(id));
            ((ToggleButton) under(stage.getScene().getRoot(), "gear-tab-" + tab)).fire();
        });
    }

    /** Does something with a page from its menu in the list of pages, which is open. */
    public void pageMenu(String page, String item) {
        robot.interact(() -> ((MenuButton) under(stage.getScene().getRoot(), "page-menu-" + page)).getItems().stream()
                .filter(i -> item.equals(i.getId())).findFirst().orElseThrow().fire());
    }

    public void mode(Mode mode) {
        click(find("#mode-" + mode.name().toLowerCase(java.util.Locale.ROOT)));
        leaveLive();
        assertThat(bench().mode()).isEqualTo(mode);
    }

    /** Says yes where it is asked whether Live is to be left. */
    public void leaveLive() {
        if (find("#leave-live") instanceof javafx.scene.control.Button leave) {
            robot.interact(leave::fire);
        }
    }

    public Tile tile(String button) {
        return (Tile) find("#tile-" + button);
    }

    /** Clicks on a node, with the mouse there at once: the way there is nobody's concern. */
    public void click(Node node) {
        robot.robotContext().getMouseRobot().moveNoWait(middle(node));
        robot.press(MouseButton.PRIMARY).release(MouseButton.PRIMARY);
    }

    /** Presses a key with others held. */
    public void key(KeyCode code, KeyCode... held) {
        robot.typeWith(code, held);
    }

    /** Adds a step by words in the search, where the hand already is. */
    public void add(String words) {
        robot.interact(() -> ((TextInputControl) find("#finder")).setText(words));
        soon(() -> find("#found") != null);
        robot.type(KeyCode.ENTER);
    }

    /** Drags with the mouse from one node to another. */
    public void drag(Node from, Node to) {
        Point2D there = middle(to);
        moveTo(from).press(MouseButton.PRIMARY).moveTo(there).release(MouseButton.PRIMARY);
    }

    /** Has the press of a button's first state do this. */
    public void chain(String button, Step... steps) {
        robot.interact(() -> bench().edit("test", b -> Edits.chain(b, button, 0, Gesture.PRESS, _ -> Chain.of(
                steps))));
    }

    /** Chooses by what stands in a list of choices. */
    public <T> void choose(String id, String words) {
        robot.interact(() -> {
            @SuppressWarnings("unchecked")
            ComboBox<T> box = (ComboBox<T>) stage.getScene().getRoot().lookup(id);
            T item = box.getItems().stream().filter(i -> box.getConverter().toString(i).equals(words)).findFirst()
                    .orElseThrow(() -> new AssertionError(words + " is not among " + box.getItems().stream().map(box
                            .getConverter()::toString).toList()));
            box.setValue(item);
        });
    }

    /** Types into a field as a person does: all of it anew, then Enter. */
    public void type(String id, String text) {
        robot.interact(() -> {
            Node field = stage.getScene().getRoot().lookup(id);
            field.requestFocus();
            (field instanceof ComboBox<?> box ? box.getEditor() : (TextField) field).setText(text);
        });
        robot.type(KeyCode.ENTER);
    }

    /** Undoes everything. */
    public void undoAll() {
        while (bench().undoName().isPresent()) {
            robot.interact(() -> bench().undo());
        }
    }
}
