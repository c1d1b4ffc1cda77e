package rombix.links.desktop.machine;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rombix.core.sight.Pixels;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;

/**
 * What a computer lets a program do with it. Keys have the names of {@link rombix.core.computer.Keys}; points are pixels
 * of all screens together, from the upper left. One thread's.
 */
@OwnedBy(Owner.LINK)
public interface Machine extends AutoCloseable {
    /** A rectangle of pixels. */
    record Box(int x, int y, int width, int height) {
        public boolean holds(int px, int py) {
            return px >= x && py >= y && px < x + width && py < y + height;
        }
    }

    /** A point. */
    record Point(int x, int y) {
    }

    /** A window: its application's name and its title. */
    record Window(long id, String application, String title, Box box) {
    }

    /** A program that runs. */
    interface Program {
        /** How it ended, and the first line that it said. */
        record End(int code, String line) {
        }

        /** Waits until it ends. */
        End end() throws InterruptedException;

        /** Ends it. */
        void stop();
    }

    /** Something that is done to it. */
    interface Deed {
        void now() throws Unable, Stopped;
    }

    /** What it cannot do, by the first word of the message that asks for it, with why and what to do. */
    Map<String, String> unable();

    /** Reads the layout of its keys anew, which may have changed. */
    default void ready() {
        // It does not change.
    }

    /** In how many milliseconds the next key may be pressed, so that the program in front can read the last ones. */
    default long keysReadyIn() {
        return 0;
    }

    /** A key goes down or up. */
    void key(String key, boolean down) throws Unable;

    /** Types one character, whatever keys it takes. */
    void type(int codePoint) throws Unable;

    /** The modifiers that are down now, by whatever hand. */
    Set<String> down();

    /** Whether any key or button is down that is no modifier, by whatever hand. */
    boolean touched();

    Point pointer() throws Unable;

    void move(Point to) throws Unable;

    /** @param button left, middle or right */
    void button(String button, boolean down) throws Unable;

    /** One click of the wheel. @param way up, down, left or right */
    void wheel(String way) throws Unable;

    /** Whether its screens are those that this process shows its windows on. */
    default boolean shown() {
        return true;
    }

    /** The screens, the first one first. */
    List<Box> screens() throws Unable;

    /** The windows that are to be seen, the foremost first. */
    List<Window> windows();

    /** The window that has the keyboard; empty where none has. */
    Optional<Window> front();

    /** What is to be seen in a part of its screens. */
    Pixels picture(Box part) throws Unable;

    /** Whether a window of Rombix has the keyboard: of this process or another one. */
    default boolean ownWindow() {
        return front().filter(this::ownWindow).isPresent();
    }

    /** Whether keys would go to a window now, or to one within it. */
    default boolean keyboard(Window window) {
        return front().filter(w -> w.id() == window.id()).isPresent();
    }

    /** Whether a window belongs to Rombix: to this process or another one. */
    default boolean ownWindow(Window window) {
        return false;
    }

    /** The window that gets a click at a point; empty where there is none, or the system does not tell. */
    default Optional<Window> at(Point point) {
        return windows().stream().filter(w -> w.box().holds(point.x(), point.y())).findFirst();
    }

    /** Whether a window would get a click at a point. */
    default boolean topmost(Window window, Point point) {
        return at(point).filter(w -> w.id() == window.id()).isPresent();
    }

    /** Whether a window is not shown on the present desktop. */
    default boolean minimised(Window window) {
        return false;
    }

    /**
     * Does something while no other program can change what is in front and what covers what. Only calls of this machine
     * may be made meanwhile. Where the system has no means for it, it is done as it is.
     */
    default void still(Deed deed) throws Unable, Stopped {
        deed.now();
    }

    /** Whether any hand holds a button of the pointer down. */
    default boolean buttonDown() {
        return false;
    }

    void bring(Window window) throws Unable;

    /** Puts a window above the others, and leaves the keyboard where it is as far as the system knows how. */
    default void raise(Window window) throws Unable {
        bring(window);
    }

    void close(Window window) throws Unable;

    void minimise(Window window) throws Unable;

    void place(Window window, Box box) throws Unable;

    /** Opens a file, a folder or a page with what the system opens it with. */
    void open(String what) throws Unable;

    /** Starts a program. */
    Program run(List<String> command, @Nullable String folder) throws Unable;

    /** The text on the clipboard; empty where there is none. */
    String clipboard() throws Unable;

    void clipboard(String text) throws Unable;

    /**
     * Changes something of the system: {@code volume output}, {@code mute input}, {@code lock}, {@code note};
     * {@code sound volume ID} and {@code sound mute ID} of a program that plays sound.
     */
    void system(String what, String value) throws Unable;

    /** The programs that play sound, as far as the system tells. */
    default List<PlayingApplication> sounding() {
        return List.of();
    }

    /** How the system is in what it can be asked for, by the name of the reading. */
    Map<String, String> system();

    @Override
    void close();
}
