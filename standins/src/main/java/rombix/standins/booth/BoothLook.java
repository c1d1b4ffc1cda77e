package rombix.standins.booth;

import java.util.List;
import java.util.Set;

/** How the booth's computer is. @param windows the foremost first */
public record BoothLook(String text, int slides, int clips, int slider, List<Window> windows, int pointerX,
        int pointerY,
        Set<String> down, String clipboard, List<String> log) {
    /** The size of its only screen, in pixels. */
    public static final int WIDTH = 1280;
    public static final int HEIGHT = 800;

    /** A rectangle of pixels on its screen. */
    public record Area(int x, int y, int width, int height) {
        boolean holds(int px, int py) {
            return px >= x && py >= y && px < x + width && py < y + height;
        }
    }

    /** A window; what is in it has places of its own from its upper left corner. */
    public record Window(int id, String application, String title, Area area) {
    }

    /** What stands in the window with the notes, from its upper left corner. */
    public static final Area NEXT = new Area(20, 300, 150, 44);
    public static final Area CLIP = new Area(190, 300, 150, 44);
    public static final Area SLIDER = new Area(20, 370, 320, 24);

}
