package rombix.standins.booth;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Base64;
import javax.imageio.ImageIO;

/** What the booth's computer shows on its screen: plain shapes, as no fonts may be there. */
final class BoothPicture {
    private static final Color GROUND = new Color(0x10, 0x16, 0x14);
    private static final Color WINDOW = new Color(0x1B, 0x24, 0x21);
    private static final Color LINE = new Color(0x4A, 0x5A, 0x54);
    private static final Color BUTTON = new Color(0x2E, 0x3B, 0x36);
    private static final Color INK = new Color(0xE6, 0xEC, 0xE8);
    private static final Color LIT = new Color(0xF0, 0xB4, 0x2D);
    private static final int LETTER = 7;
    private static final int TEXT_LINE = 16;

    private final Graphics2D g;
    private final BufferedImage image = new BufferedImage(BoothLook.WIDTH, BoothLook.HEIGHT,
            BufferedImage.TYPE_INT_RGB);

    private BoothPicture(BoothLook look) {
        g = image.createGraphics();
        g.setColor(GROUND);
        g.fillRect(0, 0, BoothLook.WIDTH, BoothLook.HEIGHT);
        g.setStroke(new BasicStroke(2));
        look.windows().reversed().forEach(w -> window(w, look));
        g.dispose();
    }

    /** {@code 0xRRGGBB} for each pixel, row by row. */
    static int[] pixels(BoothLook look) {
        int[] rgb = new BoothPicture(look).image.getRGB(0, 0, BoothLook.WIDTH, BoothLook.HEIGHT, null, 0,
                BoothLook.WIDTH);
        for (int i = 0; i < rgb.length; i++) {
            rgb[i] &= 0xFFFFFF;
        }
        return rgb;
    }

    /** PNG in Base64. */
    static String png(BoothLook look) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            ImageIO.write(new BoothPicture(look).image, "png", out);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return Base64.getEncoder().encodeToString(out.toByteArray());
    }

    private void window(BoothLook.Window w, BoothLook look) {
        BoothLook.Area a = w.area();
        g.setColor(WINDOW);
        g.fillRect(a.x(), a.y(), a.width(), a.height());
        g.setColor(LINE);
        g.drawRect(a.x() + 1, a.y() + 1, a.width() - 2, a.height() - 2);
        g.fillRect(a.x(), a.y(), a.width(), 6);
        if (w.id() == 1) {
            notes(a, look);
        } else {
            chart(a);
        }
    }

    private void notes(BoothLook.Area a, BoothLook look) {
        g.setColor(INK);
        int x = 0;
        int y = 0;
        for (char c : look.text().toCharArray()) { // A mark for each letter, as tall as its letter is far in the alphabet.
            if (c == '\n' || x > a.width() - 48) {
                x = 0;
                y += TEXT_LINE;
            }
            if (c > ' ' && y < 230) {
                int tall = 3 + c % 9;
                g.fillRect(a.x() + 20 + x, a.y() + 50 + y + 12 - tall, LETTER - 2, tall);
            }
            x += c == '\n' ? 0 : LETTER;
        }
        int nx = a.x() + BoothLook.NEXT.x();
        int ny = a.y() + BoothLook.NEXT.y();
        button(nx, ny, BoothLook.NEXT);
        g.setColor(LIT);
        g.fillPolygon(new int[]{nx + 62, nx + 86, nx + 62}, new int[]{ny + 10, ny + 22, ny + 34}, 3);
        g.fillRect(nx + 90, ny + 10, 5, 24);
        int cx = a.x() + BoothLook.CLIP.x();
        int cy = a.y() + BoothLook.CLIP.y();
        button(cx, cy, BoothLook.CLIP);
        g.setColor(INK);
        g.fillRect(cx + 56, cy + 12, 38, 20);
        g.setColor(BUTTON);
        for (int hole = 0; hole < 4; hole++) {
            g.fillRect(cx + 59 + 9 * hole, cy + 14, 5, 4);
            g.fillRect(cx + 59 + 9 * hole, cy + 26, 5, 4);
        }
        button(a.x() + BoothLook.SLIDER.x(), a.y() + BoothLook.SLIDER.y(), BoothLook.SLIDER);
        g.setColor(LIT);
        g.fillRect(a.x() + BoothLook.SLIDER.x(), a.y() + BoothLook.SLIDER.y(),
                BoothLook.SLIDER.width() * look.slider() / 100,
                BoothLook.SLIDER.height());
    }

    private void button(int x, int y, BoothLook.Area area) {
        g.setColor(BUTTON);
        g.fillRect(x, y, area.width(), area.height());
        g.setColor(LINE);
        g.drawRect(x + 1, y + 1, area.width() - 2, area.height() - 2);
    }

    /** Some stars. */
    private void chart(BoothLook.Area a) {
        g.setColor(INK);
        for (int i = 0; i < 60; i++) {
            int size = 2 + i % 4;
            g.fillRect(a.x() + 20 + i * 6151 % Math.max(1, a.width() - 40),
                    a.y() + 30 + i * 3571 % Math.max(1, a.height()
                            - 50),
                    size, size);
        }
    }
}
