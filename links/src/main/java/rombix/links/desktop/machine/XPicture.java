package rombix.links.desktop.machine;

import com.sun.jna.Library;
import com.sun.jna.Native;
import com.sun.jna.NativeLong;
import com.sun.jna.Pointer;
import com.sun.jna.platform.unix.X11;
import rombix.core.sight.Pixels;
import rombix.links.desktop.machine.Machine.Box;

/** What is to be seen on an X server: an XImage, as Xlib.h lays it out. */
final class XPicture {
    private static final int Z_PIXMAP = 2;
    /** Two ints for its size, one for where lines begin, one for the format; then a pointer to the data. */
    private static final int DATA = 16;
    private static final int BYTES_PER_LINE = DATA + Native.POINTER_SIZE + 5 * 4;
    private static final int BITS_PER_PIXEL = BYTES_PER_LINE + 4;

    /** What the general bindings give without its insides. */
    interface Images extends Library {
        Pointer XGetImage(X11.Display display, X11.Window of, int x, int y, int width, int height, NativeLong planes,
                int format);

        int XDestroyImage(Pointer image);
    }

    private static final Images IMAGES = Native.load("X11", Images.class);

    private XPicture() {
    }

    static Pixels of(X11.Display display, X11.Window root, Box part) throws Unable {
        Pointer at = IMAGES.XGetImage(display, root, part.x(), part.y(), part.width(), part.height(), new NativeLong(
                -1), Z_PIXMAP);
        if (at == null) {
            throw new Unable("that part of the screen can't be captured");
        }
        try {
            int line = at.getInt(BYTES_PER_LINE);
            if (at.getInt(BITS_PER_PIXEL) != 32) {
                throw new Unable("this screen has too few colours to find pictures on it");
            }
            Pointer data = at.getPointer(DATA);
            int[] rgb = new int[part.width() * part.height()];
            for (int y = 0; y < part.height(); y++) {
                data.read((long) y * line, rgb, y * part.width(), part.width());
            }
            for (int i = 0; i < rgb.length; i++) {
                rgb[i] &= 0xFFFFFF;
            }
            return new Pixels(part.width(), part.height(), rgb);
        } finally {
            IMAGES.XDestroyImage(at);
        }
    }
}
