package rombix.links.desktop;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.IntConsumer;
import org.jspecify.annotations.Nullable;
import rombix.core.sight.Pixels;
import rombix.links.desktop.machine.Machine;
import rombix.links.desktop.machine.Unable;

/** A computer in memory: windows with places, of which some are Rombix's own, and a line for all that is done. */
final class FakeMachine implements Machine {
    static final Window NOTES = new Window(1, "notes", "Notes", new Box(100, 100, 400, 300));
    static final Window TERMINAL = new Window(2, "Terminal", "Terminal", new Box(200, 200, 400, 300));
    static final Window DECK = new Window(9, "Rombix", "Star Night", new Box(0, 0, 300, 300));
    static final Box SCREEN = new Box(0, 0, 1280, 800);

    String clipboard = "";
    final List<String> done = new ArrayList<>();
    /** The foremost first. */
    final List<Window> windows = new ArrayList<>();
    /** Whether windows come to the front when they are asked to. */
    boolean raises = true;
    boolean button;
    /** What happens after so many keys. */
    IntConsumer afterKeys = _ -> {
    };
    private int keys;
    private Point pointer = new Point(640, 400);

    FakeMachine(Window... foremostFirst) {
        windows.addAll(List.of(foremostFirst));
    }

    @Override
    public void key(String key, boolean down) {
        done.add(key + (down ? " down" : " up"));
        if (down) {
            afterKeys.accept(++keys);
        }
    }

    @Override
    public void type(int codePoint) {
        done.add(Character.toString(codePoint));
        afterKeys.accept(++keys);
    }

    @Override
    public Set<String> down() {
        return Set.of();
    }

    @Override
    public Point pointer() {
        return pointer;
    }

    @Override
    public void move(Point to) {
        pointer = to;
    }

    @Override
    public void button(String name, boolean down) {
        if (down) {
            done.add(name + " at " + at(pointer).map(Window::application).orElse("nothing"));
        }
    }

    @Override
    public void wheel(String way) {
        done.add(way + " at " + at(pointer).map(Window::application).orElse("nothing"));
    }

    @Override
    public boolean buttonDown() {
        return button;
    }

    @Override
    public List<Box> screens() {
        return List.of(SCREEN);
    }

    @Override
    public List<Window> windows() {
        return List.copyOf(windows);
    }

    @Override
    public Optional<Window> front() {
        return windows.stream().findFirst();
    }

    @Override
    public boolean ownWindow(Window window) {
        return window.id() == DECK.id();
    }

    @Override
    public void bring(Window window) {
        if (raises) {
            windows.remove(window);
            windows.addFirst(window);
        }
    }

    @Override
    public Map<String, String> unable() {
        return Map.of();
    }

    @Override
    public boolean touched() {
        return false;
    }

    @Override
    public Pixels picture(Box part) throws Unable {
        throw new Unable("nothing is shown here");
    }

    @Override
    public void close(Window window) {
        windows.remove(window);
    }

    @Override
    public void minimise(Window window) {
        windows.remove(window);
    }

    @Override
    public void place(Window window, Box box) {
        done.add("place " + window.title());
    }

    @Override
    public void open(String what) {
        done.add("open " + what);
    }

    @Override
    public Program run(List<String> command, @Nullable String folder) throws Unable {
        throw new Unable("nothing runs here");
    }

    @Override
    public String clipboard() {
        return clipboard;
    }

    @Override
    public void clipboard(String text) {
        clipboard = text;
        done.add("clipboard " + text);
    }

    @Override
    public void system(String what, String value) {
        done.add(what + " " + value);
    }

    @Override
    public Map<String, String> system() {
        return Map.of();
    }

    @Override
    public void close() {
        done.add("closed");
    }
}
